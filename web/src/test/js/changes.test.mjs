// The queue of changes on Node, with a page and a program made up for it.
import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

const listeners = {};
const body = {
  addEventListener: (name, told) => (listeners[name] = told),
  removeEventListener: (name) => delete listeners[name],
};
const book = { dataset: { version: "7", stage: "strips" } };
/** What the page hears. */
const heard = {};
/** Whether the page says that changes are under way. */
let changing = false;
globalThis.document = {
  body,
  documentElement: {
    toggleAttribute: (name, on) => {
      assert.equal(name, "data-changing");
      changing = on;
    },
  },
  getElementById: () => book,
  addEventListener: (name, told) => (heard[name] = told),
};
globalThis.FormData = class {
  constructor(form) {
    this.form = form;
  }
  entries() {
    return Object.entries(this.form.values).flatMap(([name, value]) => [value].flat().map((one) => [name, one]));
  }
};

/** Requests as they came, each answered when the test says so. */
const asked = [];
globalThis.window = {
  htmx: {
    ajax: (method, url, { values }) =>
      new Promise((resolve, reject) => {
        asked.push({
          url,
          values,
          answer: (successful) => {
            // A page asks for other things in the meantime; their answers say nothing of the change.
            const other = { verb: "get", path: "/blocks/1/mends" };
            listeners["htmx:afterRequest"]({ detail: { successful: !successful, requestConfig: other } });
            listeners["htmx:afterRequest"]({ detail: { successful, requestConfig: { verb: "post", path: url } } });
            listeners["htmx:afterRequest"]({ detail: { successful: !successful, requestConfig: other } });
            if (successful) book.dataset.version = String(Number(book.dataset.version) + 1);
            resolve();
          },
          break: () => reject(new Error("gone")),
        });
      }),
  },
};

const { change, fieldsOf, inTurn, settled, typedInto, unchanged } = await import(
  "../../main/resources/static/js/changes.js"
);
const turn = () => new Promise((resolve) => setImmediate(resolve));

beforeEach(() => {
  asked.length = 0;
  book.dataset.version = "7";
});

test("changes go one after the other, each with the version the one before left behind", async () => {
  const first = change("/blocks/1/ledger/gsd", { act: "1" });
  const second = change("/blocks/1/ledger/gsd", { act: "-1" });
  assert.equal(asked.length, 1);
  assert.equal(asked[0].values.version, "7");
  assert.equal(asked[0].values.stage, "strips");
  asked[0].answer(true);
  assert.equal(await first, true);
  await turn();
  assert.equal(asked.length, 2);
  assert.equal(asked[1].values.version, "8");
  asked[1].answer(true);
  assert.equal(await second, true);
});

test("the page says that changes are under way until the last is answered", async () => {
  const first = change("/blocks/1/ledger/gsd", { act: "1" });
  const second = change("/blocks/1/ledger/gsd", { act: "1" });
  assert.equal(changing, true);
  asked[0].answer(true);
  await first;
  await turn();
  assert.equal(changing, true);
  asked[1].answer(true);
  await second;
  assert.equal(changing, false);
});

test("what takes the place of the page waits for its turn, and changes wait for it", async () => {
  change("/blocks/1/ledger/gsd", { act: "1" });
  let arrived;
  let turned = false;
  const turning = inTurn(() => {
    turned = true;
    book.dataset.stage = "brief";
    return new Promise((done) => (arrived = done));
  });
  const after = change("/blocks/1/brief", { due: "" });
  assert.equal(turned, false);
  asked[0].answer(true);
  await turn();
  assert.equal(turned, true);
  assert.equal(asked.length, 1);
  assert.equal(changing, true);
  arrived();
  await turning;
  await turn();
  assert.equal(asked[1].values.stage, "brief");
  asked[1].answer(true);
  assert.equal(await after, true);
  book.dataset.stage = "strips";
});

test("a refused change says so and the next goes on", async () => {
  const refused = change("/blocks/1/corner/move", { ring: 0 });
  const next = change("/blocks/1/ledger/gsd", { value: "2" });
  asked[0].answer(false);
  assert.equal(await refused, false);
  await turn();
  assert.equal(asked[1].values.version, "7");
  asked[1].answer(true);
  assert.equal(await next, true);
});

test("a request that breaks counts as not made", async () => {
  const broken = change("/blocks/1/undo", {});
  asked[0].break();
  assert.equal(await broken, false);
});

