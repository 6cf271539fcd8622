// Changing what lies on the sheet: corners dragged, inserted and taken away, outlines, holes, launch point and obstacles drawn.
import { change, fieldsOf } from "../changes.js";
import { cornerEdit, pairs, snapShift } from "./figures.js";
import { area, edge, sketch } from "./styles.js";

const ringOf = (feature) =>
  feature
    .getGeometry()
    .getCoordinates()[0]
    .slice(0, -1)
    .map((at) => [...at]);
const typedPair = (at) => `${at[0].toFixed(3)},${at[1].toFixed(3)}`;
const typed = (at) => `${at[0].toFixed(3)} ${at[1].toFixed(3)}`;

const HINTS = {
  obstacle: "Press where it stands.",
  zone: "Press corner after corner of the zone; press the first again to close. Esc gives up.",
  launch: "Press where the aircraft takes off.",
  strip: "Press where the strip begins, then where it ends.",
  split: "Press on one side of the block, then on the other; the block is cut along the line.",
  object: "Press corner after corner of the footprint; press the first again to close. Esc gives up.",
  "object-line": "Press point after point along it; press the last again to end. Esc gives up.",
  axis: "Press point after point along the middle of the corridor; press the last again to end. Esc gives up.",
};
const SNAP_PX = 10;
const AREA_HINT = "Press corner after corner; press the first again to close. Esc gives up.";

export class Editing {
  /** @param sheet that is edited: its map, sources, block and grid */
  constructor(sheet) {
    this.sheet = sheet;
    this.dragging = false;
    this.drawing = null;
  }

  /** Makes the corners of the outline movable on a new map. */
  begin() {
    if (!this.sheet.editable) return;
    const { interaction, events } = window.ol;
    const { altKeyOnly, singleClick } = events.condition;
    this.modify = new interaction.Modify({
      source: this.sheet.sources.outline,
      pixelTolerance: 12,
      deleteCondition: (event) => altKeyOnly(event) && singleClick(event),
    });
    let before = [];
    this.modify.on("modifystart", (event) => {
      this.dragging = true;
      before = event.features.getArray().map((f) => ({ f, ring: ringOf(f) }));
    });
    this.modify.on("modifyend", () => {
      this.dragging = false;
      for (const { f, ring } of before) this.tell(f.get("ring"), cornerEdit(ring, ringOf(f)));
      this.sheet.loadSkipped();
    });
    this.sheet.map.addInteraction(this.modify);
    this.modifyAxis = new interaction.Modify({
      source: this.sheet.sources.axis,
      pixelTolerance: 12,
      deleteCondition: (event) => altKeyOnly(event) && singleClick(event),
    });
    this.modifyAxis.on("modifystart", () => {
      this.dragging = true;
    });
    this.modifyAxis.on("modifyend", (event) => {
      this.dragging = false;
      this.axis(event.features.item(0).getGeometry().getCoordinates());
      this.sheet.loadSkipped();
    });
    this.sheet.map.addInteraction(this.modifyAxis);
    this.snap();
  }

  /** Corners of other blocks draw near ones to themselves; it must be the last of the interactions. */
  snap() {
    const { map, sources } = this.sheet;
    if (this.snapping) map.removeInteraction(this.snapping);
    this.snapping = new window.ol.interaction.Snap({
      source: sources.neighbours,
      edge: false,
      pixelTolerance: SNAP_PX,
    });
    map.addInteraction(this.snapping);
  }

  /** Drags the whole outline, or the axis of a corridor. */
  move() {
    const { map, layers, sources } = this.sheet;
    const source = this.along ? sources.axis : sources.outline;
    this.modify.setActive(false);
    this.modifyAxis.setActive(false);
    // An area has no fill that could be taken hold of; while it is moved it has one that is hardly seen.
    this.moved = source.getFeatures();
    for (const f of this.moved) f.setStyle([edge(), area()]);
    this.translate = new window.ol.interaction.Translate({
      layers: [layers.axis, layers.outline],
      features: new window.ol.Collection(this.moved),
      hitTolerance: 10,
    });
    this.translate.on("translateend", (event) => {
      const shift = [0, 1].map((i) => event.coordinate[i] - event.startCoordinate[i]);
      const { metresPerUnit, rings, axis } = this.sheet.plan;
      const corners = (this.along ? [axis] : rings).flatMap(pairs);
      const others = this.sheet.sources.neighbours.getFeatures().flatMap((f) => f.getGeometry().getCoordinates()[0]);
      const [east, north] = snapShift(corners, others, shift, SNAP_PX * this.sheet.view.getResolution());
      this.sheet.dropTool();
      this.post("outline/move", {
        east: `${(east * metresPerUnit).toFixed(3)} m`,
        north: `${(north * metresPerUnit).toFixed(3)} m`,
      });
    });
    map.addInteraction(this.translate);
    this.sheet.hint("Drag the outline to where it belongs. Esc gives up.");
  }

