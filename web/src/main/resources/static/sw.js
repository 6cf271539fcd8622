// Keeps the open block readable when the connection drops, and what is changed meanwhile until it can be sent. The program always comes first: what is
// kept here is shown only where it does not answer. Nothing of a flight under way is kept: a press that comes late is worse than none.
const PAGES = "yalos-pages-1";
const MOST_PAGES = 500;
const MOST_PARTS = 300;
const GONE_MS = 10_000;
const NOT_KEPT = "This page was not opened while there was a connection, so nothing of it is kept here.";
const HEAD = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">`;
const BLOCK = /^\/blocks\/(\d+)(\/|$)/;
const PARTS = /^\/(parts|webjars|icon\.svg)/;

self.addEventListener("install", (event) => event.waitUntil(self.skipWaiting()));
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

/** What is worth nothing later, and may take long: it goes by itself, and ends when its page is left. */
const PASSING = /\/fly\/\d+\/|\/mends$/;
const readable = (url) => (BLOCK.test(url.pathname) || PARTS.test(url.pathname)) && !PASSING.test(url.pathname);
const waits = (url) => BLOCK.test(url.pathname) && !url.pathname.includes("/fly/");

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== self.location.origin) return;
  if (request.method === "GET" && request.mode === "navigate") event.respondWith(read(request, url));
  else if (request.method === "GET" && readable(url)) event.respondWith(awaited(request, url, event.clientId));
  // A file that is brought in cannot wait, and is too large to be copied.
  const file = (request.headers.get("Content-Type") || "").startsWith("multipart/");
  if (request.method === "POST" && waits(url) && !file) event.respondWith(write(request, url));
});

/** A part that htmx asks for is not the page of the same address. */
function keyOf(request, url) {
  if (!request.headers.get("HX-Request")) return url.href;
  return url.href + (url.search ? "&" : "?") + "kept-part=1";
}

/**
 * What each page waits for. A page that is left waits for nothing more; the browser does not say so here but the page does, or what nobody waits for
 * would hold up what is asked for next.
 */
const open = new Map();

async function awaited(request, url, client) {
  if (request.destination === "image") return read(request, url);
  const one = { from: Date.now(), control: new AbortController() };
  const all = open.get(client) || new Set();
  open.set(client, all.add(one));
  try {
    return await read(request, url, one.control.signal);
  } catch (gone) {
    if (!one.control.signal.aborted) throw gone;
    // By then the page is gone, or has called it off itself; told at once, it would complain.
    await new Promise((done) => setTimeout(done, GONE_MS));
    return new Response("", { status: 503 });
  } finally {
    all.delete(one);
    if (all.size === 0) open.delete(client);
  }
}

function left(client, at) {
  for (const one of open.get(client) || []) if (one.from < at) one.control.abort();
}

async function read(request, url, signal) {
  try {
    const answer = await fetch(request, signal && { signal });
    if (answer.ok && answer.status === 200 && readable(url) && !answer.redirected) {
      const copy = answer.clone();
      const type = copy.headers.get("Content-Disposition") || "";
      if (!type.startsWith("attachment")) keep(keyOf(request, url), copy);
    }
    return answer;
  } catch (gone) {
    if (signal && signal.aborted) throw gone;
    const pages = await caches.open(PAGES);
    const kept = await pages.match(keyOf(request, url), { ignoreVary: true });
    if (kept) return marked(kept);
    if (request.mode === "navigate") return page(503, "Not kept", NOT_KEPT, request.referrer);
    throw gone;
  }
}

/** The same answer, saying that it is an old one. */
function marked(kept) {
  const headers = new Headers(kept.headers);
  headers.set("X-Kept", "1");
  return new Response(kept.body, { status: kept.status, statusText: kept.statusText, headers });
}

async function keep(key, answer) {
  try {
    const pages = await caches.open(PAGES);
    const changed = answer.headers.get("Last-Modified");
    const kept = changed && (await pages.match(key, { ignoreVary: true }));
    if (kept && kept.headers.get("Last-Modified") === changed) return;
    await pages.put(key, answer);
    await clear(pages);
  } catch {
    // A full disk keeps nothing more; what the program answers is shown all the same.
  }
}

/** The oldest of what is too much; parts apart, or the pages that are read would drive out what all of them are made of. */
async function clear(pages) {
  const keys = await pages.keys();
  const part = ({ url }) => PARTS.test(new URL(url).pathname);
  const old = (some, most) => some.slice(0, Math.max(0, some.length - most));
  const parts = old(keys.filter(part), MOST_PARTS);
  const rest = old(
    keys.filter((key) => !part(key)),
    MOST_PAGES,
  );
  for (const one of [...parts, ...rest]) await pages.delete(one);
}

function page(status, title, words, from) {
  const back = encodeURI(from && from.startsWith(self.location.origin) ? from : "/jobs");
  const html = `${HEAD}<title>${title} · Yalos</title><body><h1>${title}</h1><p>${words}</p><p><a href="${back}">Back</a></p>`;
  return new Response(html, { status, headers: { "Content-Type": "text/html;charset=UTF-8" } });
}

