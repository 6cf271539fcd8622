// The day's chart: a sortie, or the time of leaving, is dragged along the hours; all that comes after follows.
import { change } from "./changes.js";
import { clock, dragged, STEP_MIN } from "./hours.js";

/** Minutes of the day in one pixel of a chart as it stands on the screen. */
function minutesPerPx(svg) {
  const { from, to, left, right } = svg.dataset;
  const shown = svg.getBoundingClientRect().width / svg.viewBox.baseVal.width;
  return (Number(to) - Number(from)) / ((Number(right) - Number(left)) * shown);
}

function send(bar, minute) {
  const block = bar.closest("[data-block]").dataset.block;
  const at = clock(minute);
  if (bar.dataset.sortie) change(`/blocks/${block}/sorties/hold`, { sortie: bar.dataset.sortie, at });
  else change(`/blocks/${block}/sorties/start`, { start: at });
}

/** Listens for bars that are dragged, or moved by the arrow keys. */
export function wireDay() {
  let held = null;
  document.addEventListener("pointerdown", (event) => {
    const bar = event.target.closest && event.target.closest("[data-sortie],[data-start]");
    if (!bar || !bar.closest("#day-svg")) return;
    event.preventDefault();
    held = { bar, from: event.clientX, minute: Number(bar.dataset.minute), each: minutesPerPx(bar.ownerSVGElement) };
    bar.classList.add("held");
  });
  document.addEventListener("pointermove", (event) => {
    if (!held) return;
    const to = dragged(held.minute, event.clientX - held.from, held.each);
    const shown =
      held.bar.ownerSVGElement.getBoundingClientRect().width / held.bar.ownerSVGElement.viewBox.baseVal.width;
    held.bar.setAttribute("transform", `translate(${(to - held.minute) / held.each / shown} 0)`);
    held.to = to;
  });
  document.addEventListener("pointerup", () => {
    if (!held) return;
    const { bar, to, minute } = held;
    bar.classList.remove("held");
    held = null;
    if (to !== undefined && Math.abs(to - minute) >= STEP_MIN / 2) send(bar, to);
    else bar.removeAttribute("transform");
  });
  document.addEventListener("keydown", (event) => {
    const bar = event.target.closest && event.target.closest("#day-svg [data-sortie], #day-svg [data-start]");
    if (!bar || (event.key !== "ArrowLeft" && event.key !== "ArrowRight")) return;
    event.preventDefault();
    send(bar, dragged(Number(bar.dataset.minute) + (event.key === "ArrowLeft" ? -STEP_MIN : STEP_MIN), 0, 1));
  });
}
