// The Bench: draws the part, keeps the lanes in step with the chunk and stage at
// hand, and listens to the keys.
import { advise } from "./advice.js";
import * as Engraver from "./engrave.js";
import * as Figures from "./figure.js";
import * as Lanes from "./lanes.js";
import * as Player from "./player.js";
import * as Sheets from "./sheet.js";
import { stepped } from "./tempo.js";

const shown = { tap: true, count: true, name: true, finger: true };
let data = null;   // of the part on the page
let places = [];   // where each pulse lies
let width = 0;     // the part was drawn for

let onPage = null; // the bench that is drawn

function side() { return document.getElementById("side"); }
function host() { return document.querySelector("#bench .engraving"); }

function chunk() {
  const s = side().dataset;
  const current = document.querySelector("#chunks ol a[aria-current]");
  return { plan: JSON.parse(s.plan), moves: Boolean(document.querySelector(".cut-by-hand")), whole: s.whole === "yes", label: current ? current.querySelector(".chunk-name").textContent.split(" ·")[0] : "" };
}

async function engraveSheet() {
  const source = document.querySelector("#bench .sheet-data");
  if (!source) return;
  data = JSON.parse(source.textContent);
  const element = host();
  const note = document.querySelector(".sheet-note");
  width = element.clientWidth;
  try {
    const systems = await Sheets.engrave(element, data, shown);
    if (!systems) return; // other music is drawn in its place
    drawLanes(systems);
    performance.mark("bench:drawn");
    note.hidden = true;
    document.querySelector(".as-table").open = false;
  } catch (problem) {
    note.hidden = false;
    note.textContent = "The music could not be drawn. The table below has everything.";
    Engraver.failed(problem);
  }
}

function drawLanes(systems) {
  if (!data) return;
  const element = host();
  places = Lanes.draw(element, data, { shown, chunk: chunk() }, systems);
}

document.addEventListener("DOMContentLoaded", () => {
  if (side()) keepAddress(side().dataset.here);
  sayWanted();
  onPage = document.getElementById("bench");
  engraveSheet();
});

// keepAddress has the address say what is at hand, for reloading and bookmarks.
function keepAddress(address) { history.replaceState(history.state, "", address); }
document.addEventListener("htmx:afterSettle", (event) => {
  if (!document.getElementById("bench")) return;
  Player.stop();
  sayWanted();
  if (["side", "chunks"].includes(event.detail.elt.id)) drawLanes();
});

// The old bench goes part by part, but for the part that has the focus, before htmx
// takes it off node by node.
document.addEventListener("htmx:beforeSwap", (event) => {
  const bench = event.detail.target;
  if (bench.id !== "bench" || !event.detail.shouldSwap) return;
  for (const part of bench.querySelectorAll(":scope > * > *")) if (!part.contains(document.activeElement)) part.remove();
});

// New music is drawn as soon as it is there.
document.addEventListener("htmx:afterSwap", () => {
  const bench = document.getElementById("bench");
  if (!bench || bench === onPage) return;
  onPage = bench;
  sayLanes();
  engraveSheet();
});

let resizing = 0;
window.addEventListener("resize", () => {
  clearTimeout(resizing);
  resizing = setTimeout(() => { if (host() && host().clientWidth !== width) engraveSheet(); }, 200);
});

function tempoNow() { return Number(document.getElementById("tempo-now").textContent); }

// Tempo by the steps that the server gave.
function notch(step) {
  const ladder = JSON.parse(side().querySelector(".tempo").dataset.ladder);
  const next = stepped(ladder, tempoNow(), step);
  if (next === tempoNow()) return;
  for (const id of ["tempo-now", "bar-tempo"]) document.getElementById(id).textContent = next;
  for (const field of side().querySelectorAll("[data-tempo-field]")) field.value = next;
  Player.stop();
  const address = new URL(location.href);
  address.searchParams.set("tempo", next);
  keepAddress(address);
}

