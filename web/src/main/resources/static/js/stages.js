// From stage to stage of a block without a new document: what differs is exchanged, while scripts, styles and the place on the map stay. Whatever does
// not go that way, the browser does as ever.
import { forgetGone } from "./asking.js";
import { inTurn } from "./changes.js";
import { left } from "./kept.js";

/** What differs between two stages. */
const PARTS = ["header.top", "main"];
const here = () => window.location.pathname + window.location.search;
/** What stands on the page. */
let shown = here();
const STAGE = /^\/blocks\/\d+\/[a-z-]+$/;

/**
 * @param leave told before what is shown goes
 * @param arrive told when the other stage stands there
 */
export function wireStages(leave, arrive) {
  const root = document.documentElement;
  let asked = 0;

  /** Changes that wait are made first, and those that are pressed meanwhile are made on the page that comes. */
  function turn(href, push) {
    const mine = ++asked;
    root.toggleAttribute("data-turning", true);
    return inTurn(async () => {
      const page = mine === asked && (await pageOf(href));
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
      const fresh = document.adoptNode(page.querySelector(part));
      document.querySelector(part).replaceWith(fresh);
      window.htmx.process(fresh);
    }
    forgetGone();
    if (push) window.history.pushState({ stage: true }, "", href);
    shown = here();
    arrive();
    root.toggleAttribute("data-turning", false);
  }

  document.addEventListener("click", (event) => {
    if (
      event.defaultPrevented ||
      event.button !== 0 ||
      event.ctrlKey ||
      event.metaKey ||
      event.shiftKey ||
      event.altKey
    )
      return;
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

/** Opens the book of the same stage at another place. */
function open(href) {
  window.history.pushState({ stage: true }, "", href);
  shown = here();
  openBook(href);
}

/** Asks for the book of an address and puts it in the place of the one that is shown. */
export function openBook(href) {
  return inTurn(() =>
    window.htmx.ajax("GET", href, { target: "#book", select: "#book", swap: "book" }).catch(() => {}),
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
    const scripts = (of) => [...of.querySelectorAll("script[src]")].map((one) => one.getAttribute("src")).join();
    const whole = page.getElementById("book") && PARTS.every((part) => page.querySelector(part));
    return whole && scripts(page) === scripts(document) ? page : null;
  } catch {
    return null;
  }
}
