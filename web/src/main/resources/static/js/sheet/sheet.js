// The plan sheet: what the program planned, drawn in the job's grid. What can be done on it lives in the modules beside.
import { Section } from "../section.js";
import { Board } from "./board.js";
import { Choosing } from "./choose.js";
import { Editing } from "./edit.js";
import { closed, heightPieces, pairs, stripsOf } from "./figures.js";
import { takeFiles } from "./files.js";
import { Fly } from "./fly.js";
import { gridSvg, insetAt, scaleBar, scaleWords } from "./frame.js";
import { feature } from "./layers.js";
import { Places } from "./places.js";
import { Playback } from "./playback.js";
import { Points } from "./points.js";
import { savePicture } from "./pictures.js";
import { Residuals } from "./residuals.js";
import { Sorties } from "./sorties.js";
import { Take } from "./take.js";
import { scaleColour } from "./styles.js";
import { Turning } from "./turn.js";

/** Room round a block that is shown whole: top, right, bottom with the title block, left. */
const PADDING = [28, 34, 96, 34];

export class Sheet {
  /** @param say tells a line of warning on the page
   * @param kept what the sheet before this one left: its board, and whether the whole block was in view; nothing for the first */
  constructor(element, say, kept) {
    this.element = element;
    this.say = say;
    this.leaving = new AbortController();
    /** Over when another stage's sheet stands in its place: what is listened to outside it ends then. */
    this.signal = this.leaving.signal;
    this.block = element.dataset.block;
    this.plan = null;
    this.tool = null;
    this.byHeight = false;
    /** Whether the outline can be changed on this stage's sheet. */
    this.editable = element.dataset.editable === "true";
    const brought = this.brought();
    const goesOn = kept && brought && kept.board.epsg === brought.epsg;
    this.board = goesOn ? kept.board : new Board(this.block);
    this.sources = this.board.sources;
    this.editing = new Editing(this);
    this.turning = new Turning(this);
    this.section = new Section({
      drawer: document.getElementById("drawer"),
      block: this.block,
      point: (place) => this.choosing.point(place),
      resized: () => this.fit(),
      ask: (path) => this.ask(path),
      signal: this.signal,
    });
    this.choosing = new Choosing(this, this.section);
    this.playback = new Playback(this);
    this.places = new Places(this);
    const Field = { control: Points, sorties: Sorties, fly: Fly, take: Take, accuracy: Residuals }[
      element.dataset.stage
    ];
    /** What a stage of its own adds to the sheet. */
    this.field = Field ? new Field(this) : null;
    this.wire();
    if (goesOn) {
      this.board.moveTo(element);
      this.wireMap();
    }
    if (brought) this.show(brought, !goesOn || kept.whole);
    else this.load(true);
  }

  get map() {
    return this.board.map;
  }

  get view() {
    return this.board.view;
  }

  get layers() {
    return this.board.layers;
  }

  get epsg() {
    return this.board.epsg;
  }

  get pictures() {
    return this.board.pictures;
  }

  /** Ends it, because another stage comes. Answers what that one goes on with. */
  leave() {
    this.leaving.abort();
    this.playback.close();
    if (this.field && this.field.leave) this.field.leave();
    if (!this.map) return null;
    cancelAnimationFrame(this.framing);
    this.board.free();
    return { board: this.board, whole: this.fitted === this.view.getResolution() };
  }

  /** Begins on a board's map. */
  wireMap() {
    this.board.corners(this.editable);
    this.editing.begin();
    this.turning.begin();
    this.choosing.begin();
    if (this.editable) this.places.neighbours();
    if (this.field) this.field.begin();
    this.board.hear(this.map, "rendercomplete", () => this.rendered());
    this.board.hear(this.view, "change", () => this.frame());
    this.board.hear(this.map, "change:size", () => {
      // A drawer that fills takes room from the sheet; what was shown whole stays so.
      if (this.fitted && this.fitted === this.view.getResolution()) this.fit();
      this.frame();
    });
  }