// What is wanted of the player, kept in this browser.
const wanted = { clicks: true, again: false, echo: false, aloud: false, other: true, ...JSON.parse(localStorage.getItem("bench:hear") || "{}") };

function sayWanted() {
  for (const box of document.querySelectorAll(".hear [data-want]")) box.checked = wanted[box.dataset.want];
}

function want(box) {
  wanted[box.dataset.want] = box.checked;
  if (box.dataset.want === "echo" && box.checked) wanted.again = true;
  if (box.dataset.want === "again" && !box.checked) wanted.echo = false;
  localStorage.setItem("bench:hear", JSON.stringify(wanted));
  sayWanted();
  Player.stop();
}

function heard() { return JSON.parse(side().querySelector(".hear").dataset.heard); }

// play counts off and goes through the chunk, with its notes or with clicks alone; while
// something is playing it stops.
function play(notes) {
  if (Player.running()) { Player.stop(); return; }
  const p = chunk(), { round, other, voice, a4 } = heard();
  document.querySelector(".did")?.classList.add("read");
  Player.start({
    beat: data.beat, places, plan: p.plan, tempo: tempoNow(), round, voice, a4, other: notes && wanted.other ? other : null,
    want: { ...wanted, notes, clicks: !notes || wanted.clicks, echo: notes && wanted.echo },
    cues: [...side().querySelectorAll(".count-off li")], host: host(),
    button: side().querySelector(notes ? "[data-hear]" : "[data-play]"),
  });
}

function soundFirst() {
  const { round, voice, a4 } = heard();
  if (round.notes.length) Player.sound([{ voice, midi: round.notes[0].midi }], a4, 2);
}

function soundOne() {
  const { one, voice, a4 } = heard();
  Player.sound([{ voice, midi: [one] }], a4, 4);
}

// soundEverybody is the chord of everybody's first notes, and says who has which.
async function soundEverybody(link) {
  const list = link.closest(".hear").querySelector(".firsts");
  try {
    const answer = await fetch(link.dataset.everybody);
    if (!answer.ok) throw new Error("no answer");
    const parts = await answer.json();
    list.replaceChildren(...parts.map((part) => Object.assign(document.createElement("li"), { textContent: part.instrument + ": " + (part.name || "a stroke") })));
    const pitched = parts.filter((part) => part.midi?.length);
    if (pitched.length) Player.sound(pitched, heard().a4, 4);
  } catch (problem) {
    advise("The first notes could not be fetched. Press again when the network is back.");
  }
}

function openCauses(open) {
  const causes = side().querySelector(".causes");
  if (!causes) return;
  causes.hidden = !open;
  side().querySelector("[data-stumble]").setAttribute("aria-expanded", String(open));
  if (open) causes.querySelector("button").focus();
}

// The causes close with the stumble they are for, and stay open under the answer to a
// mark before it, however fast the keys come.
let causesOpen = false;
document.addEventListener("htmx:beforeRequest", (event) => {
  if (event.detail.requestConfig.formData.has("cause")) openCauses(false);
});
document.addEventListener("htmx:beforeSwap", (event) => {
  if (event.detail.target.id === "marks") causesOpen = event.detail.target.querySelector(".causes")?.hidden === false;
});
document.addEventListener("htmx:afterSettle", (event) => {
  if (event.detail.elt.id === "marks" && causesOpen) openCauses(true);
});

function toggleLane(name) {
  const button = document.querySelector(`.lane-switches [data-lane=${name}]`);
  if (!button || button.disabled) return;
  shown[name] = !shown[name];
  button.setAttribute("aria-pressed", String(shown[name]));
  drawLanes();
}

// sayLanes has the switches of a new bench say which lanes are shown.
function sayLanes() {
  for (const button of document.querySelectorAll(".lane-switches [data-lane]")) button.setAttribute("aria-pressed", String(shown[button.dataset.lane]));
}

