// From stage to stage of a block without a new document: what differs is exchanged, while scripts, styles and the place on the map stay. Whatever does
// not go that way, the browser does as ever.
import { forgetGone } from "./asking.js";
import { inTurn, settled, unchanged } from "./changes.js";
import { left } from "./kept.js";
import { EXCHANGE, LEAVE, rewrite } from "./rewriting.js";

/** Where two stages differ. */
const PARTS = ["header.top", "main"];
/** Of that, the map is the sheet's affair, and what asks for something asks for the stage it was written for. */
const how = (shown, written) =>
  (shown.id === "map" && LEAVE) || ((shown.id === "book" || written.hasAttribute("hx-get")) && EXCHANGE);
const here = () => window.location.pathname + window.location.search;
/** What stands on the page. */
let shown = here();
/** A page asked for when the finger goes down is taken if it is let go within so long. */
const PRESS_MS = 1500;
const STAGE = /^\/blocks\/\d+\/[a-z-]+$/;

/**
 * @param leave told before what is shown goes
 * @param arrive told when the other stage stands there
 */
export function wireStages(leave, arrive) {
  const root = document.documentElement;
  let asked = 0;
  let early = null;

  /** The page that was asked for when the finger went down, as long as it is still true; else asked for now. */
  function pageFor(href) {
    const { page, since, at } = early && early.href === href ? early : {};
    early = null;
    return page && unchanged(since) && performance.now() - at < PRESS_MS ? page : pageOf(href);
  }

  /** Changes that wait are made first, and those that are pressed meanwhile are made on the page that comes. */
  function turn(href, push) {
    const mine = ++asked;
    root.toggleAttribute("data-turning", true);
    return inTurn(async () => {
      const page = mine === asked && (await pageFor(href));
      // Of two presses the last one counts.
      if (mine !== asked) return;
      if (page) exchange(page, href, push);
      else window.location.assign(href);
    });
  }

  function exchange(page, href, push) {
    leave();
    left();
    document.title = page.title;
    for (const part of PARTS) {
      rewrite(document.querySelector(part), document.adoptNode(page.querySelector(part)), how);
    }
    window.htmx.process(document.querySelector("main"));
    forgetGone();
    if (push) window.history.pushState({ stage: true }, "", href);
    shown = here();
    arrive();
    root.toggleAttribute("data-turning", false);
  }

  document.addEventListener("pointerdown", (event) => {
    const link = plain(event) && event.target.closest("#stages a");
    const since = settled();
    if (link && since !== null && turnable()) {
      early = { href: link.href, since, at: performance.now(), page: pageOf(link.href) };
    }
  });
  document.addEventListener("click", (event) => {
    if (event.defaultPrevented || !plain(event)) return;
    const link = event.target.closest("#stages a, #book a[data-book]");
    if (!link || !turnable()) return;
    event.preventDefault();
    if ("book" in link.dataset) open(link.href);
    else turn(link.href, link.href !== window.location.href);
  });
  document.addEventListener("change", (event) => {
    const form = event.target.closest("form[data-book]");
    if (form) open(`${form.action}?${new URLSearchParams(new FormData(form))}`);
  });
  window.addEventListener("popstate", (event) => {
    // A place within the page is no other page.
    if (here() === shown || !STAGE.test(window.location.pathname) || !turnable()) return;
    event.stopImmediatePropagation();
    turn(window.location.href, false);
  });
}

/** A press that asks for nothing special, such as another window. */
const plain = ({ button, ctrlKey, metaKey, shiftKey, altKey }) =>
  button === 0 && !ctrlKey && !metaKey && !shiftKey && !altKey;

/** Opens the book of the same stage at another place. */
function open(href) {
  window.history.pushState({ stage: true }, "", href);
  shown = here();
  openBook(href);
}

/**
 * Asks for the book of an address and puts it in the place of the one that is shown.
 *
 * @param also what else of that page takes its place here
 */
export function openBook(href, also = null) {
  return inTurn(() =>
    window.htmx.ajax("GET", href, { target: "#book", select: "#book", swap: "book", selectOOB: also }).catch(() => {}),
  );
}

/** The look from anywhere keeps graphics of its own; it is left with its document. */
const turnable = () => document.getElementById("stages") && !document.getElementById("space");

/** The page of a stage; nothing where something else came, or it needs other scripts than are here. */
async function pageOf(href) {
  try {
    const answer = await fetch(href, { headers: { Accept: "text/html" } });
    if (!answer.ok || answer.redirected) return null;
    const page = new DOMParser().parseFromString(await answer.text(), "text/html");
    const scripts = (of) =>
      [...of.querySelectorAll("script[src]:not([data-first])")].map((one) => one.getAttribute("src")).join();
    // The map is here already.
    page.querySelector(".still")?.remove();
    const whole = page.getElementById("book") && PARTS.every((part) => page.querySelector(part));
    return whole && scripts(page) === scripts(document) ? page : null;
  } catch {
    return null;
  }
}
