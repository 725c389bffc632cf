// A lesson while it runs: one step at a time, the music of the chosen student, a count-off,
// and marks for everybody. All steps are in the page, and marks that cannot be sent wait.
import * as Engraver from "./engrave.js";
import * as Lanes from "./lanes.js";
import * as Player from "./player.js";
import * as Sheets from "./sheet.js";
import { stepped } from "./tempo.js";
import { newKey } from "./outbox.js";
import { outbox } from "./waiting.js";

const lesson = () => document.getElementById("lesson");
// Which lanes a stage needs, until the teacher says otherwise.
const lanesOf = { count: ["tap", "count"], name: ["tap", "count", "name"], finger: ["count", "name", "finger"] };
let wanted = {}; // lanes the teacher switched
let shown = {};
const most = 4; // lines side by side
let music = {}, voices = {};
let at = 0;
const inMeasure = ", m. "; // before the measure, in what a student stumbled over
let over = new Map();   // what each exception stumbled over, by student
let waits = {};         // the same of each step that is not marked yet, kept in this browser
let absent = new Set();
let chosen = null;      // the exception at hand
let marked = [];        // what can be taken back: {key, batch, step}
let drawn = [];         // the sheets on the page
let drawing = 0;
let whenDrawn = Promise.resolve();
let notches = 0;        // how much faster or slower than the plan has it

const all = (selector) => [...lesson().querySelectorAll(selector)];
const head = () => lesson().querySelector(`.lesson-head[data-step="${at}"]`);
const say = (words) => { lesson().querySelector(".advice").textContent = words; };

function instruments() {
  const here = all(`.room[data-step="${at}"] .room-card`).map((card) => card.dataset.instrument);
  const kept = JSON.parse(localStorage.getItem("lesson:shown") || "[]").filter((id) => here.includes(id));
  return kept.length ? kept : here.slice(0, 1);
}

function show(step) {
  at = step;
  Player.stop();
  for (const part of all("[data-step]")) part.hidden = Number(part.dataset.step) !== at;
  for (const link of all("[data-go]")) {
    const place = Number(link.dataset.go);
    if (place === at) link.setAttribute("aria-current", "step"); else link.removeAttribute("aria-current");
    link.classList.toggle("gone", place < at);
  }
  lesson().querySelector("[data-go][aria-current]")?.scrollIntoView({ block: "nearest" });
  const last = at === all("[data-go]").length - 1;
  for (const next of all("[data-next], [data-bar-next]")) next.disabled = last;
  history.replaceState(history.state, "", address());
  notches = 0;
  lanes();
  over = new Map(waits[at] || []);
  choose(null);
  names();
  sayTime();
  draw();
}

// keepOver keeps the exceptions of the step at hand until they are marked, over a reload too.
const keptOver = () => "exceptions of lesson " + lesson().dataset.lesson;
function keepOver() {
  if (over.size) waits[at] = [...over]; else delete waits[at];
  sessionStorage.setItem(keptOver(), JSON.stringify(waits));
}

// Who leaves a step whose exceptions are not marked is asked what is to become of them.
let then = null; // what is done after the answer
function settle(onwards) {
  const dialog = lesson().querySelector("dialog.pending");
  if (!dialog || !over.size) { onwards(); return; }
  const said = [...over].map(([id, cause]) => all(`.name-chip[data-student="${id}"]`)[0]?.dataset.name + ": " + cause);
  dialog.querySelector("p").textContent = said.join(", ") + ". All the others clean?";
  dialog.querySelector("[data-pending=keep]").hidden = ending;
  then = onwards;
  dialog.showModal();
}

function settled(how) {
  lesson().querySelector("dialog.pending").close();
  if (how === "mark") clean();
  else if (how === "drop") { over = new Map(); keepOver(); names(); }
  const onwards = then;
  then = null;
  onwards?.();
}

// end asks of every step that has exceptions which are not marked, and then ends the lesson.
let ending = false;
function end(form) {
  const step = Object.keys(waits)[0];
  if (step === undefined) {
    if (!outbox.busy) { form.submit(); return; }
    setTimeout(() => end(form), 100); // what was marked last is on its way
    return;
  }
  ending = true;
  if (Number(step) !== at) show(Number(step));
  settle(() => end(form));
}

