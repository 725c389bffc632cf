// The beginning of a line by ear: it is heard, found, and seen afterwards.
import * as Engraver from "./engrave.js";
import * as Lanes from "./lanes.js";
import * as Player from "./player.js";
import * as Sheets from "./sheet.js";
import * as Voices from "./voices.js";
import { cut } from "./walk.js";

const data = JSON.parse(document.getElementById("ear-data")?.textContent || "null");
const part = (selector) => document.querySelector(selector);
let context = null;

// heard are the notes to be found, and in which measures they stand.
const notes = data ? data.round.notes.slice(0, data.notes) : [];
function measures() {
  const named = data.sheet.measures.flatMap((m, index) => m.events.filter((e) => e.name).map(() => index));
  return [...new Set(named.slice(0, data.notes))];
}

async function hear() {
  context?.close();
  const mine = context = new AudioContext();
  await mine.resume();
  const voice = await Voices.load(data.voice).catch(() => null);
  if (!voice || mine !== context) return;
  const out = new GainNode(mine, { gain: 0.8 });
  out.connect(mine.destination);
  Player.sing(out, { tempo: data.tempo, beat: data.sheet.beat, a4: data.a4 }, { voice }, mine.currentTime + 0.2, notes, 1);
}

function give() {
  const given = part(".ear-given"), kind = part("[data-ear-given]").value;
  given.textContent = kind === "first" ? `It begins on ${given.dataset.first}.` : kind === "all" ? `The notes are ${given.dataset.all}.` : "";
}

async function show() {
  part(".ear-shown").hidden = false;
  const host = part(".ear-shown .engraving"), sheet = cut(data.sheet, measures()), shown = { tap: false, count: false, name: true, finger: true };
  try {
    const systems = await Sheets.engrave(host, sheet, shown, { minLastJustification: 0, scale: 56, whole: true, airy: 1.3 });
    if (systems) Lanes.draw(host, sheet, { shown, chunk: { plan: [], whole: true, label: "" } }, systems);
  } catch (problem) {
    Engraver.failed(problem);
  }
  part("[data-ear-right]").focus();
}

if (data) {
  give();
  part("[data-ear-given]").addEventListener("change", give);
  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-ear-hear]")) hear();
    if (event.target.closest("[data-ear-show]")) show();
    const right = event.target.closest("[data-ear-right]")?.dataset.earRight;
    if (right !== undefined) part(".ear-said").textContent = Number(right) === data.notes ? `All ${data.notes}.` : `${right} of ${data.notes}. Hear it once more, with the music.`;
  });
  document.addEventListener("keydown", (event) => {
    if (event.key !== " " || event.target.closest("button, select, a")) return;
    event.preventDefault();
    hear();
  });
}
