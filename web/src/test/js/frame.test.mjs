// The sheet's frame on Node.
import assert from "node:assert/strict";
import { test } from "node:test";
import { gridSvg, insetAt, scaleBar, scaleWords } from "../../main/resources/static/js/sheet/frame.js";

test("ticks carry the grid's figures on all four sides, crosses stand where they meet", () => {
  // 800 by 600 pixels of 1 m: lines every 200 m
  const svg = gridSvg([412_050, 6_041_050, 412_850, 6_041_650], [800, 600], 1);
  for (const figure of ["412\u2009200", "412\u2009400", "412\u2009600", "412\u2009800"]) {
    assert.equal(svg.split(figure).length - 1, 2, figure);
  }
  for (const figure of ["6\u2009041\u2009200", "6\u2009041\u2009400", "6\u2009041\u2009600"]) {
    assert.equal(svg.split(figure).length - 1, 2, figure);
  }
  assert.equal(svg.split('class="cross"').length - 1, 4 * 3);
  // 412 200 lies 150 m from the western edge, whose figures have 40 px of room
  assert.ok(svg.includes('<path d="M190 26v8M190 626v-8"/>'));
});

test("the scale bar is as long as its figures say", () => {
  const bar = scaleBar(1.5, { unit: "m", metres: 1 });
  const [, width] = bar.svg.match(/width="([0-9.]+)"/);
  assert.ok(bar.svg.includes(">300 m<"));
  assert.ok(Math.abs(Number(width) * 1.5 - 100) < 1e-9);
  assert.equal(bar.width, Math.round(14 + 200 + 44));
});

test("in feet the bar's parts are round feet", () => {
  const bar = scaleBar(1.5, { unit: "ft", metres: 0.3048 });
  const [, width] = bar.svg.match(/width="([0-9.]+)"/);
  assert.ok(bar.svg.includes(">1500 ft<"));
  assert.ok(Math.abs((Number(width) * 1.5) / 0.3048 - 500) < 1e-6);
});

test("the scale is told to the nearest hundred, large ones to the one", () => {
  assert.equal(scaleWords(1), "about 1 : 3\u2009600");
  assert.equal(scaleWords(1.456), "about 1 : 5\u2009200");
  assert.equal(scaleWords(0.01), "about 1 : 36");
});

test("the inset puts a place in its middle, at the date line and near a pole too", () => {
  // the world begins at 180 west, 90 north; Greenwich on the equator is 180 to the right and 90 down
  assert.deepEqual(insetAt([0, 0]), { x: 36 - 180, y: 24 - 90, mark: 0 });
  assert.deepEqual(insetAt([-180, 40]), { x: 36, y: 24 - 50, mark: 0 });
  assert.deepEqual(insetAt([179, -40]), { x: 36 - 359, y: 24 - 130, mark: 0 });
  // 80 north: the window ends at the pole, the mark stands 14 degrees above its middle
  assert.deepEqual(insetAt([0, 80]), { x: 36 - 180, y: 0, mark: -14 });
});
