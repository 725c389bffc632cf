// Tempos are changed by the steps of a scale of metronome marks, slowest first.

// stepped is the mark a number of steps from a tempo, which may lie between two marks: the first
// step then goes to the next mark of its way. At an end of the scale it stays.
export function stepped(scale, tempo, steps) {
  if (steps === 0) return tempo;
  const below = scale.findLastIndex((mark) => mark <= tempo);
  const from = scale[below] === tempo || steps > 0 ? below : below + 1;
  return scale[Math.max(0, Math.min(scale.length - 1, from + steps))];
}
