// How things look on the sheet. Colours come from the page's own variables, so that every look has them.

const variables = new Map();

/** A variable of the page's style. It is looked up once: another look is another page, and each time the browser would style the page for it. */
export function css(name) {
  if (!variables.has(name)) {
    variables.set(name, getComputedStyle(document.documentElement).getPropertyValue(name).trim());
  }
  return variables.get(name);
}

// viridis, evenly spaced: perceptually even and safe for all colour vision.
const SCALE = [
  "#440154",
  "#482878",
  "#3e4989",
  "#31688e",
  "#26828e",
  "#1f9e89",
  "#35b779",
  "#6ece58",
  "#b5de2b",
  "#fde725",
];

/** The colour of a share from 0 (least) to 1 (most). */
export function scaleColour(share) {
  const step = Math.round(share * (SCALE.length - 1));
  return SCALE[Math.min(SCALE.length - 1, Math.max(0, step))];
}

const fill = (color) => new window.ol.style.Fill({ color });
const line = (color, width, lineDash) => new window.ol.style.Stroke({ color, width, lineDash, lineCap: "butt" });

/** Words with a halo, so that they can be read over anything. */
function words(text, colour, more) {
  return new window.ol.style.Text({
    text,
    font: "12px 'Source Sans 3'",
    fill: fill(colour),
    stroke: new window.ol.style.Stroke({ color: css("--halo"), width: 3 }),
    ...more,
  });
}

/** A line of a colour and a width in pixels, dashed where dashes are given. */
export const stroke = (colour, width, dash) => new window.ol.style.Style({ stroke: line(colour, width, dash) });

/** Strips of the main pass; those added are thinner, those of a tilted camera dashed. */
export function strip(colour, width) {
  const halo = stroke(css("--halo"), width * 2);
  const looks = {
    main: [halo, stroke(colour, width * 0.75)],
    added: [stroke(css("--halo"), width * 1.5), stroke(colour, width * 0.4)],
    tilted: [stroke(css("--halo"), width * 1.5), stroke(colour, width * 0.5, [8, 4])],
  };
  return (feature) => looks[feature.get("look") || "main"];
}

/** The aircraft of a played plan. */
export function craft() {
  const { style } = window.ol;
  return new style.Style({
    image: new style.Circle({ radius: 7, fill: fill(css("--ink")), stroke: line(css("--halo"), 3) }),
  });
}

/** The axis of a corridor. */
export const axisLine = () => stroke(css("--edge"), 1.5, [14, 3, 2, 3]);

/** The same with the points that can be dragged. */
export function axis(feature) {
  const { style, geom } = window.ol;
  const points = new style.Style({
    geometry: (f) => new geom.MultiPoint(f.getGeometry().getCoordinates()),
    image: new style.Circle({ radius: 5, fill: fill(css("--leaf")), stroke: line(css("--edge"), 2) }),
  });
  return feature.getGeometry().getCoordinates().length > 300 ? [axisLine()] : [axisLine(), points];
}

/** The outline where it is only looked at. */
export const edge = () => stroke(css("--edge"), 2, [9, 3, 2, 3]);

/** A fill that is hardly seen and can be taken hold of. */
export const area = () => new window.ol.style.Style({ fill: fill("rgba(0, 0, 0, 0.04)") });

/** The outline with its corners; a long one without them. */
export function outline(feature) {
  const { style, geom } = window.ol;
  const corners = new style.Style({
    geometry: (f) => new geom.MultiPoint(f.getGeometry().getCoordinates()[0].slice(0, -1)),
    image: new style.RegularShape({
      points: 4,
      radius: 6.5,
      angle: Math.PI / 4,
      fill: fill(css("--leaf")),
      stroke: line(css("--edge"), 2),
    }),
  });
  const still = feature.get("still") || feature.getGeometry().getCoordinates()[0].length > 300;
  return still ? [edge()] : [edge(), corners];
}

/** A contour, an index contour with its height, or a spot height. */
export function contour(feature) {
  const { style } = window.ol;
  const index = feature.get("index");
  const brown = css("--contour");
  if (feature.get("spot")) {
    const ink = css("--ink");
    return new style.Style({
      image: new style.Circle({ radius: 1.5, fill: fill(ink) }),
      text: words(feature.get("text"), ink, { offsetX: 6, textAlign: "left" }),
    });
  }
  return new style.Style({
    stroke: line(brown, index ? 1.3 : 0.6),
    text: index ? words(feature.get("text"), brown, { placement: "line", font: "11px 'Source Sans 3'" }) : undefined,
  });
}

