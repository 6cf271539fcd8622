// The plan sheet: what the program planned, drawn in the job's grid, and the outline's corners to be moved on it.
import { change, fieldsOf } from "./changes.js";
import { Section, roundStep } from "./section.js";

const ol = window.ol;
const LARGEST_FILE = 20_000_000;
const TICK_PX = 5;
const MOST_TICKS = 20_000;

const css = (name) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

export class Sheet {
  constructor(element, say) {
    this.element = element;
    this.say = say;
    this.block = element.dataset.block;
    this.plan = null;
    this.chosen = -1;
    this.tool = null;
    this.sources = {};
    this.byHeight = false;
    this.section = new Section(document.getElementById("drawer"), this.block, (place) => this.point(place), () => this.fit());
    for (const name of ["outline", "flown", "strips", "ticks", "links", "chosen", "launch", "marks", "sketch", "contours", "things", "heights", "spot"]) this.sources[name] = new ol.source.Vector();
    this.wire();
    this.load(true);
  }

  // --- making the map, once the grid is known

  projection(epsg) {
    return new ol.proj.Projection({ code: "GRID:" + epsg, units: "m", axisOrientation: "enu", global: false });
  }

  makeMap(epsg) {
    const line = Number(css("--line").replace("px", ""));
    const layer = (name, style, zIndex) => new ol.layer.Vector({ source: this.sources[name], style, zIndex, updateWhileAnimating: true, updateWhileInteracting: true });
    const stroke = (colour, width, dash) => new ol.style.Style({ stroke: new ol.style.Stroke({ color: colour, width, lineDash: dash, lineCap: "butt" }) });
    this.picture = new ol.layer.Image({ zIndex: 0, opacity: 0.92 });
    this.under = new ol.layer.Image({ zIndex: -1.5, opacity: 0.9 });
    this.relief = new ol.layer.Image({ zIndex: -2, opacity: Number(css("--relief")) });
    this.layers = {
      contours: layer("contours", (f, resolution) => this.contourStyle(f, resolution), -1),
      things: layer("things", (f) => this.thingStyle(f), 1),
      heights: layer("heights", (f) => stroke(f.get("colour"), line * 2), 4),
      spot: layer("spot", new ol.style.Style({ stroke: new ol.style.Stroke({ color: css("--edge"), width: 1 }), image: new ol.style.Circle({ radius: 6, stroke: new ol.style.Stroke({ color: css("--edge"), width: 3 }), fill: new ol.style.Fill({ color: css("--halo") }) }) }), 9),
      flown: layer("flown", stroke(css("--ink-2"), 1, [2, 4]), 1),
      links: layer("links", (f) => stroke(css("--strip"), 1, f.get("kind") === "turn" ? [2, 3] : [1, 5]), 2),
      strips: layer("strips", stroke(css("--strip"), line * 0.75), 3),
      ticks: layer("ticks", stroke(css("--strip"), 1.2), 4),
      chosen: layer("chosen", [stroke(css("--halo"), line * 3.6), stroke(css("--strip"), line * 1.9)], 5),
      outline: layer("outline", (f) => this.outlineStyle(f), 6),
      launch: layer("launch", this.launchStyle(), 7),
      marks: layer("marks", (f) => this.markStyle(f), 8),
    };
    this.view = new ol.View({ projection: this.projection(epsg), center: [0, 0], resolution: 1, enableRotation: false, minResolution: 0.005, maxResolution: 500 });
    this.map = new ol.Map({
      target: "map", controls: [], view: this.view, layers: [this.relief, this.under, this.picture, ...Object.values(this.layers)],
      interactions: ol.interaction.defaults.defaults({ altShiftDragRotate: false, pinchRotate: false, doubleClickZoom: false }),
      keyboardEventTarget: document.getElementById("map"),
    });
    this.epsg = epsg;
    this.groundKey = this.underKey = undefined;
    this.addModify();
    this.map.on("pointermove", (event) => { if (!event.dragging) this.hover(event); });
    this.map.on("singleclick", (event) => this.press(event));
    this.view.on("change", () => this.frame());
    this.map.on("change:size", () => this.frame());
  }

