// Type it in: marks what is wrong in the two typed lines, draws the exercise so far,
// and types from keys on the screen.
import { advise } from "./advice.js";
import * as Engraver from "./engrave.js";
import * as Lanes from "./lanes.js";
import * as Sheets from "./sheet.js";
import { inKey, spell } from "./spell.js";

const shown = { tap: true, count: true, name: true, finger: true };

function lines() { return [...document.querySelectorAll(".typed-line textarea")]; }

// grow gives a line the height of what stands in it.
function grow(box) {
  box.style.height = "auto";
  box.style.height = box.scrollHeight + "px";
}

// mirror writes a line again behind itself, with what is wrong in it marked and its labels
// told apart.
function mirror(box, marks) {
  const behind = box.previousElementSibling;
  const runes = [...box.value];
  behind.replaceChildren();
  let at = 0;
  for (const mark of [...marks].sort((a, b) => a.from - b.from)) {
    if (mark.from < at) continue;
    behind.append(runes.slice(at, mark.from).join(""));
    behind.append(Object.assign(document.createElement("mark"), { textContent: runes.slice(mark.from, mark.to).join("") || " " }));
    at = mark.to;
  }
  behind.append(runes.slice(at).join("") + " ");
}

function marks() {
  const source = document.querySelector(".typed-marks");
  return source ? JSON.parse(source.textContent) : [];
}

// show marks the lines and draws the exercise; it says whether it came to its end.
async function show() {
  const all = marks();
  for (const box of lines()) {
    grow(box);
    mirror(box, all.filter((m) => m.field === (box.name === "names" ? "name" : box.name)));
  }
  const source = document.querySelector("#counted-sheet .sheet-data");
  if (!source) return true;
  const data = JSON.parse(source.textContent);
  const host = document.querySelector("#counted-sheet .engraving");
  try {
    const systems = await Sheets.engrave(host, data, shown);
    if (!systems) return false;
    const plan = all.filter((m) => data.measures[m.at]).map((m) => ({ index: m.at, from: data.measures[m.at].offset, to: data.measures[m.at].offset + data.measures[m.at].length }));
    Lanes.draw(host, data, { shown, chunk: { plan, whole: plan.length === 0, label: "" } }, systems);
    for (const m of data.measures) for (const e of m.events) if (e.open) document.getElementById(e.id)?.classList.add("unnamed");
    struck = data.measures.flatMap((m) => m.events.map((e, k) => ({ id: e.id, place: m.number + "." + (k + 1) })));
    sayChosen();
    performance.mark("typed:drawn");
  } catch (problem) {
    host.textContent = "The music could not be drawn. What you typed is kept.";
    Engraver.failed(problem);
  }
  return true;
}

// Notes are chosen in the music, one or from one to another, and marked by the buttons
// under it.
let struck = [];    // the notes there are, each with its place as it is typed
let chosen = null;  // the places of the first and the last, in the order they were chosen

function tools() { return document.querySelector(".mark-tools"); }

// range gives the chosen notes in the order of the music.
function range() {
  if (!chosen) return [];
  const at = chosen.map((place) => struck.findIndex((note) => note.place === place));
  return at.includes(-1) ? [] : struck.slice(Math.min(...at), Math.max(...at) + 1);
}

function sayChosen() {
  const notes = range();
  if (!tools()) return;
  tools().hidden = struck.length === 0;
  for (const control of tools().querySelectorAll("button, input")) control.disabled = notes.length === 0;
  const say = (note) => { const [measure, n] = note.place.split("."); return (measure === "0" ? "pickup" : "m. " + measure) + ", note " + n; };
  tools().querySelector(".chosen-notes").textContent = notes.length === 0 ? "Choose notes in the music to mark them."
    : say(notes[0]) + (notes.length > 1 ? " to " + say(notes[notes.length - 1]) : "") + ":";
  for (const touch of document.querySelectorAll("#counted-sheet .touch")) touch.classList.toggle("chosen", notes.some((note) => note.id === touch.dataset.event));
}

function choose(touch, more) {
  const note = struck.find((n) => n.id === touch.dataset.event);
  if (!note) return;
  chosen = more && chosen ? [chosen[0], note.place] : [note.place, note.place];
  sayChosen();
}

