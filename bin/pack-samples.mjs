// Packs recorded notes for the browser: of each instrument a few, cut to their beginning,
// in one loudness, with the pitch that was measured in them and, of notes that are held,
// a stretch that can go round and round. Needs ffmpeg.
// Usage: node bin/pack-samples.mjs NODE_MODULES FOLDER
import { execFileSync } from "node:child_process";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";

const rate = 22050;
const chosen = {
  flute: "C4 E4 A4 E5 A5 E6",
  clarinet: "D3 As3 F4 D5 As5",
  saxophone: "Cs3 G3 Cs4 G4 Cs5 Gs5",
  bassoon: "G2 C3 G3 C4 G4",
  trumpet: "F3 A3 Ds4 G4 D5 A5",
  "french-horn": "G2 D3 A3 C4 D5",
  trombone: "F2 As2 Ds3 Gs3 Cs4 F4",
  tuba: "F1 As1 Ds2 As2 F3 D4",
  violin: "G3 C4 G4 C5 G5 C6 E6",
  cello: "C2 G2 D3 A3 D4 A4",
  contrabass: "Fs1 As1 E2 A2 E3",
  xylophone: "G4 C5 G5 C6 G6 C7 C8",
};
const struck = new Set(["xylophone"]);

const [modules, folder] = process.argv.slice(2);
const steps = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

// midiOf reads a name such as "As3".
function midiOf(name) {
  const [, step, sharp, octave] = /^([A-G])(s?)(\d)$/.exec(name);
  return 12 * (Number(octave) + 1) + steps[step] + (sharp ? 1 : 0);
}

const hzOf = (midi) => 440 * 2 ** ((midi - 69) / 12);

function decoded(file, rate) {
  const raw = execFileSync("ffmpeg", ["-v", "error", "-i", file, "-f", "f32le", "-ac", "1", "-ar", String(rate), "-"], { maxBuffer: 1 << 28 });
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength));
}

// likeness is the normed correlation of a stretch with the one a lag later.
function likeness(x, from, length, lag) {
  let same = 0, here = 0, there = 0;
  for (let i = from; i < from + length; i++) {
    same += x[i] * x[i + lag];
    here += x[i] * x[i];
    there += x[i + lag] * x[i + lag];
  }
  return (2 * same) / (here + there + 1e-12);
}

// pitchOf measures a pitch in hertz, finer than the notes are kept: the shortest lag at
// which the sound is nearly as like itself as at the best.
function pitchOf(file, onset) {
  const rate = 88200, x = decoded(file, rate);
  const from = Math.round((onset + 0.3) * rate), length = Math.min(Math.round(0.5 * rate), x.length - from - Math.ceil(rate / 28) - 1);
  const least = Math.floor(rate / 2000), most = Math.ceil(rate / 28), values = new Float64Array(most + 2);
  for (let lag = least; lag <= most; lag++) values[lag] = likeness(x, from, length, lag);
  let best = 0;
  for (let lag = least + 1; lag < most; lag++) if (values[lag] > values[lag - 1] && values[lag] >= values[lag + 1]) best = Math.max(best, values[lag]);
  for (let lag = least + 1; lag < most; lag++) {
    const [a, b, c] = [values[lag - 1], values[lag], values[lag + 1]];
    if (b > a && b >= c && b > 0.93 * best) return rate / (lag + (a - c) / (2 * (a - 2 * b + c)));
  }
  throw new Error("no pitch was found");
}

// strongest is the pitch of a struck bar: where its spectrum is strongest near a pitch.
function strongest(x, length, near) {
  const power = (hz) => {
    let re = 0, im = 0;
    for (let i = 0; i < length; i++) {
      const window = Math.sin((Math.PI * i) / length) ** 2, at = (2 * Math.PI * hz * i) / rate;
      re += x[i] * window * Math.cos(at);
      im += x[i] * window * Math.sin(at);
    }
    return re * re + im * im;
  };
  let best = 0, found = near;
  for (let cents = -150; cents <= 150; cents += 1) {
    const hz = near * 2 ** (cents / 1200), p = power(hz);
    if (p > best) { best = p; found = hz; }
  }
  return found;
}

