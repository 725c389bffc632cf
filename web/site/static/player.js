// The player: a count-off, then clicks, notes or both, and a cursor, through the chunk at
// hand, once or loop. Times come from the clock of the sound.
import { advise } from "./advice.js";
import { shape } from "./dom.js";
import * as Voices from "./voices.js";

const ahead = 1.5; // seconds in which the next round is laid out
let ownWords = {};

// useWords has the player speak a student's page's own words.
export function useWords(words) { ownWords = words; }

const word = (key, usual) => ownWords[key] || usual;
let context = null;
let run = null; // what is playing

function open() {
  context = context || new AudioContext();
  return context.state === "running" ? Promise.resolve() : context.resume();
}

// wholeOf is how many seconds a whole note takes.
function wholeOf(plan) { return 60 / plan.tempo / plan.beat; }

// later is when a place of a round comes, in whole notes: what comes after a fermata waits for it.
function later(plan, at) {
  return (plan.round.holds || []).reduce((sum, hold) => (hold.at <= at + 1e-6 ? sum + hold.for : sum), at);
}

// pulses lists where the cursor goes and what is clicked, in whole notes from the first
// note of a round.
function pulses(plan) {
  const list = [];
  let at = 0;
  for (const part of plan.plan) {
    for (const place of plan.places.filter((p) => p.measure === part.index && p.pulse.at >= part.from - 1e-6 && p.pulse.at < part.to - 1e-6)) {
      list.push({ at: later(plan, at + place.pulse.at - part.from), place, beat: place.pulse.beat });
    }
    at += part.to - part.from;
  }
  return list;
}

// lay schedules what is heard of one round that begins at a time.
function lay(out, plan, sounds, begins, { notes, clicks, between }) {
  const whole = wholeOf(plan);
  if (clicks) {
    for (const step of pulses(plan)) {
      if (step.beat || between) click(out, sounds, begins + step.at * whole, step.beat ? 86 : 79, step.beat ? 0.8 : 0.5);
    }
  }
  if (!notes) return;
  sing(out, plan, sounds, begins, plan.round.notes, 1);
  if (plan.other) sing(out, plan, sounds, begins, plan.other.notes, 0.6);
}

// sing schedules the notes of one line, so loud.
function sing(out, plan, sounds, begins, list, loudly) {
  const whole = wholeOf(plan);
  list.forEach((note, k) => {
    const at = begins + (plan.round ? later(plan, note.at) : note.at) * whole, held = note.sounds * whole;
    const seconds = list[k + 1]?.joined ? held + 0.03 : held - Math.min(0.045, held / 4);
    for (let n = 1; n <= note.graces; n++) hit(out, plan, sounds, note, { at: Math.max(begins, at - 0.045 * n), seconds: 0.04, loud: note.loud * loudly * 0.4 });
    if (!note.roll) { hit(out, plan, sounds, note, { at, seconds, loud: note.loud * loudly, ends: (note.ends || note.loud) * loudly, joined: note.joined }); return; }
    const strokes = Math.max(2, Math.round(held / 0.075));
    for (let n = 0; n < strokes; n++) {
      const loud = note.loud + (n / strokes) * ((note.ends || note.loud) - note.loud);
      hit(out, plan, sounds, note, { at: at + (n * held) / strokes, seconds: held / strokes, loud: loud * loudly * (n ? 0.55 : 0.8) });
    }
  });
}

function hit(out, plan, sounds, note, how) {
  const pitches = note.midi?.length ? note.midi : [0];
  for (const midi of pitches) Voices.strike(sounds.voice, out, { ...how, midi, a4: plan.a4, loud: how.loud / Math.sqrt(pitches.length), ends: (how.ends ?? how.loud) / Math.sqrt(pitches.length) });
}

function click(out, sounds, at, midi, loud) {
  Voices.strike(sounds.click, out, { midi, a4: 440, at, seconds: 0.05, loud });
}

async function loadSounds(plan) {
  const click = await Voices.load(Voices.click);
  return { click, voice: plan.want.notes ? await Voices.load(plan.voice) : null };
}

// ready opens the sound and fetches what is needed, or says why there is none.
async function ready(load, mine) {
  try {
    await open();
  } catch (problem) {
    if (run === mine) stop();
    advise(word("sound.none", "This browser does not let the page make a sound. Allow sound for this page, then press Start again."));
    return null;
  }
  try {
    return await load();
  } catch (problem) {
    if (run === mine) stop();
    advise(word("sound.away", "The recorded notes could not be fetched. The count-off works without them; press again when the network is back."));
    return null;
  }
}

async function start(plan) {
  stop();
  const mine = run = { plan, next: 0, steps: [] };
  label(plan, word("step.stop", "Stop"));
  const sounds = await ready(() => loadSounds(plan), mine);
  if (!sounds || run !== mine) return;
  mine.sounds = sounds;
  mine.out = new GainNode(context, { gain: 0.8 });
  mine.out.connect(context.destination);
  const whole = wholeOf(plan);
  const cues = plan.cues.map((cue) => ({ at: Number(cue.dataset.at), cue, beat: "beat" in cue.dataset }));
  mine.begins = context.currentTime + 0.25 - whole * Math.min(0, ...cues.map((step) => step.at));
  for (const step of cues) {
    if (step.beat) click(mine.out, sounds, mine.begins + step.at * whole, 91, 0.8);
    mine.steps.push({ ...step, time: mine.begins + step.at * whole });
  }
  mine.timer = setInterval(() => goOn(mine), 200);
  goOn(mine);
  requestAnimationFrame(() => follow(mine));
}

