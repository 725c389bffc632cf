// Recorded words on the clock of the sound: their vowels fall where they are wanted.

const rate = 16000;
let coming = null;

// load fetches the words once: a buffer, how late its decoder begins, and where each clip lies.
export function load({ sound, index, own }) {
  coming ??= Promise.all([shipped({ sound, index }), own ? recorded(own).catch(() => ({})) : {}])
    .then(([words, others]) => ({ ...words, clips: { ...words.clips, ...others } }));
  coming.catch(() => { coming = null; });
  return coming;
}

// recorded are the clips of a teacher's own words, each with its sound.
async function recorded({ sound, index }) {
  const [buffer, { clips }] = await Promise.all([
    fetch(sound).then((answer) => answer.arrayBuffer()).then((data) => new OfflineAudioContext(1, 1, rate).decodeAudioData(data)),
    fetch(index).then((answer) => answer.json()),
  ]);
  for (const name in clips) Object.assign(clips[name], { buffer });
  return clips;
}

function shipped({ sound, index }) {
  return Promise.all([
    fetch(sound).then((answer) => { if (!answer.ok) throw new Error("the words did not come"); return answer.arrayBuffer(); })
      .then((data) => new OfflineAudioContext(1, 1, rate).decodeAudioData(data)),
    fetch(index).then((answer) => { if (!answer.ok) throw new Error("the list of words did not come"); return answer.json(); }),
  ]).then(([buffer, { mark, clips }]) => ({ buffer, clips, late: markIn(buffer) - mark }));
}

// markIn is where the click at the beginning lies, in seconds.
function markIn(buffer) {
  const samples = buffer.getChannelData(0).subarray(0, Math.round(0.3 * buffer.sampleRate));
  let at = 0;
  for (let k = 1; k < samples.length; k++) if (Math.abs(samples[k]) > Math.abs(samples[at])) at = k;
  return at / buffer.sampleRate;
}

// length is how long clips take one after the other, in seconds.
export function length(words, clips) {
  return clips.reduce((sum, name) => sum + (words.clips[name] ? words.clips[name].ends - words.clips[name].at + between : 0), 0);
}

const between = 0.02;

// fitting is the clip of a name that its room holds: the quick one where it is short; a teacher's
// own words have none, and their letter alone is said.
function fitting(words, name, room) {
  const usual = words.clips[name], quick = words.clips[name + "~"], letter = words.clips[name.split(" ")[0]];
  if (usual?.buffer) return letter?.buffer && room < usual.ends - usual.at - usual.vowel ? letter : usual;
  return usual && quick && room < usual.ends - usual.at - usual.vowel ? quick : usual;
}

// sayOn has a clip's first vowel fall on a time; it fades where its room ends.
export function sayOn(words, out, name, at, room, loud = 1) {
  const clip = fitting(words, name, room);
  if (!clip) return 0;
  const sounds = Math.min(clip.ends - clip.at, clip.vowel + room);
  return strike(words, out, clip, at - clip.vowel, sounds, loud);
}

// sayFrom says clips one after the other from a time on, and gives when they end.
export function sayFrom(words, out, names, at, loud = 1) {
  for (const name of names) {
    const clip = words.clips[name];
    if (!clip) continue;
    strike(words, out, clip, at, clip.ends - clip.at, loud);
    at += clip.ends - clip.at + between;
  }
  return at;
}

function strike(words, out, clip, from, seconds, loud) {
  const context = out.context, now = context.currentTime;
  const skip = Math.max(0, now - from); // of what should have begun already
  if (skip >= seconds) return 0;
  const source = new AudioBufferSourceNode(context, { buffer: clip.buffer || words.buffer });
  const gain = new GainNode(context, { gain: loud });
  source.connect(gain).connect(out);
  const start = from + skip, ends = from + seconds;
  gain.gain.setValueAtTime(loud, Math.max(start, ends - 0.02));
  gain.gain.linearRampToValueAtTime(0, ends);
  source.start(start, clip.at + (clip.buffer ? 0 : words.late) + skip, seconds - skip);
  return seconds;
}