  // --- showing a plan

  /** Draws what a change brought along, in the picture in which the book shows it too; asks for it where it brought nothing. */
  changed() {
    if (!this.stale) return;
    this.stale = false;
    const brought = this.brought();
    if (brought) this.show(brought, false);
    else this.load(false);
  }

  /** The plan that came with the book, once. */
  brought() {
    const here = document.getElementById("sheet-now");
    if (!here || "seen" in here.dataset) return null;
    here.dataset.seen = "";
    /** The plan as it was written. */
    this.written = here.textContent;
    return JSON.parse(this.written);
  }

  async load(fit) {
    const plan = await this.ask(this.element.dataset.src);
    this.written = null;
    if (plan) this.show(plan, fit);
    else if (!this.signal.aborted)
      this.say("The sheet could not be drawn: the program did not answer. Reload the page.");
  }

  /** What the program answers as JSON. Nothing where it does not answer, and nothing more once this sheet has been left. */
  async ask(path) {
    try {
      const answer = await fetch(path, { headers: { Accept: "application/json" }, signal: this.signal });
      return answer.ok ? await answer.json() : null;
    } catch {
      return null;
    }
  }

  show(plan, fit) {
    // An answer that was asked for earlier and comes later is not drawn over a newer one.
    if (this.plan && plan.version < this.plan.version) return;
    this.plan = plan;
    const heights = (plan.stationHeights || []).length > 0;
    this.section.ground(Boolean(plan.ground && heights), plan.version);
    for (const tool of ["heights", "section"]) this.button(tool).hidden = !heights;
    this.button("play").hidden = stripsOf(plan) === 0;
    this.playback.drawn(plan.version);
    const fresh = plan.epsg && (!this.map || this.epsg !== plan.epsg);
    if (fresh) {
      this.board.lay(plan.epsg);
      this.wireMap();
    }
    if (!this.map) {
      this.hint("Say where first: set a launch point, or import an outline.");
      return;
    }
    this.hint("");
    // A corner under the finger is not taken away; its change brings the next drawing.
    this.skipped = this.editing.dragging;
    if (this.skipped) return;
    this.draw(plan);
    if (fit || fresh || this.fitNext) this.fit();
    this.fitNext = false;
    // At once, or the map were painted twice: with the strips, and again with their ticks.
    this.drawFrame();
    if (this.field) this.field.load();
    this.element.dataset.drawn = String(plan.version);
  }

  loadSkipped() {
    if (this.skipped) this.load(false);
  }

  /** Says which state the map shows, once it is painted: whoever waits for it need not guess. */
  rendered() {
    if (this.plan && this.element.dataset.drawn === String(this.plan.version)) {
      this.element.dataset.painted = String(this.plan.version);
    }
  }

  draw(plan) {
    const { Polygon, LineString, Point } = window.ol.geom;
    if (this.signal.aborted) return;
    this.board.draw(plan, this.written);
    this.overStill();
    this.editing.corridor(Boolean(plan.axis));
    this.board.fill("axis", plan.axis ? [feature(new LineString(pairs(plan.axis)))] : []);
    this.board.fill(
      "outline",
      plan.rings.map((ring, index) => feature(new Polygon([closed(ring)]), { ring: index, still: Boolean(plan.axis) })),
    );
    this.board.fill("launch", plan.launch ? [feature(new Point(plan.launch))] : []);
    this.pictures.under(plan.picture);
    this.pictures.map(plan.map, plan.epsg, this.element.querySelector(".map-by"));
    this.pictures.ground(plan.ground, (path) => this.ask(path));
    this.inset(plan.onEarth);
    this.turning.draw(plan);
    this.drawHeights();
    this.choosing.choose(this.choosing.strip);
    this.drawMarks();
    this.drawPicture();
    for (const [name, text] of Object.entries(plan.title)) this.title(name, text);
  }

  /** The drawing that came with the page stands until the map has its first picture. */
  overStill() {
    const still = this.element.querySelector(".still");
    if (still) this.map.once("postrender", () => still.remove());
  }

