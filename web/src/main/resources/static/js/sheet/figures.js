// Figures of a plan's lines, and of the numbers written round the sheet. Nothing here touches the page.

/** A step of 1, 2 or 5 times a power of ten, at least the given one. */
export function roundStep(least) {
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((f) => f * power).find((step) => step >= least * 0.999);
}

/** A whole number with its thousands set apart by a thin space. */
export const thousands = (value) => String(Math.round(value)).replace(/\B(?=(\d{3})+(?!\d))/g, "\u2009");

/** Multiples of a step from one figure up to, not including, another. */
export function multiples(from, to, step) {
  const found = [];
  for (let i = Math.ceil(from / step); i * step < to; i++) found.push(i * step);
  return found;
}

/** A flat list of eastings and northings in turn, as pairs. */
export function pairs(flat) {
  const out = [];
  for (let i = 0; i < flat.length; i += 2) out.push([flat[i], flat[i + 1]]);
  return out;
}

/** The places of a line that is told in steps, in tenths of a unit: its first place, then from each place to the next. */
export function stepped(steps) {
  const out = [];
  let [east, north] = [0, 0];
  for (let i = 0; i < steps.length; i += 2) {
    east += steps[i];
    north += steps[i + 1];
    out.push([east / 10, north / 10]);
  }
  return out;
}

/** The ring of a flat list, closed. */
export function closed(flat) {
  const ring = pairs(flat);
  return [...ring, ring[0]];
}

/** Whether a strip belongs to the main pass, to one added to it, or to one with a tilted camera. */
export function lookOf(plan, strip) {
  const pass = (plan.passOf || [])[strip] || 1;
  if ((plan.tilted || []).includes(pass)) return "tilted";
  return pass === 1 ? "main" : "added";
}

/** The strips of the main pass alone, which come first: four figures each. */
export const mainStrips = (plan) => plan.strips.filter((_, i) => ((plan.passOf || [])[Math.floor(i / 4)] || 1) === 1);

/** How many strips a plan has. */
export const stripsOf = (plan) => (plan ? plan.strips.length / 4 : 0);

/** Both ends of a strip, by its index from 0. */
export function endsOf(plan, strip) {
  const [x1, y1, x2, y2] = plan.strips.slice(4 * strip, 4 * strip + 4);
  return [
    [x1, y1],
    [x2, y2],
  ];
}

/** What the drawer says of a strip: length in the ruler's unit, photos, bearing of the grid in whole degrees. */
export function aboutStrip(plan, strip) {
  const [[x1, y1], [x2, y2]] = endsOf(plan, strip);
  const bearing = ((Math.atan2(x2 - x1, y2 - y1) * 180) / Math.PI + 360) % 360;
  const first = plan.stationsOf[strip];
  const behind = plan.stationsOf[strip + 1];
  return {
    length: (Math.hypot(x2 - x1, y2 - y1) * plan.metresPerUnit) / plan.ruler.metres,
    photos: behind - first,
    first: first + 1,
    last: behind,
    bearing: String(Math.round(bearing) % 360).padStart(3, "0"),
  };
}

/**
 * Stations as short ticks across their strip, those within an extent [west, south, east, north].
 * @param half length of a tick to either side, in units of the grid
 * @param most ticks; beyond it none are added
 */
export function ticksOf(plan, [west, south, east, north], half, most) {
  const lines = [];
  for (let strip = 0; strip + 1 < plan.stationsOf.length; strip++) {
    if (lookOf(plan, strip) !== "main") continue;
    const [[x1, y1], [x2, y2]] = endsOf(plan, strip);
    const length = Math.hypot(x2 - x1, y2 - y1) || 1;
    const nx = (-(y2 - y1) / length) * half;
    const ny = ((x2 - x1) / length) * half;
    for (let i = plan.stationsOf[strip]; i < plan.stationsOf[strip + 1]; i++) {
      const x = plan.stations[2 * i];
      const y = plan.stations[2 * i + 1];
      if (x < west || x > east || y < south || y > north) continue;
      if (lines.length >= most) return lines;
      lines.push([
        [x - nx, y - ny],
        [x + nx, y + ny],
      ]);
    }
  }
  return lines;
}