  outlineStyle(feature) {
    const outline = new ol.style.Style({ stroke: new ol.style.Stroke({ color: css("--edge"), width: 2, lineDash: [9, 3, 2, 3], lineCap: "butt" }) });
    const corners = new ol.style.Style({
      geometry: (f) => new ol.geom.MultiPoint(f.getGeometry().getCoordinates()[0].slice(0, -1)),
      image: new ol.style.RegularShape({ points: 4, radius: 6.5, angle: Math.PI / 4, fill: new ol.style.Fill({ color: css("--leaf") }), stroke: new ol.style.Stroke({ color: css("--edge"), width: 2 }) }),
    });
    return feature.getGeometry().getCoordinates()[0].length > 300 ? [outline] : [outline, corners];
  }

  contourStyle(feature, resolution) {
    const index = feature.get("index");
    const brown = css("--contour");
    if (feature.get("spot")) {
      if (this.besideThing(feature.getGeometry().getCoordinates(), 30 * resolution)) return [];
      return new ol.style.Style({ image: new ol.style.Circle({ radius: 1.5, fill: new ol.style.Fill({ color: css("--ink") }) }), text: new ol.style.Text({ text: feature.get("text"), offsetX: 6, textAlign: "left", font: "12px 'Source Sans 3'", fill: new ol.style.Fill({ color: css("--ink") }), stroke: new ol.style.Stroke({ color: css("--halo"), width: 3 }) }) });
    }
    return new ol.style.Style({
      stroke: new ol.style.Stroke({ color: brown, width: index ? 1.3 : 0.6 }),
      text: index ? new ol.style.Text({ text: feature.get("text"), placement: "line", font: "11px 'Source Sans 3'", fill: new ol.style.Fill({ color: brown }), stroke: new ol.style.Stroke({ color: css("--halo"), width: 3 }) }) : undefined,
    });
  }

  /** Whether an obstacle's symbol stands so near that a spot height would be written across it. */
  besideThing(place, reach) {
    const near = this.sources.things.getClosestFeatureToCoordinate(place, (f) => f.getGeometry().getType() === "Point");
    if (!near) return false;
    const [east, north] = near.getGeometry().getCoordinates();
    return Math.hypot(east - place[0], north - place[1]) < reach;
  }

  thingStyle(feature) {
    const kind = feature.get("kind");
    const colour = kind === "caution" ? css("--pin") : css("--edge");
    const words = new ol.style.Text({ text: feature.get("name"), font: "12px 'Source Sans 3'", overflow: true, offsetY: feature.getGeometry().getType() === "Point" ? -13 : 0, fill: new ol.style.Fill({ color: colour }), stroke: new ol.style.Stroke({ color: css("--halo"), width: 3 }) });
    if (kind === "obstacle") {
      return new ol.style.Style({ text: words, image: new ol.style.RegularShape({ points: 3, radius: 7, fill: new ol.style.Fill({ color: css("--halo") }), stroke: new ol.style.Stroke({ color: colour, width: 2 }) }), stroke: new ol.style.Stroke({ color: colour, width: 2 }) });
    }
    return new ol.style.Style({ text: words, stroke: new ol.style.Stroke({ color: colour, width: 1.6, lineDash: kind === "caution" ? [6, 4] : [12, 3] }), fill: new ol.style.Fill({ color: kind === "caution" ? "rgba(138,90,0,0.07)" : "rgba(162,52,44,0.10)" }) });
  }

  launchStyle() {
    const ink = css("--ink");
    return [
      new ol.style.Style({ image: new ol.style.Circle({ radius: 8, fill: new ol.style.Fill({ color: css("--leaf") }), stroke: new ol.style.Stroke({ color: ink, width: 2 }) }) }),
      new ol.style.Style({ image: new ol.style.RegularShape({ points: 4, radius: 7, radius2: 0.5, angle: 0, stroke: new ol.style.Stroke({ color: ink, width: 1.5 }) }),
        text: new ol.style.Text({ text: "launch", offsetY: 18, font: "13px 'Source Sans 3'", fill: new ol.style.Fill({ color: ink }), stroke: new ol.style.Stroke({ color: css("--halo"), width: 4 }) }) }),
    ];
  }

  markStyle(feature) {
    const colour = feature.get("level") === "stop" ? css("--edge") : css("--pin");
    return new ol.style.Style({
      image: new ol.style.Circle({ radius: 10, fill: new ol.style.Fill({ color: css("--pin-ground") }), stroke: new ol.style.Stroke({ color: colour, width: 2 }) }),
      text: new ol.style.Text({ text: String(feature.get("number")), font: "600 13px 'Source Sans 3'", fill: new ol.style.Fill({ color: colour }) }),
    });
  }

