// The sheet's figures on Node, without a browser: node --test
import assert from "node:assert/strict";
import { test } from "node:test";
import {
  snapShift,
  aboutStrip,
  bearingOf,
  clock,
  closed,
  cornerEdit,
  endsOf,
  heightPieces,
  lookOf,
  mainStrips,
  middleOf,
  momentAt,
  multiples,
  pairs,
  roundStep,
  stepped,
  stripsOf,
  thousands,
  ticksOf,
} from "../../main/resources/static/js/sheet/figures.js";

/** Two strips of 100 m, north and back south 30 m further east, with three and two stations. */
const PLAN = {
  strips: [0, 0, 0, 100, 30, 100, 30, 0],
  stations: [0, 0, 0, 50, 0, 100, 30, 100, 30, 0],
  stationsOf: [0, 3, 5],
  stationHeights: [300, 310, 320, 320, 300],
  metresPerUnit: 1,
  ruler: { unit: "m", metres: 1 },
};

test("steps are 1, 2 or 5 times a power of ten, at least what is asked", () => {
  for (const [least, step] of [
    [1, 1],
    [1.2, 2],
    [2.1, 5],
    [7, 10],
    [43, 50],
    [0.03, 0.05],
    [1000, 1000],
  ]) {
    assert.ok(Math.abs(roundStep(least) - step) < 1e-9 * step, `${least} gives ${roundStep(least)}`);
  }
});

test("thousands are set apart by thin spaces", () => {
  assert.equal(thousands(6041000.4), "6\u2009041\u2009000");
  assert.equal(thousands(999), "999");
  assert.equal(thousands(-12345), "-12\u2009345");
});

test("multiples lie between two figures and do not drift", () => {
  assert.deepEqual(multiples(95, 310, 100), [100, 200, 300]);
  assert.deepEqual(
    multiples(-150, 50, 100),
    [-100, 0].map((v) => v + 0),
  );
  assert.equal(multiples(0, 10, 0.1).at(-1), 9.9);
});

test("flat lists become pairs, rings are closed", () => {
  assert.deepEqual(pairs([1, 2, 3, 4]), [
    [1, 2],
    [3, 4],
  ]);
  assert.deepEqual(closed([0, 0, 1, 0, 1, 1]), [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 0],
  ]);
});

test("a strip is told by length, photos, numbers and bearing", () => {
  assert.equal(stripsOf(PLAN), 2);
  assert.equal(stripsOf(null), 0);
  assert.deepEqual(endsOf(PLAN, 1), [
    [30, 100],
    [30, 0],
  ]);
  assert.deepEqual(aboutStrip(PLAN, 0), { length: 100, photos: 3, first: 1, last: 3, bearing: "000" });
  assert.deepEqual(aboutStrip(PLAN, 1), { length: 100, photos: 2, first: 4, last: 5, bearing: "180" });
  const feet = { ...PLAN, ruler: { unit: "ft", metres: 0.3048 } };
  assert.equal(aboutStrip(feet, 0).length.toFixed(1), "328.1");
  const grid = { ...PLAN, metresPerUnit: 0.3048 };
  assert.equal(aboutStrip(grid, 0).length.toFixed(2), "30.48");
});

test("a bearing just below north is 000, not 360", () => {
  const plan = { ...PLAN, strips: [0, 0, -0.001, 100] };
  assert.equal(aboutStrip(plan, 0).bearing, "000");
});

test("ticks stand square to their strip, within the extent, and are never more than asked", () => {
  const all = ticksOf(PLAN, [-10, -10, 50, 110], 2, 100);
  assert.equal(all.length, 5);
  assert.deepEqual(
    all[0].map(([x, y]) => [Math.abs(x), y]),
    [
      [2, 0],
      [2, 0],
    ],
  );
  assert.equal(ticksOf(PLAN, [-10, -10, 10, 60], 2, 100).length, 2);
  assert.equal(ticksOf(PLAN, [-10, -10, 50, 110], 2, 3).length, 3);
});

test("heights are coloured by the mean of neighbouring stations, never across strips", () => {
  const { least, most, pieces } = heightPieces(PLAN);
  assert.deepEqual([least, most], [300, 320]);
  assert.deepEqual(
    pieces.map((piece) => piece.share),
    [0.25, 0.75, 0.5],
  );
  assert.deepEqual(heightPieces({ ...PLAN, stationHeights: [] }).pieces, []);
  const level = heightPieces({ ...PLAN, stationHeights: [5, 5, 5, 5, 5] });
  assert.deepEqual(
    level.pieces.map((piece) => piece.share),
    [0, 0, 0],
  );
});

