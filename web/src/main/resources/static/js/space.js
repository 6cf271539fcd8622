// The look from anywhere: ground, objects, path and photos in space. Drawn only when something changed.
import * as THREE from "../lib/three/three.module.min.js";
import { OrbitControls } from "../lib/three/OrbitControls.js";
import { faceProbe, probeList } from "./faces.js";
import { facesOf, groundOf, pathOf, pickerOf, solidsOf, stationsOf, sun } from "./space-parts.js";
import { frustum, toSpace, walkStep } from "./space-figures.js";

// Colours are those of the style sheet as they stand: no arithmetic for each pixel, which is what a processor that draws pays for.
THREE.ColorManagement.enabled = false;

const css = (name) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Smooth edges cost a processor that draws without graphics hardware most of its time; it goes without. */
function smooth() {
  const gl = document.createElement("canvas").getContext("webgl2");
  const info = gl && gl.getExtension("WEBGL_debug_renderer_info");
  const processor = info && /swiftshader|software|llvmpipe/i.test(gl.getParameter(info.UNMASKED_RENDERER_WEBGL));
  gl?.getExtension("WEBGL_lose_context")?.loseContext();
  return !processor;
}

/** Graphics memory of what is no longer shown; nothing else gives it back. */
function letGo(thing) {
  thing.traverse(({ geometry, material }) => {
    geometry?.dispose();
    material?.map?.dispose();
    material?.dispose();
  });
}

class Space {
  constructor(root) {
    this.root = root;
    this.block = root.dataset.block;
    this.canvas = root.querySelector("canvas");
    this.says = root.querySelector(".space-says");
    this.probePlace = root.querySelector(".space-probe");
  }

  async begin() {
    this.hardware = smooth();
    try {
      this.renderer = new THREE.WebGLRenderer({
        canvas: this.canvas,
        antialias: this.hardware,
        preserveDrawingBuffer: false,
      });
    } catch {
      this.without();
      return;
    }
    this.renderer.outputColorSpace = THREE.LinearSRGBColorSpace;
    this.fine = Math.min(2, window.devicePixelRatio);
    this.renderer.setPixelRatio(this.fine);
    this.camera = new THREE.PerspectiveCamera(45, 1, 0.1, 20_000);
    this.controls = new OrbitControls(this.camera, this.canvas);
    this.controls.maxPolarAngle = Math.PI;
    this.controls.addEventListener("change", () => this.draw());
    // Without graphics hardware it is drawn coarsely while it moves, so that it follows the hand.
    this.controls.addEventListener("start", () => this.coarse(true));
    this.controls.addEventListener("end", () => this.coarse(false));
    new ResizeObserver(() => this.resize()).observe(this.canvas.parentElement);
    this.wire();
    await this.load();
  }

  /** No graphics: the unrolled faces stand in. */
  without() {
    this.says.textContent =
      "This browser draws nothing in space (no WebGL). The faces are unrolled below; the map has path and photos.";
    this.root.querySelector(".space-keys").hidden = true;
    this.canvas.hidden = true;
    const instead = this.root.querySelector(".space-instead");
    instead.hidden = false;
    instead.setAttribute("hx-get", instead.dataset.src);
    window.htmx.process(instead);
    this.root.dataset.drawn = "without";
  }

  async load() {
    const answer = await fetch(this.root.dataset.src);
    if (!answer.ok) {
      this.says.textContent = "There is no plan yet; the block's page says what is missing.";
      return;
    }
    this.says.textContent = "";
    this.show(await answer.json());
    this.whole();
  }

  /** What is drawn in the next frame; only then does the page say that it stands there. */
  show(plan) {
    this.plan = plan;
    this.version = document.getElementById("book").dataset.version;
    this.build();
  }

  /** Everything anew, in the colours of the look. */
  build() {
    const { plan } = this;
    if (this.scene) letGo(this.scene);
    this.scene = new THREE.Scene();
    this.scene.background = new THREE.Color(css("--paper") || "#f4f0e4");
    this.scene.add(...sun());
    this.ground = groundOf(plan, css);
    this.solids = solidsOf(plan, css);
    this.faces = facesOf(
      plan,
      (number) => this.picture(number),
      () => this.draw(),
    );
    this.stations = stationsOf(plan, css);
    this.scene.add(this.ground, this.solids, this.faces, pathOf(plan, css), this.stations);
    this.rays = new THREE.Group();
    this.hovered = new THREE.Group();
    this.scene.add(this.rays, this.hovered);
    this.lay();
  }

  picture(number) {
    const layer = this.root.querySelector('[name="faces"]').value;
    return layer ? `/blocks/${this.block}/faces/${number}/${layer}.png` : "";
  }

