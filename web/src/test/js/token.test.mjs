// The token of the cookie as it is now goes with all that is sent, whatever the page was written with; on Node.
import assert from "node:assert/strict";
import { test } from "node:test";

const heard = {};
globalThis.document = {
  cookie: "",
  addEventListener: (name, told) => (heard[name] = told),
  body: { getAttribute: () => '{"X-XSRF-TOKEN": "of the page"}' },
};
const { ours } = await import("../../main/resources/static/js/token.js");

const header = () => {
  const detail = { headers: { "X-XSRF-TOKEN": "of the page" } };
  heard["htmx:configRequest"]({ detail });
  return detail.headers["X-XSRF-TOKEN"];
};
const field = () => {
  const hidden = { value: "of the page" };
  heard.submit({ target: { querySelector: (which) => which === "input[name=_csrf]" && hidden } });
  return hidden.value;
};

test("what is sent carries the cookie's token, among others", () => {
  document.cookie = "look=dusk; XSRF-TOKEN=8f3a-2c; units=m";
  assert.deepEqual(ours(), { "X-XSRF-TOKEN": "8f3a-2c" });
  assert.equal(header(), "8f3a-2c");
  assert.equal(field(), "8f3a-2c");
  document.cookie = "XSRF-TOKEN=first";
  assert.equal(header(), "first");
});

test("without a cookie the page's own is sent, and a cookie that only sounds alike is none", () => {
  for (const cookie of ["", "OTHER-XSRF-TOKEN=x", "XSRF-TOKEN="]) {
    document.cookie = cookie;
    assert.deepEqual(ours(), { "X-XSRF-TOKEN": "of the page" });
    assert.equal(header(), "of the page");
    assert.equal(field(), "of the page");
  }
});

test("a form without a token is left alone", () => {
  document.cookie = "XSRF-TOKEN=now";
  assert.doesNotThrow(() => heard.submit({ target: { querySelector: () => null } }));
});
