// The drawer's section and the words about strips on Node, with the few pieces of a page they touch.
import assert from "node:assert/strict";
import { test } from "node:test";

class Node {
  constructor(name) {
    this.name = name;
    this.childNodes = [];
    this.attributes = {};
    this.found = {};
    this.hidden = false;
    this.clientWidth = 900;
  }
  append(...nodes) {
    this.childNodes.push(...nodes);
  }
  replaceChildren(...nodes) {
    this.childNodes = nodes;
  }
  setAttribute(name, value) {
    this.attributes[name] = value;
  }
  addEventListener(name, told) {
    this["on" + name] = told;
  }
  getBoundingClientRect() {
    return { left: 0, width: 868 };
  }
  querySelector(selector) {
    return (this.found[selector] ??= new Node(selector));
  }
  get text() {
    return this.childNodes.map((node) => (typeof node === "string" ? node : node.textContent || node.text)).join("");
  }
}
globalThis.document = { createElement: (name) => new Node(name) };
globalThis.window = { addEventListener: () => {} };
globalThis.requestAnimationFrame = (run) => run();

const { Section } = await import("../../main/resources/static/js/section.js");
const { wordsOf } = await import("../../main/resources/static/js/sheet/probe.js");

const CUT = {
  title: "Section along strip 1",
  along: [0, 50, 100],
  ground: [200, 220, 210],
  top: [200, 229, 210],
  path: [275, 295, 285],
  places: [1, 2, 3, 4, 5, 6],
  stations: [0, 50, 100],
  nearest: 1,
  clearance: "66.0 m",
  wanted: 20,
  unit: "m",
};

function section(answers, cut = CUT) {
  const fetched = [];
  const ask = async (url) => {
    fetched.push(url);
    return answers ? cut : null;
  };
  const told = { points: [], resized: 0 };
  const made = new Section({
    drawer: new Node("drawer"),
    block: "4",
    point: (place) => told.points.push(place),
    resized: () => told.resized++,
    ask,
    signal: undefined,
  });
  return { made, told, fetched };
}

test("without ground there is nothing to cut", async () => {
  const { made, fetched } = section(true);
  made.ground(false, 1);
  await made.open(2);
  assert.deepEqual(fetched, []);
  assert.equal(made.picture.hidden, true);
});

test("a strip is cut once, drawn, and cut anew when the plan changes", async () => {
  const { made, told, fetched } = section(true);
  made.ground(true, 1);
  await made.open(2);
  await made.open(2);
  assert.deepEqual(fetched, ["/blocks/4/section.json?strip=2&version=1"]);
  assert.equal(made.picture.hidden, false);
  assert.equal(told.resized, 1);
  const svg = made.picture.querySelector("svg");
  assert.equal(svg.innerHTML.split('class="station"').length - 1, 3);
  assert.ok(svg.innerHTML.includes(">66.0 m</text>"));
  assert.ok(svg.innerHTML.includes('class="limit"'));
  made.ground(true, 2);
  await new Promise((resolve) => setImmediate(resolve));
  assert.equal(fetched.at(-1), "/blocks/4/section.json?strip=2&version=2");
});

test("unknown ground is drawn as unknown, never as nought", async () => {
  const holed = { ...CUT, ground: [200, null, 210], top: [200, null, 210], path: [275, null, 285], nearest: 0 };
  const { made } = section(true, holed);
  made.ground(true, 1);
  await made.open(1);
  const svg = made.picture.querySelector("svg");
  assert.ok(svg.innerHTML.includes('class="unknown"'));
  assert.ok(!svg.innerHTML.includes("NaN"));
  svg.onpointermove({ clientX: 46 + (868 - 46 - 12) / 2 });
  assert.equal(svg.querySelector("text.cursor").textContent, "at 50 m: ground unknown");
});

test("the pointer tells heights and the place, and forgets them", async () => {
  const { made, told } = section(true);
  made.ground(true, 1);
  await made.open(1);
  const svg = made.picture.querySelector("svg");
  svg.onpointermove({ clientX: 46 + (868 - 46 - 12) / 2 });
  assert.equal(svg.querySelector("text.cursor").textContent, "at 50 m: path 295.0, ground 220.0, 75.0 m above it");
  assert.deepEqual(told.points.at(-1), [3, 4]);
  svg.onpointerleave();
  assert.equal(told.points.at(-1), null);
});

test("closing gives the room back", async () => {
  const { made, told } = section(true);
  made.ground(true, 1);
  await made.open(1);
  made.close();
  assert.equal(made.picture.hidden, true);
  assert.equal(told.resized, 2);
});

test("an answer that fails leaves the drawer as it was", async () => {
  const { made } = section(false);
  made.ground(true, 1);
  await made.open(1);
  assert.equal(made.picture.hidden, true);
});

test("the drawer says what a strip is, or how to choose one", () => {
  const plan = {
    strips: [0, 0, 0, 100],
    stations: [],
    stationsOf: [0, 5],
    metresPerUnit: 1,
    ruler: { unit: "m", metres: 1 },
    pace: ["10 m/s, blur 0.5 px"],
  };
  assert.equal(
    wordsOf(plan, 0).text,
    "Strip 1 of 1: 100 m, 5 photos, numbers 1 to 5, flown towards 000° of the grid; 10 m/s, blur 0.5 px",
  );
  assert.match(wordsOf(plan, -1).text, /^No strip chosen\. Press one on the sheet/);
  assert.match(wordsOf(null, 0).text, /^No strip chosen/);
});
