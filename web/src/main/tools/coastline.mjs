// Makes static/coastline.svg, the land of the inset on the sheet, from the TopoJSON of the npm package world-atlas (data in the public domain):
//   npm pack world-atlas@2.0.2 && tar xzf world-atlas-2.0.2.tgz && node coastline.mjs < package/land-110m.json > ../resources/static/coastline.svg
// The world is drawn by longitude and latitude, 360 wide and 180 high, north up.
import { readFileSync } from "node:fs";

const { arcs, transform, objects } = JSON.parse(readFileSync(0, "utf8"));
const places = arcs.map((arc) => {
  let [x, y] = [0, 0];
  return arc.map(([dx, dy]) => {
    x += dx;
    y += dy;
    return [x * transform.scale[0] + transform.translate[0] + 180, 90 - (y * transform.scale[1] + transform.translate[1])];
  });
});
const ring = (numbers) => numbers.flatMap((at, i) => (at < 0 ? [...places[~at]].reverse() : places[at]).slice(i ? 1 : 0));
// A ring across the date line goes on to the east or west of it; one round a pole is closed over the pole.
const drawnOut = (points) => {
  let turn = 0;
  const out = points.map(([x, y], i) => {
    if (i && x - points[i - 1][0] > 180) turn -= 360;
    if (i && x - points[i - 1][0] < -180) turn += 360;
    return [x + turn, y];
  });
  const pole = out[0][1] > 90 ? 180 : 0;
  return turn ? [...out, [out.at(-1)[0], pole], [out[0][0], pole]] : out;
};
const path = (points) => "M" + drawnOut(points).map((point) => point.map((figure) => +figure.toFixed(1)).join(" ")).join("L") + "Z";
const shapes = (geometry) =>
  geometry.geometries ? geometry.geometries.flatMap(shapes) : geometry.type === "Polygon" ? [geometry.arcs] : geometry.arcs;
const d = shapes(objects.land).flatMap((rings) => rings.map((one) => path(ring(one)))).join("");
process.stdout.write(
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 360 180" width="360" height="180"><path id="land" fill="#b9ab8b" fill-rule="evenodd" d="${d}"/>` +
    '<use href="#land" x="-360"/><use href="#land" x="360"/></svg>\n',
);