async function write(request, url) {
  const copy = request.clone();
  try {
    return await fetch(request);
  } catch (gone) {
    const type = copy.headers.get("Content-Type") || "";
    if (!type.startsWith("application/x-www-form-urlencoded")) throw gone;
    const body = await copy.text();
    await store((all) => all.add({ url: url.pathname + url.search, body, at: Date.now(), words: wordsOf(url, body), clash: "" }));
    await tell();
    if (copy.headers.get("HX-Request")) {
      return new Response("", { status: 202, headers: { "HX-Reswap": "none", "Content-Type": "text/html" } });
    }
    return page(202, "Kept", "It is kept in this browser and will be sent when the program answers again.", copy.referrer);
  }
}

/** What a change was about, in the words of its form. */
function wordsOf(url, body) {
  const what = url.pathname.replace(BLOCK, "").replace(/[/-]+/g, " ").trim();
  const values = [...new URLSearchParams(body)]
    .filter(([name, value]) => !["version", "stage", "units", "why", "_csrf", "act"].includes(name) && value)
    .map(([, value]) => value)
    .join(", ");
  return values ? `${what}: ${values.slice(0, 120)}` : what;
}

function database() {
  return new Promise((resolve, reject) => {
    const asked = indexedDB.open("yalos-waiting", 1);
    asked.onupgradeneeded = () => asked.result.createObjectStore("changes", { keyPath: "id", autoIncrement: true });
    asked.onsuccess = () => resolve(asked.result);
    asked.onerror = () => reject(asked.error);
  });
}

async function store(act) {
  const db = await database();
  try {
    return await new Promise((resolve, reject) => {
      const all = db.transaction("changes", "readwrite");
      const asked = act(all.objectStore("changes"));
      all.oncomplete = () => resolve(asked.result);
      all.onerror = () => reject(all.error);
    });
  } finally {
    db.close();
  }
}

const waiting = () => store((all) => all.getAll());

/** Tells every page what waits. */
async function tell() {
  const list = await waiting();
  for (const client of await self.clients.matchAll()) client.postMessage({ waiting: list });
}

let sending = null;

/** Sends what waits, in its order; what clashes with another's change is shown, never forced. */
function send() {
  sending = sending || sendAll().finally(() => (sending = null));
  return sending;
}

async function sendAll() {
  const list = (await waiting()).filter((change) => !change.clash);
  if (list.length === 0) return;
  const versions = new Map();
  for (const change of list) {
    const block = BLOCK.exec(change.url)[1];
    try {
      const token = await tokenOf();
      const body = new URLSearchParams(change.body);
      const made = body.get("version");
      // One's own changes follow on each other: each is made for what the one before left.
      if (made && versions.has(block + " " + made)) body.set("version", versions.get(block + " " + made));
      if (body.has("_csrf")) body.set("_csrf", token);
      const answer = await fetch(change.url, {
        method: "POST",
        headers: { "HX-Request": "true", "X-XSRF-TOKEN": token },
        body,
        redirect: "manual",
      });
      if (answer.ok || answer.type === "opaqueredirect") {
        await store((all) => all.delete(change.id));
        if (made) versions.set(block + " " + made, await versionOf(block));
      } else {
        const clash = sentence(await answer.text()) || `the program answered ${answer.status}`;
        await store((all) => all.put({ ...change, clash }));
      }
    } catch {
      break;
    }
  }
  await tell();
}

async function tokenOf() {
  const answer = await fetch("/units", { headers: { Accept: "text/html" } });
  const found = /X-XSRF-TOKEN(?:&quot;|"): (?:&quot;|")([^&"]+)/.exec(await answer.text());
  if (!found) throw new Error("no token");
  return found[1];
}

async function versionOf(block) {
  const answer = await fetch(`/blocks/${block}/strips`);
  const found = /data-version="(\d+)"/.exec(await answer.text());
  return found ? found[1] : "0";
}

/** The sentence of a refusal. */
function sentence(html) {
  const found = /<b[^>]*>([^<]*)<\/b>\s*<span[^>]*>([^<]*)<\/span>/.exec(html);
  return found ? `${found[1]} ${found[2]}`.trim() : "";
}

self.addEventListener("message", (event) => {
  const { act, id, at } = event.data || {};
  const acts = {
    list: () => tell(),
    left: () => left(event.source.id, at),
    send: () => send(),
    drop: async () => {
      await store((all) => all.delete(id));
      await tell();
    },
    // What clashed is made again, on the state as it is now: whoever presses that has looked.
    again: async () => {
      const change = (await waiting()).find((one) => one.id === id);
      if (!change) return;
      const body = new URLSearchParams(change.body);
      if (body.has("version")) body.set("version", await versionOf(BLOCK.exec(change.url)[1]));
      await store((all) => all.put({ ...change, body: body.toString(), clash: "" }));
      await send();
    },
    // A page that was open before this worker was: it and its parts are kept now.
    hold: async () => {
      for (const address of (event.data.urls || []).slice(0, 200)) {
        const url = new URL(address, self.location.origin);
        if (url.origin !== self.location.origin || !readable(url)) continue;
        const answer = await fetch(url.href).catch(() => null);
        if (answer && answer.ok && !answer.redirected) await keep(url.href, answer);
      }
      for (const client of await self.clients.matchAll()) client.postMessage({ held: true, all: event.data.all });
    },
    forget: async () => {
      await caches.delete(PAGES);
    },
  };
  if (acts[act]) event.waitUntil(acts[act]());
});