  /** Where on earth that is: the coasts round it, moved so that it lies in the middle. */
  inset(onEarth) {
    if (this.onEarth === String(onEarth)) return;
    this.onEarth = String(onEarth);
    const inset = this.element.querySelector(".inset");
    inset.toggleAttribute("hidden", !onEarth);
    if (!onEarth) return;
    const { x, y, mark } = insetAt(onEarth);
    inset.querySelector("g").setAttribute("transform", `translate(${x} ${y})`);
    inset.querySelector(".inset-mark").setAttribute("transform", `translate(0 ${mark})`);
  }

  /** Strips coloured by their height above the geoid, with a legend; on request. */
  drawHeights() {
    this.sources.heights.clear(true);
    const legend = this.element.querySelector(".height-legend:not(.accuracy-legend, .residual-legend)");
    const { least, most, pieces } = heightPieces(this.plan);
    legend.hidden = !this.byHeight || pieces.length === 0;
    if (legend.hidden) return;
    const { LineString } = window.ol.geom;
    this.sources.heights.addFeatures(
      pieces.map(({ line, share }) => feature(new LineString(line), { colour: scaleColour(share) })),
    );
    const steps = [0, 0.25, 0.5, 0.75, 1].map((share) => {
      const step = document.createElement("li");
      const height = Math.round(least + share * (most - least));
      step.innerHTML = `<svg width="18" height="12"><rect width="18" height="12" fill="${scaleColour(share)}"/></svg>`;
      step.append(` ${height} ${this.plan.heightUnit}`);
      return step;
    });
    legend.querySelector(".ramp").replaceChildren(...steps);
  }

  /** Findings and weak spots stand in the book; their places are drawn from there. */
  drawMarks() {
    this.sources.marks.clear(true);
    const onProof = document.getElementById("book").dataset.stage === "proof";
    for (const { dataset } of document.querySelectorAll(onProof ? ".spots [data-mark]" : ".findings [data-mark]")) {
      const at = new window.ol.geom.Point([Number(dataset.east), Number(dataset.north)]);
      this.sources.marks.addFeature(feature(at, { number: dataset.mark, level: dataset.level }));
    }
  }

  /** On the Proof stage the layer is what counts, on others their own signs; lines stand back. */
  drawPicture() {
    if (!this.map) return;
    const proof = document.getElementById("proof");
    const back = proof || this.field;
    this.pictures.proof(proof);
    this.layers.strips.setOpacity(this.field ? this.field.dimmed : back ? 0.35 : 1);
    this.layers.links.setOpacity(this.field ? 0 : back ? 0.35 : 1);
    this.layers.ticks.setOpacity(back ? 0 : 1);
  }

  fit() {
    if (!this.map) return;
    const { extent } = window.ol;
    const all = extent.createEmpty();
    for (const name of ["outline", "strips", "flown"]) extent.extend(all, this.sources[name].getExtent());
    if (extent.isEmpty(all)) {
      this.view.setCenter(this.plan.launch || [500000, 0]);
      this.view.setResolution(1 / this.plan.metresPerUnit);
      return;
    }
    this.map.updateSize();
    this.view.fit(all, { padding: PADDING, size: this.map.getSize() });
    this.fitted = this.view.getResolution();
  }

  // --- the frame

  frame() {
    if (!this.map || !this.plan || this.framing) return;
    this.framing = requestAnimationFrame(() => this.drawFrame());
  }

  drawFrame() {
    this.framing = 0;
    const size = this.map.getSize();
    if (!size || !size[0]) return;
    const extent = this.view.calculateExtent(size);
    const resolution = this.view.getResolution();
    const { plan } = this;
    this.board.drawTicks(plan, extent, resolution);
    // What is written again, though it is the same, is painted again: grid and scale of a view once.
    const framed = [extent, size, resolution, plan.metresPerUnit, plan.ruler.unit].join();
    if (this.framed === framed) return;
    this.framed = framed;
    this.element.querySelector(".ticks").innerHTML = gridSvg(extent, size, resolution);
    this.drawScale(resolution * plan.metresPerUnit);
  }