  // --- showing a plan

  async load(fit) {
    let plan;
    try {
      const answer = await fetch(this.element.dataset.src, { headers: { Accept: "application/json" } });
      if (!answer.ok) throw new Error(String(answer.status));
      plan = await answer.json();
    } catch (error) {
      this.say("The sheet could not be drawn: the program did not answer. Reload the page.");
      return;
    }
    this.plan = plan;
    this.section.ground(Boolean(plan.ground && plan.stationHeights.length), plan.version);
    for (const tool of ["heights", "section"]) this.element.querySelector(`[data-tool=${tool}]`).hidden = !(plan.stationHeights || []).length;
    if (plan.epsg && (!this.map || this.epsg !== plan.epsg)) {
      if (this.map) this.map.setTarget(null);
      this.makeMap(plan.epsg);
      fit = true;
    }
    if (!this.map) { this.hint("Say where first: set a launch point, or import an outline."); return; }
    this.hint("");
    // A corner under the finger is not taken away; its change brings the next drawing.
    if (this.dragging) { this.skipped = true; return; }
    this.skipped = false;
    this.draw(plan);
    if (fit || this.fitNext) this.fit();
    this.fitNext = false;
    this.frame();
    this.element.dataset.drawn = String(plan.version);
  }

  draw(plan) {
    const feature = (geometry, properties) => { const f = new ol.Feature(geometry); f.setProperties(properties || {}); return f; };
    const pairs = (flat) => { const out = []; for (let i = 0; i < flat.length; i += 2) out.push([flat[i], flat[i + 1]]); return out; };
    // Whoever edits the outline must hear that its features went, or it would move them too.
    const fill = (name, features) => { this.sources[name].clear(name !== "outline"); this.sources[name].addFeatures(features); };
    const closed = (flat) => { const ring = pairs(flat); ring.push(ring[0]); return ring; };
    fill("outline", plan.rings.map((ring, index) => feature(new ol.geom.Polygon([closed(ring)]), { ring: index })));
    fill("flown", plan.flown.map((ring) => feature(new ol.geom.Polygon([closed(ring)]))));
    const strips = [];
    for (let i = 0; i < plan.strips.length; i += 4) strips.push(feature(new ol.geom.LineString(pairs(plan.strips.slice(i, i + 4))), { strip: i / 4 }));
    fill("strips", strips);
    fill("links", plan.links.map((link) => feature(new ol.geom.LineString(pairs(link.line)), { kind: link.kind })));
    fill("things", (plan.things || []).map((thing) => {
      const places = pairs(thing.places);
      const geometry = thing.area ? new ol.geom.Polygon([[...places, places[0]]]) : places.length > 1 ? new ol.geom.LineString(places) : new ol.geom.Point(places[0]);
      return feature(geometry, { kind: thing.kind, name: thing.name });
    }));
    this.drawGround(plan);
    this.drawHeights();
    fill("launch", plan.launch ? [feature(new ol.geom.Point(plan.launch))] : []);
    this.choose(this.chosen < strips.length ? this.chosen : -1);
    this.drawMarks();
    this.drawPicture();
    for (const [name, text] of Object.entries(plan.title)) {
      const cell = this.element.querySelector(`[data-title="${name}"]`);
      if (cell) cell.textContent = text;
    }
  }

  /** Light, shade and contours come once for each piece of ground. */
  async drawGround(plan) {
    const under = plan.picture ? plan.picture.key : "";
    if (this.underKey !== under) {
      this.underKey = under;
      this.under.setSource(plan.picture ? new ol.source.ImageStatic({ url: `/blocks/${this.block}/picture.png?of=${under}`, imageExtent: plan.picture.extent, projection: this.view.getProjection() }) : null);
    }
    const key = plan.ground ? plan.ground.key : "";
    if (this.groundKey === key) return;
    this.groundKey = key;
    this.sources.contours.clear(true);
    if (!plan.ground) { this.relief.setSource(null); return; }
    this.relief.setSource(new ol.source.ImageStatic({ url: `/blocks/${this.block}/relief.png?of=${key}`, imageExtent: plan.ground.extent, projection: this.view.getProjection(), interpolate: true }));
    const answer = await fetch(`/blocks/${this.block}/contours.json?of=${key}`);
    if (!answer.ok || this.groundKey !== key) return;
    const ground = await answer.json();
    const features = ground.contours.map((line) => {
      const points = [];
      for (let i = 0; i < line.line.length; i += 2) points.push([line.line[i], line.line[i + 1]]);
      const f = new ol.Feature(new ol.geom.LineString(points));
      f.setProperties({ index: line.index, text: String(line.level) });
      return f;
    });
    for (const spot of ground.spots) {
      const f = new ol.Feature(new ol.geom.Point([spot.east, spot.north]));
      f.setProperties({ spot: true, text: String(spot.height) });
      features.push(f);
    }
    this.sources.contours.addFeatures(features);
  }

