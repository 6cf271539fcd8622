import { knownRuns, roundStep } from "./sheet/figures.js";

// The drawer below the sheet: a long section of ground and path, like an engineer's.
const HEIGHT = 132;
const EDGE = { left: 46, right: 12, top: 8, bottom: 18 };

export class Section {
  /** @param resized told when the drawer takes room from the sheet
   * @param point told a place of the sheet while the pointer is over it, nothing when it leaves
   * @param ask asks the program for JSON, as the sheet does
   * @param signal when the sheet is left */
  constructor({ drawer, block, point, resized, ask, signal }) {
    this.ask = ask;
    this.resized = resized;
    this.drawer = drawer;
    this.block = block;
    this.point = point;
    this.has = false;
    this.strip = -1;
    /** Places of lines that are pointed out: line, place, words. */
    this.flags = [];
    /** A stage with a drawer of its own shows the section only when a strip is chosen. */
    this.folded = drawer.hidden;
    this.words = document.createElement("div");
    this.words.setAttribute("aria-live", "polite");
    this.words.append(...drawer.childNodes);
    drawer.append(this.words);
    this.picture = document.createElement("div");
    this.picture.className = "long-section";
    this.picture.hidden = true;
    drawer.append(this.picture);
    const fill = () => {
      if (this.data) this.draw();
    };
    window.addEventListener("resize", fill, { signal });
  }

  /** A cursor at a place of the line that is shown; none for another line. */
  mark(line, place) {
    this.marked = { line, place };
    const svg = this.picture.querySelector("svg");
    if (!this.data || !svg) return;
    const best = this.step(place);
    const shown = line === this.strip;
    const width = Number(svg.getAttribute("width"));
    const share = this.data.along[best] / (this.data.along[this.data.along.length - 1] || 1);
    const x = EDGE.left + share * (width - EDGE.left - EDGE.right);
    svg.querySelector("path.cursor").setAttribute("d", shown ? `M${x} ${EDGE.top}V${HEIGHT - EDGE.bottom}` : "");
  }

  /** The step of the section next to a place. */
  step(place) {
    const { places } = this.data;
    let best = 0;
    let least = Infinity;
    for (let i = 0; i < places.length / 2; i++) {
      const away = Math.hypot(places[2 * i] - place[0], places[2 * i + 1] - place[1]);
      if (away < least) [best, least] = [i, away];
    }
    return best;
  }

  say(words) {
    this.words.replaceChildren(words);
  }

  /** Tells whether there is ground to cut, and of which state of the plan. */
  ground(has, version) {
    const fresh = this.version !== version;
    this.has = has;
    this.version = version;
    if (!has) this.close();
    else if (fresh && this.strip >= 0) {
      const strip = this.strip;
      this.strip = -1;
      this.open(strip);
    }
  }

  close() {
    const closes = !this.picture.hidden;
    this.strip = -1;
    this.data = null;
    this.picture.hidden = true;
    if (this.folded) this.drawer.hidden = true;
    if (closes) requestAnimationFrame(() => this.resized());
    this.point(null);
  }

  async open(strip) {
    if (!this.has || this.strip === strip) return;
    this.strip = strip;
    const data = await this.ask(`/blocks/${this.block}/section.json?strip=${strip}&version=${this.version}`);
    if (!data || this.strip !== strip) return;
    this.data = data;
    const opens = this.picture.hidden;
    this.draw();
    if (opens) requestAnimationFrame(() => this.resized());
  }

