// The map itself: its layers in their order, and the view in the job's grid.
import * as styles from "./styles.js";

const NAMES = [
  ...["neighbours", "outline", "axis", "flown", "strips", "ticks", "links", "chosen", "launch"],
  ...["marks", "sketch", "contours", "things", "heights", "spot", "turn", "craft", "preview"],
  ...["points", "walk", "accuracy", "avoided", "flights", "unseen", "eyes", "trail", "shots"],
  ...["missed", "gapAreas", "decided", "residuals"],
];

/** Something that can be drawn. */
export const feature = (geometry, properties = {}) => new window.ol.Feature({ geometry, ...properties });

/** An empty source for each kind of thing that is drawn. */
export function makeSources() {
  return Object.fromEntries(NAMES.map((name) => [name, new window.ol.source.Vector()]));
}

/** The layers over the pictures, by name; the lowest has the least index. */
export function makeLayers(sources) {
  const { css, stroke } = styles;
  const line = Number(css("--line").replace("px", ""));
  const strip = css("--strip");
  const layer = (name, style, zIndex) =>
    new window.ol.layer.Vector({
      source: sources[name],
      style,
      zIndex,
      updateWhileAnimating: true,
      updateWhileInteracting: true,
    });
  const clear = (feature, resolution) =>
    feature.get("spot") && besideThing(sources.things, feature.getGeometry().getCoordinates(), 30 * resolution);
  return {
    // Drawn once for a view and kept as an image: its many words would be written anew with every change of the strips.
    contours: new window.ol.layer.VectorImage({
      source: sources.contours,
      style: (feature, resolution) => (clear(feature, resolution) ? [] : styles.contour(feature)),
      zIndex: -1,
    }),
    things: layer("things", styles.thing, 4.5),
    heights: layer("heights", (f) => stroke(f.get("colour"), line * 2), 4),
    spot: layer("spot", styles.spot(), 9),
    flown: layer("flown", stroke(css("--ink-2"), 1, [2, 4]), 1),
    links: layer("links", (f) => stroke(strip, 1, f.get("kind") === "turn" ? [2, 3] : [1, 5]), 2),
    strips: layer("strips", styles.strip(strip, line), 3),
    ticks: layer("ticks", stroke(strip, 1.2), 4),
    chosen: layer("chosen", [stroke(css("--halo"), line * 3.6), stroke(strip, line * 1.9)], 5),
    outline: layer("outline", styles.edge, 6),
    axis: layer("axis", styles.axisLine, 6.5),
    neighbours: layer("neighbours", stroke(css("--ink-2"), 1, [9, 3, 2, 3]), 0.5),
    launch: layer("launch", styles.launch, 7),
    turn: layer("turn", styles.turn, 7),
    marks: layer("marks", styles.mark, 8),
    preview: layer("preview", stroke(css("--pin"), line, [7, 4]), 6),
    craft: layer("craft", styles.craft(), 10),
    accuracy: layer("accuracy", styles.dot, 4),
    avoided: layer("avoided", styles.avoided, 1),
    walk: layer("walk", [stroke(css("--halo"), 4), stroke(css("--ink"), 1.4, [1, 4])], 7.5),
    points: layer("points", styles.point, 8.5),
    flights: layer("flights", styles.sortie, 3.6),
    unseen: layer("unseen", styles.unseen, 3.4),
    eyes: layer("eyes", styles.eye, 8.6),
    trail: layer("trail", [stroke(css("--halo"), line * 2.2), stroke(css("--ink"), line * 0.9)], 5.5),
    shots: layer("shots", styles.shot, 5.6),
    missed: layer("missed", styles.missed(), 5.5),
    gapAreas: layer("gapAreas", styles.gap, 5.4),
    decided: layer("decided", styles.decided, 5.3),
    residuals: layer("residuals", styles.residual, 8.7),
  };
}

/** Whether an obstacle's symbol stands so near that a spot height would be written across it. */
function besideThing(things, place, reach) {
  const near = things.getClosestFeatureToCoordinate(place, (f) => f.getGeometry().getType() === "Point");
  if (!near) return false;
  const [east, north] = near.getGeometry().getCoordinates();
  return Math.hypot(east - place[0], north - place[1]) < reach;
}

/** Pictures below the lines: light and shade, the site's own picture, a layer of the proof. */
export function makePictures() {
  const { Image, Tile } = window.ol.layer;
  return {
    map: new Tile({ zIndex: -1.8, preload: 0 }),
    relief: new Image({ zIndex: -2, opacity: Number(styles.css("--relief")) }),
    under: new Image({ zIndex: -1.5, opacity: 0.9 }),
    proof: new Image({ zIndex: 0, opacity: 0.92 }),
    shade: new Image({ zIndex: 0.2, opacity: 0.8 }),
  };
}

/** A map in a projected grid; the earth's shape is the program's affair, the sheet is flat. */
export function makeMap(epsg, pictures, layers) {
  const { ol } = window;
  const projection = new ol.proj.Projection({
    code: "GRID:" + epsg,
    units: "m",
    axisOrientation: "enu",
    global: false,
  });
  const view = new ol.View({
    projection,
    center: [0, 0],
    resolution: 1,
    enableRotation: false,
    minResolution: 0.005,
    maxResolution: 500,
  });
  return new ol.Map({
    target: "map",
    controls: [],
    view,
    layers: [...Object.values(pictures), ...Object.values(layers)],
    interactions: ol.interaction.defaults.defaults({
      altShiftDragRotate: false,
      pinchRotate: false,
      doubleClickZoom: false,
    }),
    keyboardEventTarget: document.getElementById("map"),
  });
}