  /** Strips coloured by their height above the geoid, with a legend; on request. */
  drawHeights() {
    this.sources.heights.clear(true);
    const plan = this.plan;
    const legend = this.element.querySelector(".height-legend");
    const heights = plan.stationHeights || [];
    legend.hidden = !this.byHeight || heights.length === 0;
    if (legend.hidden) return;
    const least = Math.min(...heights);
    const most = Math.max(...heights);
    const features = [];
    for (let strip = 0; strip + 1 < plan.stationsOf.length; strip++) {
      for (let i = plan.stationsOf[strip]; i + 1 < plan.stationsOf[strip + 1]; i++) {
        const f = new ol.Feature(new ol.geom.LineString([[plan.stations[2 * i], plan.stations[2 * i + 1]], [plan.stations[2 * i + 2], plan.stations[2 * i + 3]]]));
        f.set("colour", scaleColour(most > least ? ((heights[i] + heights[i + 1]) / 2 - least) / (most - least) : 0));
        features.push(f);
      }
    }
    this.sources.heights.addFeatures(features);
    legend.querySelector(".ramp").replaceChildren(...[0, 0.25, 0.5, 0.75, 1].map((share) => {
      const step = document.createElement("li");
      const swatch = document.createElementNS("http://www.w3.org/2000/svg", "svg");
      swatch.setAttribute("width", "18"); swatch.setAttribute("height", "12");
      const box = document.createElementNS("http://www.w3.org/2000/svg", "rect");
      box.setAttribute("width", "18"); box.setAttribute("height", "12"); box.setAttribute("fill", scaleColour(share));
      swatch.append(box);
      step.append(swatch, ` ${Math.round(least + share * (most - least))} ${plan.heightUnit}`);
      return step;
    }));
  }

  // Findings and weak spots stand in the book; their places are drawn from there.
  drawMarks() {
    this.sources.marks.clear(true);
    const onProof = document.getElementById("book").dataset.stage === "proof";
    const places = document.querySelectorAll(onProof ? ".spots [data-mark]" : ".findings [data-mark]");
    for (const place of places) {
      const mark = new ol.Feature(new ol.geom.Point([Number(place.dataset.east), Number(place.dataset.north)]));
      mark.setProperties({ number: place.dataset.mark, level: place.dataset.level });
      this.sources.marks.addFeature(mark);
    }
  }

  drawPicture() {
    const proof = document.getElementById("proof");
    if (!proof) { this.picture.setSource(null); this.layers.ticks.setOpacity(1); this.layers.strips.setOpacity(1); return; }
    this.picture.setSource(new ol.source.ImageStatic({ url: proof.dataset.picture, imageExtent: proof.dataset.extent.split(",").map(Number), projection: this.view.getProjection(), interpolate: false }));
    this.layers.strips.setOpacity(0.35);
    this.layers.ticks.setOpacity(0);
    this.layers.links.setOpacity(0.35);
  }

  /** Stations are short ticks across their strip, drawn only where they stand apart. */
  drawTicks() {
    const plan = this.plan;
    const resolution = this.view.getResolution();
    this.sources.ticks.clear(true);
    if (plan.baseUnits / resolution < 3.5) return;
    const [west, south, east, north] = this.view.calculateExtent(this.map.getSize());
    const half = TICK_PX * resolution;
    const lines = [];
    for (let strip = 0; strip + 1 < plan.stationsOf.length; strip++) {
      const at = strip * 4;
      const dx = plan.strips[at + 2] - plan.strips[at];
      const dy = plan.strips[at + 3] - plan.strips[at + 1];
      const length = Math.hypot(dx, dy) || 1;
      const nx = (-dy / length) * half;
      const ny = (dx / length) * half;
      for (let i = plan.stationsOf[strip]; i < plan.stationsOf[strip + 1]; i++) {
        const x = plan.stations[2 * i];
        const y = plan.stations[2 * i + 1];
        if (x < west || x > east || y < south || y > north) continue;
        lines.push([[x - nx, y - ny], [x + nx, y + ny]]);
        if (lines.length > MOST_TICKS) return;
      }
    }
    this.sources.ticks.addFeature(new ol.Feature(new ol.geom.MultiLineString(lines)));
  }

