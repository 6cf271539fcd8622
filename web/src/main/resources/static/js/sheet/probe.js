// What a place is given by the proof, and what the drawer says of a strip.
import { aboutStrip, stripsOf } from "./figures.js";

/** Asks what a place is given. Answers nothing where the proof does not reach. */
export async function probe(block, [east, north]) {
  const answer = await fetch(`/blocks/${block}/proof/probe.json?east=${east}&north=${north}`);
  if (!answer.ok) return null;
  const found = await answer.json();
  const here = [found.east, found.north];
  const rays = [];
  for (let i = 0; i < found.photos.length; i += 2) rays.push([[found.photos[i], found.photos[i + 1]], here]);
  return { here, rays, list: listOf(found.lines) };
}

function listOf(lines) {
  const list = document.createElement("dl");
  list.className = "probe";
  for (const line of lines) {
    const pair = document.createElement("div");
    const term = Object.assign(document.createElement("dt"), { textContent: line.label });
    const figure = Object.assign(document.createElement("dd"), { textContent: line.figure });
    pair.append(term, figure);
    list.append(pair);
  }
  return list;
}

/** The drawer's line about a strip, by its index from 0; how to choose one where there is none. */
export function wordsOf(plan, strip) {
  const words = document.createElement("p");
  const name = document.createElement("b");
  words.append(name);
  if (strip < 0 || strip >= stripsOf(plan)) {
    const [before, after] = [",", "."].map((key) => Object.assign(document.createElement("kbd"), { textContent: key }));
    name.textContent = "No strip chosen. ";
    words.append("Press one on the sheet, or use the keys ", before, " and ", after);
    return words;
  }
  const about = aboutStrip(plan, strip);
  name.textContent = `Strip ${strip + 1} `;
  words.append(
    `of ${stripsOf(plan)}: ${about.length.toFixed(0)} ${plan.ruler.unit}, ${about.photos} photos, `,
    `numbers ${about.first} to ${about.last}, flown towards ${about.bearing}° of the grid; ${plan.pace[strip]}`,
  );
  return words;
}