// nextStudent takes the one after the student at hand, or the first.
function nextStudent() {
  const links = [...document.querySelectorAll("#students .students a")];
  const at = links.findIndex((link) => link.hasAttribute("aria-current"));
  const first = document.querySelector("#students [data-at-hand] a") || links[0];
  (at < 0 ? first : links[at + 1] || links[0])?.click();
}

// undo takes back what was marked last, for everybody or for one.
function undo() {
  (document.querySelector("[form=undo-batch]") || document.querySelector("#marks .latest button"))?.click();
}

function move(links, step) {
  const at = links.findIndex((link) => link.hasAttribute("aria-current"));
  const next = links[at + step];
  if (next) next.click();
}

document.addEventListener("change", (event) => {
  if (event.target.matches(".hear [data-want]")) want(event.target);
});

document.addEventListener("click", (event) => {
  if (!document.getElementById("bench")) return;
  const on = (selector) => event.target.closest(selector);
  if (on("[data-notch]")) notch(Number(on("[data-notch]").dataset.notch));
  else if (on("[data-play]")) play(false);
  else if (on("[data-hear]")) play(true);
  else if (on("[data-first]")) soundFirst();
  else if (on("[data-one]")) soundOne();
  else if (on("[data-everybody]")) soundEverybody(on("[data-everybody]"));
  else if (on("[data-stumble]")) openCauses(side().querySelector(".causes").hidden);
  else if (on("[data-lane]")) toggleLane(on("[data-lane]").dataset.lane);
  else if (on("[data-next-student]")) nextStudent();
  else if (on("[data-undo]")) undo();
  else if (on("[data-keys]")) showKeys();
  else if (on("[data-jump]")) jump(on("[data-jump]").dataset.jump);
  else if (on("[data-event]")) showLook(on("[data-event]").dataset.event);
  else if (!on(".look") || on("[data-look-close]")) hideLook();
});

function look() { return document.querySelector(".look"); }

function hideLook() {
  if (look()) look().hidden = true;
}

// struck lists the notes that are struck, in written order, each with its measure.
function struck() {
  return data.measures.flatMap((m, index) => (m.events || []).map((event) => ({ event, index })));
}

// showLook opens a note large, and the one after it with what moves on the way.
// While the metronome runs there is no time for reasons, and the looking ahead
// stays inside the chunk.
function showLook(id, playing) {
  const notes = struck();
  const at = notes.findIndex(({ event }) => event.id === id);
  if (at < 0) return;
  const after = notes[at + 1];
  const next = after && (!playing || chunk().whole || inChunk(after)) ? after.event : null;
  fill("now", notes[at].event, null);
  offerWays(playing ? null : notes[at].event);
  offerWriting(playing ? null : notes[at].event);
  offerPencil(playing ? null : notes[at].event);
  fill("next", next, notes[at].event);
  const reasons = playing ? [] : notes[at].event.why;
  look().querySelector(".why").replaceChildren(...reasons.map((text) => Object.assign(document.createElement("span"), { textContent: text })));
  look().classList.toggle("playing", Boolean(playing));
  look().hidden = false;
  if (!playing) uncover(id);
}

// inChunk says whether a note belongs to the chunk at hand.
function inChunk({ event, index }) {
  return chunk().plan.some((part) => part.index === index && event.at >= part.from - 1e-6 && event.at < part.to - 1e-6);
}

// offerWays lists the other ways of a note with what to do about them: the usual one
// above the reasons, to have it back wherever this note comes, the others below.
function offerWays(event) {
  const list = look().querySelector(".other-ways");
  const ways = event && !event.printed ? event.ways || [] : [];
  const button = (words, way, scope) => {
    const press = Object.assign(document.createElement("button"), { type: "button", className: "plain", textContent: words });
    press.addEventListener("click", () => chooseWay(event, way, scope));
    press.hidden = !list.dataset.action; // in a colleague's class
    return press;
  };
  const line = (way) => {
    const line = document.createElement("p");
    if (way.usual) line.append("Usual: " + way.said + ". ", button("Use the usual one", way, "note"), " ", button("only here", way, "here"));
    else line.append("Or " + way.said + (way.why ? ": " + way.why : "") + ". ", button("Use it here", way, "here"), " ", button("for this note from now on", way, "note"));
    return line;
  };
  look().querySelector(".usual-way").replaceChildren(...ways.filter((way) => way.usual).map(line));
  list.replaceChildren(...ways.filter((way) => !way.usual).map(line));
}