// goOn lays out the rounds that begin soon, each where the one before has come round.
function goOn(mine) {
  const { plan } = mine, whole = wholeOf(plan);
  const lasts = later(plan, plan.round.length), turn = (lasts + plan.round.rest) * whole;
  while ((mine.next === 0 || plan.want.again) && mine.begins + mine.next * turn < context.currentTime + ahead) {
    const begins = mine.begins + mine.next * turn;
    const answer = plan.want.echo && mine.next % 2 === 1;
    lay(mine.out, plan, mine.sounds, begins, { notes: plan.want.notes && !answer, clicks: plan.want.clicks || answer, between: plan.want.aloud && !canSpeak() });
    for (const step of pulses(plan)) mine.steps.push({ ...step, time: begins + step.at * whole, answer });
    mine.next++;
  }
  mine.ends = mine.next === 0 ? Infinity : mine.begins + (mine.next - 1) * turn + lasts * whole;
}

// follow shows each step when it is heard.
function follow(mine) {
  if (run !== mine) return;
  const now = context.currentTime - (context.outputLatency || 0);
  while (run === mine && mine.steps.length && mine.steps[0].time <= now) { // a slow machine shows a pulse late rather than not at all
    const step = mine.steps.shift();
    if (step.place && mine.plan.want.aloud) say(step.place.pulse);
    show(mine.plan, step);
  }
  if (run !== mine) return;
  if (!mine.plan.want.again && now >= mine.ends) { stop(); return; }
  requestAnimationFrame(() => follow(mine));
}

function canSpeak() { return Boolean(window.speechSynthesis?.getVoices().length); }

// say speaks the count of a pulse on which something is struck, or which is a beat.
const spoken = { "&": "and", e: "ee", a: "uh" };
function say(pulse) {
  const text = pulse.text.replace(/[()[\]]/g, "");
  if (!text || !canSpeak() || (pulse.look !== "struck" && !pulse.beat)) return;
  speechSynthesis.cancel();
  speechSynthesis.speak(Object.assign(new SpeechSynthesisUtterance(spoken[text] || text), { rate: 2, lang: "en" }));
}

// sound is one chord, or one note, for some seconds: pitches with their voices.
async function sound(parts, a4, seconds) {
  stop();
  const mine = run = { plan: null };
  const voices = await ready(() => Promise.all(parts.map((part) => Voices.load(part.voice))), mine);
  if (!voices || run !== mine) return;
  mine.out = new GainNode(context, { gain: 0.8 / Math.sqrt(parts.length) });
  mine.out.connect(context.destination);
  parts.forEach((part, k) => {
    for (const midi of part.midi?.length ? part.midi.slice(0, 1) : [0]) Voices.strike(voices[k], mine.out, { midi, a4, at: context.currentTime + 0.05, seconds, loud: 0.8 });
  });
  mine.timer = setTimeout(() => { if (run === mine) stop(); }, 1000 * (seconds + 0.3));
}

function show(plan, step) {
  for (const cue of plan.cues) cue.classList.toggle("now", cue === step.cue);
  if (step.cue && step.beat) label(plan, step.cue.firstChild.textContent);
  if (!step.place) return;
  label(plan, step.answer ? "Your turn · Stop" : word("step.stop", "Stop"));
  document.dispatchEvent(new CustomEvent("bench:pulse", { detail: { measure: step.place.measure, at: step.place.pulse.at } }));
  const svg = plan.host.querySelector("svg.lanes");
  if (!svg) return;
  let cursor = svg.querySelector(".cursor");
  if (!cursor) {
    cursor = shape("rect", { class: "cursor", width: 26, rx: 6 });
    svg.prepend(cursor);
  }
  cursor.setAttribute("x", step.place.x - 13);
  cursor.setAttribute("y", step.place.top);
  cursor.setAttribute("height", step.place.bottom - step.place.top);
  cursor.dataset.pulse = step.place.pulse.id;
  keepInView(plan.host, step.place);
}

// keepInView brings the next system into view when the cursor reaches it.
function keepInView(host, place) {
  const top = host.getBoundingClientRect().top + place.top;
  const bottom = host.getBoundingClientRect().top + place.bottom;
  const bar = document.querySelector(".at-once, .stand-bar");
  const fixed = bar && getComputedStyle(bar).position === "fixed" ? bar.offsetHeight : 0;
  const covered = fixed + (document.querySelector(".look:not([hidden])")?.offsetHeight || 0);
  if (bottom > window.innerHeight - covered || top < 0) window.scrollBy({ top: top - 80 });
}

function label(plan, said) {
  const text = plan.button.querySelector("[data-play-word]");
  text.dataset.idle = text.dataset.idle || text.textContent;
  text.textContent = said;
  plan.button.classList.toggle("playing", run !== null);
}

function stop() {
  if (!run) return;
  const { plan, timer, out } = run;
  run = null;
  clearInterval(timer);
  clearTimeout(timer);
  out?.disconnect();
  window.speechSynthesis?.cancel();
  if (!plan) return;
  for (const cue of plan.cues) cue.classList.remove("now");
  plan.host.querySelector(".cursor")?.remove();
  label(plan, plan.button.querySelector("[data-play-word]").dataset.idle);
  document.dispatchEvent(new CustomEvent("bench:stopped"));
}

function running() { return run !== null && run.plan !== null; }

export { start, stop, running, sound, lay, sing, loadSounds, wholeOf, pulses };
