// Pictures on the sheet: light and shade with contours, the site's own picture, a layer of the proof; and the sheet as a picture to keep.
import { stepped } from "./figures.js";
import { feature } from "./layers.js";
import { css } from "./styles.js";

const still = (url, imageExtent, projection, interpolate = true) =>
  new window.ol.source.ImageStatic({ url, imageExtent, projection, interpolate });

const SQUARE_PX = 256;
const COARSEST = 512;
const FINEST = 17;

/** Squares counted from the grid's origin to the east and to the south. */
function squares(address, epsg, projection) {
  const { source, tilegrid } = window.ol;
  const far = 2 ** 30;
  const resolutions = Array.from({ length: FINEST + 1 }, (_, z) => COARSEST / 2 ** z);
  return new source.TileImage({
    projection,
    tileGrid: new tilegrid.TileGrid({
      extent: [-far, -far, far, far],
      origin: [0, 0],
      resolutions,
      tileSize: SQUARE_PX,
    }),
    tileUrlFunction: ([z, x, y]) => `${address}&epsg=${epsg}&z=${z}&x=${x}&y=${y}`,
    transition: 0,
  });
}

export class Pictures {
  constructor(block, layers, contours, projection) {
    this.block = block;
    this.layers = layers;
    this.contours = contours;
    this.projection = projection;
  }

  /** A map to work on, in squares of the job's grid; its server is named beside it. */
  map(map, epsg, named) {
    named.textContent = map ? map.attribution : "";
    named.hidden = !map || !map.attribution;
    const key = map ? map.squares + epsg : "";
    if (this.mapKey === key) return;
    this.mapKey = key;
    this.layers.map.setSource(map ? squares(map.squares, epsg, this.projection) : null);
  }

  /** The site's own picture comes once for each picture and outline. */
  under(picture) {
    const key = picture ? picture.key : "";
    if (this.underKey === key) return;
    this.underKey = key;
    const url = `/blocks/${this.block}/picture.png?of=${key}`;
    this.layers.under.setSource(picture ? still(url, picture.extent, this.projection) : null);
  }

  /**
   * Light, shade and contours come once for each piece of ground.
   * @param ask asks the program for JSON, as the sheet does
   */
  async ground(ground, ask) {
    const key = ground ? ground.key : "";
    if (this.groundKey === key) return;
    this.groundKey = key;
    this.asked = null;
    this.contours.clear(true);
    const url = `/blocks/${this.block}/relief.png?of=${key}`;
    this.layers.relief.setSource(ground ? still(url, ground.extent, this.projection) : null);
    if (!ground) return;
    const asked = {};
    this.asked = asked;
    const lines = await ask(`/blocks/${this.block}/contours.json?of=${key}`);
    if (this.asked !== asked) return;
    this.asked = null;
    if (lines) this.contours.addFeatures(contoursOf(lines));
  }

  /** Nobody waits any more for what was asked for; the next stage asks again. */
  forget() {
    if (this.asked) this.groundKey = null;
    this.asked = null;
  }

  /** Shadows at an hour; nothing where none is asked for. */
  shade(url, extent) {
    this.layers.shade.setSource(url ? still(url, extent, this.projection, false) : null);
  }

  /** The layer of the proof that the book shows; nothing on other stages. */
  proof(shown) {
    this.layers.proof.setVisible(Boolean(shown));
    const key = shown ? shown.dataset.picture + shown.dataset.extent : this.proofKey;
    if (this.proofKey === key) return;
    this.proofKey = key;
    const extent = shown.dataset.extent.split(",").map(Number);
    this.layers.proof.setSource(still(shown.dataset.picture, extent, this.projection, false));
  }
}

function contoursOf(ground) {
  const { geom } = window.ol;
  const lines = ground.contours.map(({ steps, index, level }) =>
    feature(new geom.LineString(stepped(steps)), { index, text: String(level) }),
  );
  const spots = ground.spots.map(({ east, north, height }) =>
    feature(new geom.Point([east, north]), { spot: true, text: String(height) }),
  );
  return [...lines, ...spots];
}

/** Saves the map as it stands, with a line below it that says what it is. */
export function savePicture(map, words) {
  map.once("rendercomplete", () => {
    const [width, height] = map.getSize();
    const whole = Object.assign(document.createElement("canvas"), { width, height });
    const pen = whole.getContext("2d");
    pen.fillStyle = css("--ground");
    pen.fillRect(0, 0, width, height);
    for (const canvas of map.getViewport().querySelectorAll("canvas")) {
      if (canvas.width === 0) continue;
      pen.globalAlpha = Number(canvas.parentNode.style.opacity || canvas.style.opacity || 1);
      const matrix = canvas.style.transform.match(/^matrix\(([^(]*)\)$/);
      const whole = [width / canvas.width, 0, 0, height / canvas.height, 0, 0];
      pen.setTransform(...(matrix ? matrix[1].split(",").map(Number) : whole));
      pen.drawImage(canvas, 0, 0);
    }
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.globalAlpha = 1;
    pen.fillStyle = css("--leaf");
    pen.fillRect(0, height - 24, width, 24);
    pen.fillStyle = css("--ink");
    pen.font = "600 14px 'Source Sans 3'";
    pen.fillText(words, 10, height - 8);
    const href = whole.toDataURL("image/png");
    Object.assign(document.createElement("a"), { download: "sheet.png", href }).click();
  });
  map.renderSync();
}
