// Glue of every page: keys, looks, notices, nudges. The sheet has a module of its own.
import "./asking.js";
import { change, fieldsOf, typedInto } from "./changes.js";
import { wireDay } from "./day.js";
import { wireFaces } from "./faces.js";
import { keepPages, offerAll } from "./kept.js";
import { Sheet } from "./sheet/sheet.js";
import { openBook, wireStages } from "./stages.js";
import { wireContact, wireTake } from "./take.js";
import "./token.js";
import { gathered, putBack } from "./unsent.js";

// Messages of the program name their own place; an answer without one is shown as a plain line.
document.body.addEventListener("htmx:beforeSwap", (event) => {
  const { xhr } = event.detail;
  if (xhr.status >= 400 && !xhr.getResponseHeader("HX-Retarget")) {
    event.detail.shouldSwap = false;
    say(
      xhr.status === 403
        ? "The page was too old to act; nothing was changed. Press once more, or reload it."
        : "The program did not answer as it should. Reload the page; nothing saved is lost.",
    );
  }
});
document.body.addEventListener("htmx:sendError", () =>
  say("The program does not answer. Is it still running? What you typed is not saved yet."),
);

function say(sentence) {
  const place = document.getElementById("notice");
  if (!place) return;
  const line = document.createElement("div");
  line.className = "notice";
  line.setAttribute("role", "alert");
  const words = document.createElement("p");
  words.textContent = sentence;
  const dismiss = document.createElement("button");
  dismiss.type = "button";
  dismiss.className = "button";
  dismiss.dataset.dismiss = "";
  dismiss.textContent = "Dismiss";
  line.append(words, dismiss);
  place.replaceChildren(line);
}

// A refusal is told beside the field it is about as well; what was typed stays to be put right.
document.body.addEventListener("htmx:afterSwap", (event) => {
  const notice = event.detail.target.id === "notice" && event.detail.target.querySelector("[data-field]");
  if (!notice || !notice.dataset.field) return;
  const name = CSS.escape(notice.dataset.field);
  const sent = event.detail.requestConfig && event.detail.requestConfig.elt;
  const field =
    document.getElementById("f-" + notice.dataset.field) ||
    (sent && sent.querySelector && sent.querySelector(`[name="${name}"]:not([type=hidden])`));
  if (!field || field.type === "file") return;
  for (const told of document.querySelectorAll(".field-fault")) told.remove();
  const line = document.createElement("p");
  line.className = "field-fault fault";
  line.id = "fault-" + notice.dataset.field;
  line.textContent = notice.querySelector("span").textContent;
  (field.closest(".field") || field.closest("form")).after(line);
  field.setAttribute("aria-invalid", "true");
  field.setAttribute("aria-errormessage", line.id);
  const done = () => {
    line.remove();
    field.removeAttribute("aria-invalid");
  };
  field.addEventListener("input", done, { once: true });
});

document.addEventListener("click", (event) => {
  const dismiss = event.target.closest("[data-dismiss]");
  if (dismiss) dismiss.closest(".notice").remove();
});

// What is being typed in one row survives the answer to a change in another, and what waits for its button survives them all.
let typed = [];
document.body.addEventListener("htmx:beforeSwap", () => {
  typed = gathered(typedInto);
});
document.body.addEventListener("htmx:afterSwap", () => putBack(typed.splice(0)));

// What was opened is brought into sight: a reason, or the what-if.
function showOpened() {
  const opened = document.querySelector("#book .fold[aria-expanded='true']") || document.querySelector("#book .reason");
  const page = opened && opened.closest(".book-page");
  if (!page) return;
  const sticky = page.querySelector(".cost");
  const below =
    opened.getBoundingClientRect().bottom -
    page.getBoundingClientRect().bottom +
    (sticky && !sticky.contains(opened) ? sticky.offsetHeight : 0);
  const wanted = opened.classList.contains("fold")
    ? opened.getBoundingClientRect().top - page.getBoundingClientRect().top - 40
    : below;
  if (wanted > 0) page.scrollTop += wanted;
}
let openedBefore = "";
document.body.addEventListener("htmx:afterSettle", () => {
  const now = new URLSearchParams(location.search).get("why") || "";
  if (now && now !== openedBefore) showOpened();
  openedBefore = now;
});
showOpened();