  draw() {
    const d = this.data;
    this.picture.hidden = false;
    this.drawer.hidden = false;
    const width = Math.max(300, this.drawer.clientWidth - 32);
    const length = d.along[d.along.length - 1] || 1;
    const known = (values) => values.filter((value) => value !== null);
    const low = Math.min(...known(d.ground));
    const high = Math.max(...known(d.path), ...known(d.top));
    const step = roundStep((high - low) / 4 || 1);
    const base = Math.floor((low - (high - low) * 0.1) / step) * step;
    const x = (along) => EDGE.left + (along / length) * (width - EDGE.left - EDGE.right);
    const y = (height) =>
      HEIGHT - EDGE.bottom - ((height - base) / (high + step * 0.3 - base)) * (HEIGHT - EDGE.bottom - EDGE.top);
    const piece = (values, [from, to]) =>
      values
        .slice(from, to)
        .map((value, i) => `${i ? "L" : "M"}${x(d.along[from + i]).toFixed(1)} ${y(value).toFixed(1)}`)
        .join("");
    const line = (values) =>
      knownRuns(values)
        .map((run) => piece(values, run))
        .join("");
    const area = (values) =>
      knownRuns(values)
        .map((run) => `${piece(values, run)}L${x(d.along[run[1] - 1])} ${y(base)}L${x(d.along[run[0]])} ${y(base)}Z`)
        .join("");
    const parts = [];
    for (let h = base; h <= high; h += step)
      parts.push(
        `<path class="rule" d="M${EDGE.left} ${y(h)}H${width - EDGE.right}"/><text x="${EDGE.left - 6}" y="${y(h) + 4}" text-anchor="end">${h}</text>`,
      );
    const along = roundStep(length / 8);
    for (let a = 0; a <= length; a += along)
      parts.push(
        `<text x="${x(a)}" y="${HEIGHT - 4}" text-anchor="middle">${a}${a + along > length ? " " + d.unit : ""}</text>`,
      );
    for (const [from, to] of knownRuns(d.ground.map((height) => (height === null ? 0 : null))))
      parts.push(
        `<rect class="unknown" x="${x(d.along[Math.max(0, from - 1)])}" y="${EDGE.top}" ` +
          `width="${x(d.along[Math.min(to, d.along.length - 1)]) - x(d.along[Math.max(0, from - 1)])}" ` +
          `height="${HEIGHT - EDGE.bottom - EDGE.top}"><title>Ground unknown</title></rect>`,
      );
    parts.push(
      `<path class="stands" d="${area(d.top)}"/>`,
      `<path class="earth" d="${area(d.ground)}"/>`,
      `<path class="limit" d="${line(d.top.map((top) => (top === null ? null : top + d.wanted)))}"/>`,
      `<path class="path" d="${line(d.path)}"/>`,
    );
    for (const a of d.stations) {
      const h = at(d, a);
      parts.push(`<path class="station" d="M${x(a)} ${y(h) - 4}v8"/>`);
    }
    if (d.top[d.nearest] !== null && d.path[d.nearest] !== null) {
      const at0 = x(d.along[d.nearest]);
      const low0 = y(d.top[d.nearest]);
      const high0 = y(d.path[d.nearest]);
      parts.push(
        `<path class="least" d="M${at0} ${low0}V${high0}"/>`,
        `<text class="least" x="${at0 + 5}" y="${(low0 + high0) / 2 + 4}">${d.clearance}</text>`,
      );
    }
    for (const { place, words } of this.flags.filter(({ line }) => line === this.strip)) {
      const here = x(d.along[this.step(place)]);
      const end = here > width / 2;
      parts.push(
        `<path class="flag" d="M${here} ${EDGE.top}V${HEIGHT - EDGE.bottom}"/>`,
        `<text class="flag" x="${here + (end ? -5 : 5)}" y="${EDGE.top + 10}" text-anchor="${end ? "end" : "start"}">${words}</text>`,
      );
    }
    parts.push(`<path class="cursor" d="" /><text class="cursor" y="14" text-anchor="middle"></text>`);
    this.picture.innerHTML = `<p class="faint"></p><svg width="${width}" height="${HEIGHT}" viewBox="0 0 ${width} ${HEIGHT}" role="img"></svg>`;
    this.picture.querySelector("p").textContent =
      `${d.title}. Heights above the geoid in ${d.unit}; dashed: the clearance to keep.`;
    const svg = this.picture.querySelector("svg");
    svg.setAttribute("aria-label", `${d.title}; least clearance ${d.clearance}`);
    svg.innerHTML = parts.join("");
    if (this.marked) this.mark(this.marked.line, this.marked.place);
    svg.addEventListener("pointermove", (event) => {
      const share = (event.clientX - svg.getBoundingClientRect().left - EDGE.left) / (width - EDGE.left - EDGE.right);
      const i = nearest(d.along, share * length);
      svg.querySelector("path.cursor").setAttribute("d", `M${x(d.along[i])} ${EDGE.top}V${HEIGHT - EDGE.bottom}`);
      const text = svg.querySelector("text.cursor");
      text.setAttribute("x", Math.min(width - 90, Math.max(130, x(d.along[i]))));
      const [path, ground] = [d.path[i], d.ground[i]];
      const here = `at ${Math.round(d.along[i])} ${d.unit}: `;
      text.textContent =
        ground === null || path === null
          ? `${here}ground unknown`
          : `${here}path ${path.toFixed(1)}, ground ${ground.toFixed(1)}, ${(path - ground).toFixed(1)} ${d.unit} above it`;
      this.point([d.places[2 * i], d.places[2 * i + 1]]);
    });
    svg.addEventListener("pointerleave", () => {
      svg.querySelector("path.cursor").setAttribute("d", "");
      svg.querySelector("text.cursor").textContent = "";
      this.point(null);
    });
  }
}

function nearest(values, wanted) {
  let best = 0;
  for (let i = 1; i < values.length; i++) if (Math.abs(values[i] - wanted) < Math.abs(values[best] - wanted)) best = i;
  return best;
}

const at = (d, along) => d.path[nearest(d.along, along)];
