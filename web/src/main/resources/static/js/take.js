// Photos from this device: sent one after the other, two at a time, never twice; and the contact sheet by keys.
import { ours } from "./token.js";

const AT_ONCE = 2;
const PICTURE = /\.(jpe?g|tiff?)$/i;

/** Photos that are being sent go on while another stage is shown. */
let sending = null;

/**
 * Wherever the form for photos comes to stand, and however it is written anew.
 *
 * @param renew brings the book anew once all of them were looked at
 */
export function wireTake(renew) {
  const form = document.getElementById("take-drop");
  if (!form) return;
  sending ??= new Sending(renew);
  if (form !== sending.form) sending.listen(form);
  sending.show();
}

class Sending {
  constructor(renew) {
    this.renew = renew;
  }

  /** Shown and steered by a form. */
  listen(form) {
    this.form = form;
    this.path = form.getAttribute("action");
    this.line = form.querySelector(".take-sending");
    const directory = document.getElementById("take-directory");
    for (const input of [document.getElementById("take-pick"), directory]) {
      input.addEventListener("change", () =>
        this.send([...input.files].map((file) => ({ file, folder: folderOf(file) }))),
      );
    }
    form.addEventListener("submit", (event) => event.preventDefault());
    form.addEventListener("dragover", (event) => {
      event.preventDefault();
      form.classList.add("over");
    });
    form.addEventListener("dragleave", () => form.classList.remove("over"));
    form.addEventListener("drop", async (event) => {
      event.preventDefault();
      form.classList.remove("over");
      this.send(await dropped(event.dataTransfer.items));
    });
    this.line.querySelector("button").addEventListener("click", () => {
      this.stopped = true;
    });
  }

  show() {
    document.getElementById("take-directory").closest("label").hidden = false;
    if (this.busy) this.tell();
  }

  tell() {
    const faults = this.faults.length ? `, ${this.faults.length} with a fault` : "";
    this.say(`${this.done} of ${this.all} looked at${faults}`, true);
  }

  say(words, sending) {
    this.line.hidden = false;
    this.line.querySelector("span").textContent = words;
    this.line.querySelector("button").hidden = !sending;
  }

  async send(all) {
    const photos = all.filter(({ file }) => PICTURE.test(file.name));
    if (photos.length === 0) {
      this.say("There is no JPEG or TIFF file among these.", false);
      return;
    }
    const answer = await fetch(`${this.path.replace(/photos$/, "known")}`, { headers: { Accept: "application/json" } });
    const known = new Set(await answer.json());
    const key = ({ file, folder }) => [folder, file.name, file.size, file.lastModified].join("\n");
    const open = photos.filter((photo) => !known.has(key(photo)));
    this.stopped = false;
    this.done = photos.length - open.length;
    this.all = photos.length;
    this.faults = [];
    this.busy = true;
    this.tell();
    const next = async () => {
      for (let photo = open.shift(); photo && !this.stopped; photo = open.shift()) {
        await this.one(photo);
        this.done++;
        this.tell();
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, next));
    this.busy = false;
    if (this.broken || this.stopped) {
      this.say(this.broken || `Stopped after ${this.done} of ${photos.length}. Pick them again to go on.`, false);
      this.broken = "";
      return;
    }
    this.line.hidden = true;
    if (this.form.isConnected) this.renew();
  }

  async one({ file, folder }) {
    const body = new FormData();
    body.append("script", "true");
    body.append("file", file, file.name);
    body.append("folder", folder);
    body.append("modified", String(file.lastModified));
    try {
      const answer = await fetch(this.path, {
        method: "POST",
        body,
        headers: { ...ours(), Accept: "application/json" },
      });
      if (!answer.ok) throw new Error(String(answer.status));
      const { faults } = await answer.json();
      this.faults.push(...faults);
    } catch (fault) {
      this.stopped = true;
      this.broken = `${file.name} was not taken (${fault.message}). Pick them again to go on where it ended.`;
    }
  }
}

function folderOf(file) {
  const path = file.webkitRelativePath || "";
  return path.includes("/") ? path.slice(0, path.lastIndexOf("/")) : "";
}

/** Files of what was dropped, folders gone through. */
async function dropped(items) {
  const found = [];
  const walk = async (entry, folder) => {
    if (entry.isFile) {
      const file = await new Promise((resolve, reject) => entry.file(resolve, reject));
      found.push({ file, folder });
    } else {
      const reader = entry.createReader();
      for (;;) {
        const part = await new Promise((resolve, reject) => reader.readEntries(resolve, reject));
        if (part.length === 0) break;
        for (const one of part) await walk(one, folder ? `${folder}/${entry.name}` : entry.name);
      }
    }
  };
  const entries = [...items].map((item) => item.webkitGetAsEntry && item.webkitGetAsEntry()).filter(Boolean);
  for (const entry of entries) await walk(entry, "");
  return found;
}

/** The contact sheet by keys, on the page that has one. */
export function wireContact() {
  const sheet = document.getElementById("contact-sheet");
  if (!sheet) return;
  const tiles = [...sheet.querySelectorAll(".contact-grid > li")];
  const across = () => {
    const first = tiles[0].offsetTop;
    const row = tiles.findIndex((tile) => tile.offsetTop > first);
    return row < 0 ? tiles.length : row;
  };
  const steps = { ArrowRight: () => 1, ArrowLeft: () => -1, ArrowDown: across, ArrowUp: () => -across() };
  document.addEventListener("keydown", (event) => {
    if (tiles.length === 0 || event.target.closest("input, textarea, select, button")) return;
    const at = tiles.indexOf(document.activeElement);
    const step = steps[event.key];
    if (step) {
      event.preventDefault();
      const next = tiles[Math.max(0, Math.min(tiles.length - 1, at < 0 ? 0 : at + step()))];
      next.focus();
      next.scrollIntoView({ block: "nearest" });
    } else if (event.key.toLowerCase() === "a" && at >= 0 && !event.ctrlKey && !event.metaKey) {
      tiles[at].querySelector("form").requestSubmit();
    }
  });
  const asked = window.location.hash && document.querySelector(window.location.hash);
  if (asked) asked.focus();
}
