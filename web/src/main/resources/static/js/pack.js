// The field pack as a file: ticks lines with their time, runs timers, takes what is typed, and gives all of it back as a file. It asks no server and
// keeps what is written in the browser too, where that allows it.
(function () {
  /** The page as it came, before anything of it is made to be pressed. */
  const source = document.documentElement.outerHTML;
  const holder = document.getElementById("written");
  const fresh = JSON.parse(holder.textContent);
  const place = "yalos-field " + fresh.job + " " + fresh.block + " " + fresh.made;
  let written = fresh;
  let storage = null;
  try {
    storage = window.localStorage;
    const kept = storage.getItem(place);
    if (kept && JSON.parse(kept).form === fresh.form && size(JSON.parse(kept)) >= size(fresh))
      written = JSON.parse(kept);
  } catch {
    storage = null;
  }
  const state = document.getElementById("state");

  function size(one) {
    return one.checks.length + one.points.length + one.notes.length;
  }

  /** The time here, with its distance from universal time. */
  function now() {
    const at = new Date();
    const offset = -at.getTimezoneOffset();
    const two = (n) => String(Math.floor(Math.abs(n))).padStart(2, "0");
    const local = new Date(at.getTime() + offset * 60000).toISOString().slice(0, 19);
    return local + (offset < 0 ? "-" : "+") + two(offset / 60) + ":" + two(offset % 60);
  }

  function keep() {
    written.saved = now();
    written.people = { pilot: document.getElementById("pilot").value, second: document.getElementById("second").value };
    let kept = false;
    try {
      if (storage) {
        storage.setItem(place, JSON.stringify(written));
        kept = true;
      }
    } catch {
      kept = false;
    }
    const ticked = written.checks.filter((check) => check.signed).length;
    state.textContent =
      ticked +
      " ticked, " +
      written.points.length +
      " measured, " +
      written.notes.length +
      " notes; " +
      (kept ? "kept in this browser" : "NOT kept: save before you close this page");
  }

  function save(name, type, text) {
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([text], { type }));
    link.download = name;
    document.body.append(link);
    link.click();
    link.remove();
  }

  const fileName =
    (fresh.job + "-" + fresh.block)
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "") || "block";

  function wireCheck(line) {
    const { key, section, line: text, seconds, shots, figure, who } = line.dataset;
    const same = (check) => check.key === key;
    const mark = line.querySelector(".mark");
    const box = line.querySelector(".box");
    const button = document.createElement("button");
    button.type = "button";
    box.replaceWith(button);
    const told = document.createElement("span");
    told.className = "slip-words";
    let reads = null;
    let note = null;
    if (figure) {
      reads = input("it shows", "what the aircraft shows: " + text);
      note = input("note", "note: " + text);
      mark.before(reads, note);
    }
    if (Number(seconds) > 0) mark.before(timer(Number(seconds), () => tick(true)));
    if (Number(shots) > 0) mark.before(counter(Number(shots)));

    function input(placeholder, label) {
      const field = document.createElement("input");
      field.placeholder = placeholder;
      field.maxLength = 60;
      field.setAttribute("aria-label", label);
      return field;
    }

    function counter(wanted) {
      const count = document.createElement("button");
      count.type = "button";
      let taken = 0;
      count.textContent = "0 of " + wanted + " shots";
      count.addEventListener("click", () => {
        taken++;
        count.textContent = taken + " of " + wanted + " shots";
        if (taken === wanted) tick(true);
      });
      return count;
    }

    function person() {
      const field = document.getElementById(who === "second" ? "second" : "pilot");
      return field.value.trim();
    }

    /** Whether what is read off is not what stands in the line; a figure is the first number of each. */
    function slips() {
      const plan = text.match(/-?[\d.,\u2009]+(?=\s*(m|ft|s|°|km|mph|kn|cm|in)\b)/);
      const read = reads.value.match(/-?[\d.,]+/);
      if (!plan || !read) return !read;
      // A comma before one or two last figures parts decimals, any other parts thousands.
      const number = (words) => Number(words.replace(/,(\d{1,2})$/, ".$1").replace(/[,\u2009]/g, ""));
      return Math.abs(number(plan[0]) - number(read[0])) > 0.006 * Math.abs(number(plan[0]));
    }

    function tick(signed) {
      if (signed && !person()) {
        told.textContent = "Write your name at the top first.";
        line.append(told);
        return;
      }
      if (signed && reads) {
        if (!reads.value.trim()) {
          told.textContent = "Read it off the aircraft and type what it shows.";
          line.append(told);
          return;
        }
        if (slips() && !note.value.trim()) {
          line.classList.add("slip");
          told.textContent =
            "That is not what the plan says. Set it and read again; or write in the note why it stands.";
          line.append(told);
          return;
        }
      }
      line.classList.remove("slip");
      told.remove();
      written.checks = written.checks.filter((check) => !same(check));
      written.checks.push({
        key,
        section,
        line: text,
        signed,
        at: now(),
        by: person(),
        reads: reads ? reads.value.trim() : "",
        note: note ? note.value.trim() : "",
      });
      keep();
      show();
    }

    function show() {
      const check = written.checks.find(same);
      const signed = Boolean(check && check.signed);
      button.textContent = signed ? "✓" : "tick";
      button.classList.toggle("done", signed);
      button.setAttribute("aria-pressed", String(signed));
      button.setAttribute("aria-label", text);
      mark.textContent = signed ? check.by + " " + check.at.slice(11, 16) : "";
      if (check && reads) reads.value = check.reads;
      if (check && note) note.value = check.note;
    }
    button.addEventListener("click", () => tick(button.getAttribute("aria-pressed") !== "true"));
    show();
  }

  /** Counts down by the clock, so that a sleeping page does not stretch it. */
  function timer(seconds, done) {
    const button = document.createElement("button");
    button.type = "button";
    button.textContent = "start " + seconds + " s";
    button.addEventListener("click", () => {
      const end = performance.now() + seconds * 1000;
      button.disabled = true;
      const step = () => {
        const left = Math.ceil((end - performance.now()) / 1000);
        if (left > 0) {
          button.textContent = left + " s";
          window.setTimeout(step, 200);
        } else {
          button.textContent = seconds + " s are over";
          button.disabled = false;
          done();
        }
      };
      step();
    });
    return button;
  }

  function wirePoint(row) {
    const point = row.dataset.point;
    const fields = {};
    for (const cell of row.querySelectorAll("[data-field]")) {
      const field = document.createElement("input");
      field.maxLength = 120;
      field.setAttribute("aria-label", point + ", " + cell.dataset.field);
      if (cell.dataset.field === "note") field.placeholder = cell.textContent.trim();
      cell.textContent = "";
      cell.append(field);
      fields[cell.dataset.field] = field;
      field.addEventListener("change", () => {
        written.points = written.points.filter((one) => one.point !== point);
        const one = { point, at: now() };
        for (const [name, input] of Object.entries(fields)) one[name] = input.value.trim();
        if (one.place || one.height || one.note) written.points.push(one);
        keep();
      });
    }
    const known = written.points.find((one) => one.point === point);
    if (known) for (const [name, input] of Object.entries(fields)) input.value = known[name] || "";
  }

  function wireNotes(holderOfNotes) {
    const list = document.createElement("ul");
    const field = document.createElement("textarea");
    field.setAttribute("aria-label", "Note");
    field.maxLength = 2000;
    const button = document.createElement("button");
    button.type = "button";
    button.textContent = "Keep the note";
    const show = () => {
      list.replaceChildren(
        ...written.notes.map((one) => {
          const item = document.createElement("li");
          item.textContent = one.at.slice(0, 16).replace("T", " ") + " " + one.by + ": " + one.text;
          return item;
        }),
      );
    };
    button.addEventListener("click", () => {
      if (!field.value.trim()) return;
      written.notes.push({ at: now(), by: document.getElementById("pilot").value.trim(), text: field.value.trim() });
      field.value = "";
      keep();
      show();
    });
    holderOfNotes.append(list, field, button);
    show();
  }

  for (const name of ["pilot", "second"]) {
    const field = document.getElementById(name);
    field.value = (written.people && written.people[name]) || "";
    field.addEventListener("change", keep);
  }
  document.getElementById("whose").addEventListener("change", (event) => {
    for (const line of document.querySelectorAll(".check")) {
      line.hidden = Boolean(event.target.value && line.dataset.who && line.dataset.who !== event.target.value);
    }
  });
  document.querySelectorAll(".check").forEach(wireCheck);
  document.querySelectorAll("tr[data-point]").forEach(wirePoint);
  document.querySelectorAll(".notes-typed").forEach(wireNotes);
  document.getElementById("save").addEventListener("click", () => {
    keep();
    save(fileName + "-written.json", "application/json", JSON.stringify(written, null, 1));
  });
  document.getElementById("save-copy").addEventListener("click", () => {
    keep();
    const original = new DOMParser().parseFromString(source, "text/html");
    original.querySelector("#written").textContent = JSON.stringify(written).replace(/</g, "\\u003c");
    save(fileName + "-pack.html", "text/html", "<!doctype html>\n" + original.documentElement.outerHTML);
  });
  if (size(written) > 0) keep();
})();
