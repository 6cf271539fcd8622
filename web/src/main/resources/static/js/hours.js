// Times of a day as they are dragged and shown; pure, so that they are tested on Node.

/** In steps of so many minutes a bar is dragged. */
export const STEP_MIN = 5;
const DAY_MIN = 24 * 60;

/** A minute of the day as a clock shows it. */
export function clock(minute) {
  const whole = Math.max(0, Math.min(DAY_MIN - 1, Math.round(minute)));
  const two = (figure) => String(figure).padStart(2, "0");
  return `${two(Math.floor(whole / 60))}:${two(whole % 60)}`;
}

/** The minute that a bar is dragged to, in whole steps. */
export function dragged(minute, byPx, minutesPerPx) {
  return Math.max(0, Math.min(DAY_MIN - STEP_MIN, Math.round((minute + byPx * minutesPerPx) / STEP_MIN) * STEP_MIN));
}
