// Points on the ground on the Control stage's sheet: drawn, dragged, set; the crew's way; how accurate heights will be where.
import { change } from "../changes.js";
import { closed, pairs } from "./figures.js";
import { scaleColour, sketch } from "./styles.js";

const AGAIN_MS = 700;
const HINTS = {
  control: "Press where the control point goes.",
  check: "Press where the check point goes.",
  avoid: "Press corner after corner of ground where no target can lie; press the first again to close. Esc gives up.",
};
const typed = (at) => `${at[0].toFixed(3)} ${at[1].toFixed(3)}`;

export class Points {
  /** @param sheet of the Control stage */
  constructor(sheet) {
    this.sheet = sheet;
    this.shown = true;
    /** How strongly strips are drawn besides. */
    this.dimmed = 0.35;
    this.dragging = false;
    this.asked = 0;
  }

  /** Makes the points of a new map movable. */
  begin() {
    const { map, layers } = this.sheet;
    this.translate = new window.ol.interaction.Translate({
      layers: [layers.points],
      hitTolerance: 8,
      filter: (feature) => !feature.get("locked"),
    });
    this.translate.on("translatestart", () => {
      this.dragging = true;
    });
    this.translate.on("translateend", (event) => {
      this.dragging = false;
      const moved = event.features.item(0);
      this.post("points/move", { point: moved.get("name"), place: typed(moved.getGeometry().getCoordinates()) });
    });
    map.addInteraction(this.translate);
  }

  leave() {
    this.asked++;
    clearTimeout(this.waiting);
  }

  /** Draws what stands; asks again as long as figures are still to come. */
  async load() {
    const { block } = this.sheet;
    const asked = ++this.asked;
    clearTimeout(this.waiting);
    const drawn = await this.sheet.ask(`/blocks/${block}/control.json`);
    if (!drawn || asked !== this.asked) return;
    if (!this.dragging) this.draw(drawn);
    if (drawn.running) this.waiting = setTimeout(() => this.load(), AGAIN_MS);
  }

  draw(drawn) {
    this.drawn = drawn;
    const { Feature, geom } = window.ol;
    const { points, walk, avoided } = this.sheet.sources;
    const fill = (source, features) => {
      source.clear(true);
      source.addFeatures(features);
    };
    fill(
      points,
      drawn.points.map(({ east, north, ...rest }) => new Feature({ geometry: new geom.Point([east, north]), ...rest })),
    );
    fill(
      avoided,
      drawn.areas.map(({ name, ring }) => new Feature({ geometry: new geom.Polygon([closed(ring)]), name })),
    );
    fill(walk, drawn.way.length > 3 ? [new Feature(new geom.LineString(pairs(drawn.way)))] : []);
    this.colour();
    for (const { name, words } of drawn.points) {
      const cell = document.querySelector(`.points li[data-point="${CSS.escape(name)}"] .point-sigma`);
      if (cell && words) cell.textContent = words;
    }
    // The table below grows as it fills; the sheet keeps the whole block in sight until somebody looks closer.
    this.sheet.map.updateSize();
    this.sheet.element.dataset.foretold = drawn.running ? "" : String(drawn.version);
  }

  /** A dot for each place of which the accuracy is known, its colour from the best to the worst. */
  colour() {
    const { places, legend } = this.drawn;
    const { Feature, geom } = window.ol;
    const { accuracy } = this.sheet.sources;
    accuracy.clear(true);
    const box = this.sheet.element.querySelector(".accuracy-legend");
    box.hidden = !this.shown || legend.length === 0;
    if (box.hidden) return;
    for (let i = 0; i < places.length; i += 3) {
      const at = new geom.Point([places[i], places[i + 1]]);
      accuracy.addFeature(new Feature({ geometry: at, colour: scaleColour(places[i + 2]) }));
    }
    const steps = legend.map((words, i) => {
      const step = document.createElement("li");
      const colour = scaleColour(i / (legend.length - 1));
      step.innerHTML = `<svg width="18" height="12"><circle cx="9" cy="6" r="5" fill="${colour}"/></svg> `;
      step.append(words);
      return step;
    });
    box.querySelector(".ramp").replaceChildren(...steps);
  }

  /** Whether a tool is one of these; it is begun then. */
  use(tool) {
    if (tool === "accuracy") {
      this.shown = !this.shown;
      this.sheet.button("accuracy").setAttribute("aria-pressed", String(this.shown));
      if (this.drawn) this.colour();
      return true;
    }
    if (!HINTS[tool]) return false;
    const { interaction } = window.ol;
    const source = this.sheet.sources.sketch;
    this.translate.setActive(false);
    this.drawing = new interaction.Draw({ source, type: tool === "avoid" ? "Polygon" : "Point", style: sketch() });
    this.sheet.tool = tool;
    document.querySelector(`[data-tool="${tool}"]`).setAttribute("aria-pressed", "true");
    this.sheet.hint(HINTS[tool]);
    this.drawing.on("drawend", (event) => {
      const at = event.feature.getGeometry().getCoordinates();
      setTimeout(() => {
        this.sheet.dropTool();
        source.clear(true);
        if (tool === "avoid") this.area(at[0]);
        else this.post("points", { role: tool.toUpperCase(), place: typed(at) });
      });
    });
    this.sheet.map.addInteraction(this.drawing);
    return true;
  }

  area(ring) {
    const form = document.getElementById("avoid-places").form;
    const values = { name: form.elements.name.value, kind: form.elements.kind.value };
    this.post("avoided", { ...values, places: ring.slice(0, -1).map(typed).join("\n") });
  }

  /** What the program refuses is taken back on the sheet. */
  async post(path, values) {
    const made = await change(`/blocks/${this.sheet.block}/control/${path}`, values);
    if (!made && this.drawn) this.draw(this.drawn);
  }

  drop() {
    if (this.drawing) this.sheet.map.removeInteraction(this.drawing);
    this.drawing = null;
    if (this.translate) this.translate.setActive(true);
  }
}
