// A teacher's own words of led runs: a set of them is said on the beat, recorded, and cut into words
// by the program.
import * as Voices from "./voices.js";

const rate = 16000, lead = 4; // beats before the first word
const part = (selector) => document.querySelector(selector);
let going = null, waiting = null; // what is being recorded, and what could not be sent

// clicksOf are the times of words that have two beats each, and when the last is over, in seconds
// from the first click.
export function clicksOf(words, tempo) {
  const beat = 60 / tempo;
  return Array.from({ length: words + 1 }, (_, k) => (lead + 2 * k) * beat);
}

// wav writes samples as a file of 16 bits.
export function wav(samples) {
  const data = new DataView(new ArrayBuffer(44 + 2 * samples.length));
  const text = (at, letters) => [...letters].forEach((letter, k) => data.setUint8(at + k, letter.charCodeAt(0)));
  text(0, "RIFF"); data.setUint32(4, 36 + 2 * samples.length, true); text(8, "WAVEfmt ");
  data.setUint32(16, 16, true); data.setUint16(20, 1, true); data.setUint16(22, 1, true);
  data.setUint32(24, rate, true); data.setUint32(28, 2 * rate, true); data.setUint16(32, 2, true); data.setUint16(34, 16, true);
  text(36, "data"); data.setUint32(40, 2 * samples.length, true);
  samples.forEach((sample, k) => data.setInt16(44 + 2 * k, Math.round(Math.max(-1, Math.min(1, sample)) * 32767), true));
  return new Blob([data.buffer], { type: "audio/wav" });
}

function says(text) {
  const problem = part("[data-record] .problem");
  problem.textContent = text;
  problem.hidden = !text;
  part("[data-record-send]").parentElement.hidden = !waiting;
}

async function record(words) {
  if (going) { going.stop(); return; }
  waiting = null;
  says("");
  let stream;
  try {
    stream = await navigator.mediaDevices.getUserMedia({ audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false } });
  } catch (problem) {
    says("The microphone is not open to this page. Allow it in the browser, then press Record again.");
    return;
  }
  const context = new AudioContext(), click = await Voices.load(Voices.click), recorder = new MediaRecorder(stream), pieces = [];
  await context.resume();
  let stopped = false, timer = 0;
  const end = (early) => {
    if (stopped) return;
    stopped = true;
    clearInterval(timer);
    if (recorder.state !== "inactive") recorder.stop();
    for (const track of stream.getTracks()) track.stop();
    part("[data-record-all]").textContent = "Record";
    part(".record-word").textContent = early ? "Stopped. Nothing was recorded." : "Cutting the words apart …";
  };
  going = { stop: () => end(true) };
  part("[data-record-all]").textContent = "Stop";
  const tempo = Number(part("[data-record-tempo]").value), clicks = clicksOf(words.length, tempo), beat = 60 / tempo;
  recorder.addEventListener("dataavailable", (event) => pieces.push(event.data));
  const started = new Promise((resolve) => recorder.addEventListener("start", resolve, { once: true }));
  const over = new Promise((resolve) => recorder.addEventListener("stop", resolve, { once: true }));
  recorder.start();
  await started;
  const zero = context.currentTime, aloud = part("[data-record-click]").checked;
  for (let k = 0; k < lead + 2 * words.length; k++) {
    if (k >= lead && !aloud) break;
    Voices.strike(click, context.destination, { midi: k < lead ? 91 : 86, a4: 440, at: zero + k * beat + 0.05, seconds: 0.05, loud: k % 2 ? 0.25 : 0.6 });
  }
  document.dispatchEvent(new CustomEvent("record:begun", { detail: { words, clicks } }));
  timer = setInterval(() => {
    const now = context.currentTime - zero, k = clicks.findLastIndex((at) => now >= at - 0.15);
    const large = part(".record-word"), next = part(".record-next");
    if (k < 0) large.textContent = String(Math.min(lead, 1 + Math.floor(now / beat)));
    else if (k < words.length) large.textContent = words[k];
    large.classList.toggle("counting", k < 0);
    next.textContent = k + 1 < words.length ? `next: ${words[k + 1]}` : "";
    if (now > clicks[words.length]) end(false);
  }, 30);
  await over;
  const whole = context.currentTime - zero >= clicks[words.length];
  going = null;
  context.close();
  if (!whole) return;
  const buffer = await new OfflineAudioContext(1, 1, rate).decodeAudioData(await new Blob(pieces).arrayBuffer());
  const form = new FormData();
  form.set("take", wav(buffer.getChannelData(0)), "take.wav");
  form.set("words", JSON.stringify(words));
  form.set("clicks", JSON.stringify(clicks));
  await send(form);
}

async function send(form) {
  waiting = form;
  try {
    const answer = await fetch("/settings/voice", { method: "POST", body: form });
    if (answer.status === 422 || answer.status === 413) { waiting = null; says(await answer.text()); return; }
    if (!answer.ok) throw new Error("it did not come");
    location.reload();
  } catch (problem) {
    part(".record-word").textContent = "Recorded, and not sent yet.";
    says("The recording could not be sent. It is kept on this page until you send it.");
  }
}

const words = JSON.parse(document.getElementById("record-data")?.textContent || "[]");
if (words.length) {
  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-record-all]")) record(words);
    const one = event.target.closest("[data-record-one]");
    if (one && !going) record([one.dataset.recordOne]);
    if (event.target.closest("[data-record-send]")) send(waiting);
  });
  addEventListener("beforeunload", (event) => { if (waiting || going) event.preventDefault(); });
}