  fit() {
    if (!this.map) return;
    const extent = ol.extent.createEmpty();
    for (const name of ["outline", "strips", "flown"]) ol.extent.extend(extent, this.sources[name].getExtent());
    if (ol.extent.isEmpty(extent)) {
      const here = this.plan.launch || [500000, 0];
      this.view.setCenter(here);
      this.view.setResolution(1 / this.plan.metresPerUnit);
      return;
    }
    this.map.updateSize();
    this.view.fit(extent, { padding: [28, 34, 96, 34], size: this.map.getSize() });
  }

  // --- the frame: ticks of the grid, scale bar, scale

  frame() {
    if (!this.map || !this.plan || this.framing) return;
    this.framing = requestAnimationFrame(() => {
      this.framing = 0;
      const size = this.map.getSize();
      if (!size || !size[0]) return;
      this.drawTicks();
      this.drawGrid(size);
      this.drawScaleBar();
    });
  }

  drawGrid([width, height]) {
    const [west, south, east, north] = this.view.calculateExtent([width, height]);
    const resolution = this.view.getResolution();
    const step = roundStep(resolution * 140);
    const parts = [];
    const edge = { left: 40, top: 26 };
    const label = (value) => String(Math.round(value)).replace(/\B(?=(\d{3})+(?!\d))/g, "\u2009");
    const columns = [];
    const rows = [];
    for (let e = Math.ceil(west / step) * step; e < east; e += step) columns.push(e);
    for (let n = Math.ceil(south / step) * step; n < north; n += step) rows.push(n);
    for (const e of columns) {
      const x = edge.left + (e - west) / resolution;
      parts.push(`<path d="M${x} ${edge.top}v8M${x} ${edge.top + height}v-8"/><text x="${x}" y="${edge.top - 9}" text-anchor="middle">${label(e)}</text><text x="${x}" y="${edge.top + height + 20}" text-anchor="middle">${label(e)}</text>`);
    }
    for (const n of rows) {
      const y = edge.top + (north - n) / resolution;
      parts.push(`<path d="M${edge.left} ${y}h8M${edge.left + width} ${y}h-8"/><text x="${edge.left - 9}" y="${y}" text-anchor="middle" transform="rotate(-90 ${edge.left - 9} ${y})">${label(n)}</text><text x="${edge.left + width + 18}" y="${y}" text-anchor="middle" transform="rotate(-90 ${edge.left + width + 18} ${y})">${label(n)}</text>`);
      for (const e of columns) {
        const x = edge.left + (e - west) / resolution;
        parts.push(`<path class="cross" d="M${x - 4} ${y}h8M${x} ${y - 4}v8"/>`);
      }
    }
    this.element.querySelector(".ticks").innerHTML = parts.join("");
  }

  drawScaleBar() {
    const metresPerPixel = this.view.getResolution() * this.plan.metresPerUnit;
    const unit = this.plan.ruler;
    const part = roundStep((metresPerPixel / unit.metres) * 65);
    const px = (part * unit.metres) / metresPerPixel;
    const bars = [0, 1, 2].map((i) => `<rect x="${14 + i * px}" y="24" width="${px}" height="7" class="${i % 2 ? "" : "full"}"/>`);
    const texts = [0, 1, 2, 3].map((i) => `<text x="${14 + i * px}" y="17" text-anchor="middle">${i * part}${i === 3 ? " " + unit.unit : ""}</text>`);
    const bar = this.element.querySelector(".scale-bar");
    bar.setAttribute("width", String(Math.round(14 + 3 * px + 44)));
    bar.innerHTML = bars.join("") + texts.join("");
    const scale = metresPerPixel / 0.00028;
    const cell = this.element.querySelector('[data-title="scale"]');
    if (cell) cell.textContent = "about 1 : " + String(Math.round(scale / 100) * 100 || Math.round(scale)).replace(/\B(?=(\d{3})+(?!\d))/g, "\u2009");
  }

  // --- choosing strips and marks

