// What somebody put into fields and did not send, on Node.
import assert from "node:assert/strict";
import { test } from "node:test";

/** Fields of the page by what they are found by. */
let shown = {};
globalThis.CSS = { escape: (name) => name };
globalThis.document = {
  querySelectorAll: (found) => (found.startsWith("input") ? Object.values(shown).flat() : [shown[found] || []].flat()),
  activeElement: null,
};
const { changed, gathered, putBack, waits } = await import("../../main/resources/static/js/unsent.js");

const kinds = {
  "[type=hidden], [type=file]": ({ type }) => type === "hidden" || type === "file",
  "input, textarea": ({ options }) => !options,
  select: ({ options }) => Boolean(options),
};
const form = (more) => ({ method: "post", dataset: {}, enctype: "application/x-www-form-urlencoded", ...more });
function field(more) {
  const made = {
    type: "text",
    value: "",
    defaultValue: "",
    form: form(),
    matches: (name) => kinds[name](made),
    ...more,
  };
  return made;
}
const list = (selectedIndex, written, more) =>
  field({
    type: "select-one",
    selectedIndex,
    options: ["a", "b", "c"].map((value, i) => ({ value, defaultSelected: i === written })),
    value: "abc"[selectedIndex],
    ...more,
  });

test("a field is changed when it holds something else than was written", () => {
  assert.equal(changed(field({ value: "3", defaultValue: "3" })), false);
  assert.equal(changed(field({ value: "4", defaultValue: "3" })), true);
  assert.equal(changed(field({ type: "hidden", value: "4", defaultValue: "3" })), false);
  assert.equal(changed(field({ type: "file", value: "photo.jpg" })), false);
  assert.equal(changed(field({ type: "checkbox", checked: true, defaultChecked: true, value: "x" })), false);
  assert.equal(changed(field({ type: "checkbox", checked: true, defaultChecked: false })), true);
});

test("of a list without a choice the first counts as written", () => {
  assert.equal(changed(list(0, -1)), false);
  assert.equal(changed(list(1, -1)), true);
  assert.equal(changed(list(1, 1)), false);
  assert.equal(changed(list(1, 0, { multiple: true })), false);
});

test("what is sent as soon as it is changed waits for no button", () => {
  assert.equal(waits(field()), true);
  assert.equal(waits(field({ form: null })), false);
  assert.equal(waits(field({ form: form({ method: "get" }) })), false);
  assert.equal(waits(field({ form: form({ dataset: { sends: "figure" } }) })), false);
  assert.equal(waits(field({ form: form({ enctype: "multipart/form-data" }) })), false);
  assert.equal(waits(field({ type: "range" })), false);
});

test("what was gathered is put back once, and never over what is typed since or what is gone", () => {
  shown = {
    "#a": field({ id: "a", value: "1" }),
    "#b": field({ id: "b", value: "2" }),
    "#c": field({ id: "c", value: "3" }),
  };
  const kept = gathered(({ id }) => id !== "b");
  shown = { "#a": field({ id: "a" }), "#b": field({ id: "b" }) };
  putBack(kept);
  assert.deepEqual([shown["#a"].value, shown["#b"].value], ["1", ""]);
  shown["#a"] = field({ id: "a", value: "newer" });
  putBack(kept);
  assert.equal(shown["#a"].value, "newer");
});

test("a field without a name of its own is found by its form, unless there are several", () => {
  const named = () => field({ name: "charge", form: form({ getAttribute: () => "/settings" }) });
  const found = 'form[action="/settings"] [name="charge"]';
  shown = { [found]: { ...named(), value: "90 %" } };
  const kept = gathered(() => true);
  shown = { [found]: named() };
  putBack(kept);
  assert.equal(shown[found].value, "90 %");
  shown = { [found]: [named(), named()] };
  putBack(kept);
  assert.equal(shown[found][0].value, "");
  shown = { x: field({ form: null }) };
  assert.deepEqual(
    gathered(() => true),
    [],
  );
});

test("a figure that is sent when it is changed keeps only what is being typed", () => {
  const figure = field({ id: "f", form: form({ dataset: { sends: "figure" } }) });
  shown = { "#f": figure };
  putBack([{ found: "#f", value: "900 m" }]);
  assert.equal(figure.value, "");
  document.activeElement = figure;
  putBack([{ found: "#f", value: "900 m" }]);
  assert.equal(figure.value, "900 m");
});

test("ticks and choices are put back as such, a choice only where it can still be made", () => {
  const tick = field({ id: "t", type: "checkbox", checked: false, defaultChecked: false });
  const choice = list(0, -1, { id: "l" });
  shown = { "#t": tick, "#l": choice };
  putBack([
    { found: "#t", value: "on", checked: true },
    { found: "#l", value: "d" },
  ]);
  assert.deepEqual([tick.checked, choice.value], [true, "a"]);
  putBack([{ found: "#l", value: "c" }]);
  assert.equal(choice.value, "c");
});
