// A student's own page: the day's steps, one at a time, with their music, sound and the next
// note; how it was; and answers that wait here while there is no network.
import { advise } from "./advice.js";
import * as Engraver from "./engrave.js";
import * as Figures from "./figure.js";
import * as Lanes from "./lanes.js";
import { newKey, Outbox } from "./outbox.js";
import * as Player from "./player.js";
import * as Sheets from "./sheet.js";
import { stepped } from "./tempo.js";
import { Walk } from "./walk.js";

const base = document.body.dataset.base;
const words = JSON.parse(document.getElementById("own-words")?.textContent || "{}");
const say = (key, ...fill) => fill.reduce((text, value, k) => text.replaceAll(`{${k + 1}}`, value), words[key] || key);
Player.useWords(words);

let quiet = 0, keptAt = 0;
function tell(text, briefly) {
  const line = document.querySelector(".own-waiting");
  if (!line) return;
  clearTimeout(quiet);
  line.textContent = text;
  line.hidden = !text;
  if (briefly) quiet = setTimeout(() => tell(""), 5000);
}

// Answers wait in this browser, also when the page is closed.
const outbox = new Outbox(localStorage, "waits " + base, {
  base,
  on: {
    held(why, answers) {
      if (why === "signed out") tell(say("wait.pin", answers.length));
      else tell(answers.length === 1 ? say("wait.one") : say("wait.many", answers.length));
    },
    empty({ refused, full, waited }) {
      if (full) tell(say("wait.full"));
      else if (refused > 0) tell(say("wait.refused"));
      else if (waited > 1 || document.querySelector(".own-waiting:not([hidden])")) tell(waited > 0 ? say("wait.sent") : "", true);
      if (waited > 0 && Date.now() - keptAt > 60000) {
        keptAt = Date.now();
        navigator.serviceWorker?.controller?.postMessage("keep pages");
      }
    },
  },
});

function later(page, fields) {
  return outbox.later(base + page, { request_key: newKey(), at: Date.now(), ...fields });
}

function send() {
  if (base) outbox.send();
}

// takeOver has what waited under an earlier link of the same student sent under this one.
async function takeOver() {
  const place = (key) => `waits /my/${key}/`;
  const keys = Object.keys(localStorage).map((name) => name.match(/^waits \/my\/([^/]+)\/$/)?.[1])
    .filter((key) => key && `/my/${key}/` !== base && JSON.parse(localStorage.getItem(place(key)) || "[]").length > 0);
  if (keys.length === 0) return;
  const answer = await fetch(base + "earlier", { method: "POST", body: new URLSearchParams(keys.map((key) => ["key", key])) }).catch(() => null);
  if (!answer?.ok) return;
  for (const key of await answer.json()) outbox.takeOver(place(key), `/my/${key}/`);
  send();
}

if (base) takeOver();
window.addEventListener("online", () => { send(); if (base) takeOver(); });
if (base && "serviceWorker" in navigator && window.isSecureContext) navigator.serviceWorker.register(base + "worker.js", { scope: base }).catch(() => {});

// The day.
const day = () => document.getElementById("day");
const stand = () => document.getElementById("stand");
const part = (selector) => stand().querySelector(selector);
const shownDay = () => day().querySelector(".own-day:not([hidden])");
// today is the day where the school is, in whatever zone the phone is.
const today = () => {
  try { return new Intl.DateTimeFormat("en-CA", { timeZone: day().dataset.zone || undefined, year: "numeric", month: "2-digit", day: "2-digit" }).format(new Date()); } catch { return localDay(); }
};
const localDay = () => { const now = new Date(); return [now.getFullYear(), now.getMonth() + 1, now.getDate()].map((n) => String(n).padStart(2, "0")).join("-"); };
const lanesOf = { count: ["tap", "count"], name: ["tap", "count", "name"], finger: ["count", "name", "finger"], play: ["count", "name", "finger"] };

let step = null;         // the one that is open
let music = {}, fetched = null, voice = null, drawn = null, whenDrawn = Promise.resolve();
let shown = {}, tempo = 0, tries = 0, answer = {}, width = 0;
let counting = false, reached = false; // a try that is played, and whether it has come to its last measure

function showDay(on) {
  for (const one of day().querySelectorAll(".own-day")) one.hidden = one.dataset.day !== on;
  const open = shownDay();
  if (open) day().querySelector(".own-hello").textContent = open.dataset.head;
  const note = day().querySelector(".own-note");
  if (note && open) note.hidden = true;
  sayDone();
}

