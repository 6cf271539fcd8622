// Choosing on the sheet: strips, marks of findings, places of the proof; and what the drawer says of them.
import { endsOf, lookOf, stripsOf } from "./figures.js";
import { feature } from "./layers.js";
import { probe, wordsOf } from "./probe.js";

export class Choosing {
  /** @param sheet on which is chosen: its map, layers, sources and plan
   * @param section the drawer below it */
  constructor(sheet, section) {
    this.sheet = sheet;
    this.section = section;
    this.strip = -1;
  }

  /** Listens on a new map. */
  begin() {
    const { board, map } = this.sheet;
    board.hear(map, "pointermove", (event) => {
      if (!event.dragging) this.hover(event);
    });
    board.hear(map, "singleclick", (event) => this.press(event));
  }

  hit(event, tolerance) {
    const { map, layers } = this.sheet;
    const which = [layers.strips, layers.marks];
    const options = { hitTolerance: tolerance };
    return map.forEachFeatureAtPixel(event.pixel, (f, l) => (which.includes(l) ? f : undefined), options);
  }

  /** A strip under the pointer is told in words. Nothing moves for it, and nothing is told while a tool is in hand. */
  hover(event) {
    if (this.sheet.tool) return;
    const hit = this.hit(event, 4);
    this.sheet.map.getTargetElement().classList.toggle("over", Boolean(hit));
    this.say(hit && hit.get("strip") !== undefined ? hit.get("strip") : this.strip);
  }

  press(event) {
    if (this.sheet.tool || event.originalEvent.timeStamp < this.sheet.droppedAt) return;
    if (this.taken(event)) return;
    const hit = this.hit(event, 5);
    if (hit && hit.get("number")) {
      const button = document.querySelector(`#book [data-mark="${hit.get("number")}"] .mark-button`);
      if (!button) return;
      button.scrollIntoView({ block: "nearest" });
      button.focus();
    } else if (document.getElementById("proof")) {
      this.probe(event.coordinate);
    } else {
      this.choose(hit ? hit.get("strip") : -1);
    }
  }

  /** Whether a photo of the take was pressed; it is shown then. */
  taken(event) {
    const { map, layers, field } = this.sheet;
    if (!field || !field.press) return false;
    const options = { hitTolerance: 4, layerFilter: (layer) => layer === layers.shots };
    return field.press(map.forEachFeatureAtPixel(event.pixel, (feature) => feature, options));
  }

  /** What a place is given, and lines from the photos that see it. */
  async probe(place) {
    const found = await probe(this.sheet.block, place);
    if (!found) return;
    const { MultiLineString, Point } = window.ol.geom;
    this.section.close();
    this.section.say(found.list);
    this.sheet.sources.spot.addFeatures([feature(new MultiLineString(found.rays)), feature(new Point(found.here))]);
  }

  /** Chooses a strip by its index from 0; -1 for none. */
  choose(strip) {
    const { sources, plan } = this.sheet;
    this.strip = strip < stripsOf(plan) ? strip : -1;
    sources.chosen.clear(true);
    if (this.strip >= 0) sources.chosen.addFeature(feature(new window.ol.geom.LineString(endsOf(plan, this.strip))));
    this.say(this.strip);
    if (this.strip >= 0) this.section.open(this.strip + 1);
    else if (this.section.strip > 0) this.section.close();
  }

  /** The strip so many after the chosen one, round and round. */
  step(by) {
    const strips = stripsOf(this.sheet.plan);
    if (strips) this.choose((Math.max(this.strip, by > 0 ? -1 : 0) + by + strips) % strips);
  }

  /** Tells a strip in words; what can be done to it where it is chosen. */
  say(strip) {
    const { plan, editable } = this.sheet;
    const told = `${strip}:${strip === this.strip}:${plan && plan.version}`;
    if (this.told === told) return;
    this.told = told;
    const words = wordsOf(plan, strip);
    if (plan && strip >= 0 && strip === this.strip && editable && lookOf(plan, strip) === "main") {
      words.append(this.acts(strip));
    }
    this.section.say(words);
  }

  /** What can be done to a strip by hand. */
  acts(strip) {
    const [from, to] = endsOf(this.sheet.plan, strip);
    const middle = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
    const group = document.createElement("span");
    group.className = "strip-acts";
    const act = (label, title, kind, place, photos) => {
      const button = Object.assign(document.createElement("button"), { type: "button", textContent: label, title });
      button.className = "button";
      button.setAttribute("aria-label", title);
      button.addEventListener("click", () => this.sheet.editing.strip(kind, [place], photos));
      group.append(button);
    };
    act("Drop", "Drop this strip", "DROP", middle);
    act("start +", "One photo more at its start", "REACH", from, 1);
    act("start −", "One photo less at its start", "REACH", from, -1);
    act("end +", "One photo more at its end", "REACH", to, 1);
    act("end −", "One photo less at its end", "REACH", to, -1);
    return group;
  }

  /** Shows a place that another part of the page speaks of. */
  point(place) {
    const { spot } = this.sheet.sources;
    spot.clear(true);
    if (place) spot.addFeature(feature(new window.ol.geom.Point(place)));
  }

  /** Brings the place of a finding to the middle. */
  showMark({ dataset }) {
    if (!this.sheet.map) return;
    this.sheet.view.animate({ center: [Number(dataset.east), Number(dataset.north)], duration: 200 });
  }
}