function address() {
  const url = new URL(location.href);
  url.searchParams.set("step", at);
  return url;
}

function note() {
  const fields = new URLSearchParams({ step: at });
  for (const id of absent) fields.append("absent", id);
  outbox.later(lesson().dataset.note, fields, false);
}

function go(step) {
  lesson().querySelector(".lesson-beside").hidden = true;
  if (step < 0 || step >= all("[data-go]").length || step === at) return;
  settle(() => { show(step); beside = step; note(); });
}

// The music of the chosen student, one to four lines.
function draw() { whenDrawn = drawAll(++drawing); }

async function drawAll(turn) {
  const host = lesson().querySelector(".lesson-sheets");
  const chunk = music[head().dataset.music] || {};
  const ids = instruments();
  for (const card of all(".room-card")) card.setAttribute("aria-pressed", ids.includes(card.dataset.instrument));
  const said = [...head().querySelectorAll(".lesson-says")];
  for (const words of said) words.hidden = said.length > 1 && !(JSON.parse(words.dataset.to) || []).some((id) => ids.includes(id));
  const heard = said.filter((words) => !words.hidden);
  for (const words of heard) words.classList.toggle("to-all", heard.length === 1);
  host.dataset.lines = ids.length;
  const made = ids.map((id) => {
    const sheet = Object.assign(document.createElement("figure"), { className: "lesson-sheet" });
    const name = Object.assign(document.createElement("figcaption"), { textContent: all(`.room-card[data-instrument="${id}"] .room-name`)[0]?.textContent || "" });
    const element = Object.assign(document.createElement("div"), { className: "engraving" });
    sheet.append(name, element);
    return { id, sheet, element, data: chunk[id].sheet, plan: chunk[id].plan, round: chunk[id].round };
  });
  host.replaceChildren(...made.map((m) => m.sheet));
  const ways = ids.length === 1 ? [[72], [54], [38]] : ids.length === 2 ? [[42], [36], [36, "beside"], [30, "beside"]] : [[42], [36]];
  for (const [scale, beside] of ways) { // as large as there is room for, two lines beside each other where they cannot stand
    host.classList.toggle("beside", Boolean(beside));
    drawn = [];
    for (const m of made) {
      if (!(await drawOne(m, scale, turn))) return;
    }
    if (host.scrollHeight <= host.clientHeight + 1) break;
  }
  performance.mark("lesson:drawn");
}

// drawOne draws a line; it says whether it is still wanted.
async function drawOne(m, scale, turn) {
  try {
    const systems = await Sheets.engrave(m.element, m.data, shown, { minLastJustification: 0, scale, whole: true, spacing: { spacingNonLinear: 0.6, spacingLinear: 0.03 } });
    if (turn !== drawing || !systems) return false;
    m.places = Lanes.draw(m.element, m.data, { shown, chunk: { plan: m.plan, whole: true, label: "" } }, systems);
    drawn.push(m);
  } catch (problem) {
    m.element.textContent = "The music could not be drawn. The Bench has it as a table.";
    Engraver.failed(problem);
  }
  return turn === drawing;
}

function pick(card) {
  const id = card.dataset.instrument;
  let ids = instruments();
  ids = ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id].slice(-most);
  if (!ids.length) ids = [id];
  localStorage.setItem("lesson:shown", JSON.stringify(ids));
  draw();
}

function tempo() {
  const scale = JSON.parse(lesson().dataset.scale);
  const planned = Number(head().dataset.tempo) || 60;
  return stepped(scale, planned, notches);
}

async function play(button, notes) {
  if (Player.running()) { Player.stop(); return; }
  await whenDrawn;
  const first = drawn[0];
  if (!first) return;
  Player.start({
    beat: first.data.beat, places: first.places, plan: first.plan, tempo: tempo(), round: first.round, voice: voices[first.id], a4: Number(lesson().dataset.a4), other: null,
    want: { notes, clicks: !notes && !("quiet" in head().dataset), again: false, echo: false, aloud: false },
    cues: [...head().querySelectorAll(".count-off li")], host: first.element, button,
  });
}