// sayDone marks what is done, and the step that is at hand.
function sayDone() {
  const steps = [...(shownDay()?.querySelectorAll(".own-step") || [])];
  const next = steps.find((one) => !one.classList.contains("done"));
  for (const one of steps) {
    one.classList.toggle("own-current", one === next);
    if (one === next) one.querySelector("[data-open]").setAttribute("aria-current", "step"); else one.querySelector("[data-open]").removeAttribute("aria-current");
  }
  const all = shownDay()?.querySelector(".own-all-done");
  if (all) all.hidden = Boolean(next) || steps.length === 0;
  const bar = shownDay() && day().querySelector(`[data-show="${shownDay().dataset.day}"]`)?.parentElement;
  if (bar && steps.length) bar.classList.toggle("done", !next);
}

function done(one) {
  if (one.classList.contains("done")) return;
  one.classList.add("done");
  tick(one.dataset.date, one.dataset.line);
  sayDone();
}

// What is done is remembered here too: a page that was kept may be from before.
const remembered = "done " + base;
const doneBefore = () => JSON.parse(localStorage.getItem(remembered) || "[]");

// tick says that a line of a day is done.
function tick(on, line) {
  localStorage.setItem(remembered, JSON.stringify([...doneBefore(), { on, line }].slice(-80)));
  later("ticks", { on, line });
}

function recall() {
  for (const { on, line } of doneBefore()) {
    for (const one of day().querySelectorAll(".own-step")) {
      if (one.dataset.date === on && one.dataset.line === line) one.classList.add("done");
    }
  }
}

function open(one) {
  if (one.dataset.kind === "cards") { sessionStorage.setItem("round of " + base, JSON.stringify({ on: one.dataset.date, line: one.dataset.line })); location.href = base + "cards"; return; }
  step = one;
  tempo = Number(one.dataset.tempo) || 0;
  tries = 0;
  drawn = null;
  shown = Object.fromEntries(["tap", "count", "name", "finger"].map((lane) => [lane, (lanesOf[one.dataset.form] || []).includes(lane)]));
  const has = Boolean(one.dataset.music);
  part(".stand-name").textContent = one.querySelector("b").textContent;
  stand().setAttribute("aria-label", part(".stand-name").textContent);
  part(".stand-words").replaceChildren(document.getElementById("says-" + one.dataset.says).content.cloneNode(true));
  part(".stand-sheet").replaceChildren();
  for (const selector of [".stand-sheet", ".stand-play", ".lane-switches"]) part(selector).hidden = !has;
  for (const button of stand().querySelectorAll(".stand-tempo [data-notch], .stand-beats")) button.hidden = !has || !tempo;
  part(".stand-look").hidden = true;
  part(".stand-sheet").setAttribute("aria-label", say("step.music", part(".stand-name").textContent));
  day().hidden = true;
  document.querySelector(".own-nav").hidden = true;
  stand().hidden = false;
  asked(null);
  sayTempo();
  sayLanes();
  part("[data-tried]").hidden = one.dataset.kind === "warm";
  part("[data-walk-me]").hidden = !has || one.dataset.kind === "warm";
  advise(has && one.dataset.kind !== "warm" ? say("step.rounds") : "");
  window.scrollTo(0, 0);
  part("[data-back]").focus({ preventScroll: true });
  history.pushState({ step: one.dataset.line }, "");
  width = stand().clientWidth;
  if (has) whenDrawn = drawOnceThere(one);
}

// fetchMusic asks once for the music of all steps, which the worker keeps.
function fetchMusic() {
  fetched ??= fetch(base + "music", { credentials: "same-origin" }).then(async (answer) => {
    if (!answer.ok) throw new Error(`the music: ${answer.status}`);
    music = await answer.json();
  });
  fetched.catch(() => { fetched = null; });
  return fetched;
}

async function drawOnceThere(one) {
  try {
    await fetchMusic();
  } catch {
    if (step === one) part(".stand-sheet").textContent = say("music.away");
    return;
  }
  if (step !== one) return;
  sayLanes();
  draw();
  await whenDrawn;
}

function close() {
  Player.stop();
  const was = step;
  step = null;
  stand().hidden = true;
  day().hidden = false;
  document.querySelector(".own-nav").hidden = false;
  sayDone();
  (shownDay()?.querySelector(".own-step.own-current [data-open]") || was?.querySelector("[data-open]"))?.focus();
}

