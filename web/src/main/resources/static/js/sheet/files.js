// Outline files: chosen with the button, or dropped on the sheet.
const LARGEST_FILE = 20_000_000;

/**
 * @param element the sheet
 * @param say tells a line of warning
 * @param taken told when a file was sent
 * @param signal when the sheet is left
 */
export function takeFiles(element, say, taken, signal) {
  const form = document.getElementById("import");
  const input = form.querySelector("input[type=file]");
  const tooLarge = (file) => {
    if (file.size <= LARGEST_FILE) return false;
    const size = Math.round(file.size / 1e6);
    say(`“${file.name}” has ${size} MB; up to 20 MB are read. Export the boundary alone, without pictures.`);
    return true;
  };
  const refuseLarge = (event) => {
    if (!input.files[0] || !tooLarge(input.files[0])) return;
    event.stopImmediatePropagation();
    input.value = "";
  };
  form.addEventListener("change", refuseLarge, { capture: true, signal });
  const version = (event) => {
    if (event.target === form) event.detail.parameters.version = document.getElementById("book").dataset.version;
  };
  const after = (event) => {
    if (event.target !== form) return;
    input.value = "";
    taken();
  };
  document.body.addEventListener("htmx:configRequest", version, { signal });
  document.body.addEventListener("htmx:afterRequest", after, { signal });
  const neat = element.querySelector(".neat");
  const over = (event) => {
    event.preventDefault();
    neat.classList.add("dropping");
  };
  const drop = (event) => {
    event.preventDefault();
    neat.classList.remove("dropping");
    const file = event.dataTransfer.files[0];
    if (!file || tooLarge(file)) return;
    input.files = event.dataTransfer.files;
    window.htmx.trigger(form, "submit");
  };
  neat.addEventListener("dragover", over, { signal });
  neat.addEventListener("dragleave", () => neat.classList.remove("dropping"), { signal });
  neat.addEventListener("drop", drop, { signal });
}