  /** The outline of a corridor follows from its axis and is not dragged itself. */
  corridor(yes) {
    this.along = yes;
    if (this.modify) this.modify.setActive(!yes);
  }

  /** Tells the program the whole axis. */
  axis(places) {
    this.post("corridor/draw", { positions: places.map(typedPair).join(","), epsg: this.sheet.epsg });
  }

  /** Tells the program the one corner that was moved, inserted or taken away. */
  tell(ring, edit) {
    if (!edit) return;
    const { act, ...values } = edit;
    this.post("corner/" + act, { ring, ...values });
  }

  /** A change that the program refuses is taken back on the sheet. */
  async post(path, values) {
    const made = await change(`/blocks/${this.sheet.block}/${path}`, values);
    if (!made) this.sheet.draw(this.sheet.plan);
  }

  /** Begins to draw: an outline, a hole, the launch point or an obstacle. */
  draw(tool) {
    if (tool === "move") {
      this.move();
      return;
    }
    const { ol } = window;
    const point = tool === "launch" || tool === "obstacle";
    if (this.modify) this.modify.setActive(false);
    const source = this.sheet.sources.sketch;
    const type = point ? "Point" : ["axis", "split", "strip", "object-line"].includes(tool) ? "LineString" : "Polygon";
    const maxPoints = tool === "split" || tool === "strip" ? 2 : undefined;
    this.drawing = new ol.interaction.Draw({ source, type, maxPoints, style: sketch() });
    this.sheet.hint(HINTS[tool] || AREA_HINT);
    this.drawing.on("drawend", (event) => {
      const at = event.feature.getGeometry().getCoordinates();
      setTimeout(() => {
        this.sheet.dropTool();
        source.clear(true);
        this.drawn(tool, at);
      });
    });
    this.sheet.map.addInteraction(this.drawing);
    this.snap();
  }

  drawn(tool, at) {
    if (tool === "launch") {
      this.post("launch", { position: typed(at) });
    } else if (tool === "obstacle") {
      this.post("obstacles", { ...fieldsOf(document.getElementById("obstacle-form")), places: typed(at) });
    } else if (tool === "zone") {
      const { file, ...values } = fieldsOf(document.getElementById("zone-form"));
      this.post("zones/draw", { ...values, places: at[0].slice(0, -1).map(typed).join("\n") });
    } else if (tool === "object" || tool === "object-line") {
      const places = tool === "object" ? at[0].slice(0, -1) : at;
      this.post("objects/add", {
        ...fieldsOf(document.getElementById("object-form")),
        places: places.map(typed).join("\n"),
      });
    } else if (tool === "axis") {
      this.axis(at);
    } else if (tool === "split") {
      this.split(at);
    } else if (tool === "strip") {
      this.strip("ADD", at);
    } else {
      const positions = at[0].slice(0, -1).flat().join(",");
      this.post("outline/draw", { positions, hole: tool === "hole", epsg: this.sheet.epsg });
    }
  }

  /** Changes a strip of the main pass by hand. */
  strip(kind, places, photos = 0) {
    this.post("strips/edit", { kind, positions: places.map(typedPair).join(","), photos });
  }

  /** Parts of a block are blocks of their own, so this leads to the job's page. */
  split([from, to]) {
    const { job } = document.querySelector('[data-tool="split"]').dataset;
    const form = document.createElement("form");
    form.method = "post";
    form.action = `/jobs/${job}/split`;
    const token = document.querySelector('input[name="_csrf"]').value;
    const fields = { block: this.sheet.block, how: "line", from: typed(from), to: typed(to), _csrf: token };
    for (const [name, value] of Object.entries(fields)) {
      const field = document.createElement("input");
      field.type = "hidden";
      field.name = name;
      field.value = value;
      form.append(field);
    }
    document.body.append(form);
    form.requestSubmit();
  }

  /** Ends drawing, finished or not. */
  drop() {
    if (this.drawing) this.sheet.map.removeInteraction(this.drawing);
    this.drawing = null;
    if (this.translate) this.sheet.map.removeInteraction(this.translate);
    for (const f of this.moved || []) f.setStyle(undefined);
    this.moved = null;
    this.translate = null;
    if (this.modifyAxis) this.modifyAxis.setActive(true);
    if (this.modify) this.modify.setActive(!this.along);
  }
}
