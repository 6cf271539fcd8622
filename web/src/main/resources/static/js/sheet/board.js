// The map of a block's sheet with all that lies on it. It goes from stage to stage, so that what does not change is not drawn again; what one stage
// hung onto it goes with that stage.
import { closed, endsOf, lookOf, pairs, stripsOf, ticksOf } from "./figures.js";
import { feature, makeLayers, makeMap, makePictures, makeSources } from "./layers.js";
import { Pictures } from "./pictures.js";
import * as styles from "./styles.js";

const TICK_PX = 5;
const MOST_TICKS = 20_000;
/** Stations nearer to each other than so many pixels are not ticked. */
const LEAST_BASE_PX = 3.5;

/** Sources that every stage fills alike, from the plan. */
const LASTING = ["flown", "strips", "ticks", "links", "things", "contours"];

export class Board {
  /** @param block whose plan is drawn on it */
  constructor(block) {
    this.block = block;
    this.sources = makeSources();
    /** Which plan lies in the lasting sources, as the program wrote it, and for which view its ticks are; nothing where that is not known. */
    this.drawn = null;
    this.ticked = null;
    this.heard = [];
  }

  /** Makes its map, in a grid. */
  lay(epsg) {
    if (this.map) {
      window.ol.Observable.unByKey(this.heard);
      this.heard = [];
      this.map.setTarget(null);
    }
    this.epsg = epsg;
    const under = makePictures();
    this.layers = makeLayers(this.sources);
    this.map = makeMap(epsg, under, this.layers);
    this.view = this.map.getView();
    this.own = [...this.map.getInteractions().getArray()];
    this.pictures = new Pictures(this.block, under, this.sources.contours, this.view.getProjection());
  }

  /** Shows the outline with corners that can be taken hold of, or as a line alone. */
  corners(shown) {
    this.layers.outline.setStyle(shown ? styles.outline : styles.edge);
    this.layers.axis.setStyle(shown ? styles.axis : styles.axisLine);
  }

  /** Listens to the map or its view, for the stage that is there. */
  hear(target, name, told) {
    this.heard.push(target.on(name, told));
  }

  /** Sets it free for the next stage: nothing of the one before listens, can be dragged or lies on it. */
  free() {
    window.ol.Observable.unByKey(this.heard);
    this.heard = [];
    this.view.cancelAnimations();
    for (const one of [...this.map.getInteractions().getArray()]) {
      if (!this.own.includes(one)) this.map.removeInteraction(one);
    }
    this.map.getTargetElement().classList.remove("over");
    this.pictures.shade(null);
    this.pictures.forget();
    // Whoever has asked for something to draw and hears late draws it into a source that nobody sees.
    const fresh = makeSources();
    for (const name of LASTING) fresh[name] = this.sources[name];
    for (const [name, layer] of Object.entries(this.layers)) {
      if (layer.getSource() !== fresh[name]) layer.setSource(fresh[name]);
    }
    this.sources = fresh;
  }

  /** Draws some things in the place of those that were there. */
  fill(name, features) {
    // Whoever edits the outline must hear that its features went, or it would move them too.
    this.sources[name].clear(name !== "outline");
    this.sources[name].addFeatures(features);
  }

  /**
   * Draws what every stage draws alike. Nobody can drag it, so that it is drawn once for each state of the plan.
   * @param written the plan as the program wrote it; nothing where that is not known
   */
  draw(plan, written) {
    if (written && written === this.drawn) return;
    this.drawn = written;
    this.ticked = null;
    const { Polygon, LineString, Point } = window.ol.geom;
    this.fill(
      "flown",
      plan.flown.map((ring) => feature(new Polygon([closed(ring)]))),
    );
    this.fill(
      "strips",
      Array.from({ length: stripsOf(plan) }, (_, strip) =>
        feature(new LineString(endsOf(plan, strip)), { strip, look: lookOf(plan, strip) }),
      ),
    );
    this.fill(
      "links",
      plan.links.map((link) => feature(new LineString(pairs(link.line)), { kind: link.kind })),
    );
    this.fill(
      "things",
      (plan.things || []).map(({ places, area, kind, name }) => {
        const at = pairs(places);
        const line = () => (at.length > 1 ? new LineString(at) : new Point(at[0]));
        return feature(area ? new Polygon([closed(places)]) : line(), { kind, name });
      }),
    );
  }

  /** Draws the stations of the strips that are in view. */
  drawTicks(plan, extent, resolution) {
    const view = `${extent} ${resolution}`;
    if (this.ticked === view) return;
    this.ticked = view;
    this.sources.ticks.clear(true);
    if (plan.baseUnits / resolution < LEAST_BASE_PX) return;
    const lines = ticksOf(plan, extent, TICK_PX * resolution, MOST_TICKS);
    this.sources.ticks.addFeature(feature(new window.ol.geom.MultiLineString(lines)));
  }

  /** Takes the place of the empty one on another stage's sheet, where that one is new. */
  moveTo(sheet) {
    const [place, own] = [sheet.querySelector("#map"), this.map.getTargetElement()];
    if (place !== own) place.replaceWith(own);
    this.map.render();
  }
}
