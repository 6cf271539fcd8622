// What the page has asked for and nobody waits for any more, and the exchange of the book, on Node.
import assert from "node:assert/strict";
import { test } from "node:test";

const heard = {};
let extension = null;
const shown = {};
globalThis.Node = { ELEMENT_NODE: 1 };
globalThis.document = {
  addEventListener: (name, told) => (heard[name] = told),
  documentElement: { toggleAttribute: () => {} },
  getElementById: (id) => shown[id],
};
globalThis.window = { htmx: { defineExtension: (name, made) => (extension = { name, ...made }) } };
const { forgetGone } = await import("../../main/resources/static/js/asking.js");

function asks(isConnected, verb = "get") {
  const request = { called: 0, onabort: () => assert.fail("nobody is to be told"), abort: () => request.called++ };
  const element = { isConnected };
  heard["htmx:beforeSend"]({ detail: { xhr: request, elt: element, requestConfig: { verb } } });
  return { request, element };
}

test("only what elements asked that are gone is called off, once, and no change", () => {
  const stays = asks(true);
  const gone = asks(false);
  const posted = asks(false, "post");
  forgetGone();
  forgetGone();
  assert.deepEqual([stays.request.called, gone.request.called, posted.request.called], [0, 1, 0]);
  stays.element.isConnected = false;
  heard["htmx:afterRequest"]({ detail: { xhr: stays.request } });
  forgetGone();
  assert.equal(stays.request.called, 0);
});

/** An element without attributes, of one child at most. */
const element = (more) => ({
  nodeType: 1,
  firstChild: null,
  attributes: [],
  hasAttribute: () => false,
  matches: () => false,
  ...more,
});

test("a book of another make takes the place of the one before, and what that asked is called off", () => {
  const old = asks(true);
  const written = element({ id: "book" });
  const target = element({
    id: "book",
    firstChild: element(),
    replaceWith: (fresh) => {
      assert.equal(fresh, written);
      shown.book = fresh;
      old.element.isConnected = false;
    },
  });
  const settled = { elts: [] };
  assert.equal(extension.name, "book");
  assert.deepEqual(extension.handleSwap("book", target, { querySelector: () => written }, settled), [written]);
  assert.deepEqual(settled.elts, [written]);
  assert.equal(old.request.called, 1);
});

test("a book of the same make stays and is rewritten", () => {
  const target = element({ id: "book" });
  shown.book = target;
  const settled = { elts: [] };
  assert.deepEqual(extension.handleSwap("book", target, { querySelector: () => element({ id: "book" }) }, settled), [
    target,
  ]);
  assert.deepEqual(settled.elts, [target]);
});

test("what comes beside the book is rewritten in its place too", () => {
  const [tabs, settled] = [element({ id: "stages" }), { elts: [] }];
  shown.stages = tabs;
  const fragment = { querySelector: () => null, firstElementChild: element({ id: "stages" }) };
  assert.deepEqual(extension.handleSwap("rewrite", tabs, fragment, settled), [tabs]);
  assert.deepEqual(settled.elts, [tabs]);
  assert.equal(extension.isInlineSwap("rewrite"), true);
});

test("other exchanges are left to the library", () => {
  const fragment = { querySelector: () => null };
  assert.equal(extension.handleSwap("innerHTML", {}, fragment, { elts: [] }), false);
  assert.equal(extension.handleSwap("book", {}, fragment, { elts: [] }), false);
  assert.equal(extension.isInlineSwap("book"), true);
  assert.equal(extension.isInlineSwap("outerHTML"), false);
});