  hover(event) {
    const hit = this.map.forEachFeatureAtPixel(event.pixel, (f, l) => (l === this.layers.strips || l === this.layers.marks ? f : undefined), { hitTolerance: 4 });
    this.map.getTargetElement().classList.toggle("over", Boolean(hit));
    this.tell(hit && hit.get("strip") !== undefined ? hit.get("strip") : this.chosen);
  }

  press(event) {
    if (this.tool) return;
    const hit = this.map.forEachFeatureAtPixel(event.pixel, (f, l) => (l === this.layers.marks || l === this.layers.strips ? f : undefined), { hitTolerance: 5 });
    if (hit && hit.get("number")) {
      const button = document.querySelector(`#book [data-mark="${hit.get("number")}"] .mark-button`);
      if (button) { button.scrollIntoView({ block: "nearest" }); button.focus(); }
      return;
    }
    if (document.getElementById("proof")) { this.probe(event.coordinate); return; }
    this.choose(hit ? hit.get("strip") : -1);
  }

  /** What a place is given, and lines from the photos that see it. */
  async probe([east, north]) {
    const answer = await fetch(`/blocks/${this.block}/proof/probe.json?east=${east}&north=${north}`);
    if (!answer.ok) return;
    const found = await answer.json();
    const here = [found.east, found.north];
    const rays = [];
    for (let i = 0; i < found.photos.length; i += 2) rays.push([[found.photos[i], found.photos[i + 1]], here]);
    const list = document.createElement("dl");
    list.className = "probe";
    for (const line of found.lines) {
      const pair = document.createElement("div");
      const term = document.createElement("dt");
      const figure = document.createElement("dd");
      term.textContent = line.label;
      figure.textContent = line.figure;
      pair.append(term, figure);
      list.append(pair);
    }
    this.section.close();
    this.section.say(list);
    this.sources.spot.addFeatures([new ol.Feature(new ol.geom.MultiLineString(rays)), new ol.Feature(new ol.geom.Point(here))]);
  }

  choose(strip) {
    this.chosen = strip;
    this.sources.chosen.clear(true);
    if (strip >= 0 && this.plan) {
      const s = this.plan.strips;
      this.sources.chosen.addFeature(new ol.Feature(new ol.geom.LineString([[s[4 * strip], s[4 * strip + 1]], [s[4 * strip + 2], s[4 * strip + 3]]])));
    }
    this.tell(strip);
  }

  tell(strip) {
    if (this.told === strip + ":" + (this.plan && this.plan.version)) return;
    this.told = strip + ":" + (this.plan && this.plan.version);
    const words = document.createElement("p");
    const name = document.createElement("b");
    words.append(name);
    if (strip < 0 || !this.plan || 4 * strip >= this.plan.strips.length) {
      name.textContent = "No strip chosen. ";
      const [before, after] = [",", "."].map((key) => Object.assign(document.createElement("kbd"), { textContent: key }));
      words.append("Press one on the sheet, or use the keys ", before, " and ", after);
      this.section.say(words);
      this.section.close();
      return;
    }
    const s = this.plan.strips;
    const dx = s[4 * strip + 2] - s[4 * strip];
    const dy = s[4 * strip + 3] - s[4 * strip + 1];
    const length = (Math.hypot(dx, dy) * this.plan.metresPerUnit) / this.plan.ruler.metres;
    const bearing = ((Math.atan2(dx, dy) * 180) / Math.PI + 360) % 360;
    const photos = this.plan.stationsOf[strip + 1] - this.plan.stationsOf[strip];
    name.textContent = `Strip ${strip + 1} `;
    words.append(`of ${s.length / 4}: ${length.toFixed(0)} ${this.plan.ruler.unit}, ${photos} photos, numbers ${this.plan.stationsOf[strip] + 1} to ${this.plan.stationsOf[strip + 1]}, flown towards ${String(Math.round(bearing) % 360).padStart(3, "0")}° of the grid`);
    this.section.say(words);
    this.section.open(strip + 1);
  }

  /** Shows a place that another part of the page speaks of. */
  point(place) {
    this.sources.spot.clear(true);
    if (place) this.sources.spot.addFeature(new ol.Feature(new ol.geom.Point(place)));
  }

  showMark(row) {
    if (!this.map) return;
    this.view.animate({ center: [Number(row.dataset.east), Number(row.dataset.north)], duration: 200 });
  }

  // --- changing the outline