function notch(step) {
  notches += step;
  Player.stop();
  say("At " + tempo() + ".");
}

// Who is here, and who stumbled over what.
function mine() {
  const group = head().dataset.group ? JSON.parse(head().dataset.group) : null;
  return (id) => !group || group.includes(Number(id));
}

function names() {
  const taking = mine();
  for (const chip of all(".name-chip")) {
    const id = chip.dataset.student, cause = over.get(id);
    chip.parentElement.hidden = !taking(id);
    chip.classList.toggle("away", absent.has(id));
    chip.classList.toggle("stumbled", Boolean(cause) && !absent.has(id));
    chip.setAttribute("aria-pressed", Boolean(cause) || absent.has(id));
    chip.querySelector(".over").textContent = absent.has(id) ? "not here" : cause || "";
  }
  keepOver();
  const word = lesson().querySelector("[data-clean-word]");
  if (!word) return;
  word.textContent = over.size ? "All the others clean" : "Everybody clean";
  word.parentElement.disabled = "warm" in head().dataset;
}

function choose(chip) {
  chosen = chip;
  const row = lesson().querySelector(".exception");
  row.hidden = !chip;
  lesson().querySelector(".lesson-bar").classList.toggle("asking", Boolean(chip));
  for (const other of all(".name-chip")) other.classList.toggle("at-hand", other === chip);
  if (!chip) return;
  row.querySelector("[data-who]").textContent = chip.dataset.name;
  const [first, last] = (head().dataset.part || "").split("-").map(Number);
  const where = row.querySelector("[data-measure]"), said = (over.get(chip.dataset.student) || "").split(inMeasure)[1] || "";
  where.parentElement.hidden = !(last - first > 1);
  where.replaceChildren(where.options[0]);
  for (let n = first; n <= last; n++) where.add(new Option("m. " + n, n, false, String(n) === said));
}

// sayMeasure keeps in which measure who is at hand stumbled.
function sayMeasure(measure) {
  if (!chosen) return;
  const [cause] = (over.get(chosen.dataset.student) || head().dataset.cause).split(inMeasure);
  over.set(chosen.dataset.student, measure ? cause + inMeasure + measure : cause);
  names();
}

function tap(chip) {
  const id = chip.dataset.student;
  if (chosen === chip) { except(""); return; }
  if (absent.has(id)) { absent.delete(id); instead(chip, true); note(); choose(null); names(); return; }
  if (!over.has(id)) over.set(id, head().dataset.cause);
  choose(chip);
  names();
}

// Who takes up a second instrument leaves the first, and the other way about.
function instead(chip, here) {
  const first = chip.dataset.with;
  if (!first || !all(`.name-chip[data-student="${first}"]`).length) return;
  if (here) { absent.add(first); over.delete(first); } else absent.delete(first);
}

function except(what) {
  if (!chosen) return;
  const id = chosen.dataset.student, chip = chosen, where = (over.get(id) || "").split(inMeasure)[1];
  over.delete(id);
  if (what === "absent") { absent.add(id); instead(chip, false); note(); } else if (what) over.set(id, where ? what + inMeasure + where : what);
  choose(null);
  names();
  chip.focus();
}

function clean() {
  if (!lesson().querySelector("[data-clean]") || "warm" in head().dataset) return;
  const key = newKey();
  const fields = new URLSearchParams({ step: at, request_key: key });
  for (const id of absent) fields.append("absent", id);
  for (const [id, cause] of over) fields.set("stumble-" + id, cause);
  for (const part of partsDone()) fields.append("part", part);
  marked.push({ key, step: at });
  lesson().querySelector(`[data-go="${at}"]`).classList.add("marked");
  over = new Map();
  choose(null);
  names();
  undoable();
  say("Marking …");
  outbox.later(lesson().dataset.mark, fields, true);
}