// offerWriting takes a fingering of the teacher's own for a note that has none listed.
const spelled = {
  woodwind: "Left hand | right hand, for example: 1 2 3 | 4 5 Eb", valves: "Valves, for example: 1-2, or 0 for none", slide: "A position, for example: 3, or 2+",
  strings: "String and finger, for example: A3",
};
function offerWriting(event) {
  const form = look().querySelector(".write-fingering");
  form.hidden = !event || !spelled[data.mechanism] || !(event.beyond || event.mine) || !look().querySelector(".other-ways").dataset.action;
  if (form.hidden) return;
  const field = form.querySelector("input");
  field.value = event.mine ? event.fingering : "";
  form.querySelector(".hint").textContent = spelled[data.mechanism] + ".";
  form.onsubmit = (submit) => {
    submit.preventDefault();
    chooseWay(event, { text: field.value.trim() }, submit.submitter?.value || "here");
  };
}

function chooseWay(event, way, scope) {
  const list = look().querySelector(".other-ways").dataset;
  const here = side().querySelector(".stages [aria-current]");
  const values = Object.fromEntries(new URL(here.href).searchParams);
  Object.assign(values, { tempo: tempoNow(), instrument: list.instrument, measure: event.measure, event: event.event, fingering: way.text, scope });
  htmx.ajax("POST", list.action, { target: "#bench", swap: "outerHTML", values });
}

// offerPencil lists what a teacher can write over a note, and what is written there.
const writing = [["circle", "Circle"], ["arrow", "Arrow"], ["breath", "Breath"], ["no-breath", "No breath"], ["down", "Down bow"], ["up", "Up bow"], ["sign", "Sign"]];
function offerPencil(event) {
  const tools = look().querySelector(".pencil-tools");
  if (!tools) return;
  tools.hidden = !event;
  if (!event) return;
  const there = event.pencils || [];
  const buttons = writing.filter(([kind]) => (kind !== "down" && kind !== "up") || data.strings).map(([kind, words]) => {
    const on = there.some((p) => p.kind === kind);
    const press = Object.assign(document.createElement("button"), { type: "button", className: "plain", textContent: words });
    press.setAttribute("aria-pressed", String(on));
    press.addEventListener("click", () => write(event, { kind, ...(on ? { rub: "yes" } : {}) }));
    return press;
  });
  const word = there.find((p) => p.kind === "word");
  const field = tools.querySelector("input");
  field.value = word ? word.word : "";
  field.onkeydown = (key) => { if (key.key === "Enter") { key.preventDefault(); tools.querySelector("[data-write]").click(); } };
  tools.querySelector("[data-write]").onclick = () => {
    if (field.value.trim()) write(event, { kind: "word", word: field.value.trim() });
    else if (word) write(event, { kind: "word", word: word.word, rub: "yes" });
  };
  tools.querySelector(".pencils").replaceChildren(...buttons);
}

function write(event, values) {
  const tools = look().querySelector(".pencil-tools").dataset;
  const here = side().querySelector(".stages [aria-current]");
  const at = Object.fromEntries(new URL(here.href).searchParams);
  htmx.ajax("POST", tools.action, { target: "#bench", swap: "outerHTML", values: { ...at, tempo: tempoNow(), measure: event.measure, event: event.event, ...values } });
}

// jump goes to a note in the music, or shows where a rest stands.
function jump(id) {
  const touch = document.querySelector(`.lanes [data-event="${id}"]`);
  if (touch) { touch.focus(); return; }
  const rest = document.getElementById(id);
  if (!rest) return;
  rest.scrollIntoView({ block: "center" });
  rest.classList.add("jumped");
  setTimeout(() => rest.classList.remove("jumped"), 1600);
}