  drawScale(metresPerPixel) {
    const { width, svg } = scaleBar(metresPerPixel, this.plan.ruler);
    const bar = this.element.querySelector(".scale-bar");
    bar.setAttribute("width", String(width));
    bar.innerHTML = svg;
    this.title("scale", scaleWords(metresPerPixel));
  }

  title(name, text) {
    const cell = this.element.querySelector(`[data-title="${name}"]`);
    if (cell && cell.textContent !== text) cell.textContent = text;
  }

  // --- tools and keys

  button(tool) {
    return this.element.querySelector(`[data-tool="${tool}"]`);
  }

  use(tool) {
    const same = this.tool === tool;
    this.dropTool();
    if (same) return;
    const at = { fit: () => this.fit(), heights: () => this.toggleHeights(), section: () => this.section.open(0) };
    if (tool === "play") {
      this.playback.use();
      return;
    }
    if (at[tool]) at[tool]();
    else if (!this.map)
      this.say("The sheet has no place yet. Set a launch point in the Ground stage, or import an outline.");
    else if (tool === "picture") this.save();
    else if (tool === "in" || tool === "out") this.zoom(tool === "in" ? 0.5 : 2);
    else if (!this.field || !this.field.use(tool)) this.begin(tool);
  }

  begin(tool) {
    if (!this.editable && !tool.startsWith("object")) return;
    this.tool = tool;
    const button = document.querySelector(`[data-tool="${tool}"]`);
    if (button) button.setAttribute("aria-pressed", "true");
    this.editing.draw(tool);
  }

  toggleHeights() {
    this.byHeight = !this.byHeight;
    if (this.plan) this.drawHeights();
    this.button("heights").setAttribute("aria-pressed", String(this.byHeight));
  }

  zoom(factor) {
    this.view.animate({ resolution: this.view.getResolution() * factor, duration: 120 });
  }

  /** The sheet as it stands, as a picture to keep. */
  save() {
    const { name, grid, gsd } = this.plan.title;
    const scale = this.element.querySelector('[data-title="scale"]').textContent;
    savePicture(this.map, `${name}   ${grid}   ${scale}   GSD ${gsd}`);
  }

  dropTool() {
    /** A press that ended with the tool still in hand is the tool's, though the map tells of it a moment later. */
    this.droppedAt = performance.now();
    this.editing.drop();
    if (this.field) this.field.drop();
    this.tool = null;
    this.hint("");
    for (const button of document.querySelectorAll(
      "[data-tool]:not([data-tool=heights]):not([data-tool=accuracy]):not([data-tool=unseen])",
    )) {
      button.removeAttribute("aria-pressed");
    }
  }

  hint(words) {
    const hint = this.element.querySelector(".hint");
    hint.textContent = words;
    hint.hidden = !words;
  }

  key(key) {
    if (key === "Escape") this.dropTool();
    else if (key === "d" || key === "D") this.use("draw");
    else if (key === "f" || key === "F") this.fit();
    else if (key === ".") this.choosing.step(1);
    else if (key === ",") this.choosing.step(-1);
  }

  wire() {
    const { signal } = this;
    const stale = () => {
      this.stale = true;
    };
    const press = (event) => {
      const tool = event.target.closest("[data-tool]");
      if (tool) this.use(tool.dataset.tool);
      const mark = event.target.closest(".mark-button");
      if (mark) this.choosing.showMark(mark.closest("[data-mark]"));
    };
    document.body.addEventListener("sheet-changed", stale, { signal });
    document.body.addEventListener("htmx:afterSwap", () => this.changed(), { signal });
    document.addEventListener("click", press, { signal });
    const taken = () => {
      this.fitNext = true;
    };
    takeFiles(this.element, this.say, taken, signal);
  }
}