/** Pieces of the strips between neighbouring stations, each with the mean of their heights as a share of the range. */
export function heightPieces(plan) {
  const heights = plan.stationHeights || [];
  if (heights.length === 0) return { least: 0, most: 0, pieces: [] };
  const least = Math.min(...heights);
  const most = Math.max(...heights);
  const pieces = [];
  for (let strip = 0; strip + 1 < plan.stationsOf.length; strip++) {
    for (let i = plan.stationsOf[strip]; i + 1 < plan.stationsOf[strip + 1]; i++) {
      const mean = (heights[i] + heights[i + 1]) / 2;
      pieces.push({
        line: pairs(plan.stations.slice(2 * i, 2 * i + 4)),
        share: most > least ? (mean - least) / (most - least) : 0,
      });
    }
  }
  return { least, most, pieces };
}

/**
 * The one corner that differs between two rings, as the change to tell the program: moved, inserted or taken away; nothing where
 * the rings are the same.
 */
export function cornerEdit(before, after) {
  const differs = (i) => !after[i] || !before[i] || after[i][0] !== before[i][0] || after[i][1] !== before[i][1];
  if (after.length === before.length) {
    const corner = after.findIndex((_, i) => differs(i));
    return corner < 0 ? null : { act: "move", corner, east: after[corner][0], north: after[corner][1] };
  }
  if (after.length === before.length + 1) {
    let corner = after.findIndex((_, i) => differs(i));
    if (corner < 0) corner = after.length - 1;
    return { act: "insert", corner: corner - 1, east: after[corner][0], north: after[corner][1] };
  }
  if (after.length === before.length - 1) {
    return { act: "remove", corner: before.findIndex((_, i) => differs(i)) };
  }
  return null;
}

/** Where values are known: runs of them as [first, behind the last]. */
export function knownRuns(values) {
  const runs = [];
  values.forEach((value, i) => {
    if (value === null) return;
    const last = runs[runs.length - 1];
    if (last && last[1] === i) last[1] = i + 1;
    else runs.push([i, i + 1]);
  });
  return runs;
}

/** Direction from a place to another, clockwise from north in degrees; strips lie the same in a direction and its opposite, so 0 to 180. */
export function bearingOf(from, to) {
  const degrees = (Math.atan2(to[0] - from[0], to[1] - from[1]) * 180) / Math.PI;
  return ((degrees % 180) + 180) % 180;
}

/** The middle of a flat list of places, and the shorter side of what they span. */
export function middleOf(flat) {
  const span = [0, 1].map((axis) => {
    const values = flat.filter((_, i) => i % 2 === axis);
    return [Math.min(...values), Math.max(...values)];
  });
  return {
    at: span.map(([least, most]) => (least + most) / 2),
    shorter: Math.min(...span.map(([least, most]) => most - least)),
  };
}

/** Seconds as minutes and seconds, above an hour with hours before them. */
export function clock(seconds) {
  const whole = Math.round(seconds);
  const two = (figure) => String(figure).padStart(2, "0");
  const [hours, minutes] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60];
  return hours > 0 ? `${hours} h ${two(minutes)}:${two(whole % 60)}` : `${minutes}:${two(whole % 60)}`;
}

/** How a played plan stands at a time: places and speeds between two moments in proportion, what is counted as at the earlier one. */
export function momentAt(data, seconds) {
  const last = data.line.length - 1;
  const at = Math.max(0, Math.min(last, seconds / data.stepS));
  const i = Math.min(last, Math.floor(at));
  const next = Math.min(last, i + 1);
  const share = at - i;
  const between = (a, b) => a + (b - a) * share;
  const above = data.above[i];
  return {
    place: [
      between(data.places[2 * i], data.places[2 * next]),
      between(data.places[2 * i + 1], data.places[2 * next + 1]),
    ],
    line: data.line[i],
    above: above === null || data.above[next] === null ? above : between(above, data.above[next]),
    photos: data.photos[i],
    speed: between(data.speed[i], data.speed[next]),
    used: data.set[i] === data.set[next] ? between(data.used[i], data.used[next]) : data.used[i],
    set: data.set[i],
  };
}

/** A shift of corners, mended so that one of them comes to lie on a corner of others where it came near one. */
export function snapShift(corners, others, [east, north], reach) {
  let best = { away: reach, shift: [east, north] };
  for (const [x, y] of corners) {
    for (const [toX, toY] of others) {
      const away = Math.hypot(x + east - toX, y + north - toY);
      if (away < best.away) best = { away, shift: [toX - x, toY - y] };
    }
  }
  return best.shift;
}
