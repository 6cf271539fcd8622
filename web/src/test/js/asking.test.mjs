// What the page has asked for and nobody waits for any more, and the exchange of the book, on Node.
import assert from "node:assert/strict";
import { test } from "node:test";

const heard = {};
let extension = null;
globalThis.document = { addEventListener: (name, told) => (heard[name] = told) };
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

test("the book takes the place of the one before, and what that asked is called off", () => {
  const old = asks(true);
  const book = {};
  const target = {
    replaceWith: (fresh) => {
      assert.equal(fresh, book);
      old.element.isConnected = false;
    },
  };
  const settled = { elts: [] };
  assert.equal(extension.name, "book");
  assert.deepEqual(extension.handleSwap("book", target, { querySelector: () => book }, settled), [book]);
  assert.deepEqual(settled.elts, [book]);
  assert.equal(old.request.called, 1);
});

test("other exchanges are left to the library", () => {
  const fragment = { querySelector: () => null };
  assert.equal(extension.handleSwap("innerHTML", {}, fragment, { elts: [] }), false);
  assert.equal(extension.handleSwap("book", {}, fragment, { elts: [] }), false);
  assert.equal(extension.isInlineSwap("book"), true);
  assert.equal(extension.isInlineSwap("outerHTML"), false);
});
