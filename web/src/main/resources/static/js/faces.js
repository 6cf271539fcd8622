// The elevation view: a press on a face tells what that place is given.

/** Share of a rectangle's width and height at which a pointer is; nothing outside. */
export function shareOf({ left, top, width, height }, x, y) {
  const along = (x - left) / width;
  const down = (y - top) / height;
  return along >= 0 && along < 1 && down >= 0 && down < 1 ? { along, down } : null;
}

/** What a place of a face is given, as the service tells it. */
export async function faceProbe(block, face, { along, down }) {
  const answer = await fetch(`/blocks/${block}/faces/${face}/probe.json?along=${along}&down=${down}`);
  return answer.ok ? answer.json() : null;
}

/** Figures of a place as a list, with the photos that see it. */
export function probeList(found) {
  const list = document.createElement("dl");
  list.className = "probe";
  const photos = found.photos.length ? `${found.photos.length}: ${numbers(found.photos)}` : "none";
  for (const { label, figure } of [...found.figures, { label: "seen by photos", figure: photos }]) {
    const pair = document.createElement("div");
    pair.append(
      Object.assign(document.createElement("dt"), { textContent: label }),
      Object.assign(document.createElement("dd"), { textContent: figure }),
    );
    list.append(pair);
  }
  return list;
}

/** Numbers with runs drawn together: 1–3, 7. */
export function numbers(all, most = 12) {
  const runs = [];
  for (const one of all) {
    const last = runs[runs.length - 1];
    if (last && last[1] === one - 1) last[1] = one;
    else runs.push([one, one]);
  }
  const words = runs.slice(0, most).map(([from, to]) => (from === to ? `${from}` : `${from}–${to}`));
  return words.join(", ") + (runs.length > most ? " …" : "");
}

/** Listens to presses on faces, wherever an elevation view comes to lie. */
export function wireFaces() {
  document.addEventListener("click", async (event) => {
    const edge = event.target.closest(".unrolled rect[data-face], .unrolled .spot-mark");
    if (!edge) return;
    const rect = edge.closest("[data-face]").querySelector("rect") || edge;
    const view = edge.closest(".elevation");
    const at = shareOf(rect.getBoundingClientRect(), event.clientX, event.clientY);
    if (!at) return;
    const found = await faceProbe(view.dataset.block, rect.dataset.face, at);
    if (!found) return;
    const place = view.querySelector(".face-probe");
    const name = Object.assign(document.createElement("b"), { textContent: found.face });
    place.replaceChildren(name, probeList(found));
    mark(rect, at);
  });
}

/** A cross where the place is. */
function mark(rect, { along, down }) {
  const svg = rect.ownerSVGElement;
  for (const old of svg.querySelectorAll(".probed")) old.remove();
  const [x, y, wide, high] = ["x", "y", "width", "height"].map((name) => Number(rect.getAttribute(name)));
  const cross = document.createElementNS("http://www.w3.org/2000/svg", "path");
  cross.setAttribute("class", "probed");
  cross.setAttribute("d", `M${x + along * wide - 7} ${y + down * high}h14m-7-7v14`);
  svg.append(cross);
}
