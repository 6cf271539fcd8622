// The Fly stage: a rehearsal as it goes on, on the sheet and in the panel. Whoever joins in hears where it has come to, and then five moments a second.
import { ours } from "../token.js";
import { pairs } from "./figures.js";

const AGAIN_MS = 1500;
const CHART_MS = 4000;

export class Fly {
  /** @param sheet of the Fly stage */
  constructor(sheet) {
    this.sheet = sheet;
    /** Strips stand behind what was flown. */
    this.dimmed = 0.45;
    this.trail = [];
    this.chartAt = 0;
    this.wire();
  }

  /** It stands in the book, which may be written anew. */
  get panel() {
    return document.getElementById("fly");
  }

  begin() {
    if (this.panel && !this.source) this.listen();
  }

  /** The plan has been drawn; what was flown lies over it. */
  load() {
    this.sheet.element.dataset.cut = "fly";
    if (this.now) this.draw(this.now);
  }

  get path() {
    return `/blocks/${this.panel.dataset.block}/fly/${this.panel.dataset.run}`;
  }

  listen() {
    this.source = new EventSource(`${this.path}/stream`);
    this.source.onopen = () => {
      // A line that broke begins anew with all of it.
      this.trail = [];
      this.sheet.sources.shots.clear(true);
      if (this.panel) this.panel.dataset.heard = "true";
    };
    this.source.onmessage = (event) => this.moment(JSON.parse(event.data));
    this.source.onerror = () => {
      if (this.source.readyState !== EventSource.CLOSED) return;
      this.waiting = setTimeout(() => this.listen(), AGAIN_MS);
    };
    window.addEventListener("pagehide", () => this.leave(), { signal: this.sheet.signal });
  }

  leave() {
    clearTimeout(this.waiting);
    if (this.source) this.source.close();
  }

  moment(now) {
    if (!this.panel) return;
    this.now = now;
    this.trail.push(...pairs(now.trail));
    this.draw(now);
    this.show(now);
    const time = performance.now();
    if (time - this.chartAt > CHART_MS || now.over) {
      this.chartAt = time;
      if (!now.over || !this.chartedOver) document.body.dispatchEvent(new Event("fly-on"));
      this.chartedOver = now.over;
    }
  }

  draw(now) {
    const { Feature, geom } = window.ol;
    const { craft, shots, trail } = this.sheet.sources;
    if (!craft) return;
    trail.clear(true);
    const line = [...this.trail, [now.east, now.north]];
    if (line.length > 1) trail.addFeature(new Feature(new geom.LineString(line)));
    const taken = [];
    for (let i = 0; i < now.shots.length; i += 3) {
      taken.push(
        new Feature({ geometry: new geom.Point([now.shots[i], now.shots[i + 1]]), good: now.shots[i + 2] === 1 }),
      );
    }
    now.shots = [];
    shots.addFeatures(taken);
    craft.clear(true);
    craft.addFeature(new Feature(new geom.Point([now.east, now.north])));
    if (now.strip > 0 && this.sheet.plan && this.sheet.choosing.strip !== now.strip - 1) {
      this.sheet.choosing.choose(now.strip - 1);
    }
    if (this.sheet.plan) this.sheet.section.mark(now.strip, [now.east, now.north]);
  }

  show(now) {
    const text = (id, words) => {
      const place = document.getElementById(id);
      if (place && place.textContent !== words) place.textContent = words;
      return place;
    };
    const headline = text("fly-headline", now.headline);
    headline.className = `verdict ${now.mood}`;
    text("fly-clock", now.clock);
    text("fly-battery-words", `battery ${now.charge} %, of which ${now.home} % to come home`);
    const battery = document.getElementById("fly-battery");
    battery.setAttribute("aria-label", `battery ${now.charge} %, home needs ${now.home} %`);
    battery.querySelector(".fly-charge").setAttribute("width", String(now.charge * 2));
    battery.querySelector(".fly-home").setAttribute("width", String(now.home * 2));
    for (const { key, text: words, mood } of now.figures) {
      const place = this.panel.querySelector(`[data-figure="${key}"] dd`);
      if (place.textContent !== words) place.textContent = words;
      place.className = mood;
    }
    for (const button of this.panel.querySelectorAll("[data-fly]")) {
      button.disabled = !now.able.includes(button.dataset.fly);
    }
    for (const button of this.panel.querySelectorAll("[data-nudge]")) button.disabled = !now.able.includes("NUDGE");
    for (const button of this.panel.querySelectorAll("[data-fly-speed]")) {
      button.setAttribute("aria-pressed", String(Number(button.dataset.flySpeed) === now.speed));
    }
    this.list("fly-signs", now.signs.join("\n"), now.signs, (words) => {
      const line = document.createElement("p");
      line.className = "finding-line stop";
      line.textContent = words;
      return line;
    });
    const told = now.events.map(({ clock, words, who }) => `${clock} ${words} ${who}`);
    this.list("fly-events", told.join("\n"), now.events, ({ clock, words, who }) => {
      const item = document.createElement("li");
      for (const [part, look] of [
        [clock, ""],
        [words, ""],
        [who, "faint"],
      ]) {
        const span = document.createElement("span");
        span.className = look;
        span.textContent = part;
        item.append(span, " ");
      }
      return item;
    });
    this.panel.dataset.tick = String(now.tick);
    this.panel.dataset.phase = now.phase;
  }

  /** Fills a list anew where it reads otherwise. */
  list(id, reads, entries, make) {
    const place = document.getElementById(id);
    if (place.dataset.reads === reads) return;
    place.dataset.reads = reads;
    place.replaceChildren(...entries.map(make));
  }

  wire() {
    const pressed = (event) => {
      const button = event.target.closest("#fly button");
      if (!button) return;
      const { fly, nudge, flySpeed } = button.dataset;
      if (fly === "RESUME_AT") this.press(fly, Number(document.getElementById("fly-station").value));
      else if (fly) this.press(fly, 0);
      if (nudge) this.press("NUDGE", ...nudge.split(",").map(Number));
      if (flySpeed !== undefined) this.post("speed", { speed: flySpeed });
    };
    document.addEventListener("click", pressed, { signal: this.sheet.signal });
  }

  async press(kind, first, second = 0) {
    const note = document.getElementById("fly-note");
    const person = document.getElementById("fly-person").value;
    const made = await this.post("press", { kind, first: first || 0, second, person, note: note.value });
    if (made) note.value = "";
  }

  async post(what, values) {
    const told = document.getElementById("fly-fault");
    const headers = { "HX-Request": "true", ...ours() };
    try {
      const answer = await fetch(`${this.path}/${what}`, {
        method: "POST",
        headers,
        body: new URLSearchParams(values),
      });
      told.hidden = answer.ok;
      if (answer.ok) return true;
      const page = new DOMParser().parseFromString(await answer.text(), "text/html");
      told.textContent = (page.querySelector("[data-field] span, .fault, main p") || page.body).textContent.trim();
    } catch {
      told.hidden = false;
      told.textContent = "The program does not answer; what was pressed did not reach it.";
    }
    return false;
  }

  use() {
    return false;
  }

  drop() {}
}