function draw() {
  if (!music[step.dataset.music]) return; // it comes
  const host = part(".stand-sheet"), { sheet, plan } = music[step.dataset.music], mine = step;
  whenDrawn = (async () => {
    try {
      const systems = await Sheets.engrave(host, sheet, shown, { minLastJustification: 0, scale: 44, whole: true, airy: 1.3 });
      if (systems && step === mine) drawn = Lanes.draw(host, sheet, { shown, chunk: { plan, whole: true, label: "" } }, systems);
    } catch (problem) {
      Engraver.failed(problem);
      host.textContent = say("music.none");
    }
    performance.mark("own:drawn");
  })();
}

function sayLanes() {
  const sheet = music[step.dataset.music]?.sheet;
  for (const button of stand().querySelectorAll("[data-lane]")) {
    button.setAttribute("aria-pressed", shown[button.dataset.lane]);
    button.disabled = Boolean(sheet) && (button.dataset.lane === "name" && !sheet.named || button.dataset.lane === "finger" && !sheet.fingered);
  }
}

function lane(name) {
  counting = false;
  Player.stop();
  shown[name] = !shown[name];
  sayLanes();
  draw();
}

function sayTempo() { part(".stand-beats").textContent = tempo; part(".stand-beats").title = say("step.beats", tempo); }

function notch(by) {
  tempo = stepped(JSON.parse(day().dataset.scale), tempo, by);
  Player.stop();
  sayTempo();
}

async function play(button, notes) {
  if (Player.running()) { Player.stop(); return; }
  await whenDrawn;
  if (!drawn) return;
  const { sheet, plan, round } = music[step.dataset.music];
  part(".stand-look").hidden = true;
  counting = !notes;
  reached = false;
  Player.start({
    beat: sheet.beat, places: drawn, plan, tempo: tempo || 60, round, voice, a4: Number(day().dataset.a4) || 440, other: null,
    want: { notes, clicks: !notes && !("quiet" in step.dataset), again: false, echo: false, aloud: false },
    cues: [...part(".stand-words").querySelectorAll(".count-off li")], host: part(".stand-sheet"), button,
  });
}

// walk leads through the step, and asks then how it was. What the student says at its end of a
// note is their word about naming.
async function walk() {
  Player.stop();
  await whenDrawn;
  const mine = step, of = music[step?.dataset.music];
  if (!of) return;
  part(".stand-look").hidden = true;
  const scale = JSON.parse(day().dataset.scale);
  const naming = of.run.moves.find((m) => m.form === "name")?.stage;
  // Where the stages of the chunk are steps of their own, each is led alone.
  const stages = new Set([...shownDay().querySelectorAll(".own-step")].filter((one) => one.dataset.exercise === step.dataset.exercise && one.dataset.chunk === step.dataset.chunk).map((one) => one.dataset.stage));
  const alone = of.run.moves.filter((m) => m.act === "listen" || m.stage === step.dataset.stage);
  const run = stages.size > 1 && alone.length ? { ...of.run, moves: alone, question: step.dataset.form === "name" ? of.run.question : null } : of.run;
  new Walk(document.getElementById("walk"), {
    run, said: of.said, voice: JSON.parse(document.getElementById("own-spoken").textContent), a4: Number(day().dataset.a4) || 440, scale,
    parts: [{ with: of.with, sheet: of.sheet, rounds: of.rounds, voice }],
  }, {
    done(finished) {
      if (step !== mine) return;
      if (finished && step.dataset.kind !== "warm") asked("how");
      else part("[data-walk-me]").focus();
    },
    answered(right) {
      if (naming) later("tries", { exercise: mine.dataset.exercise, chunk: mine.dataset.chunk, stage: naming, tempo, result: right ? "clean" : "name" });
    },
  }).begin();
}

// A try counts when it has come to its last measure.
document.addEventListener("bench:pulse", (event) => {
  if (!step) return;
  const { sheet, plan } = music[step.dataset.music], last = plan[plan.length - 1];
  reached = reached || event.detail.measure === last.index;
  look(sheet, event.detail);
});
document.addEventListener("bench:stopped", () => {
  if (!step) return;
  part(".stand-look").hidden = true;
  if (counting && reached) tried();
  counting = reached = false;
});