/** What stands or hangs on the site. */
export function thing(feature) {
  const { style } = window.ol;
  const kind = feature.get("kind");
  const caution = kind === "caution";
  const within = kind === "keep-in";
  const colour = within ? css("--done") : caution ? css("--pin") : css("--edge");
  const aside = feature.getGeometry().getType() === "Point" ? -13 : 0;
  const name = words(feature.get("name"), colour, { overflow: true, offsetY: aside });
  if (kind === "obstacle") {
    return new style.Style({
      text: name,
      image: new style.RegularShape({ points: 3, radius: 7, fill: fill(css("--halo")), stroke: line(colour, 2) }),
      stroke: line(colour, 2),
    });
  }
  if (kind === "object" || kind === "deck") {
    const ink = css("--ink");
    return new style.Style({
      text: feature.get("name") ? words(feature.get("name"), ink, { overflow: true, offsetY: 22 }) : undefined,
      stroke: line(ink, 1.8, kind === "deck" ? [3, 3] : undefined),
      fill: fill(kind === "deck" ? "rgba(0, 0, 0, 0.05)" : "rgba(0, 0, 0, 0.18)"),
    });
  }
  return new style.Style({
    text: name,
    stroke: line(colour, within ? 2.4 : 1.6, within ? [14, 4, 2, 4] : caution ? [6, 4] : [12, 3]),
    fill: within ? undefined : fill(caution ? "rgba(138,90,0,0.07)" : "rgba(162,52,44,0.10)"),
  });
}

/** The launch point: a cross in a ring. */
export function launch(feature) {
  const { style } = window.ol;
  const ink = css("--ink");
  const halo = new style.Stroke({ color: css("--halo"), width: 4 });
  return [
    new style.Style({ image: new style.Circle({ radius: 8, fill: fill(css("--leaf")), stroke: line(ink, 2) }) }),
    new style.Style({
      image: new style.RegularShape({ points: 4, radius: 7, radius2: 0.5, angle: 0, stroke: line(ink, 1.5) }),
      text: words(feature.get("name") || "launch", ink, { offsetY: 18, font: "13px 'Source Sans 3'", stroke: halo }),
    }),
  ];
}

/** The handle that turns the strips, with its arm. */
export function turn(feature) {
  const { style } = window.ol;
  return feature.get("kind") === "handle"
    ? new style.Style({
        image: new style.Circle({ radius: 7, fill: fill(css("--leaf")), stroke: line(css("--strip"), 3) }),
      })
    : [stroke(css("--halo"), 4), stroke(css("--strip"), 1.5, [5, 3])];
}

/** The number of a finding or a weak spot. */
export function mark(feature) {
  const { style } = window.ol;
  const colour = feature.get("level") === "stop" ? css("--edge") : css("--pin");
  const number = String(feature.get("number"));
  return new style.Style({
    image: new style.Circle({ radius: 10, fill: fill(css("--pin-ground")), stroke: line(colour, 2) }),
    text: new style.Text({ text: number, font: "600 13px 'Source Sans 3'", fill: fill(colour) }),
  });
}

/** A place that another part of the page speaks of. */
export function spot() {
  const { style } = window.ol;
  return new style.Style({
    stroke: line(css("--edge"), 1),
    image: new style.Circle({ radius: 6, stroke: line(css("--edge"), 3), fill: fill(css("--halo")) }),
  });
}

/** What is being drawn. */
export function sketch() {
  const { style } = window.ol;
  return new style.Style({
    stroke: new style.Stroke({ color: css("--edge"), width: 2, lineDash: [9, 3, 2, 3] }),
    image: new style.Circle({ radius: 5, fill: fill(css("--edge")) }),
  });
}

/** A point on the ground: control a triangle, as points of known position have it on maps; check a lozenge. A locked one is filled. */
export function point(feature) {
  const { style } = window.ol;
  const check = feature.get("check");
  const colour = check ? css("--done") : css("--edge");
  return new style.Style({
    image: new style.RegularShape({
      points: check ? 4 : 3,
      radius: check ? 9 : 10,
      fill: fill(feature.get("locked") ? colour : css("--leaf")),
      stroke: line(colour, 2.4),
    }),
    text: words(feature.get("name"), css("--ink"), {
      offsetX: 13,
      offsetY: -6,
      textAlign: "left",
      font: "600 14px 'Source Sans 3'",
    }),
  });
}

/** A place of which an accuracy is known. */
export function dot(feature) {
  const { style } = window.ol;
  return new style.Style({
    image: new style.Circle({
      radius: 5,
      fill: fill(feature.get("colour")),
      stroke: line(css("--halo"), 1),
    }),
  });
}

/** Ground on which no target can lie. */
export function avoided(feature) {
  const { style } = window.ol;
  return new style.Style({
    fill: fill("rgba(35, 48, 47, 0.10)"),
    stroke: line(css("--ink-2"), 1.2, [2, 3]),
    text: words(feature.get("name"), css("--ink-2"), { overflow: true }),
  });
}

