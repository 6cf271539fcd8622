// Figures of the look from anywhere, and of the elevation view, on Node.
import assert from "node:assert/strict";
import { test } from "node:test";
import { axesOf, frustum, toSpace, triangles, walkStep } from "../../main/resources/static/js/space-figures.js";
import { numbers, shareOf } from "../../main/resources/static/js/faces.js";

const near = (a, b) => a.forEach((one, i) => assert.ok(Math.abs(one - b[i]) < 1e-9, `${a} is not ${b}`));

test("east is to the right, up is up, north is away", () => near(toSpace(1, 2, 3), [1, 3, -2]));

test("a photo level to the north has its right to the east and its lower edge down", () => {
  const { axis, right, down } = axesOf(0, 0, 0);
  near(axis, [0, 1, 0]);
  near(right, [1, 0, 0]);
  near(down, [0, 0, -1]);
});

test("looking straight up with the top to the north, the right is east and the lower edge north", () => {
  const { axis, right, down } = axesOf(0, 90, 0);
  near(axis, [0, 0, 1]);
  near(right, [1, 0, 0]);
  near(down, [0, 1, 0]);
});

test("straight down the lower edge of the picture lies south", () => near(axesOf(0, -90, 0).down, [0, -1, 0]));

test("a quarter of roll turns right into down", () => near(axesOf(0, 0, 90).right, axesOf(0, 0, 0).down));

test("the frame of a photo reaches as far as it is drawn, half as wide as it shows", () => {
  const lines = frustum([0, 0, 0, 0, 0, 0], [0.5, 0.25], 10);
  assert.equal(lines.length, 16);
  near(lines[0], [0, 0, 0]);
  near(lines[1], [-5, 2.5, -10]);
});

test("triangles leave out what nobody knows", () => {
  assert.equal(triangles(3, 2, [0, 0, 0, 0, 0, 0]).length, 12);
  assert.equal(triangles(3, 2, [0, 0, null, 0, 0, 0]).length, 6);
  assert.equal(triangles(3, 2, [0, null, 0, 0, 0, 0]).length, 0);
});

test("drawn coarsely the ground reaches to its last row and column all the same", () => {
  const heights = Array(5 * 6).fill(0);
  for (const every of [1, 2, 3, 9]) {
    const corners = triangles(5, 6, heights, every);
    assert.ok(corners.includes(0) && corners.includes(4) && corners.includes(25) && corners.includes(29));
    let area = 0;
    for (let i = 0; i < corners.length; i += 3) {
      const [[ax, ay], [bx, by], [cx, cy]] = corners.slice(i, i + 3).map((at) => [at % 5, Math.floor(at / 5)]);
      area += Math.abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay)) / 2;
    }
    assert.equal(area, 4 * 5, `every ${every}`);
  }
});

test("keys walk and turn, others do nothing", () => {
  assert.deepEqual(walkStep("w"), { ahead: 1 });
  assert.ok(walkStep("q").turn < 0);
  assert.equal(walkStep("x"), null);
});

test("a place on a face is its share from the left and from above", () => {
  const box = { left: 10, top: 20, width: 100, height: 50 };
  assert.deepEqual(shareOf(box, 35, 45), { along: 0.25, down: 0.5 });
  assert.equal(shareOf(box, 5, 45), null);
  assert.equal(shareOf(box, 35, 70), null);
});

test("numbers in a row are drawn together", () => {
  assert.equal(numbers([1, 2, 3, 7, 9, 10]), "1–3, 7, 9–10");
  assert.equal(numbers([1, 3, 5], 2), "1, 3 …");
});
