// A blank staff: notes are put where they belong, by pointer or keys, and checked.
import { element, shape } from "./dom.js";

const alters = { flat: -1, natural: 0, sharp: 1 };

// judge says of one written note what is right or wrong: note is what was asked, written the step
// from the bottom line and the sign in front of it, if any. A letter is right in any octave.
export function judge(note, written, places, lowest) {
  if (!written) return { right: false, says: `${note.name}: not written yet.` };
  const alter = written.sign ? alters[written.sign] : null;
  const placed = note.places.includes(written.step);
  const at = places[written.step - lowest];
  if (!placed) return { right: false, says: `${note.name}: you wrote ${at}. It belongs on ${note.stands}.` };
  if ((alter === null ? note.byKey : alter) === note.alter) return { right: true, says: `${note.name}: right, ${at}.` };
  if (alter === null) return { right: false, says: `${note.name}: ${at} is right. It needs a sign.` };
  if (note.alter === note.byKey) return { right: false, says: `${note.name}: ${at} is right. The sign is not.` };
  return { right: false, says: `${note.name}: ${at} is right, with another sign.` };
}

// stepAt is the place nearest to a height, in steps from the bottom line.
export function stepAt(y, { bottom, space, lowest, places }) {
  return Math.max(lowest, Math.min(lowest + places.length - 1, Math.round(((bottom - y) * 2) / space)));
}

function begin(data) {
  const svg = document.querySelector(".blank-staff"), written = data.notes.map(() => null);
  const slots = [...svg.querySelectorAll(".slot")];
  let current = 0, held = false;

  const y = (step) => data.bottom - (step * data.space) / 2;
  const glyph = (name, x, at) => shape("path", { class: name, d: data.glyphs[name], transform: `translate(${x} ${at}) scale(${data.scale} ${-data.scale})` });

  function draw(k) {
    const group = slots[k].querySelector(".written"), note = written[k], x = data.slots[k];
    group.replaceChildren();
    slots[k].classList.remove("right", "wrong");
    slots[k].setAttribute("aria-valuetext", note ? `${data.places[note.step - data.lowest]}${note.sign ? `, ${note.sign}` : ""}` : "nothing yet");
    if (note) {
      slots[k].setAttribute("aria-valuenow", note.step - data.lowest);
      for (let at = -2; at >= note.step; at -= 2) group.append(shape("path", { class: "line", d: `M${x - 20} ${y(at)}h40` }));
      for (let at = 10; at <= note.step; at += 2) group.append(shape("path", { class: "line", d: `M${x - 20} ${y(at)}h40` }));
      if (note.sign) group.append(glyph(note.sign, x - 34, y(note.step)));
      group.append(glyph("head", x - 12, y(note.step)));
    }
    signs();
  }

  function signs() {
    slots.forEach((slot, k) => slot.classList.toggle("current", k === current));
    for (const button of document.querySelectorAll("[data-sign]")) button.setAttribute("aria-pressed", String(written[current]?.sign === button.dataset.sign));
  }

  function put(k, step) {
    current = k;
    written[k] = { sign: written[k]?.sign || "", step };
    draw(k);
  }

  function at(event) {
    const box = svg.getBoundingClientRect();
    return stepAt(((event.clientY - box.top) * svg.viewBox.baseVal.height) / box.height, data);
  }

  function sign(name) {
    if (!written[current]) return;
    written[current].sign = written[current].sign === name ? "" : name;
    draw(current);
  }

  function check() {
    const list = data.notes.map((note, k) => judge(note, written[k], data.places, data.lowest));
    list.forEach(({ right }, k) => {
      slots[k].classList.toggle("right", right);
      slots[k].classList.toggle("wrong", !right);
    });
    const wrong = list.filter(({ right }) => !right);
    const said = wrong.length ? [`${list.length - wrong.length} of ${list.length} are right.`, ...wrong.map(({ says }) => says)] : [`All ${list.length} are right.`];
    document.querySelector(".write-said").replaceChildren(...said.map((text) => element("li", "", text)));
  }

  svg.addEventListener("pointerdown", (event) => {
    const slot = event.target.closest(".slot");
    if (!slot) return;
    event.preventDefault();
    held = true;
    slot.focus({ preventScroll: true });
    slot.setPointerCapture(event.pointerId);
    put(Number(slot.dataset.slot), at(event));
  });
  svg.addEventListener("pointermove", (event) => { if (held) put(current, at(event)); });
  for (const end of ["pointerup", "pointercancel"]) svg.addEventListener(end, () => { held = false; });
  svg.addEventListener("focusin", (event) => {
    const slot = event.target.closest(".slot");
    if (slot) { current = Number(slot.dataset.slot); signs(); }
  });
  svg.addEventListener("keydown", (event) => {
    const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    const named = { b: "flat", f: "flat", n: "natural", s: "sharp", "#": "sharp" }[event.key];
    if (!by && !named) return;
    event.preventDefault();
    if (named) sign(named);
    else put(current, Math.max(data.lowest, Math.min(data.lowest + data.places.length - 1, (written[current] ? written[current].step : 4 - by) + by)));
  });
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-sign]");
    if (button) sign(button.dataset.sign);
    if (event.target.closest("[data-write-check]")) check();
    if (event.target.closest("[data-write-clear]")) {
      written.fill(null);
      slots.forEach((slot, k) => draw(k));
      document.querySelector(".write-said").replaceChildren();
    }
  });
  signs();
}

const data = JSON.parse(document.getElementById("write-data")?.textContent || "null");
if (data) begin(data);
