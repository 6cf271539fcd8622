// Turning the strips by a handle on the sheet. The program plans anew when it is let go: lengths, turns and time follow.
import { change } from "../changes.js";
import { bearingOf, mainStrips, middleOf } from "./figures.js";

/** The handle stands so far from the middle, as a share of the strips' shorter side. */
const REACH = 0.3;

export class Turning {
  /** @param sheet whose strips are turned */
  constructor(sheet) {
    this.sheet = sheet;
    this.handle = null;
  }

  /** Makes the handle movable on a new map. */
  begin() {
    if (!this.sheet.editable) return;
    const { interaction } = window.ol;
    const translate = new interaction.Translate({ layers: [this.sheet.layers.turn], hitTolerance: 8 });
    translate.on("translating", () => this.follow());
    translate.on("translateend", () => this.turn());
    this.sheet.map.addInteraction(translate);
  }

  /** Sets the handle where the strips point. */
  draw(plan) {
    const source = this.sheet.sources.turn;
    source.clear(true);
    this.handle = null;
    if (!this.sheet.editable || plan.strips.length === 0 || plan.axis) return;
    const { Feature, geom } = window.ol;
    const { at, shorter } = middleOf(mainStrips(plan));
    this.middle = at;
    this.radius = shorter * REACH;
    this.handle = new Feature(
      new geom.Point(this.placeAt(bearingOf(plan.strips.slice(0, 2), plan.strips.slice(2, 4)))),
    );
    this.handle.set("kind", "handle");
    this.arm = new Feature(new geom.LineString([this.middle, this.handle.getGeometry().getCoordinates()]));
    source.addFeatures([this.arm, this.handle]);
  }

  placeAt(bearing) {
    const angle = (bearing * Math.PI) / 180;
    return [this.middle[0] + Math.sin(angle) * this.radius, this.middle[1] + Math.cos(angle) * this.radius];
  }

  bearing() {
    return bearingOf(this.middle, this.handle.getGeometry().getCoordinates());
  }

  /** The arm goes with the handle, and the hint says where the strips would point. */
  follow() {
    const bearing = this.bearing();
    this.arm.getGeometry().setCoordinates([this.middle, this.handle.getGeometry().getCoordinates()]);
    this.sheet.hint(`Strips towards ${bearing.toFixed(1)}°`);
  }

  async turn() {
    const bearing = this.bearing();
    this.sheet.hint("");
    const url = `/blocks/${this.sheet.block}/ledger/direction`;
    const made = await change(url, { act: "type", value: `${bearing.toFixed(1)}°` });
    if (!made) this.draw(this.sheet.plan);
  }
}