  addModify() {
    this.modify = new ol.interaction.Modify({ source: this.sources.outline, pixelTolerance: 12, deleteCondition: (e) => ol.events.condition.altKeyOnly(e) && ol.events.condition.singleClick(e) });
    let before = [];
    this.modify.on("modifystart", (event) => { this.dragging = true; before = event.features.getArray().map((f) => ({ f, ring: ringOf(f) })); });
    this.modify.on("modifyend", () => {
      this.dragging = false;
      for (const { f, ring } of before) this.sendEdit(f.get("ring"), ring, ringOf(f));
      if (this.skipped) this.load(false);
    });
    this.map.addInteraction(this.modify);
  }

  /** Tells the program the one corner that was moved, inserted or taken away. */
  sendEdit(ring, before, after) {
    const differs = (i) => !after[i] || !before[i] || after[i][0] !== before[i][0] || after[i][1] !== before[i][1];
    if (after.length === before.length) {
      const corner = after.findIndex((_, i) => differs(i));
      if (corner >= 0) this.post("corner/move", { ring, corner, east: after[corner][0], north: after[corner][1] });
    } else if (after.length === before.length + 1) {
      let corner = after.findIndex((_, i) => differs(i));
      if (corner < 0) corner = after.length - 1;
      this.post("corner/insert", { ring, corner: corner - 1, east: after[corner][0], north: after[corner][1] });
    } else if (after.length === before.length - 1) {
      const corner = before.findIndex((_, i) => differs(i));
      this.post("corner/remove", { ring, corner });
    }
  }

  /** A change that the program refuses is taken back on the sheet. */
  async post(path, values) {
    const made = await change(`/blocks/${this.block}/${path}`, values);
    if (!made) this.draw(this.plan);
  }

  use(tool) {
    const same = this.tool === tool;
    this.dropTool();
    if (same) return;
    if (tool === "fit") { this.fit(); return; }
    if (tool === "heights") { this.byHeight = !this.byHeight; if (this.plan) this.drawHeights(); this.element.querySelector('[data-tool="heights"]').setAttribute("aria-pressed", String(this.byHeight)); return; }
    if (tool === "section") { this.section.open(0); return; }
    if (tool === "picture") { this.savePicture(); return; }
    if (!this.map) { this.say("The sheet has no place yet. Set a launch point in the Ground stage, or import an outline."); return; }
    if (tool === "in" || tool === "out") { this.view.animate({ resolution: this.view.getResolution() * (tool === "in" ? 0.5 : 2), duration: 120 }); return; }
    this.tool = tool;
    const button = document.querySelector(`[data-tool="${tool}"]`);
    if (button) button.setAttribute("aria-pressed", "true");
    const point = tool === "launch" || tool === "obstacle";
    this.modify.setActive(false);
    const stroke = new ol.style.Style({ stroke: new ol.style.Stroke({ color: css("--edge"), width: 2, lineDash: [9, 3, 2, 3] }), image: new ol.style.Circle({ radius: 5, fill: new ol.style.Fill({ color: css("--edge") }) }) });
    this.drawing = new ol.interaction.Draw({ source: this.sources.sketch, type: point ? "Point" : "Polygon", style: stroke });
    this.hint(tool === "obstacle" ? "Press where it stands." : tool === "launch" ? "Press where the aircraft takes off." : "Press corner after corner; press the first again to close. Esc gives up.");
    this.drawing.on("drawend", (event) => {
      const geometry = event.feature.getGeometry();
      const at = geometry.getCoordinates();
      setTimeout(() => {
        this.dropTool();
        this.sources.sketch.clear(true);
        if (tool === "launch") this.post("launch", { position: `${at[0].toFixed(3)} ${at[1].toFixed(3)}` });
        else if (tool === "obstacle") this.post("obstacles", { ...fieldsOf(document.getElementById("obstacle-form")), places: `${at[0].toFixed(3)} ${at[1].toFixed(3)}` });
        else this.post("outline/draw", { positions: at[0].slice(0, -1).flat().join(","), hole: tool === "hole", epsg: this.epsg });
      });
    });
    this.map.addInteraction(this.drawing);
  }