// uncover scrolls a note out from under the panel that tells of it. On a small
// screen the panel itself moves a part of the way, so it may take several turns.
function uncover(id) {
  const note = document.querySelector(`.lanes [data-event="${id}"]`);
  for (let turn = 0; turn < 5; turn++) {
    const over = note.getBoundingClientRect().bottom + 8 - look().getBoundingClientRect().top;
    if (over <= 0) return;
    window.scrollBy({ top: over, behavior: "instant" });
  }
}

function fill(slot, event, before) {
  const figure = look().querySelector(`[data-look="${slot}"]`);
  figure.hidden = !event || !event.fingering;
  if (figure.hidden) return;
  figure.querySelector("b").textContent = event.spoken || event.said;
  figure.querySelector(".said").textContent = event.spoken ? event.said : "";
  figure.querySelector(".moved").textContent = before && event.change ? event.change : "";
  figure.querySelector(".drawing").replaceChildren(Figures.of(event, data, before));
}

// The metronome says where it is; the last note struck there is the one to hold.
document.addEventListener("bench:pulse", (event) => {
  const m = data.measures[event.detail.measure];
  const now = m && (m.events || []).filter((e) => e.at <= event.detail.at + 1e-6).pop();
  if (now && fingering()) showLook(now.id, true);
});
document.addEventListener("bench:stopped", () => { if (look() && look().classList.contains("playing")) hideLook(); });

// fingering says whether the stage at hand is one that needs the hand.
function fingering() { return document.getElementById("stage-head").hasAttribute("data-hands"); }

document.addEventListener("focusin", (event) => {
  if (event.target.matches(".bench [data-event]")) showLook(event.target.dataset.event);
});

function showKeys() {
  let dialog = document.querySelector("dialog.keys");
  if (!dialog) {
    dialog = document.createElement("dialog");
    dialog.className = "keys";
    dialog.innerHTML = `<h2>Keys on the Bench</h2><dl>
      <dt><kbd>space</kbd></dt><dd>count-off and go; again to stop</dd>
      <dt><kbd>H</kbd></dt><dd>hear it; again to stop</dd>
      <dt><kbd>P</kbd></dt><dd>the pitch of its first note</dd>
      <dt><kbd>↑</kbd> <kbd>↓</kbd></dt><dd>chunk before, chunk after</dd>
      <dt><kbd>←</kbd> <kbd>→</kbd></dt><dd>stage before, stage after</dd>
      <dt><kbd>Tab</kbd> into the music</dt><dd>then <kbd>←</kbd> <kbd>→</kbd> go from note to note, each with its reasons</dd>
      <dt><kbd>[</kbd> <kbd>]</kbd></dt><dd>one step slower, one step faster</dd>
      <dt><kbd>C</kbd></dt><dd>the try was clean</dd>
      <dt><kbd>X</kbd></dt><dd>it stumbled; then <kbd>R</kbd> rhythm, <kbd>N</kbd> name, <kbd>F</kbd> fingering, <kbd>S</kbd> sound</dd>
      <dt><kbd>U</kbd></dt><dd>undo the last mark</dd>
      <dt><kbd>N</kbd></dt><dd>next student</dd>
      <dt><kbd>E</kbd></dt><dd>everybody clean</dd>
      <dt><kbd>&lt;</kbd> <kbd>&gt;</kbd></dt><dd>the chunk ends a measure earlier, later</dd>
      <dt><kbd>D</kbd> <kbd>J</kbd></dt><dd>divide the chunk, join it with the next</dd>
      <dt><kbd>Z</kbd></dt><dd>undo what was last changed by hand</dd>
      <dt><kbd>1</kbd>–<kbd>4</kbd></dt><dd>show or hide a lane</dd></dl>
      <button type="button" class="btn quiet" data-close>Close</button>`;
    document.body.append(dialog);
  }
  dialog.showModal();
}

