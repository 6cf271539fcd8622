// Changes of a block go to the program one after the other, each with the version that the one before left behind. So a
// quick hand is never told that it overtook itself, and only a change from another tab is.
import { changed, waits } from "./unsent.js";

const queue = [];
const under = [];
let busy = false;
let told = 0;

/** Posts a change when its turn comes. Answers whether it was made. */
export function change(url, values) {
  // Enter in a field that was changed tells the same twice: as a change and as a form sent.
  const same = [...queue, ...under].find(
    (other) =>
      other.url === url &&
      "value" in values &&
      other.values.value === values.value &&
      (values.act || "type") === "type" &&
      (other.values.act || "type") === "type",
  );
  if (same) return same.promise;
  const entry = { url, values };
  entry.promise = new Promise((resolve) => {
    entry.resolve = resolve;
  });
  queue.push(entry);
  told++;
  pump();
  return entry.promise;
}

/** How many changes this page has told the program; nothing while one is under way. */
export function settled() {
  return busy || queue.length > 0 ? null : told;
}

/** Whether it has told none since. */
export const unchanged = (since) => since !== null && since === told;

/** Lets something else that takes the place of the book, or of the whole page, wait for its turn among the changes. */
export function inTurn(run) {
  return new Promise((resolve) => {
    queue.push({ url: "", values: {}, run, resolve });
    pump();
  });
}

/** The page says whether changes are under way, so that what watches it need not guess. */
function tell() {
  document.documentElement.toggleAttribute("data-changing", busy || queue.length > 0);
}

async function pump() {
  if (busy || queue.length === 0) return tell();
  busy = true;
  tell();
  const entry = queue.shift();
  under.push(entry);
  let made = false;
  try {
    made = await (entry.run ? entry.run() : post(entry));
  } finally {
    // Whatever came of it, the next has its turn.
    busy = false;
    under.length = 0;
    entry.resolve(made);
    pump();
  }
}

async function post({ url, values }) {
  const book = document.getElementById("book");
  let made = false;
  // Others ask in the meantime, for remedies or how far a proof is; only the answer to this change says whether it was made.
  const told = (event) => {
    const asked = event.detail.requestConfig;
    if (asked && asked.verb === "post" && asked.path === url) made = event.detail.successful;
  };
  document.body.addEventListener("htmx:afterRequest", told);
  try {
    await window.htmx.ajax("POST", url, {
      source: "#book",
      target: "#book",
      swap: "book",
      values: { ...values, version: book.dataset.version, stage: book.dataset.stage },
    });
  } catch (error) {
    made = false;
  }
  document.body.removeEventListener("htmx:afterRequest", told);
  return made;
}

/** Whether what stands in a field is what has just been sent from it: then the answer says it better. */
function justSent(field) {
  return under.some(({ url, values }) => {
    if (!field.form || url !== field.form.getAttribute("action")) return false;
    const sent = [values[field.name]].flat().includes(field.value);
    return field.type === "checkbox" || field.type === "radio" ? sent === field.checked : sent;
  });
}

/** Whether somebody has put into a field what has not been sent yet: it is being typed, or waits for its button. */
export function typedInto(field) {
  const typing = field === document.activeElement && field.matches("input, textarea");
  return (typing || waits(field)) && changed(field) && !justSent(field);
}

/** The fields of a form, with the button that sent it, without the state that is added when the turn comes. */
export function fieldsOf(form, submitter) {
  const values = {};
  for (const [name, value] of new FormData(form).entries()) {
    values[name] = name in values ? [values[name], value].flat() : value;
  }
  if (submitter && submitter.name) values[submitter.name] = submitter.value;
  delete values.version;
  delete values.stage;
  delete values._csrf;
  return values;
}

// Forms that change the block take their turn. A form that carries a file goes by itself.
document.addEventListener("submit", (event) => {
  const form = event.target.closest("form[data-change]");
  if (!form || event.defaultPrevented) return;
  event.preventDefault();
  change(form.getAttribute("action"), fieldsOf(form, event.submitter));
});
document.addEventListener("change", (event) => {
  const form = event.target.closest("form[data-change]");
  const sends = form && form.dataset.sends;
  if (sends !== "change" && !(sends === "figure" && event.target.matches("input.figure"))) return;
  if (form.reportValidity()) change(form.getAttribute("action"), fieldsOf(form));
});
