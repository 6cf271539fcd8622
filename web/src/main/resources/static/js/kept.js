// What is kept when the connection drops: says so on the page, lists changes that wait and those that clash, and has them sent when the program
// answers again. The keeping itself is the service worker's; browsers give one only to an address they trust.
const AGAIN_MS = 5000;
const QUIET_MS = 3000;
const FILE = /\.[a-z0-9]+$/;
let list = [];
let timer = null;

const worker = () => navigator.serviceWorker && navigator.serviceWorker.controller;
const ask = (message) => worker() && worker().postMessage(message);

export function keepPages() {
  if (!window.isSecureContext || !navigator.serviceWorker || !location.pathname.startsWith("/blocks/")) return;
  // Keeping begins when the page has been there for some time: whoever presses something at once is not to wait for it.
  if (worker()) register();
  else setTimeout(register, QUIET_MS);
  navigator.serviceWorker.addEventListener("message", (event) => {
    if (event.data && event.data.held) held(event.data.all);
    if (!event.data || !event.data.waiting) return;
    const before = list.length;
    list = event.data.waiting;
    show();
    if (list.length < before) sent();
  });
  navigator.serviceWorker.addEventListener("controllerchange", () => {
    ask({ act: "list" });
    hold();
  });
  window.addEventListener("online", () => ask({ act: "send" }));
  window.addEventListener("offline", show);
  if (window.navigation) window.navigation.addEventListener("navigate", leaving);
  window.addEventListener("pagehide", left);
  ask({ act: "list" });
  ask({ act: "send" });
  document.addEventListener("submit", (event) => {
    if (event.target.matches("form[action$='/sign-out']")) ask({ act: "forget" });
  });
  document.addEventListener("click", (event) => {
    if (event.target.id === "keep-all") hold([...document.querySelectorAll("#stages a")].map((link) => link.href));
  });
  offerAll();
}

/** What this page asked for before now is not waited for any more. */
export function left() {
  ask({ act: "left", at: Date.now() });
}

/** Says so as soon as another page is asked for. A file is no page: what it is taken from stays. */
function leaving(event) {
  const { destination, downloadRequest, hashChange } = event;
  if (
    downloadRequest === null &&
    !hashChange &&
    !destination.sameDocument &&
    !FILE.test(new URL(destination.url).pathname)
  )
    left();
}

/** Keeping all stages is offered where pages are kept at all. */
export function offerAll() {
  const all = document.getElementById("keep-all");
  if (all && window.isSecureContext && navigator.serviceWorker) all.hidden = false;
}

const register = () => navigator.serviceWorker.register("/sw.js").catch(() => {});

/** A page that was open before the worker was is kept with its parts; others too, where somebody asks. */
function hold(others = []) {
  const parts = performance.getEntriesByType("resource").map((entry) => entry.name);
  ask({ act: "hold", urls: [location.href, ...parts, ...others], all: others.length > 0 });
}

function held(all) {
  document.documentElement.dataset.held = "true";
  const told = document.getElementById("keep-all-told");
  if (all && told) told.textContent = `kept at ${new Date().toTimeString().slice(0, 5)}`;
}

/** What waited has arrived: the page shows an older state. */
function sent() {
  const bar = document.getElementById("kept");
  if (!bar || list.some((change) => change.clash)) return;
  if (list.length === 0) {
    const line = document.createElement("p");
    line.textContent = "All that waited was sent. ";
    const reload = document.createElement("a");
    reload.className = "button";
    reload.href = location.href;
    reload.textContent = "Show the present state";
    line.append(reload);
    bar.replaceChildren(line);
    bar.hidden = false;
  }
}

function show() {
  const bar = document.getElementById("kept");
  if (!bar) return;
  const waiting = list.filter((change) => !change.clash);
  const clashed = list.filter((change) => change.clash);
  const lines = [];
  if (!navigator.onLine) lines.push(line("No connection: you read what was kept in this browser."));
  if (waiting.length > 0) {
    const words = waiting.map((change) => change.words).join("; ");
    lines.push(
      line(`${waiting.length} ${waiting.length === 1 ? "change waits" : "changes wait"} to be sent: ${words}`),
    );
  }
  for (const change of clashed) {
    const told = line(`Not made, it clashes: ${change.words}. ${change.clash} `);
    told.append(button("Make it on the present state", "again", change.id), " ", button("Drop it", "drop", change.id));
    lines.push(told);
  }
  bar.replaceChildren(...lines);
  bar.hidden = lines.length === 0;
  clearTimeout(timer);
  if (waiting.length > 0) timer = setTimeout(() => ask({ act: "send" }), AGAIN_MS);
}

function line(words) {
  const made = document.createElement("p");
  made.textContent = words;
  return made;
}

function button(words, act, id) {
  const made = document.createElement("button");
  made.type = "button";
  made.className = "button";
  made.textContent = words;
  made.addEventListener("click", () => ask({ act, id }));
  return made;
}