  /** The sheet as it stands, as a picture to keep. */
  savePicture() {
    this.map.once("rendercomplete", () => {
      const [width, height] = this.map.getSize();
      const whole = document.createElement("canvas");
      whole.width = width; whole.height = height;
      const pen = whole.getContext("2d");
      pen.fillStyle = css("--ground");
      pen.fillRect(0, 0, width, height);
      for (const canvas of this.map.getViewport().querySelectorAll("canvas")) {
        if (canvas.width === 0) continue;
        pen.globalAlpha = Number(canvas.parentNode.style.opacity || canvas.style.opacity || 1);
        const matrix = canvas.style.transform.match(/^matrix\(([^(]*)\)$/);
        pen.setTransform(...(matrix ? matrix[1].split(",").map(Number) : [width / canvas.width, 0, 0, height / canvas.height, 0, 0]));
        pen.drawImage(canvas, 0, 0);
      }
      pen.setTransform(1, 0, 0, 1, 0, 0);
      pen.globalAlpha = 1;
      const title = `${this.plan.title.name}   ${this.plan.title.grid}   ${this.element.querySelector('[data-title="scale"]').textContent}   GSD ${this.plan.title.gsd}`;
      pen.fillStyle = css("--leaf"); pen.fillRect(0, height - 24, width, 24);
      pen.fillStyle = css("--ink"); pen.font = "600 14px 'Source Sans 3'"; pen.fillText(title, 10, height - 8);
      const link = document.createElement("a");
      link.download = "sheet.png";
      link.href = whole.toDataURL("image/png");
      link.click();
    });
    this.map.renderSync();
  }

  dropTool() {
    if (this.drawing) this.map.removeInteraction(this.drawing);
    this.drawing = null;
    this.tool = null;
    this.hint("");
    if (this.modify) this.modify.setActive(true);
    for (const button of document.querySelectorAll("[data-tool]:not([data-tool=heights])")) button.removeAttribute("aria-pressed");
  }

  hint(words) {
    const hint = this.element.querySelector(".hint");
    hint.textContent = words;
    hint.hidden = !words;
  }

  key(key) {
    const strips = this.plan ? this.plan.strips.length / 4 : 0;
    if (key === "Escape") this.dropTool();
    else if (key === "d" || key === "D") this.use("draw");
    else if (key === "f" || key === "F") this.fit();
    else if (key === "." && strips) this.choose((this.chosen + 1) % strips);
    else if (key === "," && strips) this.choose((Math.max(this.chosen, 0) - 1 + strips) % strips);
  }

  // --- files and events

  wire() {
    document.body.addEventListener("sheet-changed", () => this.load(false));
    document.addEventListener("click", (event) => {
      const tool = event.target.closest("[data-tool]");
      if (tool) this.use(tool.dataset.tool);
      const mark = event.target.closest(".mark-button");
      if (mark) this.showMark(mark.closest("[data-mark]"));
    });
    const form = document.getElementById("import");
    const input = form.querySelector("input[type=file]");
    const tooLarge = (file) => {
      if (file.size <= LARGEST_FILE) return false;
      this.say(`“${file.name}” has ${Math.round(file.size / 1e6)} MB; up to 20 MB are read. Export the boundary alone, without pictures.`);
      return true;
    };
    form.addEventListener("change", (event) => { if (input.files[0] && tooLarge(input.files[0])) { event.stopImmediatePropagation(); input.value = ""; } }, true);
    document.body.addEventListener("htmx:configRequest", (event) => { if (event.target === form) event.detail.parameters.version = document.getElementById("book").dataset.version; });
    document.body.addEventListener("htmx:afterRequest", (event) => { if (event.target === form) { input.value = ""; this.fitNext = true; } });
    const neat = this.element.querySelector(".neat");
    neat.addEventListener("dragover", (event) => { event.preventDefault(); neat.classList.add("dropping"); });
    neat.addEventListener("dragleave", () => neat.classList.remove("dropping"));
    neat.addEventListener("drop", (event) => {
      event.preventDefault();
      neat.classList.remove("dropping");
      const file = event.dataTransfer.files[0];
      if (!file || tooLarge(file)) return;
      input.files = event.dataTransfer.files;
      window.htmx.trigger(form, "submit");
    });
  }
}

// viridis, evenly spaced: perceptually even and safe for all colour vision.
const SCALE = ["#440154", "#482878", "#3e4989", "#31688e", "#26828e", "#1f9e89", "#35b779", "#6ece58", "#b5de2b", "#fde725"];
const scaleColour = (share) => SCALE[Math.min(SCALE.length - 1, Math.max(0, Math.round(share * (SCALE.length - 1))))];

const ringOf = (feature) => feature.getGeometry().getCoordinates()[0].slice(0, -1).map((at) => [...at]);