/** Dashes of the sorties in their turn: with the colours of the page they tell six apart, and the number stands beside. */
const DASHES = [undefined, [10, 4], [2, 3], [12, 3, 2, 3], [5, 5], [1, 4, 7, 4]];

/** A piece of a sortie, its number where it begins, and where coming home leaves least. */
export function sortie(feature) {
  const { style } = window.ol;
  const turn = (feature.get("sortie") - 1) % DASHES.length;
  const colour = css(`--sortie-${turn}`);
  const width = Number(css("--line").replace("px", ""));
  const kind = feature.get("kind");
  if (kind === "way") return stroke(colour, 1, [1, 5]);
  if (kind === "line") return stroke(colour, width * 1.1, DASHES[turn]);
  if (kind === "least") {
    const image = new style.RegularShape({
      points: 4,
      radius: 8,
      fill: fill(css("--leaf")),
      stroke: line(colour, 2.4),
    });
    return new style.Style({ image });
  }
  return new style.Style({
    image: new style.Circle({ radius: 10, fill: fill(css("--leaf")), stroke: line(colour, 2.4) }),
    text: new style.Text({
      text: String(feature.get("sortie")),
      font: "600 13px 'Source Sans 3'",
      fill: fill(css("--ink")),
    }),
  });
}

/** A place of the flight that the pilot does not see: a small cross. */
export function unseen() {
  const { style } = window.ol;
  const shape = (stroke) => new style.RegularShape({ points: 4, radius: 4, radius2: 0, angle: Math.PI / 4, stroke });
  return new style.Style({ image: shape(line(css("--edge"), 1.3)) });
}

/** Where a pair of eyes stands. */
export function eye(feature) {
  const { style } = window.ol;
  const ink = css("--ink");
  return [
    new style.Style({
      image: new style.Circle({ radius: 9, scale: [1, 0.6], fill: fill(css("--leaf")), stroke: line(ink, 2) }),
      text: words(feature.get("name"), ink, { offsetY: 17, font: "13px 'Source Sans 3'" }),
    }),
    new style.Style({ image: new style.Circle({ radius: 3, fill: fill(ink) }) }),
  ];
}

/** A photo that was taken: a dot where it is good, filled the more the better its place is known; a cross where its station must be flown again. */
export function shot(feature) {
  const { style } = window.ol;
  const state = feature.get("state") ?? (feature.get("good") ? 0 : 3);
  if (state === 3) return unseen();
  const ink = state === 4 ? css("--ink-2") : css("--done");
  const looks = [
    { radius: 2.6, fill: fill(ink) },
    { radius: 3, fill: fill(css("--leaf")), stroke: line(ink, 1.8) },
    { radius: 3.4, fill: fill(css("--leaf")), stroke: line(css("--pin"), 1.8) },
    null,
    { radius: 2, stroke: line(ink, 1) },
  ];
  return new style.Style({ image: new style.Circle(looks[state]) });
}

/** A station that lacks a photo. */
export function missed() {
  const { style } = window.ol;
  return new style.Style({
    image: new style.RegularShape({ points: 4, radius: 6, angle: Math.PI / 4, stroke: line(css("--edge"), 1.8) }),
  });
}

/** Ground that is given too little, with its number. */
export function gap(feature) {
  const { style } = window.ol;
  const edge = css("--edge");
  if (feature.get("gapNumber")) {
    return new style.Style({
      image: new style.Circle({ radius: 9, fill: fill(css("--leaf")), stroke: line(edge, 1.6) }),
      text: words(String(feature.get("gapNumber")), edge, { font: "600 13px 'Source Sans 3'" }),
    });
  }
  return new style.Style({ stroke: line(edge, 1.6), fill: fill(css("--gap")) });
}

/** Ground that was decided on. */
export function decided(feature) {
  const { style } = window.ol;
  const again = feature.get("kind") === "again";
  return new style.Style({
    stroke: new style.Stroke({ color: css(again ? "--edge" : "--ink-2"), width: 1.6, lineDash: [6, 4] }),
  });
}

/** By how much the map is off at a point: an arrow level, a stroke up or down beside it. */
export function residual(feature) {
  const { style } = window.ol;
  const tone = css(feature.get("out") ? "--edge" : feature.get("height") ? "--pin" : "--strip");
  if (feature.get("name")) {
    return new style.Style({
      image: new style.Circle({ radius: 3.4, fill: fill(css("--leaf")), stroke: line(css("--ink"), 1.4) }),
      text: words(feature.get("name"), css("--ink"), { offsetY: 14, font: "12px 'Source Sans 3'" }),
    });
  }
  return new style.Style({ stroke: line(tone, feature.get("height") ? 3 : 2) });
}
