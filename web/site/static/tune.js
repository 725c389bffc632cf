// The page for tuning: a drone that goes on until it is stopped, and each instrument's note.
import { advise } from "./advice.js";
import * as Player from "./player.js";

let held = null; // stops the drone

function drone(pitches, a4) {
  const context = new AudioContext();
  const out = new GainNode(context, { gain: 0 });
  out.gain.linearRampToValueAtTime(0.35 / pitches.length, context.currentTime + 0.15);
  out.connect(context.destination);
  // Eight harmonics, each weaker, so that beats are heard on every instrument.
  const weights = Float32Array.from({ length: 9 }, (_, k) => (k ? 1 / k : 0));
  const wave = context.createPeriodicWave(new Float32Array(9), weights);
  for (const midi of pitches) {
    const tone = new OscillatorNode(context, { frequency: a4 * 2 ** ((midi - 69) / 12) });
    tone.setPeriodicWave(wave);
    tone.connect(out);
    tone.start();
  }
  context.resume().catch(() => advise("This browser does not let the page make a sound. Allow sound for this page, then press again."));
  return () => context.close();
}

function tune() { return document.querySelector(".tune"); }

function say(playing) {
  const word = document.querySelector("[data-hold-word]");
  word.dataset.idle = word.dataset.idle || word.textContent;
  word.textContent = playing ? "Stop" : word.dataset.idle;
  document.querySelector("[data-hold]").classList.toggle("playing", playing);
}

function hold() {
  const { drone: midi, a4 } = tune().dataset;
  const low = Number(midi) + 12 * Number(document.querySelector("[name=octave]:checked").value);
  held = drone(document.querySelector("[data-fifth]").checked ? [low, low + 7] : [low], Number(a4));
  say(true);
}

function letGo() {
  if (held) held();
  held = null;
  say(false);
}

function turn() { if (held) letGo(); else hold(); }

document.addEventListener("click", (event) => {
  if (event.target.closest("[data-hold]")) turn();
  const one = event.target.closest("[data-sound]");
  if (one) Player.sound([JSON.parse(one.dataset.sound)], Number(tune().dataset.a4), 3);
});
document.addEventListener("change", (event) => {
  if (held && event.target.closest(".tune-octave")) { letGo(); hold(); }
});
document.addEventListener("keydown", (event) => {
  if (event.key !== " " || event.target.closest("button, input, select, summary") || event.ctrlKey || event.metaKey || event.altKey) return;
  event.preventDefault();
  turn();
});
