// The Sorties stage's sheet: sorties by sign, launch points that can be dragged, what the pilot does not see, shadows at an hour.
import { change } from "../changes.js";
import { pairs } from "./figures.js";

const AGAIN_MS = 800;
const HINTS = {
  "take-off": "Press where the aircraft may take off and land.",
  pilot: "Press where the pilot stands.",
};
const typed = (at) => `${at[0].toFixed(3)} ${at[1].toFixed(3)}`;

export class Sorties {
  /** @param sheet of the Sorties stage */
  constructor(sheet) {
    this.sheet = sheet;
    this.shown = true;
    this.dragging = false;
    this.asked = 0;
    this.minute = null;
    /** Strips are drawn by their sorties instead. */
    this.dimmed = 0;
    this.wire();
  }

  /** Hours whose shadows can be shown stand in the book. */
  wire() {
    const press = (event) => {
      const wanted = event.target.closest("[data-shade]");
      if (!wanted) return;
      event.preventDefault();
      const minute = Number(wanted.dataset.shade);
      this.minute = this.minute === minute ? null : minute;
      this.shade();
    };
    const { signal } = this.sheet;
    document.addEventListener("click", press, { signal });
    for (const written of ["htmx:afterSwap", "htmx:oobAfterSwap"]) {
      document.body.addEventListener(written, () => this.mark(), { signal });
    }
  }

  /** Makes the launch points of a new map movable. */
  begin() {
    const { map, layers } = this.sheet;
    this.translate = new window.ol.interaction.Translate({ layers: [layers.launch], hitTolerance: 8 });
    this.translate.on("translatestart", () => {
      this.dragging = true;
    });
    this.translate.on("translateend", (event) => {
      this.dragging = false;
      const moved = event.features.item(0);
      const place = typed(moved.getGeometry().getCoordinates());
      this.post("launches/move", { at: moved.get("at") ?? -1, place });
    });
    map.addInteraction(this.translate);
  }

  leave() {
    this.asked++;
    clearTimeout(this.waiting);
  }

  /** Draws what stands; asks again as long as more is to come. */
  async load() {
    const { block } = this.sheet;
    const asked = ++this.asked;
    clearTimeout(this.waiting);
    const drawn = await this.sheet.ask(`/blocks/${block}/sorties.json`);
    if (!drawn || asked !== this.asked) return;
    this.drawn = drawn;
    this.sheet.section.flags = drawn.sorties.map(({ leastLine, least, leastWords }) => ({
      line: leastLine,
      place: least,
      words: leastWords,
    }));
    if (!this.dragging) this.draw();
    if (drawn.running) this.waiting = setTimeout(() => this.load(), AGAIN_MS);
    this.sheet.element.dataset.cut = drawn.running ? "" : String(drawn.version);
  }

  draw() {
    const { Feature, geom } = window.ol;
    const { flights, launch, unseen, eyes } = this.sheet.sources;
    const fill = (source, features) => {
      source.clear(true);
      source.addFeatures(features);
    };
    const line = (flat) => new geom.LineString(pairs(flat));
    const at = (pair, more) => new Feature({ geometry: new geom.Point(pair), ...more });
    fill(
      flights,
      this.drawn.sorties.flatMap(({ number, lines, ways, start, least }) => [
        ...lines.map((flat) => new Feature({ geometry: line(flat), sortie: number, kind: "line" })),
        ...ways.map((flat) => new Feature({ geometry: line(flat), sortie: number, kind: "way" })),
        at(least, { sortie: number, kind: "least" }),
        at(start, { sortie: number, kind: "start" }),
      ]),
    );
    fill(
      launch,
      this.drawn.launches.map(({ at: index, name, east, north }) => at([east, north], { at: index, name })),
    );
    fill(unseen, this.shown ? pairs(this.drawn.hidden).map((place) => at(place, {})) : []);
    const { pilot, observer } = this.drawn;
    fill(eyes, [
      ...(pilot ? [at(pilot, { name: "pilot" })] : []),
      ...(observer ? [at(observer, { name: "observer" })] : []),
    ]);
    this.shade();
    this.sheet.map.updateSize();
  }

  /** The shadow at the hour that was pressed; pressed again it goes. */
  shade() {
    const { pictures, block } = this.sheet;
    const extent = this.drawn && this.drawn.shade;
    const url = `/blocks/${block}/sorties/shade.png?minute=${this.minute}&of=${this.drawn && this.drawn.version}`;
    pictures.shade(this.minute !== null && extent ? url : null, extent);
    this.mark();
  }

  /** The hour that was pressed looks so, also when its button was written anew. */
  mark() {
    for (const button of document.querySelectorAll("[data-shade]")) {
      button.setAttribute("aria-pressed", String(Number(button.dataset.shade) === this.minute));
    }
  }

  /** Whether a tool is one of these; it is begun then. */
  use(tool) {
    if (tool === "unseen") {
      this.shown = !this.shown;
      this.sheet.button("unseen").setAttribute("aria-pressed", String(this.shown));
      if (this.drawn) this.draw();
      return true;
    }
    if (!HINTS[tool]) return false;
    const source = this.sheet.sources.sketch;
    this.translate.setActive(false);
    this.drawing = new window.ol.interaction.Draw({ source, type: "Point" });
    this.sheet.tool = tool;
    this.sheet.button(tool).setAttribute("aria-pressed", "true");
    this.sheet.hint(HINTS[tool]);
    this.drawing.on("drawend", (event) => {
      const place = typed(event.feature.getGeometry().getCoordinates());
      setTimeout(() => {
        this.sheet.dropTool();
        source.clear(true);
        this.post(tool === "pilot" ? "pilot" : "launches", { place });
      });
    });
    this.sheet.map.addInteraction(this.drawing);
    return true;
  }

  /** What the program refuses is taken back on the sheet. */
  async post(path, values) {
    const made = await change(`/blocks/${this.sheet.block}/sorties/${path}`, values);
    if (!made && this.drawn) this.draw();
  }

  drop() {
    if (this.drawing) this.sheet.map.removeInteraction(this.drawing);
    this.drawing = null;
    if (this.translate) this.translate.setActive(true);
  }
}
