// Makes tonal.json, the table that TestAgainstTonal checks transposition and key
// signatures with. Run it where the npm package tonal (6.4.2) is installed:
//   node tonal.mjs > tonal.json
import { Key, Note } from "tonal";

const notes = [];
for (const letter of "CDEFGAB") for (const accidental of ["bb", "b", "", "#", "##"]) for (const octave of [2, 4]) notes.push(letter + accidental + octave);
const intervals = ["1P", "2m", "2M", "3m", "3M", "4P", "4A", "5P", "6m", "6M", "7m", "7M", "8P", "-2M", "-3m", "-5P", "-6M", "-9M", "-13M"];
const transposed = [];
for (const note of notes) for (const interval of intervals) transposed.push([note, interval, Note.transpose(note, interval)]);
const keys = [];
for (const tonic of ["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"]) {
  const key = Key.majorKey(tonic);
  keys.push([tonic, "major", key.alteration, key.scale.join(" ")]);
}
for (const tonic of ["Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#", "G#", "D#", "A#"]) {
  const key = Key.minorKey(tonic);
  keys.push([tonic, "minor", key.alteration, key.natural.scale.join(" ")]);
}
console.log(JSON.stringify({ transposed, keys }));