// look shows how the note at hand is played, and the next one.
function look(sheet, { measure, at }) {
  if (!sheet.fingered || !shown.finger) return;
  const notes = sheet.measures.flatMap((m, index) => m.events.map((event) => ({ event, index })));
  const k = notes.findLastIndex((n) => n.index < measure || n.index === measure && n.event.at <= at + 1e-6);
  if (k < 0) return;
  const fill = (slot, event, before) => {
    const figure = part(`[data-look="${slot}"]`);
    figure.hidden = !event?.fingering; // beyond the instrument there is none
    if (figure.hidden) return;
    figure.querySelector("b").textContent = event.name;
    figure.querySelector(".drawing").replaceChildren(Figures.of(event, sheet, before));
  };
  fill("now", notes[k].event, null);
  fill("next", notes[k + 1]?.event, notes[k].event);
  part(".stand-look").hidden = false;
}

// How was it: after two tries, one thing asked at a time.
function tried() {
  if (step.dataset.kind === "warm") return; // nothing is said of long notes
  tries++;
  if (tries < 2) { advise(say("step.once")); return; }
  asked("how");
}

const titles = { how: "ask.how", over: "ask.over", beside: "ask.beside", changed: "ask.changed" };
function asked(what) {
  part(".stand-ask").hidden = !what;
  part(".stand-play").hidden = Boolean(what) || !step.dataset.music;
  part(".stand-tempo").hidden = Boolean(what);
  if (!what) return;
  advise("");
  if (what === "how") answer = {};
  part(".ask-title").textContent = say(titles[what]);
  for (const row of stand().querySelectorAll("[data-ask]")) row.hidden = row.dataset.ask !== what;
  part("[data-ask-again]").hidden = what === "how";
  part(".ask-title").focus({ preventScroll: true });
}

function answered(button) {
  if (button.dataset.beside !== undefined) { answer.beside = button.dataset.beside; asked("changed"); return; }
  if (button.dataset.changed !== undefined) { answer.changed = button.dataset.changed; note(); return; }
  if (!button.dataset.result) { asked("over"); return; }
  answer.result = button.dataset.result;
  asked("beside");
}

function note() {
  later("tries", { exercise: step.dataset.exercise, chunk: step.dataset.chunk, stage: step.dataset.stage, tempo, ...answer });
  tries = 0;
  asked(null);
  let text = say("ask.noted");
  if (answer.result !== "clean" && tempo) { notch(-1); text += " " + say("ask.slower", tempo); }
  advise(text);
  part(answer.result === "clean" ? "[data-did]" : "[data-play]").focus();
}

document.addEventListener("click", (event) => {
  const hit = (selector) => event.target.closest(selector);
  if (!day()) return;
  if (hit("[data-open]")) open(hit(".own-step"));
  else if (hit("[data-show]")) showDay(hit("[data-show]").dataset.show);
  else if (hit("[data-back]")) history.back();
  else if (hit("[data-play]")) play(hit("[data-play]"), false);
  else if (hit("[data-hear]")) play(hit("[data-hear]"), true);
  else if (hit("[data-tried]")) { counting = false; Player.stop(); tried(); }
  else if (hit("[data-walk-me]")) walk();
  else if (hit("[data-notch]")) notch(Number(hit("[data-notch]").dataset.notch));
  else if (hit("[data-did]")) { done(step); history.back(); }
  else if (hit("[data-ask-again]")) asked("how");
  else if (hit(".stand-ask .btn")) answered(hit(".stand-ask .btn"));
  else if (hit(".stand [data-lane]")) lane(hit("[data-lane]").dataset.lane);
});

document.addEventListener("keydown", (event) => {
  if (!step || event.ctrlKey || event.metaKey || event.altKey || !document.getElementById("walk").hidden) return;
  if (event.key === " " && !event.target.closest("button, a, input")) { event.preventDefault(); play(part("[data-play]"), false); }
  if (event.key === "Escape") history.back();
  if (event.key === "[" && tempo) notch(-1);
  if (event.key === "]" && tempo) notch(1);
});

window.addEventListener("popstate", () => { if (step) close(); });

let resizing = 0;
window.addEventListener("resize", () => {
  clearTimeout(resizing);
  resizing = setTimeout(() => { if (step && stand().clientWidth !== width && music[step.dataset.music]) { width = stand().clientWidth; draw(); } }, 200);
});

document.addEventListener("DOMContentLoaded", () => {
  send();
  if (!day()) return;
  fetchMusic().catch(() => {}); // a step that is opened says so
  voice = JSON.parse(document.getElementById("own-voice").textContent);
  recall();
  if (today() !== day().dataset.today && day().querySelector(`[data-day="${today()}"]`)) showDay(today()); // a page from before today
  sayDone();
});

export { later, tick, say, base };
