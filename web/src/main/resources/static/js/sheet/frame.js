// The sheet's frame: ticks of the grid with their figures, crosses, scale bar and scale.
import { multiples, roundStep, thousands } from "./figures.js";

/** Room for figures left of and above the neat line, in pixels. */
const EDGE = { left: 40, top: 26 };
const TICK_EVERY_PX = 140;
const BAR_PART_PX = 65;
/** Size of a pixel of a common screen, in metres; what a scale on a screen can be told by. */
const PIXEL_M = 0.00028;

/**
 * The frame's ticks and crosses as SVG.
 * @param extent west, south, east, north
 * @param size of the map in pixels
 * @param resolution units of the grid in a pixel
 */
export function gridSvg([west, south, east, north], [width, height], resolution) {
  const step = roundStep(resolution * TICK_EVERY_PX);
  const { left, top } = EDGE;
  const right = left + width;
  const foot = top + height;
  const columns = multiples(west, east, step).map((e) => ({ x: left + (e - west) / resolution, text: thousands(e) }));
  const rows = multiples(south, north, step).map((n) => ({ y: top + (north - n) / resolution, text: thousands(n) }));
  const parts = columns.map(
    ({ x, text }) =>
      `<path d="M${x} ${top}v8M${x} ${foot}v-8"/>` +
      `<text x="${x}" y="${top - 9}" text-anchor="middle">${text}</text>` +
      `<text x="${x}" y="${foot + 20}" text-anchor="middle">${text}</text>`,
  );
  for (const { y, text } of rows) {
    const upright = (x) =>
      `<text x="${x}" y="${y}" text-anchor="middle" transform="rotate(-90 ${x} ${y})">${text}</text>`;
    parts.push(`<path d="M${left} ${y}h8M${right} ${y}h-8"/>${upright(left - 9)}${upright(right + 18)}`);
    for (const { x } of columns) parts.push(`<path class="cross" d="M${x - 4} ${y}h8M${x} ${y - 4}v8"/>`);
  }
  return parts.join("");
}

/**
 * The scale bar as SVG, with its width in pixels.
 * @param metresPerPixel on the ground
 * @param ruler unit it is written in, and its length in metres
 */
export function scaleBar(metresPerPixel, ruler) {
  const part = roundStep((metresPerPixel / ruler.metres) * BAR_PART_PX);
  const px = (part * ruler.metres) / metresPerPixel;
  const bars = [0, 1, 2].map(
    (i) => `<rect x="${14 + i * px}" y="24" width="${px}" height="7" class="${i % 2 ? "" : "full"}"/>`,
  );
  const texts = [0, 1, 2, 3].map((i) => {
    const unit = i === 3 ? " " + ruler.unit : "";
    return `<text x="${14 + i * px}" y="17" text-anchor="middle">${i * part}${unit}</text>`;
  });
  return { width: Math.round(14 + 3 * px + 44), svg: bars.join("") + texts.join("") };
}

/** The scale in words, to the nearest hundred. */
export function scaleWords(metresPerPixel) {
  const scale = metresPerPixel / PIXEL_M;
  return "about 1 : " + thousands(Math.round(scale / 100) * 100 || Math.round(scale));
}

/** Degrees that the inset shows from west to east and from south to north. */
const INSET = [72, 48];

/**
 * How the world, drawn from (-180, 90) at the origin, is moved so that a place lies in the middle of the inset; near a pole it stays whole and the
 * mark moves instead.
 */
export function insetAt([lon, lat]) {
  const [width, height] = INSET;
  const middle = Math.max(-90 + height / 2, Math.min(90 - height / 2, lat));
  return { x: width / 2 - (lon + 180), y: height / 2 - (90 - middle), mark: middle - lat };
}
