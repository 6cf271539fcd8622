// Going to a typed place, to where this device is, and to the corners of other blocks.
import { closed } from "./figures.js";

const NEAREST_RESOLUTION = 0.5;

export class Places {
  /** @param sheet whose view goes to places */
  constructor(sheet) {
    this.sheet = sheet;
    const listen = (name, heard) => document.addEventListener(name, heard, { signal: sheet.signal });
    listen("submit", (event) => {
      const form = event.target.closest("[data-go-to]");
      if (!form) return;
      event.preventDefault();
      this.go(form.elements.position.value);
    });
    listen("click", (event) => {
      const here = event.target.closest("[data-here]");
      if (here) this.here(here.dataset.here);
      const show = event.target.closest("[data-show]");
      if (show) this.go(show.dataset.show);
    });
    // What widening would give is shown while its figure is typed.
    listen("input", (event) => {
      const form = event.target.closest("[data-widen]");
      if (form) this.widened(form.elements.by.value);
    });
    listen("focusin", (event) => {
      const form = event.target.closest("[data-widen]");
      this.widened(form && event.target.name === "by" ? event.target.value : "");
    });
  }

  /** Shows a typed position in the middle of the sheet. */
  async go(position) {
    const { map, view, block, say } = this.sheet;
    if (!map) {
      say("The sheet has no place yet. Set a launch point, or import an outline.");
      return;
    }
    const answer = await fetch(`/blocks/${block}/place.json?position=${encodeURIComponent(position)}`);
    if (!answer.ok) {
      say(
        "That is no position: write latitude and longitude, easting and northing, or a lettered reference such as 30U VF 12717 41822.",
      );
      return;
    }
    const { east, north } = await answer.json();
    const resolution = Math.min(view.getResolution(), NEAREST_RESOLUTION / this.sheet.plan.metresPerUnit);
    this.sheet.choosing.point([east, north]);
    view.animate({ center: [east, north], resolution, duration: 200 });
  }

  /** Draws the outline as it would be, widened; nothing for nothing. */
  async widened(by) {
    const { block, sources } = this.sheet;
    this.asked = by;
    if (!by.trim()) {
      sources.preview.clear(true);
      return;
    }
    const answer = await fetch(`/blocks/${block}/outline/widened.json?by=${encodeURIComponent(by)}`);
    const rings = answer.ok ? await answer.json() : [];
    if (this.asked !== by) return;
    const { Feature, geom } = window.ol;
    sources.preview.clear(true);
    sources.preview.addFeatures(rings.map((ring) => new Feature(new geom.Polygon([closed(ring)]))));
  }

  /** Types the position the device reports into a field, with how good it says it is. */
  here(id) {
    const says = document.getElementById(`${id}-says`);
    const tell = (text) => {
      says.hidden = false;
      says.textContent = text;
    };
    if (!navigator.geolocation) {
      tell("This device does not say where it is.");
      return;
    }
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        const field = document.getElementById(id);
        field.value = `${coords.latitude.toFixed(7)}, ${coords.longitude.toFixed(7)}`;
        const metres = Math.round(coords.accuracy);
        tell(`Good to about ${metres} m, as the device says: enough to find a place, not to measure with.`);
        this.go(field.value);
      },
      () => tell("The device did not say where it is; allow it in the browser, or type the position."),
      { enableHighAccuracy: true, timeout: 20_000 },
    );
  }

  /** Outlines of the job's other blocks, to be seen and snapped to. */
  async neighbours() {
    const { block, sources } = this.sheet;
    const rings = await this.sheet.ask(`/blocks/${block}/neighbours.json`);
    if (!rings) return;
    const { Feature, geom } = window.ol;
    sources.neighbours.clear(true);
    sources.neighbours.addFeatures(rings.map((ring) => new Feature(new geom.Polygon([closed(ring)]))));
  }
}
