// The Take stage on the sheet: photos where they were taken, stations that lack one, ground that is given too little, areas decided on.
import { closed } from "./figures.js";
import { sketch } from "./styles.js";

const AGAIN_MS = 1200;
const PER_PHOTO = 4;

export class Take {
  /** @param sheet of the Take stage */
  constructor(sheet) {
    this.sheet = sheet;
    /** Strips stand behind what was taken. */
    this.dimmed = 0.3;
    this.asked = 0;
  }

  begin() {}

  leave() {
    this.asked++;
    clearTimeout(this.waiting);
  }

  /** Draws what stands; asks again as long as the proof is still to come. */
  async load() {
    const asked = ++this.asked;
    clearTimeout(this.waiting);
    const drawn = await this.sheet.ask(`/blocks/${this.sheet.block}/take.json`);
    if (!drawn || asked !== this.asked) return;
    this.draw(drawn);
    if (drawn.running) this.waiting = setTimeout(() => this.load(), AGAIN_MS);
  }

  draw({ photos, missing, gaps, areas, proved }) {
    const { Feature, geom } = window.ol;
    const { shots, missed, gapAreas, decided } = this.sheet.sources;
    const fill = (source, features) => {
      source.clear(true);
      source.addFeatures(features);
    };
    const taken = [];
    for (let i = 0; i < photos.length; i += PER_PHOTO) {
      taken.push(
        new Feature({
          geometry: new geom.Point([photos[i], photos[i + 1]]),
          state: photos[i + 2],
          photo: photos[i + 3],
        }),
      );
    }
    fill(shots, taken);
    const lacking = [];
    for (let i = 0; i < missing.length; i += 2) {
      lacking.push(new Feature(new geom.Point([missing[i], missing[i + 1]])));
    }
    fill(missed, lacking);
    fill(
      gapAreas,
      gaps.flatMap(({ number, rings, east, north }) => [
        ...rings.map((ring) => new Feature({ geometry: new geom.Polygon([closed(ring)]), gap: number })),
        new Feature({ geometry: new geom.Point([east, north]), gapNumber: number }),
      ]),
    );
    fill(
      decided,
      areas.map(({ kind, ring }) => new Feature({ geometry: new geom.Polygon([closed(ring)]), kind })),
    );
    this.sheet.element.dataset.taken = proved ? "proved" : "drawn";
  }

  /** A photo that is pressed is shown among the others. */
  press(feature) {
    const photo = feature && feature.get("photo");
    if (photo) window.location.href = `/blocks/${this.sheet.block}/take/photos#p${photo}`;
    return Boolean(photo);
  }

  /** An area is drawn into the form of decisions. */
  use(tool) {
    if (tool !== "area") return false;
    const source = this.sheet.sources.sketch;
    this.drawing = new window.ol.interaction.Draw({ source, type: "Polygon", style: sketch() });
    this.sheet.tool = tool;
    this.sheet.button("area").setAttribute("aria-pressed", "true");
    this.sheet.hint("Press corner after corner of the area; press the first again to close. Esc gives up.");
    this.drawing.on("drawend", (event) => {
      const ring = event.feature.getGeometry().getCoordinates()[0];
      setTimeout(() => {
        this.sheet.dropTool();
        source.clear(true);
        const places = document.getElementById("take-places");
        places.value = ring
          .slice(0, -1)
          .map(([east, north]) => `${east.toFixed(2)} ${north.toFixed(2)}`)
          .join("\n");
        places.closest("details").open = true;
        document.getElementById("take-reason").focus();
      });
    });
    this.sheet.map.addInteraction(this.drawing);
    return true;
  }

  drop() {
    if (this.drawing) this.sheet.map.removeInteraction(this.drawing);
    this.drawing = null;
  }
}
