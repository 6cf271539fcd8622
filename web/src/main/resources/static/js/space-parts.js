// What stands in the look from anywhere, made of the plan: ground, objects, faces, path, photos.
import * as THREE from "../lib/three/three.module.min.js";
import { toSpace, triangles } from "./space-figures.js";

/** Of so many points of the ground one is drawn while it moves. */
const COARSE = 3;

/** Light from the north-west, as maps are shaded, and from everywhere. */
export function sun() {
  const light = new THREE.DirectionalLight(0xffffff, 1.2);
  light.position.set(-1, 1.4, -1);
  return [light, new THREE.AmbientLight(0xffffff, 1.9)];
}

/** The ground: low is dark, high is light; a layer may be laid over it. */
export function groundOf({ ground }, css) {
  const { columns, rows, west, north, cellX, cellY, heights } = ground;
  const known = heights.filter((one) => one !== null);
  const least = known.reduce((a, b) => Math.min(a, b), Infinity);
  const most = known.reduce((a, b) => Math.max(a, b), -Infinity);
  const places = new Float32Array(3 * heights.length);
  const uvs = new Float32Array(2 * heights.length);
  const colours = new Float32Array(3 * heights.length);
  const low = new THREE.Color(css("--leaf") || "#fbf9f2").lerp(new THREE.Color(css("--contour") || "#9a6a3c"), 0.45);
  const high = new THREE.Color(css("--leaf") || "#fbf9f2");
  const colour = new THREE.Color();
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const at = row * columns + column;
      const up = heights[at] ?? least;
      places.set(toSpace(west + column * cellX, north - row * cellY, up), 3 * at);
      uvs.set([column / (columns - 1), 1 - row / (rows - 1)], 2 * at);
      colour.lerpColors(low, high, most > least ? (up - least) / (most - least) : 0.6);
      colours.set([colour.r, colour.g, colour.b], 3 * at);
    }
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute("position", new THREE.BufferAttribute(places, 3));
  geometry.setAttribute("uv", new THREE.BufferAttribute(uvs, 2));
  geometry.setAttribute("color", new THREE.BufferAttribute(colours, 3));
  geometry.setIndex(triangles(columns, rows, heights));
  geometry.computeVertexNormals();
  // For pictures while it moves, where the processor draws.
  geometry.userData.coarse = new THREE.Uint32BufferAttribute(triangles(columns, rows, heights, COARSE), 1);
  geometry.userData.fine = geometry.index;
  shade(colours, geometry.attributes.normal.array);
  // Shaded once here, and not at every point of every picture: it is drawn without graphics hardware too.
  return new THREE.Mesh(geometry, new THREE.MeshBasicMaterial({ vertexColors: true, side: THREE.DoubleSide }));
}

/** Colours in the light from the north-west, as maps are shaded. */
function shade(colours, normals) {
  const light = new THREE.Vector3(-1, 1.4, -1).normalize();
  for (let at = 0; at < colours.length; at += 3) {
    const facing = normals[at] * light.x + normals[at + 1] * light.y + normals[at + 2] * light.z;
    const lit = 0.76 + 0.28 * Math.max(0, facing);
    for (let i = 0; i < 3; i++) colours[at + i] *= lit;
  }
}

/** Objects as plain solids with their edges. */
export function solidsOf({ solids }, css) {
  const group = new THREE.Group();
  const stone = new THREE.MeshLambertMaterial({ color: css("--solid") || "#b9b2a2" });
  const ink = new THREE.LineBasicMaterial({ color: css("--ink") });
  for (const { ring, bottom, top, name } of solids) {
    const shape = new THREE.Shape();
    for (let i = 0; i < ring.length; i += 2) {
      if (i === 0) shape.moveTo(ring[0], ring[1]);
      else shape.lineTo(ring[i], ring[i + 1]);
    }
    const geometry = new THREE.ExtrudeGeometry(shape, { depth: top - bottom, bevelEnabled: false });
    // Drawn in the plane of the map and pushed up: north becomes the depth of the picture.
    geometry.rotateX(-Math.PI / 2);
    geometry.translate(0, bottom, 0);
    const solid = new THREE.Mesh(geometry, stone);
    solid.userData.name = name;
    group.add(solid, new THREE.LineSegments(new THREE.EdgesGeometry(geometry, 20), ink));
  }
  return group;
}

/** Faces with a layer upon them, a hair before the solids. */
export function facesOf({ plates }, pictureOf, drawn) {
  const group = new THREE.Group();
  const loader = new THREE.TextureLoader();
  for (const { number, corners } of plates) {
    const address = pictureOf(number);
    if (!address) continue;
    const geometry = new THREE.BufferGeometry();
    const places = [0, 3, 6, 9].flatMap((at) => toSpace(corners[at], corners[at + 1], corners[at + 2]));
    geometry.setAttribute("position", new THREE.Float32BufferAttribute(places, 3));
    geometry.setAttribute("uv", new THREE.Float32BufferAttribute([0, 1, 1, 1, 1, 0, 0, 0], 2));
    geometry.setIndex([0, 3, 1, 1, 3, 2]);
    geometry.computeVertexNormals();
    const material = new THREE.MeshBasicMaterial({
      // What lies beyond a roof's corners is not there, and hides nothing.
      alphaTest: 0.5,
      side: THREE.DoubleSide,
      polygonOffset: true,
      polygonOffsetFactor: -2,
      polygonOffsetUnits: -2,
    });
    material.map = loader.load(address, drawn);
    material.map.magFilter = THREE.NearestFilter;
    const face = new THREE.Mesh(geometry, material);
    face.userData.face = number;
    group.add(face);
  }
  return group;
}

/** What is flown: lines with photos in ink of strips, ways between thinner; the outline on the ground. */
export function pathOf({ path, kinds, outline }, css) {
  const group = new THREE.Group();
  const inks = {
    line: new THREE.LineBasicMaterial({ color: css("--strip") }),
    way: new THREE.LineBasicMaterial({ color: css("--strip"), transparent: true, opacity: 0.45 }),
    outline: new THREE.LineBasicMaterial({ color: css("--edge") }),
  };
  const ends = { line: [], way: [] };
  path.forEach((places, i) => {
    for (let at = 0; at + 5 < places.length; at += 3) {
      ends[kinds[i]].push(...toSpace(...places.slice(at, at + 3)), ...toSpace(...places.slice(at + 3, at + 6)));
    }
  });
  for (const kind of ["line", "way"]) {
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute("position", new THREE.Float32BufferAttribute(ends[kind], 3));
    group.add(new THREE.LineSegments(geometry, inks[kind]));
  }
  for (const ring of outline) {
    const points = [];
    for (let at = 0; at < ring.length; at += 3)
      points.push(new THREE.Vector3(...toSpace(ring[at], ring[at + 1], ring[at + 2] + 0.3)));
    group.add(new THREE.LineLoop(new THREE.BufferGeometry().setFromPoints(points), inks.outline));
  }
  return group;
}

/** Photos as points. */
export function stationsOf({ stations }, css) {
  const places = [];
  for (let at = 0; at < stations.length; at += 6) places.push(...toSpace(...stations.slice(at, at + 3)));
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute("position", new THREE.Float32BufferAttribute(places, 3));
  return new THREE.Points(
    geometry,
    new THREE.PointsMaterial({ color: css("--strip"), size: 5, sizeAttenuation: false }),
  );
}

/** Picks points that lie near the pointer, however far away they are. */
export function pickerOf(camera, target) {
  const picker = new THREE.Raycaster();
  picker.params.Points.threshold = camera.position.distanceTo(target) * 0.008;
  return picker;
}