// One mark after another: each is put on the line that the one before has left.
let marking = Promise.resolve();
function markNotes(word) {
  marking = marking.then(() => {
    const notes = range(), form = document.querySelector("form.entry");
    if (notes.length === 0) return null;
    return htmx.ajax("POST", "/exercises/preview", { source: document.querySelector(".typed-lines"), target: "#counted-sheet", swap: "outerHTML",
      values: { ...Object.fromEntries(new FormData(form)), mark: word, mark_from: notes[0].place, mark_to: notes[notes.length - 1].place } });
  }).catch(() => {});
}

function writeWords() {
  const field = tools().querySelector("[data-mark-words]");
  const words = field.value.replaceAll('"', "'").trim();
  if (words) markNotes('"' + words + '"');
  field.value = "";
}

document.addEventListener("click", (event) => {
  const touch = event.target.closest("#counted-sheet .touch");
  if (touch) choose(touch, event.shiftKey);
  const mark = event.target.closest("[data-mark]");
  if (mark) markNotes(mark.dataset.mark);
  if (event.target.closest("[data-mark-write]")) writeWords();
});
// What is typed to be written over a note is no change of the exercise yet, and what is typed into
// a line was drawn as it came: leaving the line draws nothing again.
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-mark-words], .typed-line textarea")) event.stopPropagation();
}, true);
document.addEventListener("focusin", (event) => {
  if (event.target.matches("#counted-sheet .touch:focus-visible")) {
    focused = event.target.dataset.event;
    if (!returning) choose(event.target, stretching);
  } else focused = null;
});
let focused = null;     // the note that has the focus
let returning = false;  // it gets the focus back, in a new drawing
let stretching = false; // Shift is held while the arrows go through the notes
document.addEventListener("keydown", (event) => {
  if (event.target.matches("#counted-sheet .touch") && (event.key === "ArrowLeft" || event.key === "ArrowRight")) {
    event.preventDefault();
    stretching = event.shiftKey;
    Lanes.stepNote(event.target, event.key === "ArrowRight" ? 1 : -1);
    stretching = false;
  }
  if (event.target.matches("[data-mark-words]") && event.key === "Enter") { event.preventDefault(); writeWords(); }
});

// What is drawn stays over the next drawing until that is done.
let stale = null;
document.addEventListener("htmx:beforeSwap", (event) => {
  const section = event.detail.target;
  if (section.id === "counted-sheet") stale = section.querySelector(".engraving.stale") || section.querySelector(".engraving");
});
document.addEventListener("htmx:oobAfterSwap", () => lines().forEach(grow));
document.addEventListener("htmx:afterSwap", async () => {
  const section = document.getElementById("counted-sheet");
  if (!section || section.dataset.shown) return;
  section.dataset.shown = "yes";
  const host = section.querySelector(".engraving"), before = stale;
  if (host && before?.querySelector("svg.lanes")) {
    before.classList.add("stale");
    host.style.minHeight = before.offsetHeight + "px";
    host.style.visibility = "hidden";
    host.after(before);
  }
  if (await show() && host) {
    host.style.visibility = "";
    const lost = focused;
    before?.remove();
    if (lost && document.activeElement === document.body) {
      returning = true;
      host.querySelector(`.touch[data-event="${lost}"]`)?.focus({ preventScroll: true, focusVisible: true });
      returning = false;
    }
  }
});

// type puts text into a line where the caret is; brackets go around what is selected, and "<"
// takes the last back. Labels of the count are set apart, and a label after a number goes
// out of its bracket.
function type(box, text) {
  const counting = box.name === "count";
  if (counting && box.selectionStart === box.selectionEnd && ")]".includes(box.value[box.selectionStart] || " ") && /\d/.test(box.value[box.selectionStart - 1])) {
    box.setSelectionRange(box.selectionStart + 1, box.selectionStart + 1);
  }
  const from = box.selectionStart, to = box.selectionEnd;
  if (text === "<") {
    box.setRangeText("", from === to ? Math.max(0, from - 1) : from, to, "end");
  } else {
    const apart = counting && from > 0 && !" ([".includes(box.value[from - 1]) ? " " : "";
    const pair = text === "()" || text === "[]";
    box.setRangeText(apart + (pair ? text[0] + box.value.slice(from, to) + text[1] : text), from, to, "end");
    if (pair && from === to) box.setSelectionRange(from + apart.length + 1, from + apart.length + 1);
  }
  box.dispatchEvent(new Event("input", { bubbles: true }));
}