test("the same figure typed once is sent once, as a change and as a form", async () => {
  const typed = change("/blocks/1/ledger/height", { value: "80", act: "type" });
  const entered = change("/blocks/1/ledger/height", { value: "80" });
  assert.equal(asked.length, 1);
  asked[0].answer(true);
  assert.deepEqual(await Promise.all([typed, entered]), [true, true]);
  await turn();
  assert.equal(asked.length, 1);
});

test("another figure, another row and a nudge are changes of their own", async () => {
  const all = [
    change("/blocks/1/ledger/height", { value: "80", act: "type" }),
    change("/blocks/1/ledger/height", { value: "81", act: "type" }),
    change("/blocks/1/ledger/gsd", { value: "80", act: "type" }),
    change("/blocks/1/ledger/height", { value: "80", act: "1" }),
  ];
  for (let i = 0; i < all.length; i++) {
    assert.equal(asked.length, i + 1);
    asked[i].answer(true);
    await all[i];
    await turn();
  }
  assert.equal(asked.length, 4);
});

test("fields are told without the state that is added when the turn comes", () => {
  const form = { values: { value: "2", version: "5", stage: "strips", _csrf: "x", ring: "0" } };
  assert.deepEqual(fieldsOf(form, { name: "act", value: "pin" }), { value: "2", ring: "0", act: "pin" });
  assert.deepEqual(fieldsOf(form), { value: "2", ring: "0" });
});

test("of several ticks with one name all are told", () => {
  const form = { values: { looks: ["AHEAD", "LEFT", "RIGHT"], tilt: "30" } };
  assert.deepEqual(fieldsOf(form), { looks: ["AHEAD", "LEFT", "RIGHT"], tilt: "30" });
});

/** A field that has the keyboard, with what the program wrote into it and what stands in it. */
function field(written, value, { form = null, held = true, kind = "input" } = {}) {
  const made = { form, name: "value", value, defaultValue: written, matches: (which) => which.includes(kind) };
  document.activeElement = held ? made : null;
  return made;
}

test("what is typed and not yet sent is somebody's own", async () => {
  const form = { getAttribute: () => "/blocks/1/ledger/gsd" };
  const sent = change("/blocks/1/ledger/gsd", { value: "3" });
  assert.equal(typedInto(field("2", "3", { form })), false, "it was just sent");
  assert.equal(typedInto(field("2", "4", { form })), true);
  assert.equal(typedInto(field("2", "3")), true, "another's form");
  assert.equal(typedInto(field("2", "2", { form })), false, "as it was written");
  assert.equal(typedInto(field("2", "4", { form, held: false })), false, "left again");
  assert.equal(typedInto(field("2", "4", { form, kind: "select" })), false, "chosen, not typed");
  asked[0].answer(true);
  await sent;
  assert.equal(typedInto(field("2", "3", { form })), true);
});

test("what was asked for early holds only as long as nothing is changed", async () => {
  const before = settled();
  assert.equal(unchanged(before), true);
  const sent = change("/blocks/1/ledger/gsd", { act: "1" });
  assert.equal(settled(), null, "one is under way");
  assert.equal(unchanged(null), false);
  assert.equal(unchanged(before), false);
  asked[0].answer(true);
  await sent;
  await turn();
  assert.equal(unchanged(before), false);
  assert.equal(unchanged(settled()), true);
});

/** An event of a form, or of one of its fields, as the page tells it. */
function told(name, form, more = {}) {
  let held = false;
  const target = { closest: () => form, matches: () => more.figure === true };
  heard[name]({ target, preventDefault: () => (held = true), ...more });
  return held;
}

const formOf = (sends) => ({
  values: { value: "9" },
  dataset: { sends },
  getAttribute: () => "/blocks/1/ledger/blur",
  reportValidity: () => true,
});

test("a form that is submitted waits for its turn, and says which button sent it", async () => {
  assert.equal(told("submit", formOf(), { submitter: { name: "act", value: "pin" } }), true);
  assert.equal(asked[0].url, "/blocks/1/ledger/blur");
  assert.equal(asked[0].values.act, "pin");
  asked[0].answer(true);
  await turn();
  assert.equal(told("submit", null), false);
  assert.equal(told("submit", formOf(), { defaultPrevented: true }), false);
  assert.equal(asked.length, 1);
});

test("a field that has changed sends its form where the form says so, and only what is valid", async () => {
  told("change", formOf());
  told("change", formOf("figure"));
  told("change", { ...formOf("change"), reportValidity: () => false });
  told("change", null);
  assert.equal(asked.length, 0);
  told("change", formOf("figure"), { figure: true });
  asked[0].answer(true);
  await turn();
  told("change", formOf("change"));
  assert.equal(asked.length, 2);
  asked[1].answer(true);
  await turn();
});