// looped cuts a held note and blends its end into a stretch before, a whole number of
// periods away, so that it can go round: where the two are most alike.
function looped(x, hz) {
  const blend = Math.round(0.12 * rate), period = rate / hz;
  let best = -2, length = 0, cut = 0;
  for (let end = 1.1; end <= 2.1; end += 0.05) {
    const stop = Math.round(end * rate);
    if (stop > x.length - rate / 20) break;
    for (let seconds = 0.3; seconds <= 1; seconds += 0.02) {
      const near = Math.round((seconds * rate) / period) * period;
      for (let l = Math.round(near - period / 6); l <= near + period / 6; l += Math.max(1, Math.round(period / 40))) {
        if (stop - l - blend < 0.25 * rate) continue;
        const like = likeness(x, stop - l - blend, blend, l);
        if (like > best) { best = like; length = l; cut = stop; }
      }
    }
  }
  const out = x.slice(0, cut);
  for (let i = cut - blend; i < cut; i++) {
    const share = (i - (cut - blend)) / blend;
    out[i] = x[i] * (1 - share) + x[i - length] * share;
  }
  return { out, from: cut - length, to: cut, like: best };
}

function pack(instrument, name) {
  const file = `${modules}/tonejs-instrument-${instrument}-mp3/${name}.mp3`;
  let x = decoded(file, rate);
  const peak = x.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  const onset = x.findIndex((v) => Math.abs(v) > peak * 0.05);
  x = x.slice(onset);
  const labelled = midiOf(name);
  const held = !struck.has(instrument);
  const hz = held ? pitchOf(file, onset / rate) : strongest(x, Math.round(0.3 * rate), hzOf(labelled));
  const midi = Math.round(69 + 12 * Math.log2(hz / 440));
  const { out, from, to, like } = held ? looped(x, hz) : { out: x.slice(0, Math.min(x.length, Math.round(1.1 * rate))), from: 0, to: 0, like: 1 };
  const level = Math.sqrt(out.slice(Math.round(0.1 * rate), Math.round(0.6 * rate)).reduce((sum, v) => sum + v * v, 0) / (0.5 * rate));
  const loud = Math.min(0.16 / level, 0.97 / out.reduce((most, v) => Math.max(most, Math.abs(v)), 0));
  if (!held) for (let i = 0; i < out.length; i++) out[i] *= Math.min(1, (out.length - i) / (0.1 * rate));
  const samples = Int16Array.from(out, (v) => Math.round(32767 * v * loud));
  const short = instrument + "-" + midi;
  execFileSync("ffmpeg", ["-v", "error", "-y", "-f", "s16le", "-ac", "1", "-ar", String(rate), "-i", "-", "-compression_level", "12", "-map_metadata", "-1", "-fflags", "+bitexact", "-flags:a", "+bitexact", `${folder}/${short}.flac`],
    { input: Buffer.from(samples.buffer) });
  const cents = Math.round(1200 * Math.log2(hz / hzOf(midi)));
  console.log(`${instrument} ${name}: ${hz.toFixed(2)} Hz, ${midi - labelled ? `LABELLED ${midi - labelled} semitones off, ` : ""}${cents} cents, loop ${like.toFixed(3)}, gain ${loud.toFixed(2)}, from ${onset}`);
  return { file: short + ".flac", midi, hz: Number(hz.toFixed(2)), ...(held ? { from: from / rate, to: to / rate } : {}) };
}

rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const index = {};
for (const [instrument, names] of Object.entries(chosen)) index[instrument] = names.split(" ").map((name) => pack(instrument, name)).sort((a, b) => a.midi - b.midi);
writeFileSync(`${folder}/notes.json`, JSON.stringify(index, null, 1) + "\n");
