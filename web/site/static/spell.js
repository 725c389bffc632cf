// How a note of a MIDI keyboard is written.
const fifthsOf = [0, 2, 4, -1, 1, 3, 5], semitones = [0, 2, 4, 5, 7, 9, 11]; // of C to B

// spell gives a note the name that the key has for it, else the nearest on the line of fifths.
export function spell(midi, fifths) {
  for (let step = 0; step < 7; step++) {
    for (let alter = -2; alter <= 2; alter++) {
      const at = fifthsOf[step] + 7 * alter;
      if ((semitones[step] + alter - midi) % 12 === 0 && at >= fifths - 3 && at <= fifths + 8) {
        return { step, alter, diatonic: step + 7 * Math.round((midi - semitones[step] - alter) / 12 - 1) };
      }
    }
  }
}

// inKey is what the signature does to a step.
export function inKey(step, fifths) {
  const at = fifthsOf[step] + 1; // F is 0
  return fifths > at ? 1 : fifths < 0 && 6 - at < -fifths ? -1 : 0;
}