// What the operator unfolded or folded stays so when the page is written anew.
const folds = new Map();
const foldsOf = (page) => page.querySelectorAll("details.folded[id]");
document.body.addEventListener("htmx:beforeSwap", () => {
  for (const fold of foldsOf(document)) folds.set(fold.id, fold.open);
});
document.body.addEventListener("htmx:afterSwap", () => {
  for (const fold of foldsOf(document)) if (folds.has(fold.id)) fold.open = folds.get(fold.id);
});

// A change leaves the page where it was: whoever presses a row far down finds it under the hand again.
const SCROLLED = ["#book .book-page", "#book .findings"];
let scrolled = [];
document.body.addEventListener("htmx:beforeSwap", (event) => {
  if (event.detail.target.id !== "book") return;
  scrolled = SCROLLED.map((name) => document.querySelector(name)?.scrollTop || 0);
});
document.body.addEventListener("htmx:afterSwap", (event) => {
  if (event.detail.target.id !== "book") return;
  SCROLLED.forEach((name, i) => {
    const page = document.querySelector(name);
    if (page && scrolled[i]) page.scrollTop = scrolled[i];
  });
});

// What is done in the background brings a book of its own: a proof, and photos that were sent.
document.body.addEventListener("htmx:afterSettle", () => {
  const done = document.querySelector("#book [data-done='true']");
  if (!done) return;
  done.dataset.done = "seen";
  renew();
});
async function renew() {
  await openBook(location.pathname + location.search, "#stages:rewrite");
  document.body.dispatchEvent(new Event("book-renewed"));
  if (sheet && sheet.plan && sheet.field) sheet.field.load();
}
document.body.addEventListener("htmx:afterSettle", (event) => {
  if (event.target.id === "book" && sheet && sheet.plan && document.getElementById("proof")) {
    sheet.drawPicture();
    sheet.drawMarks();
  }
});

// Nudges: the first goes off at once; those that a quick finger adds meanwhile gather and go together.
const steps = new Map();
let nudging = false;

function nudge(row, by) {
  steps.set(row, (steps.get(row) || 0) + by);
  if (!nudging) sendNudges();
}

async function sendNudges() {
  nudging = true;
  while (steps.size > 0) {
    const gathered = [...steps];
    steps.clear();
    await Promise.all(gathered.map(([row, by]) => sendNudge(row, by)));
  }
  nudging = false;
}

function sendNudge(row, by) {
  const form = document.querySelector(`form[data-row="${CSS.escape(row)}"]`);
  if (!form || by === 0) return null;
  const { value, ...fields } = fieldsOf(form);
  return change(form.getAttribute("action"), { ...fields, act: String(by) });
}

document.addEventListener("keydown", (event) => {
  const figure = event.target.closest("input.figure");
  if (figure && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
    event.preventDefault();
    figure.value = figure.defaultValue;
    // Where nothing stands yet there is nothing to start from, and no button for it either.
    if (figure.form.querySelector(".step"))
      nudge(figure.form.dataset.row, (event.key === "ArrowUp" ? 1 : -1) * (event.shiftKey ? 10 : 1));
  }
  if (figure && event.key === "Escape") figure.value = figure.defaultValue;
});
document.addEventListener(
  "click",
  (event) => {
    const step = event.target.closest(".row .step");
    if (step) {
      event.preventDefault();
      nudge(step.form.dataset.row, Number(step.value));
    }
  },
  true,
);
// A slider moves the plan while it is dragged: the newest place goes off as soon as the answer before has come.
let sliding = false;
let slid = null;
document.addEventListener("input", (event) => {
  const slider = event.target.closest(".slide input[type=range]");
  if (!slider) return;
  slid = {
    url: slider.form.dataset.url,
    values: { ...fieldsOf(slider.form), act: "type", value: `${slider.value} m` },
  };
  if (!sliding) slideOn();
});
async function slideOn() {
  sliding = true;
  while (slid) {
    const { url, values } = slid;
    slid = null;
    await change(url, values);
  }
  sliding = false;
}