  /** The chosen layer over the ground. */
  lay() {
    const layer = this.root.querySelector('[name="ground"]').value;
    const { material } = this.ground;
    if (!layer || this.plan.ground.level) {
      material.map?.dispose();
      material.map = null;
      material.vertexColors = true;
      material.needsUpdate = true;
      this.draw();
      return;
    }
    new THREE.TextureLoader().load(
      `/blocks/${this.block}/proof/${layer}.png`,
      (picture) => {
        material.map?.dispose();
        material.map = picture;
        material.vertexColors = false;
        material.needsUpdate = true;
        this.draw();
      },
      undefined,
      () => {
        this.says.textContent = "The ground is not proved yet; open Proof and wait for it.";
      },
    );
  }

  resize() {
    const { clientWidth, clientHeight } = this.canvas.parentElement;
    if (!clientWidth || !clientHeight) return;
    this.renderer.setSize(clientWidth, clientHeight, false);
    this.camera.aspect = clientWidth / clientHeight;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  coarse(moving) {
    if (this.hardware) return;
    this.renderer.setPixelRatio(moving ? this.fine / 2 : this.fine);
    if (this.ground) {
      const { geometry } = this.ground;
      geometry.setIndex(moving ? geometry.userData.coarse : geometry.userData.fine);
    }
    this.draw();
  }

  draw() {
    if (this.due || !this.scene) return;
    this.due = true;
    requestAnimationFrame(() => {
      this.due = false;
      this.renderer.render(this.scene, this.camera);
      this.root.dataset.drawn = this.version;
    });
  }

  /** All photos and objects in view, looked at from the south-east or from above. */
  whole(above = false) {
    const box = new THREE.Box3().setFromObject(this.stations);
    box.expandByObject(this.solids);
    if (box.isEmpty()) box.setFromObject(this.ground);
    const middle = box.getCenter(new THREE.Vector3());
    const reach = Math.max(20, box.getSize(new THREE.Vector3()).length());
    const from = above ? [0, 1, 0.001] : [0.55, 0.5, 0.75];
    this.controls.target.copy(middle);
    this.camera.position.copy(middle).addScaledVector(new THREE.Vector3(...from).normalize(), reach * 1.15);
    // Near and far as close together as the view needs, or faces and solids behind them could not be told apart.
    this.camera.near = reach / 300;
    this.camera.far = reach * 60;
    this.camera.updateProjectionMatrix();
    this.controls.update();
    this.draw();
  }

  zoom(times) {
    const { target } = this.controls;
    this.camera.position.sub(target).multiplyScalar(times).add(target);
    this.controls.update();
    this.draw();
  }

  wire() {
    this.root.addEventListener("click", (event) => {
      const act = event.target.closest("[data-space]")?.dataset.space;
      if (act === "whole") this.whole();
      if (act === "above") this.whole(true);
      if (act === "in") this.zoom(0.8);
      if (act === "out") this.zoom(1.25);
      if (act === "picture") this.save();
    });
    this.root.querySelector('[name="faces"]').addEventListener("change", () => {
      letGo(this.faces);
      this.scene.remove(this.faces);
      this.faces = facesOf(
        this.plan,
        (number) => this.picture(number),
        () => this.draw(),
      );
      this.scene.add(this.faces);
      this.draw();
    });
    this.root.querySelector('[name="ground"]').addEventListener("change", () => this.lay());
    document.body.addEventListener("sheet-changed", () => this.again());
    this.canvas.addEventListener("keydown", (event) => this.key(event));
    this.canvas.addEventListener("pointermove", (event) => this.hover(event));
    let down = null;
    this.canvas.addEventListener("pointerdown", (event) => {
      down = [event.clientX, event.clientY];
    });
    this.canvas.addEventListener("pointerup", (event) => {
      const moved = down && Math.hypot(event.clientX - down[0], event.clientY - down[1]);
      if (moved !== null && moved < 5 && event.button === 0) this.probe(event);
    });
  }

  /** A change of the plan: the same view of what is now. */
  async again() {
    const answer = await fetch(this.root.dataset.src);
    if (!answer.ok) return;
    this.show(await answer.json());
  }

  key(event) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const step = walkStep(event.key.toLowerCase());
    if (step) {
      const { target } = this.controls;
      const far = this.camera.position.distanceTo(target) * 0.08;
      const ahead = new THREE.Vector3().subVectors(target, this.camera.position).setY(0).normalize();
      if (step.turn) {
        const arm = new THREE.Vector3().subVectors(this.camera.position, target);
        arm.applyAxisAngle(new THREE.Vector3(0, 1, 0), step.turn);
        this.camera.position.copy(target).add(arm);
      }
      const right = new THREE.Vector3().crossVectors(ahead, new THREE.Vector3(0, 1, 0));
      const by = ahead.multiplyScalar((step.ahead || 0) * far).addScaledVector(right, (step.right || 0) * far);
      target.add(by);
      this.camera.position.add(by);
      this.controls.update();
      this.draw();
    } else if (event.key === "+") this.zoom(0.8);
    else if (event.key === "-") this.zoom(1.25);
    else if (event.key === "0") this.whole();
    else return;
    event.preventDefault();
  }

