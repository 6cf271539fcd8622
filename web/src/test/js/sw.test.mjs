// The worker that keeps pages, on Node, with a browser and a program made up for it: what a page that was left still asked is called off.
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";
import { runInNewContext } from "node:vm";

const SOURCE = readFileSync(new URL("../../main/resources/static/sw.js", import.meta.url), "utf8");

/** A worker with requests under way: each answers when it is told to, or fails when it is called off. */
function worker(held = []) {
  const heard = {};
  const asked = [];
  const kept = new Map(held.map((path) => ["http://here" + path, new Response("kept")]));
  const pages = {
    match: async (key) => kept.get(key),
    put: async (key, answer) => kept.set(key, answer),
    keys: async () => [...kept.keys()].map((url) => ({ url })),
    delete: async ({ url }) => kept.delete(url),
  };
  const waits = [];
  runInNewContext(SOURCE, {
    self: {
      location: { origin: "http://here" },
      addEventListener: (name, told) => (heard[name] = told),
      clients: { matchAll: async () => [] },
    },
    caches: { open: async () => pages, delete: async () => true },
    fetch: (request, more) =>
      new Promise((resolve, reject) => {
        const one = { url: request.url, called: false, answer: () => resolve(answerOf()) };
        more?.signal?.addEventListener("abort", () => {
          one.called = true;
          reject(new Error("called off"));
        });
        asked.push(one);
      }),
    setTimeout: (run) => waits.push(run),
    AbortController,
    Response,
    URL,
    URLSearchParams,
    Map,
    Set,
    Date,
  });
  const get = (url, client, more = {}) => {
    let answer = null;
    const request = { url: "http://here" + url, method: "GET", mode: "cors", headers: new Headers(), ...more };
    heard.fetch({ request, clientId: client, respondWith: (given) => (answer = given) });
    return answer;
  };
  const say = (client, data) => {
    const done = [];
    heard.message({ data, source: { id: client }, waitUntil: (given) => done.push(given) });
    return Promise.all(done);
  };
  return { get, say, asked, kept, waits };
}

const answerOf = () => new Response("there", { status: 200 });
const turn = () => new Promise((resolve) => setImmediate(resolve));

test("what a page that was left asked before is called off, of that page alone", async () => {
  const { get, say, asked } = worker();
  get("/blocks/1/contours.json", "one");
  get("/blocks/1/sorties.json", "two");
  get("/blocks/1/relief.png", "one", { destination: "image" });
  await turn();
  await say("one", { act: "left", at: Date.now() + 1 });
  assert.deepEqual(
    asked.map((one) => one.called),
    [true, false, false],
  );
});

test("what is asked after that is answered", async () => {
  const { get, say, asked } = worker();
  await say("one", { act: "left", at: Date.now() - 1000 });
  const answer = get("/blocks/1/contours.json", "one");
  await turn();
  await say("one", { act: "left", at: Date.now() - 1000 });
  asked[0].answer();
  assert.equal((await answer).status, 200);
});

test("what was called off is not answered at once, and never with what is kept", async () => {
  const { get, say, waits, kept } = worker();
  kept.set("http://here/blocks/1/contours.json", new Response("old"));
  const answer = get("/blocks/1/contours.json", "one");
  await turn();
  await say("one", { act: "left", at: Date.now() + 1 });
  await turn();
  assert.equal(waits.length, 1);
  waits[0]();
  assert.equal((await answer).status, 503);
});

test("remedies and flights under way go by themselves", () => {
  const { get } = worker();
  assert.equal(get("/blocks/1/mends?key=a", "one"), null);
  assert.equal(get("/blocks/1/fly/7/charts", "one"), null);
  assert.notEqual(get("/blocks/1/strips", "one"), null);
  assert.notEqual(get("/parts/0a1b2c/js/app.js", "one"), null);
});

const PART = "/parts/0a1b2c/js/app.js";

test("pages that are read never drive out what all of them are made of", async () => {
  const pages = Array.from({ length: 500 }, (_, i) => `/blocks/${i}/strips`);
  const { get, asked, kept } = worker([PART, ...pages]);
  await turn();
  const answer = get("/blocks/501/strips", "one");
  asked.at(-1).answer();
  await answer;
  for (let i = 0; i < 20; i++) await turn();
  assert.equal(kept.size, 501);
  assert.ok(kept.has("http://here" + PART));
  assert.ok(!kept.has("http://here/blocks/0/strips"));
  assert.ok(kept.has("http://here/blocks/501/strips"));
});