document.addEventListener("focusin", (event) => {
  if (event.target.matches("input.figure, input.position")) event.target.select();
});

// Looks change at once, chosen before this script had come as well.
function takeLook(look) {
  if (!look || look.value === document.documentElement.dataset.look) return;
  look.form.elements.back.value = location.pathname + location.search;
  look.form.requestSubmit();
}
document.addEventListener("change", (event) => {
  if (event.target.id === "look") takeLook(event.target);
});
takeLook(document.getElementById("look"));

document.addEventListener(
  "submit",
  (event) => {
    const question = event.target.dataset.confirm;
    if (!question || window.confirm(question)) return;
    event.preventDefault();
    event.stopPropagation();
  },
  true,
);

const help = document.getElementById("help");
document.addEventListener("click", (event) => {
  if (event.target.closest("#help-open")) help.showModal();
});

let sheet = null;
/** The sheet of the page, where it has one. */
function openSheet(kept) {
  const element = document.getElementById("sheet");
  sheet = element ? new Sheet(element, say, kept) : null;
  window.yalosSheet = sheet;
}
openSheet(null);

let board = null;
wireStages(
  () => {
    board = sheet ? sheet.leave() : board;
  },
  () => {
    openSheet(board);
    wireTake(renew);
    offerAll();
    const here = document.querySelector("#stages a[aria-current]");
    // Asked for when it has it already, the browser would lay out the whole page for it.
    if (here !== document.activeElement) here?.focus({ preventScroll: true });
  },
);

const STAGE_KEYS = {
  b: "brief",
  g: "ground",
  k: "kit",
  s: "strips",
  p: "proof",
  c: "control",
  j: "objects",
  o: "sorties",
  i: "field-pack",
  t: "take",
  a: "accuracy",
  l: "log",
};
document.addEventListener("keydown", (event) => {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !event.target.closest("textarea")) {
    const field = event.target.closest("input");
    if (field && field.value !== field.defaultValue) return;
    const button = document.getElementById(event.shiftKey ? "redo" : "undo");
    if (button && !button.disabled) {
      event.preventDefault();
      button.click();
    }
    return;
  }
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input, textarea, select, dialog[open]"))
    return;
  if (event.key === "?") {
    help.showModal();
    return;
  }
  const stage = STAGE_KEYS[event.key];
  const link = stage && document.querySelector(`#stages a[data-stage="${stage}"]`);
  if (link) {
    link.click();
    return;
  }
  if (sheet) sheet.key(event.key);
});

/** Counts down by the clock; what is waited for is told when it is over. */
document.addEventListener("click", (event) => {
  const timer = event.target.closest("button.timer");
  if (!timer) return;
  const end = performance.now() + Number(timer.dataset.seconds) * 1000;
  timer.disabled = true;
  const step = () => {
    const left = Math.ceil((end - performance.now()) / 1000);
    timer.textContent = left > 0 ? `${left} s` : `${timer.dataset.seconds} s are over`;
    timer.disabled = left > 0;
    if (left > 0) window.setTimeout(step, 200);
  };
  step();
});

document.addEventListener("click", (event) => {
  const counter = event.target.closest("button.counter");
  if (!counter) return;
  counter.dataset.taken = String(Number(counter.dataset.taken) + 1);
  counter.textContent = `${counter.dataset.taken} of ${counter.dataset.shots} shots`;
});

wireFaces();
wireDay();
wireTake(renew);
document.body.addEventListener("htmx:afterSwap", () => wireTake(renew));
wireContact();
keepPages();
document.addEventListener("click", (event) => {
  if (event.target.closest("[data-print]")) window.print();
});
