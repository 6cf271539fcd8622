// Figures of the look from anywhere, without anything drawn: pure, and tried on Node.

/** East, north, up as the drawing has them: x to the east, y up, z to the south. */
export const toSpace = (east, north, up) => [east, up, -north];

const sin = (degrees) => Math.sin((degrees * Math.PI) / 180);
const cos = (degrees) => Math.cos((degrees * Math.PI) / 180);

/** Axis, right and down of a photo, each as east, north, up; angles in degrees. */
export function axesOf(yaw, pitch, roll) {
  const axis = [cos(pitch) * sin(yaw), cos(pitch) * cos(yaw), sin(pitch)];
  const level = [cos(yaw), -sin(yaw), 0];
  const below = [
    axis[1] * level[2] - axis[2] * level[1],
    axis[2] * level[0] - axis[0] * level[2],
    axis[0] * level[1] - axis[1] * level[0],
  ];
  const mix = (a, b) => level.map((one, i) => a * one + b * below[i]);
  return { axis, right: mix(cos(roll), sin(roll)), down: mix(-sin(roll), cos(roll)) };
}

/**
 * The frame of a photo as pairs of ends of lines, in space.
 * @param station east, north, up, yaw, pitch, roll
 * @param frame half of what it shows across and down, a metre away
 * @param reach how far ahead it is drawn
 */
export function frustum([e, n, u, yaw, pitch, roll], [wide, high], reach) {
  const { axis, right, down } = axesOf(yaw, pitch, roll);
  const corner = (a, b) =>
    toSpace(...[e, n, u].map((at, i) => at + reach * (axis[i] + a * wide * right[i] + b * high * down[i])));
  const corners = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  const eye = toSpace(e, n, u);
  return corners.flatMap((at, i) => [eye, at, at, corners[(i + 1) % 4]]);
}

const STEPS = {
  w: { ahead: 1 },
  s: { ahead: -1 },
  a: { right: -1 },
  d: { right: 1 },
  q: { turn: -0.12 },
  e: { turn: 0.12 },
};

/** What a key does to whoever walks; nothing for other keys. */
export const walkStep = (key) => STEPS[key] || null;

/** Indices of the triangles of a grid of heights, of every one or only every so many of its points; those with an unknown corner are left out. */
export function triangles(columns, rows, heights, every = 1) {
  const indices = [];
  for (let row = 0; row + 1 < rows; row += every) {
    const below = Math.min(every, rows - 1 - row) * columns;
    for (let column = 0; column + 1 < columns; column += every) {
      const a = row * columns + column;
      const right = Math.min(every, columns - 1 - column);
      const corners = [a, a + right, a + below, a + below + right];
      if (corners.some((at) => heights[at] === null)) continue;
      indices.push(a, a + below, a + right, a + right, a + below, a + below + right);
    }
  }
  return indices;
}
