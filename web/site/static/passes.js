// When everything in a pass of a led run is heard, and the sound of it, on a page's clock or in a
// file.
import * as Player from "./player.js";
import * as Spoken from "./spoken.js";
import * as Voices from "./voices.js";

const pauses = 0.25; // seconds between sentences
const ready = 0.15;  // from the last word to the count-off

// timed lays a pass out from a time on, at a tempo: its sentences, but where it is taken again,
// its steps in the order of time, and when it ends and is over.
export function timed(data, spoken, m, { zero, tempo, again }) {
  const stretch = data.run.tempo / tempo, sentences = [];
  let at = zero;
  const say = (sentence) => {
    const clips = data.said[sentence];
    sentences.push({ at, clips: clips || [] });
    at += spoken && clips ? Spoken.length(spoken, clips) + pauses : 0.5 + 0.38 * sentence.split(" ").length;
  };
  if (!again) for (const sentence of [...(m.minds || []), m.says]) say(sentence);
  const first = m.countOff[0]?.at ?? m.begins, starts = at + ready;
  const when = (time) => starts + (time - first) * stretch;
  const whole = Player.wholeOf({ tempo, beat: data.parts[0].sheet.beat });
  const plan = { m, when, whole, tempo, stretch, sentences, steps: m.countOff.map((cue) => ({ time: when(cue.at), cue })) };
  for (const s of m.passages) {
    for (const pulse of data.parts[0].sheet.measures[s.index].pulses) {
      if (pulse.at < s.from - 1e-6 || pulse.at >= s.to - 1e-6) continue;
      plan.steps.push({ time: when(s.at) + (pulse.at - s.from) * whole, measure: s.index, at: pulse.at, pulse, who: s.who });
    }
  }
  plan.steps.sort((a, b) => a.time - b.time);
  plan.ends = at = when(m.ends);
  if (m.again) { at += 0.3; say(m.again); }
  plan.over = Math.max(plan.ends + m.gap * stretch, at);
  return plan;
}

// sound has a pass heard: its words, clicks and notes. What has not come is left out.
export function sound(data, plan, out, { click, spoken, voices }) {
  const { m, when, stretch } = plan;
  if (spoken) {
    for (const sentence of plan.sentences) Spoken.sayFrom(spoken, out, sentence.clips, sentence.at);
    for (const cue of m.countOff) call(data, spoken, out, cue.says, when(cue.at), 0.6 * stretch);
    for (const u of m.spoken || []) call(data, spoken, out, u.text, when(u.at), u.room * stretch);
  }
  if (click) {
    for (const { time, cue, pulse } of plan.steps) {
      if (cue?.beat) Voices.strike(click, out, { midi: 91, a4: 440, at: time, seconds: 0.05, loud: 0.7 });
      else if (pulse?.beat && m.clicks) Voices.strike(click, out, { midi: 86, a4: 440, at: time, seconds: 0.05, loud: m.part ? 0.3 : 0.6 });
    }
  }
  if (m.part) data.parts.forEach((part, n) => { if (voices[n] && part.rounds[m.chunk]) sing(data, plan, out, part, voices[n]); });
}

function call(data, spoken, out, text, at, room) {
  const clips = data.said[text];
  if (!clips) return;
  Spoken.sayOn(spoken, out, clips[0], at, room);
  if (clips.length > 1) Spoken.sayFrom(spoken, out, clips.slice(1), at + 0.3);
}

// sing sounds the part in the stretches that are the program's, or both's, as the player does.
function sing(data, { m, when, whole, tempo }, out, part, voice) {
  let from = 0; // of the round
  for (const s of m.passages) {
    if (s.who === "alone") continue;
    const notes = part.rounds[m.chunk].notes.filter((note) => note.at >= from - 1e-6 && note.at < from + s.to - s.from - 1e-6);
    Player.sing(out, { tempo, beat: data.parts[0].sheet.beat, a4: data.a4 }, { voice }, when(s.at) - from * whole, notes, 0.8 / Math.sqrt(data.parts.length));
    from += s.to - s.from;
  }
}
