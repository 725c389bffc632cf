// The fingering chart: the whole range on the staff, one note at a time large, and
// the other way about, what the keys that are pressed can sound.
import { shape } from "./dom.js";
import * as Engraver from "./engrave.js";
import * as Figures from "./figure.js";
import * as Fingering from "./fingering.js";
import * as Lanes from "./lanes.js";

let data = null;
let drawing = null;
let state = null;

function articles() { return [...document.querySelectorAll(".chart-notes article")]; }
function ways(article) { return [...article.querySelectorAll("[data-drawn]")].map(wayOf); }

function wayOf(element) { return { drawn: JSON.parse(element.dataset.drawn), midi: Number(element.dataset.note) }; }

document.addEventListener("DOMContentLoaded", async () => {
  const go = document.querySelector("[data-go]");
  if (go) go.addEventListener("change", () => { location.href = go.value; });
  const source = document.querySelector(".sheet-data");
  if (!source) return;
  data = JSON.parse(source.textContent);
  drawing = Figures.all[data.mechanism];
  if (data.mechanism === "strings") data.boardRows = Math.max(...articles().flatMap(ways).map((way) => drawing.state(way, data).up));
  document.querySelector("[data-print]").addEventListener("click", () => window.print());
  const lift = document.querySelector("[data-clear]");
  lift.hidden = data.mechanism !== "woodwind" && data.mechanism !== "valves";
  lift.addEventListener("click", clear);
  document.querySelector("[data-figure]").addEventListener("click", pressed);
  document.querySelector("[data-figure]").addEventListener("keydown", (event) => {
    if (event.key === "Enter" || event.key === " ") { event.preventDefault(); pressed(event); }
  });
  drawSmall();
  document.querySelector(".chart-notes").classList.add("one-at-a-time");
  const asked = document.getElementById(location.hash.replace("#n", "note-"));
  select((asked || document.querySelector("article.first-year") || articles()[0]).dataset.midi, false);
  await drawStaff();
});

function drawSmall() {
  const small = Fingering[data.mechanism];
  for (const cell of document.querySelectorAll(".drawn")) {
    const event = wayOf(cell);
    const width = Math.max(64, small.width(event) + 30);
    const svg = shape("svg", { class: "lanes in-chart", width, height: small.height, "aria-hidden": "true" });
    small.mark(svg, event, width / 2 - 4, small.height / 2, small.height, data);
    cell.append(svg);
  }
}

async function drawStaff() {
  const host = document.querySelector(".chart-staff .engraving");
  const note = document.querySelector(".chart-staff .sheet-note");
  const narrow = host.clientWidth < 520;
  host.style.paddingLeft = narrow ? "40px" : "56px";
  const shown = { name: true, finger: true };
  const height = Lanes.rows(data, shown).height;
  const canvas = host.appendChild(Object.assign(document.createElement("div"), { className: "canvas" }));
  try {
    await document.fonts.ready;
    let spacing = 0.06;
    for (let tries = 0; tries < 9; tries++) {
      await Engraver.draw(canvas, data.mei, {
        scale: 40, engraver: { spacingNonLinear: 0.6, spacingLinear: spacing, spacingSystem: Math.min(48, Math.ceil((height + 10) / 3.6)), mnumInterval: 0, svgAdditionalAttribute: ["staff@n"] },
      });
      const crowding = Math.max(...Lanes.crowding(host, data, shown).map((m) => m.crowded));
      if (crowding <= 0.82) break;
      spacing *= crowding > 1.2 ? 1.3 : 1.15;
    }
    Lanes.draw(host, data, { shown, chunk: { whole: true } });
    note.hidden = true;
    host.addEventListener("click", (event) => {
      const touch = event.target.closest("[data-event]");
      if (touch) select(noteOf(touch.dataset.event).midi, true);
    });
    host.addEventListener("focusin", (event) => { if (event.target.matches("[data-event]")) select(noteOf(event.target.dataset.event).midi, false); });
    host.addEventListener("keydown", (event) => {
      const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
      if (step && event.target.matches(".touch")) { event.preventDefault(); Lanes.stepNote(event.target, step); }
    });
    markOnStaff();
  } catch (problem) {
    note.textContent = "The notes could not be drawn. The list below has everything.";
    Engraver.failed(problem);
  }
}

function noteOf(id) { return data.measures.flatMap((m) => m.events).find((e) => e.id === id); }

// select shows one note: its article, and its first way on the large drawing.
function select(midi, follow) {
  for (const article of articles()) article.classList.toggle("chosen", article.dataset.midi === String(midi));
  const article = document.getElementById("note-" + midi);
  state = drawing.state(ways(article)[0], data);
  redraw();
  say("");
  if (follow) {
    history.replaceState(null, "", "#n" + midi);
    const side = document.querySelector(".chart-side");
    if (getComputedStyle(side).position === "static") side.scrollIntoView({ block: "start" });
  }
  markOnStaff();
}

function markOnStaff() {
  const shown = new Set(articles().filter((a) => a.classList.contains("chosen")).map((a) => Number(a.dataset.midi)));
  for (const touch of document.querySelectorAll(".chart-staff .touch")) touch.classList.toggle("chosen", shown.has(noteOf(touch.dataset.event).midi));
}

function redraw(focus) {
  const host = document.querySelector("[data-figure]");
  const svg = drawing.draw(data, state, null);
  svg.removeAttribute("role");
  for (const part of svg.querySelectorAll("[data-press]")) part.setAttribute("tabindex", "0");
  host.replaceChildren(svg);
  if (focus) svg.querySelector(`[data-press="${focus}"]`)?.focus();
}

// pressed changes what is down and shows every note that has it as one of its
// ways.
function pressed(event) {
  const part = event.target.closest("[data-press]");
  if (!part) return;
  state = drawing.toggle(state, part.dataset.press, data);
  redraw(part.dataset.press);
  findSounding();
}

function clear() {
  state = new Set();
  redraw();
  findSounding();
}

function findSounding() {
  const found = articles().filter((article) => ways(article).some((way) => drawing.same(drawing.state(way, data), state)));
  for (const article of articles()) article.classList.toggle("chosen", found.includes(article));
  const names = found.map((article) => article.dataset.said);
  say(names.length === 0 ? "No note of this chart is played so." : "This sounds " + names.join("; ") + ".");
  markOnStaff();
  if (names.length === 0 && state instanceof Set) tellNear();
}

function say(text) {
  document.querySelector("[data-found]").textContent = text;
  document.querySelector("[data-hint]").hidden = Boolean(text);
}

// tellNear asks what is nearly sounded, and says it if the same is still pressed.
async function tellNear() {
  const asked = state;
  const keys = [...asked].map((key) => (key === "T" ? 0 : key)).join(" ");
  const answer = await fetch(document.querySelector(".chart-press").dataset.near + "?keys=" + encodeURIComponent(keys)).catch(() => null);
  const text = answer && answer.ok ? await answer.text() : "";
  if (state === asked && text) say("No note of this chart is played so. " + text);
}
