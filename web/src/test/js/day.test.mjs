import assert from "node:assert/strict";
import { test } from "node:test";
import { clock, dragged } from "../../main/resources/static/js/hours.js";

test("minutes are told as a clock tells them", () => {
  assert.equal(clock(0), "00:00");
  assert.equal(clock(615), "10:15");
  assert.equal(clock(2000), "23:59");
});

test("a bar goes in steps of five minutes and stays in the day", () => {
  assert.equal(dragged(600, 10, 1.2), 610);
  assert.equal(dragged(600, -10, 1.2), 590);
  assert.equal(dragged(10, -1000, 1), 0);
  assert.equal(dragged(1400, 1000, 1), 1435);
});