  hitsOf(event, things) {
    const { left, top, width, height } = this.canvas.getBoundingClientRect();
    const at = new THREE.Vector2(((event.clientX - left) / width) * 2 - 1, 1 - ((event.clientY - top) / height) * 2);
    const picker = pickerOf(this.camera, this.controls.target);
    // Where it looks from now, drawn already or not.
    this.camera.updateMatrixWorld();
    picker.setFromCamera(at, this.camera);
    return picker.intersectObjects(things, true);
  }

  /** The frame of the photo under the pointer, with what it is. */
  hover(event) {
    if (event.buttons || !this.stations) return;
    const [hit] = this.hitsOf(event, [this.stations]);
    const station = hit ? hit.index : -1;
    if (station === this.station) return;
    this.station = station;
    letGo(this.hovered);
    this.hovered.clear();
    if (station >= 0) {
      const { stations, frame, passes, upM, unit } = this.plan;
      const [e, n, u, yaw, pitch] = stations.slice(6 * station, 6 * station + 6);
      const reach = Math.max(3, this.camera.position.distanceTo(this.controls.target) * 0.12);
      const lines = frustum(stations.slice(6 * station, 6 * station + 6), frame, reach);
      const geometry = new THREE.BufferGeometry().setFromPoints(lines.map((at) => new THREE.Vector3(...at)));
      this.hovered.add(new THREE.LineSegments(geometry, new THREE.LineBasicMaterial({ color: css("--pin") })));
      this.says.textContent =
        `Photo ${station + 1}, pass ${passes[station]}: ${((u + upM) / unit.metres).toFixed(1)} ${unit.symbol} up, ` +
        `looks to ${Math.round((yaw + 360) % 360)}°, ${Math.abs(Math.round(pitch))}° ${pitch < 0 ? "down" : pitch > 0 ? "up" : "level"}`;
      this.hovered.userData.at = [e, n];
    } else this.says.textContent = "";
    this.draw();
  }

  /** What the pressed place is given, and from where it is seen. */
  async probe(event) {
    const hits = this.hitsOf(event, [this.faces, this.solids, this.ground]).filter((one) => one.object.isMesh);
    // A face lies upon its solid: of both the face answers.
    const face = hits.find((one) => one.object.userData.face);
    const hit = face && face.distance - hits[0].distance < 0.2 ? face : hits[0];
    letGo(this.rays);
    this.rays.clear();
    this.probePlace.replaceChildren();
    this.draw();
    if (!hit) return;
    if (hit.object.userData.face) {
      const found = await faceProbe(this.block, hit.object.userData.face, { along: hit.uv.x, down: 1 - hit.uv.y });
      if (!found) return;
      const name = Object.assign(document.createElement("b"), { textContent: found.face });
      this.probePlace.replaceChildren(name, probeList(found));
      this.raysTo(hit.point, found.photos);
    } else if (hit.object.userData.name) {
      this.probePlace.replaceChildren(`${hit.object.userData.name}: choose a layer for its faces to ask them.`);
    } else if (hit.object === this.ground && !this.ground.material.map) {
      this.probePlace.replaceChildren("Lay a layer over the ground to ask it.");
    } else if (hit.object === this.ground) {
      const [east, north, metres] = this.plan.grid;
      const at = `east=${east + hit.point.x / metres}&north=${north - hit.point.z / metres}`;
      const answer = await fetch(`/blocks/${this.block}/proof/probe.json?${at}`);
      const found = answer.ok ? await answer.json() : null;
      const words = found ? "" : "The ground is not proved there yet; Proof does it.";
      const name = Object.assign(document.createElement("b"), { textContent: `ground ${words}` });
      this.probePlace.replaceChildren(name);
      if (found) this.probePlace.append(probeList({ figures: found.lines, photos: [] }));
    }
  }

  raysTo(place, photos) {
    const points = [];
    for (const photo of photos) {
      const [e, n, u] = this.plan.stations.slice(6 * (photo - 1), 6 * (photo - 1) + 3);
      points.push(place, new THREE.Vector3(...toSpace(e, n, u)));
    }
    const geometry = new THREE.BufferGeometry().setFromPoints(points);
    this.rays.add(new THREE.LineSegments(geometry, new THREE.LineBasicMaterial({ color: css("--pin") })));
    this.draw();
  }

  save() {
    this.renderer.render(this.scene, this.camera);
    const link = document.createElement("a");
    link.download = "look.png";
    link.href = this.canvas.toDataURL("image/png");
    link.click();
  }

  /** Frames drawn in some seconds while it turns: for the benchmark. */
  async measure(seconds) {
    this.coarse(true);
    const end = performance.now() + seconds * 1000;
    let frames = 0;
    while (performance.now() < end) {
      await new Promise((done) => requestAnimationFrame(done));
      const { target } = this.controls;
      this.camera.position
        .sub(target)
        .applyAxisAngle(new THREE.Vector3(0, 1, 0), 0.02)
        .add(target);
      this.camera.lookAt(target);
      this.renderer.render(this.scene, this.camera);
      this.renderer.getContext().finish();
      frames++;
    }
    this.coarse(false);
    return frames / seconds;
  }
}

const root = document.getElementById("space");
if (root) {
  window.space = new Space(root);
  window.space.begin();
}