// The frame of a chunk is dragged by its ends to the nearest bar line.
document.addEventListener("pointerdown", (event) => {
  const edge = event.target.closest?.(".lanes .edge");
  if (!edge) return;
  event.preventDefault();
  edge.setPointerCapture(event.pointerId);
  edge.classList.add("moving");
  const start = event.clientX, x = Number(edge.getAttribute("x"));
  edge.onpointermove = (move) => edge.setAttribute("x", x + move.clientX - start);
  edge.onpointercancel = () => drawLanes();
  edge.onpointerup = (up) => {
    const box = host().getBoundingClientRect();
    drop(edge.dataset.edge, up.clientX - box.left, up.clientY - box.top);
  };
});

// drop moves an end of the chunk at hand to where it was let go.
function drop(edge, x, y) {
  const far = (b) => Math.max(b.top - y, y - b.bottom, 0) * 10 + Math.max(b.left - x, x - b.right, 0);
  const bar = host().bars.reduce((near, b) => far(b) < far(near) ? b : near);
  const late = x > (bar.left + bar.right) / 2;
  const form = document.querySelector(".cut-by-hand form");
  const values = Object.fromEntries(new FormData(form));
  delete values.way;
  const [first, last] = values.chunk.split("-").map(Number);
  Object.assign(values, { do: "move", first, last });
  values[edge] = edge === "last" ? bar.number - (late ? 0 : 1) : bar.number + (late ? 1 : 0);
  drawLanes();
  if (values.first === first && values.last === last) return;
  htmx.ajax("POST", form.getAttribute("action"), { target: "#bench", swap: "outerHTML", values });
}

// byKey changes the chunk at hand, as its button does.
function byKey(key) { document.querySelector(`.cut-by-hand [data-move="${key}"]`)?.click(); }

const keys = {
  " ": () => play(false),
  h: () => play(true), p: soundFirst,
  "[": () => notch(-1), "]": () => notch(1),
  ArrowUp: () => move([...document.querySelectorAll("#chunks ol a")], -1),
  ArrowDown: () => move([...document.querySelectorAll("#chunks ol a")], 1),
  ArrowLeft: () => move([...document.querySelectorAll(".stages a")], -1),
  ArrowRight: () => move([...document.querySelectorAll(".stages a")], 1),
  c: () => document.getElementById("mark-clean")?.click(),
  e: () => document.getElementById("all-clean")?.click(),
  n: nextStudent,
  u: undo,
  z: () => document.querySelector("[data-undo-hand]")?.click(),
  "<": () => byKey("<"), ">": () => byKey(">"), d: () => byKey("D"), j: () => byKey("J"),
  x: () => openCauses(true),
  Escape: () => { openCauses(false); hideLook(); },
  1: () => toggleLane("tap"), 2: () => toggleLane("count"), 3: () => toggleLane("name"), 4: () => toggleLane("finger"),
  "?": showKeys,
};

document.addEventListener("keydown", (event) => {
  if (!document.getElementById("bench") || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.target.closest("input:not([type=hidden]), textarea, select, dialog")) return;
  if (event.target.matches(".touch") && (event.key === "ArrowLeft" || event.key === "ArrowRight")) {
    event.preventDefault();
    Lanes.stepNote(event.target, event.key === "ArrowRight" ? 1 : -1);
    return;
  }
  const causes = side().querySelector(".causes");
  if (causes && !causes.hidden) {
    const cause = causes.querySelector(`[data-key="${event.key.toLowerCase()}"]`);
    if (cause) { event.preventDefault(); cause.click(); return; }
  }
  // Space and Enter keep their meaning on a focused control other than links.
  if (event.key === " " && event.target.closest("button, summary") && !event.target.closest("[data-play]")) return;
  const action = keys[event.key.length === 1 ? event.key.toLowerCase() : event.key];
  if (!action) return;
  event.preventDefault();
  action();
});
