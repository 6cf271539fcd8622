// What the page has asked for through htmx and not heard yet, and how the book becomes the one that is answered.
import { typedInto } from "./changes.js";
import { EXCHANGE, rewrite } from "./rewriting.js";

/** Requests by the element that asked. */
const open = new Map();
document.addEventListener("htmx:beforeSend", ({ detail }) => {
  if (detail.requestConfig.verb === "get") open.set(detail.xhr, detail.elt);
});
document.addEventListener("htmx:afterRequest", ({ detail }) => open.delete(detail.xhr));

/**
 * Calls off what was asked by elements that are gone. Nobody waits for it any more, and a browser asks only six things of a program at once: what is
 * asked next would wait behind it.
 */
export function forgetGone() {
  for (const [request, element] of open) {
    if (element.isConnected) continue;
    open.delete(request);
    request.onabort = null;
    request.abort();
  }
}

/**
 * What asks for something itself asks anew as soon as it is to be something else. So does a list whose parts take turns, while one of them still waits:
 * the list is what the library remembers whose turn it is by, and a turn that was called off is never over.
 */
const asks = (shown, written) =>
  (written.hasAttribute("hx-get") || (shown.hasAttribute("data-turns") && shown.querySelector("[hx-get]"))) &&
  !shown.isEqualNode(written) &&
  EXCHANGE;

/** What is written in the place of an element: the book of an answer, or what comes beside it. */
const WRITTEN = {
  book: (fragment) => fragment.querySelector("#book"),
  rewrite: (fragment) => fragment.firstElementChild,
};

/**
 * The book is rewritten, and what comes beside it. htmx itself would look up each of a hundred named parts in the page before, and go through all of
 * that once more to clear it up, which took longer than to draw it.
 */
window.htmx.defineExtension("book", {
  isInlineSwap: (style) => style in WRITTEN,
  handleSwap(style, target, fragment, settled) {
    const written = style in WRITTEN && WRITTEN[style](fragment);
    if (!written) return false;
    const { id } = target;
    rewrite(target, written, asks, typedInto);
    const now = document.getElementById(id);
    settled.elts.push(now);
    forgetGone();
    return [now];
  },
});