// partsDone are the chunks that a mark is of: the one at hand, and at the last of a step those
// before it that were not marked.
function partsDone() {
  if (!("last" in head().dataset)) return [head().dataset.part];
  const done = marked.map((m) => m.step);
  const step = all(".lesson-head").filter((other) => other.dataset.place === head().dataset.place);
  return step.filter((other) => other === head() || !done.includes(Number(other.dataset.step))).map((other) => other.dataset.part);
}

function undoable() {
  const button = lesson().querySelector("button[data-undo]");
  if (button) button.disabled = marked.length === 0;
}

function undo() {
  const last = marked.pop();
  if (!last) return;
  undoable();
  lesson().querySelector(`[data-go="${last.step}"]`).classList.remove("marked");
  if (outbox.remove(last.key)) { say("Taken back before it was sent."); return; }
  if (last.batch) outbox.later(lesson().dataset.undo, new URLSearchParams({ batch: last.batch, step: last.step }), true);
}

document.addEventListener("waiting:answer", (event) => {
  const { mark, said, ok } = event.detail;
  const fields = new URLSearchParams(mark.fields);
  const of = marked.find((m) => m.key === fields.get("request_key"));
  if (of && said) of.batch = said.batch;
  if (!ok && mark.counts) say("A mark was refused. Look at the Board, and mark again what is missing.");
  else if (said?.said) say(said.said);
});

// How much of the lesson is left, quietly, and whether it is on time.
function sayTime() {
  const gone = (Date.now() - Number(lesson().dataset.begun)) / 60000;
  const left = Math.round(Number(lesson().dataset.minutes) - gone);
  let planned = 0;
  for (const link of all("[data-go]")) if (Number(link.dataset.go) < at) planned += Number(link.dataset.minutes);
  const now = Number(lesson().querySelector(`[data-go="${at}"]`)?.dataset.minutes || 0);
  const late = Math.round(gone - planned - now);
  const pace = late > 0 ? late + " min behind" : gone < planned - 1 ? Math.round(planned - gone) + " min ahead" : "on time";
  lesson().querySelector(".lesson-left").textContent = left >= 0 ? left + " min left · " + pace : -left + " min over";
}

// Two who teach one lesson: each page says at which step the other is.
let beside = Number.NaN; // where the lesson was when it was looked at last
async function listen() {
  if (document.hidden || !navigator.onLine || outbox.busy) return;
  const answer = await fetch(lesson().dataset.pulse, { headers: { Accept: "application/json" } }).catch(() => null);
  if (!answer?.ok || !answer.headers.get("Content-Type")?.includes("json")) return;
  const { step, ended } = await answer.json();
  const words = lesson().querySelector(".lesson-beside");
  if (ended) { words.hidden = false; words.textContent = "This lesson has ended on another page."; return; }
  if (step === beside) return;
  const line = lesson().querySelector(`[data-go="${step}"] span + span, [data-go="${step}"] span:not(.bar-of)`)?.textContent.trim();
  words.hidden = step === at || Number.isNaN(beside) || !line;
  beside = step;
  if (words.hidden) return;
  const link = Object.assign(document.createElement("button"), { type: "button", className: "plain", textContent: "Go there" });
  link.addEventListener("click", () => { words.hidden = true; go(step); });
  words.replaceChildren("The other page is at " + line + ". ", link);
}

function move(way) {
  const chips = all(".name-chip").filter((chip) => !chip.parentElement.hidden);
  const here = chips.indexOf(document.activeElement);
  chips[(here + way + chips.length) % chips.length]?.focus();
}

// across goes to the student nearest in the next row.
function across(chip, way) {
  const rows = all(".names"), row = rows[rows.indexOf(chip.closest(".names")) + way];
  const middle = (c) => { const box = c.getBoundingClientRect(); return (box.left + box.right) / 2; };
  const near = [...(row?.querySelectorAll(".name-chip") || [])].filter((c) => !c.parentElement.hidden).sort((a, b) => Math.abs(middle(a) - middle(chip)) - Math.abs(middle(b) - middle(chip)));
  near[0]?.focus();
}

