// The sound of instruments: recorded notes, fetched when they are first heard, and struck
// sounds, which are computed. A voice that is loaded strikes notes at exact times.

const rate = 22050;

// Struck sounds: partials as [times the pitch, loudness, seconds to die away], and noise as
// [loudness, seconds, share of the low]. Ratios of a free bar, of a kettle drum and of a
// round skin after Fletcher and Rossing, The Physics of Musical Instruments.
const struck = {
  bells: { hz: 1046.5, midi: 84, partials: [[1, 0.5, 1.3], [2.756, 0.22, 0.5], [5.404, 0.1, 0.2]] },
  timpani: { hz: 110, midi: 45, partials: [[1, 0.5, 1.1], [1.5, 0.3, 0.7], [1.99, 0.2, 0.5], [2.44, 0.1, 0.4]], noise: [0.25, 0.03, 0.8] },
  "bass-drum": { hz: 58, partials: [[1, 0.7, 0.45], [1.59, 0.3, 0.25], [2.14, 0.2, 0.15]], noise: [0.25, 0.02, 0.6] },
  snare: { hz: 190, partials: [[1, 0.3, 0.09], [1.59, 0.2, 0.06]], noise: [0.5, 0.13, 0] },
  "small-percussion": { hz: 1900, partials: [[1, 0.4, 0.06], [1.48, 0.25, 0.05], [2.7, 0.15, 0.03]], noise: [0.12, 0.03, 0] },
  click: { hz: 1568, midi: 91, partials: [[1, 0.5, 0.04], [3, 0.08, 0.02]] },
};

const loaded = new Map(); // by name: a promise of notes with their sound

function computed(name) {
  const { hz, midi, partials, noise } = struck[name];
  const length = Math.ceil(rate * Math.min(2, 4.6 * Math.max(...partials.map((p) => p[2]))));
  const buffer = new AudioBuffer({ length, sampleRate: rate, numberOfChannels: 1 });
  const samples = buffer.getChannelData(0);
  let random = 1, low = 0;
  for (let i = 0; i < length; i++) {
    const t = i / rate;
    for (const [ratio, loud, fade] of partials) samples[i] += loud * Math.sin(2 * Math.PI * hz * ratio * t) * Math.exp(-t / fade);
    if (noise) {
      random = (random * 16807) % 2147483647;
      low += (random / 1073741823.5 - 1 - low) * (1 - noise[2]);
      samples[i] += noise[0] * low * Math.exp(-t / noise[1]);
    }
  }
  for (let i = 0; i < length / 8; i++) samples[length - 1 - i] *= (8 * i) / length;
  return [{ buffer, hz, midi: midi || 0 }];
}

async function fetched(notes) {
  return Promise.all(notes.map(async (note) => {
    const answer = await fetch(note.url);
    if (!answer.ok) throw new Error("a recorded note did not come");
    const buffer = await new OfflineAudioContext(1, 1, rate).decodeAudioData(await answer.arrayBuffer());
    return { ...note, buffer };
  }));
}

// load gives the notes of a voice, from the network the first time.
function load(voice) {
  if (!loaded.has(voice.name)) {
    const coming = voice.notes ? fetched(voice.notes) : Promise.resolve(computed(voice.name));
    loaded.set(voice.name, coming.then((notes) => ({ notes, struck: !notes[0].to })));
    loaded.get(voice.name).catch(() => loaded.delete(voice.name));
  }
  return loaded.get(voice.name).then((sound) => ({ ...sound, larger: voice.larger }));
}

// strike sounds one pitch of a loaded voice from a time on, for some seconds. Without a
// pitch it is a stroke. At a slur the attack of the recording is left out. Under a hairpin it
// grows or fades until it ends so loud.
function strike(sound, out, { midi, a4, at, seconds, loud, ends = loud, joined }) {
  const near = midi ? midi + sound.larger : 0;
  const note = sound.notes.reduce((best, n) => (Math.abs(n.midi - near) < Math.abs(best.midi - near) ? n : best));
  const source = new AudioBufferSourceNode(out.context, { buffer: note.buffer });
  if (midi) source.playbackRate.value = (a4 * 2 ** ((midi - 69) / 12)) / note.hz;
  const gain = new GainNode(out.context, { gain: 0 });
  source.connect(gain).connect(out);
  if (sound.struck) {
    gain.gain.setValueAtTime(loud, at);
    source.start(at);
    return;
  }
  const rise = joined ? 0.03 : 0.0015, fall = Math.min(0.03, seconds / 3);
  Object.assign(source, { loop: true, loopStart: note.from, loopEnd: note.to });
  gain.gain.setValueAtTime(0, at);
  gain.gain.linearRampToValueAtTime(loud, at + rise);
  if (ends === loud) gain.gain.setValueAtTime(loud, Math.max(at + rise, at + seconds - fall));
  else gain.gain.linearRampToValueAtTime(ends, Math.max(at + rise, at + seconds - fall));
  gain.gain.linearRampToValueAtTime(0, Math.max(at + rise, at + seconds));
  source.start(at, joined ? 0.12 : 0);
  source.stop(at + seconds + 0.02);
}

const click = { name: "click", larger: 0 };

export { load, strike, click };