// A MIDI keyboard, where the browser has one, fills the name line with what is played, as it
// is printed. A note has a sign where the key or the letter before it says otherwise.
let before = null;  // where the last played note lies, counted from C0
let signed = {};    // by step: the sign it was written with last

function played(midi) {
  const section = document.getElementById("counted-sheet"), box = document.querySelector("textarea[name=names]");
  const fifths = Number(section.dataset.fifths), note = spell(midi, fifths);
  const last = before ?? Number(section.dataset.before);
  let near = note.step + 7 * Math.floor(last / 7);
  if (near - last > 3) near -= 7;
  if (last - near > 3) near += 7;
  const octaves = (note.diatonic - near) / 7;
  const names = document.querySelector("[data-midi]").dataset.names.split(" ");
  const german = names[6] === "h" && note.step === 6 && note.alter >= -1 && note.alter <= 0; // h and b say it themselves
  const due = signed[note.step] ?? inKey(note.step, fifths);
  const sign = german || note.alter === due ? "" : ["--", "-", "=", "#", "##"][note.alter + 2];
  if (sign) signed[note.step] = note.alter;
  const name = german && note.alter === -1 ? "b" : names[note.step];
  before = note.diatonic;
  box.setSelectionRange(box.value.length, box.value.length);
  const apart = box.value && names[0].length + (names[6] === "h") > 1 && !/[\s(|]$/.test(box.value) ? " " : "";
  box.setRangeText(apart + name + sign + (octaves > 0 ? "'".repeat(octaves) : ",".repeat(-octaves)), box.value.length, box.value.length, "end");
  box.dispatchEvent(new Event("input", { bubbles: true }));
}

async function listen(button) {
  try {
    const access = await navigator.requestMIDIAccess();
    const take = () => access.inputs.forEach((input) => {
      input.onmidimessage = ({ data: [status, note, velocity] }) => { if ((status & 0xf0) === 0x90 && velocity > 0) played(note); };
    });
    take();
    access.onstatechange = take;
    button.setAttribute("aria-pressed", "true");
    advise(access.inputs.size ? "Play the notes as they are printed: the name line takes them." : "No MIDI keyboard is connected. Connect one; it is taken at once.");
  } catch {
    advise("The browser does not let this page hear a MIDI keyboard.");
  }
}

document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-midi]");
  if (button) listen(button);
});
document.addEventListener("DOMContentLoaded", () => {
  const button = document.querySelector("[data-midi]");
  if (button && navigator.requestMIDIAccess) button.hidden = false;
});

document.addEventListener("pointerdown", (event) => {
  if (event.target.closest("[data-type]")) event.preventDefault(); // the line keeps the caret
});
document.addEventListener("click", (event) => {
  const key = event.target.closest("[data-type]");
  if (!key) return;
  const box = document.querySelector(`textarea[name=${key.dataset.lineOf}]`);
  if (box) type(box, key.dataset.type);
});

document.addEventListener("input", (event) => {
  if (!event.target.matches(".typed-line textarea")) return;
  grow(event.target);
  mirror(event.target, []);
  if (event.isTrusted) { before = null; signed = {}; } // typed by hand: the page says where it stands
});

// Enter goes from the count to the names, and from the names to the button that saves.
document.addEventListener("keydown", (event) => {
  if (event.key !== "Enter" || event.shiftKey || !event.target.matches(".typed-line textarea")) return;
  event.preventDefault();
  const boxes = lines().filter((box) => box.offsetParent);
  (boxes[boxes.indexOf(event.target) + 1] || document.querySelector(".entry-do .main")).focus();
});

document.addEventListener("DOMContentLoaded", () => {
  const [count] = lines();
  if (!count) return;
  if (count.value === "" && !matchMedia("(pointer: coarse)").matches && document.activeElement === document.body) count.focus();
  show();
});
let resizing = 0;
window.addEventListener("resize", () => {
  clearTimeout(resizing);
  resizing = setTimeout(() => { if (lines().length) show(); }, 200);
});