const keys = {
  " ": () => play(lesson().querySelector("[data-play]"), false),
  ArrowRight: () => go(at + 1), ArrowLeft: () => go(at - 1),
  c: clean, u: undo, h: () => play(lesson().querySelector("[data-hear]"), true),
  x: () => all(".name-chip").find((chip) => !chip.parentElement.hidden)?.focus(),
  "[": () => notch(-1), "]": () => notch(1), "?": () => lesson().querySelector("dialog[data-key-list]").showModal(),
  1: () => lane("tap"), 2: () => lane("count"), 3: () => lane("name"), 4: () => lane("finger"),
};
const causes = { r: "rhythm", n: "name", f: "fingering", s: "sound", a: "absent" };

function lane(name) {
  wanted[name] = !shown[name];
  lanes();
  draw();
}

function lanes() {
  const needs = lanesOf[head().dataset.form] || ["tap", "count", "name", "finger"];
  shown = {};
  for (const name of ["tap", "count", "name", "finger"]) shown[name] = wanted[name] ?? needs.includes(name);
  for (const button of all("[data-lane]")) button.setAttribute("aria-pressed", shown[button.dataset.lane]);
}

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]")) return;
  const chip = event.target.closest?.(".name-chip");
  if (chip && ["ArrowUp", "ArrowDown"].includes(event.key)) { event.preventDefault(); across(chip, event.key === "ArrowUp" ? -1 : 1); return; }
  if (chip && ["ArrowRight", "ArrowLeft"].includes(event.key)) { event.preventDefault(); move(event.key === "ArrowRight" ? 1 : -1); return; }
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  if (chosen && causes[key]) { event.preventDefault(); except(causes[key]); return; }
  if (chosen && key === "Escape") { except(""); return; }
  if (!keys[key] || event.target.closest("button, a, summary, input, select") && key === " ") return;
  event.preventDefault();
  keys[key]();
});

document.addEventListener("change", (event) => {
  if (event.target.matches(".exception [data-measure]")) sayMeasure(event.target.value);
});

document.addEventListener("click", (event) => {
  const hit = (selector) => event.target.closest(selector);
  if (hit("[data-go]")) { event.preventDefault(); go(Number(hit("[data-go]").dataset.go)); }
  else if (hit("[data-next], [data-bar-next]")) go(at + 1);
  else if (hit("[data-pending]")) settled(hit("[data-pending]").dataset.pending);
  else if (hit(".room-card")) pick(hit(".room-card"));
  else if (hit("[data-play]")) play(hit("[data-play]"), false);
  else if (hit("[data-hear]")) play(hit("[data-hear]"), true);
  else if (hit("[data-clean]")) clean();
  else if (hit("button[data-undo]")) undo();
  else if (hit(".name-chip")) tap(hit(".name-chip"));
  else if (hit("[data-over]")) except(hit("[data-over]").dataset.over);
  else if (hit("[data-lane]")) lane(hit("[data-lane]").dataset.lane);
  else if (hit("[data-keys]")) lesson().querySelector("dialog[data-key-list]").showModal();
});

document.addEventListener("cancel", (event) => {
  if (event.target.matches("dialog.pending")) { then = null; ending = false; }
}, true);

document.addEventListener("submit", (event) => {
  if (!event.target.matches("[data-end]") || Object.keys(waits).length === 0) return;
  event.preventDefault();
  end(event.target);
});

let resizing = 0, width = 0;
window.addEventListener("resize", () => {
  clearTimeout(resizing);
  resizing = setTimeout(() => { if (lesson().clientWidth !== width) { width = lesson().clientWidth; draw(); } }, 200);
});

document.addEventListener("DOMContentLoaded", () => {
  music = JSON.parse(document.getElementById("lesson-music").textContent);
  voices = JSON.parse(document.getElementById("lesson-voices").textContent);
  absent = new Set(all(".name-chip[data-absent]").map((chip) => chip.dataset.student));
  width = lesson().clientWidth;
  waits = JSON.parse(sessionStorage.getItem(keptOver()) || "{}");
  if (all("[data-go]").length) show(Number(lesson().dataset.at));
  setInterval(sayTime, 15000);
  setInterval(listen, 1500);
});