test("the one corner that was moved, inserted or taken away is told", () => {
  const ring = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  assert.equal(
    cornerEdit(
      ring,
      ring.map((at) => [...at]),
    ),
    null,
  );
  assert.deepEqual(
    cornerEdit(ring, [
      [0, 0],
      [10, 0],
      [12, 11],
      [0, 10],
    ]),
    { act: "move", corner: 2, east: 12, north: 11 },
  );
  const inserted = [
    [0, 0],
    [5, -1],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  assert.deepEqual(cornerEdit(ring, inserted), { act: "insert", corner: 0, east: 5, north: -1 });
  assert.deepEqual(cornerEdit(ring, [...ring, [-1, 5]]), { act: "insert", corner: 3, east: -1, north: 5 });
  assert.deepEqual(
    cornerEdit(ring, [
      [0, 0],
      [10, 0],
      [0, 10],
    ]),
    { act: "remove", corner: 2 },
  );
  assert.deepEqual(cornerEdit(ring, ring.slice(0, 3)), { act: "remove", corner: 3 });
  assert.equal(cornerEdit(ring, ring.slice(0, 2)), null);
});

test("strips point the same way in a direction and its opposite", () => {
  assert.equal(bearingOf([0, 0], [0, 10]), 0);
  assert.equal(bearingOf([0, 0], [10, 0]), 90);
  assert.equal(bearingOf([0, 0], [-10, 0]), 90);
  assert.ok(Math.abs(bearingOf([0, 0], [-1, -1]) - 45) < 1e-12);
});

test("the middle and the shorter side of what places span", () => {
  assert.deepEqual(middleOf([0, 0, 100, 0, 0, 40, 100, 40]), { at: [50, 20], shorter: 40 });
});

test("strips of added passes are told from those of the main one, and tilted ones from both", () => {
  const plan = { strips: [0, 0, 0, 9, 1, 0, 1, 9, 2, 0, 2, 9], passOf: [1, 2, 3], tilted: [3] };
  assert.deepEqual(
    [0, 1, 2].map((strip) => lookOf(plan, strip)),
    ["main", "added", "tilted"],
  );
  assert.deepEqual(mainStrips(plan), [0, 0, 0, 9]);
  assert.equal(lookOf({ strips: [0, 0, 0, 9] }, 0), "main");
});

test("a played plan stands between its moments in proportion and counts photos as at the earlier one", () => {
  const data = {
    stepS: 2,
    places: [0, 0, 20, 0, 20, 10],
    line: [1, 1, 0],
    above: [60, 64, null],
    photos: [1, 2, 2],
    speed: [8, 10, 4],
    used: [0.1, 0.2, 0.05],
    set: [1, 1, 2],
  };
  const moment = momentAt(data, 1);
  assert.deepEqual(moment.place, [10, 0]);
  assert.equal(moment.above, 62);
  assert.equal(moment.photos, 1);
  assert.equal(moment.speed, 9);
  assert.ok(Math.abs(moment.used - 0.15) < 1e-12);
  assert.equal(momentAt(data, 3).used, 0.2, "a fresh set is not mixed with the spent one");
  assert.equal(momentAt(data, 3).above, 64);
  assert.deepEqual(momentAt(data, 99).place, [20, 10]);
  assert.equal(clock(605.4), "10:05");
  assert.equal(clock(3599.6), "1 h 00:00");
  assert.equal(clock(11960), "3 h 19:20");
});

test("a block moved near another comes to lie on its corner", () => {
  const corners = [
    [0, 0],
    [100, 0],
  ];
  const others = [[205, 3]];
  assert.deepEqual(snapShift(corners, others, [100, 0], 10), [105, 3]);
  assert.deepEqual(snapShift(corners, others, [90, 0], 10), [90, 0]);
  assert.deepEqual(snapShift(corners, [], [90, 0], 10), [90, 0]);
});

test("a line told in steps has its places to a tenth of a unit", () => {
  assert.deepEqual(stepped([4122814, 60411795, 10, -8, 0, -27]), [
    [412281.4, 6041179.5],
    [412282.4, 6041178.7],
    [412282.4, 6041176],
  ]);
  assert.deepEqual(stepped([]), []);
});
