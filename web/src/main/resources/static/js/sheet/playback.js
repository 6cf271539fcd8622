// Playing a plan: the aircraft runs along its path on the sheet, with a time line that can be scrubbed; the section follows.
import { clock, momentAt } from "./figures.js";

const SPEEDS = [1, 10, 30, 100];

export class Playback {
  /** @param sheet on which is played: its map, sources, block and choosing */
  constructor(sheet) {
    this.sheet = sheet;
    this.bar = document.getElementById("player");
    this.data = null;
    this.now = 0;
    this.running = false;
    this.factor = 30;
    if (this.bar) this.wire();
  }

  wire() {
    const { signal } = this.sheet;
    const pressed = (name, told) =>
      this.bar.querySelector(`[data-player=${name}]`).addEventListener("click", told, { signal });
    pressed("go", () => this.toggle());
    pressed("close", () => this.close());
    pressed("speed", () => {
      this.factor = SPEEDS[(SPEEDS.indexOf(this.factor) + 1) % SPEEDS.length];
      this.bar.querySelector("[data-player=speed]").textContent = `× ${this.factor}`;
    });
    this.range = this.bar.querySelector("input");
    const scrub = () => {
      this.now = Number(this.range.value);
      this.show();
    };
    this.range.addEventListener("input", scrub, { signal });
  }

  /** Opens the time line, or closes it. */
  async use() {
    if (!this.bar.hidden) {
      this.close();
      return;
    }
    const played = await this.sheet.ask(`/blocks/${this.sheet.block}/playback.json`);
    if (!played) {
      if (!this.sheet.signal.aborted) this.sheet.say("This plan cannot be flown, so it cannot be played.");
      return;
    }
    this.data = played;
    this.version = this.sheet.plan.version;
    this.bar.hidden = false;
    this.range.max = String(this.data.totalS);
    this.range.step = String(this.data.stepS);
    this.now = 0;
    this.show();
    this.sheet.fit();
  }

  close() {
    this.running = false;
    this.data = null;
    if (this.bar) this.bar.hidden = true;
    this.sheet.sources.craft.clear(true);
    this.sheet.section.marked = null;
    this.face();
  }

  /** A changed plan is not what is being played. */
  drawn(version) {
    if (this.data && this.version !== version) this.close();
  }

  toggle() {
    if (!this.data) return;
    if (!this.running && this.now >= this.data.totalS) this.now = 0;
    this.running = !this.running;
    this.face();
    this.before = undefined;
    if (this.running) requestAnimationFrame((time) => this.frame(time));
  }

  face() {
    if (!this.bar) return;
    const go = this.bar.querySelector("[data-player=go]");
    go.textContent = this.running ? "Pause" : "Play";
  }

  frame(time) {
    if (!this.running || !this.data) return;
    const passed = this.before === undefined ? 0 : (time - this.before) / 1000;
    this.before = time;
    this.now = Math.min(this.data.totalS, this.now + passed * this.factor);
    this.show();
    if (this.now >= this.data.totalS) {
      this.running = false;
      this.face();
    } else {
      requestAnimationFrame((next) => this.frame(next));
    }
  }

  show() {
    const { data } = this;
    const moment = momentAt(data, this.now);
    this.range.value = String(this.now);
    this.range.setAttribute("aria-valuetext", clock(this.now));
    const { Feature, geom } = window.ol;
    const { craft } = this.sheet.sources;
    craft.clear(true);
    craft.addFeature(new Feature(new geom.Point(moment.place)));
    if (moment.line > 0 && this.sheet.choosing.strip !== moment.line - 1) this.sheet.choosing.choose(moment.line - 1);
    this.sheet.section.mark(moment.line > 0 ? moment.line : 0, moment.place);
    const above =
      moment.above === null
        ? "height unknown"
        : `${moment.above.toFixed(0)} ${data.heightUnit} above ${data.aboveWhat}`;
    const set = data.set[data.set.length - 1] > 1 ? `set ${moment.set}: ` : "battery ";
    this.bar.querySelector("output").textContent = [
      `${clock(this.now)} of ${clock(data.totalS)}`,
      `${moment.photos} of ${data.allPhotos} photos`,
      above,
      `${moment.speed.toFixed(1)} ${data.speedUnit}`,
      `${set}${Math.round(moment.used * 100)} % used`,
    ].join("   ");
  }
}
