// Lists what Verovio sounds of MusicXML texts, in written order, and when measures begin: a
// line of JSON for each text, which is a string of JSON on a line of the standard input. Its
// argument is the folder of the npm package.
const path = require("path"), readline = require("readline");
const verovio = require(path.join(path.resolve(process.argv[2]), "dist", "verovio-toolkit-wasm.js"));

// plain is a text without small notes, arpeggios and ornaments, which move what comes after.
function plain(text) {
  return text.replace(/encoding=['"]UTF-16['"]/i, 'encoding="UTF-8"')
    .replace(/<note\b[^>]*>\s*(<cue\/>\s*)?<grace[^]*?<\/note>/g, "")
    .replace(/<arpeggiate[^>]*\/>/g, "").replace(/<(trill-mark|inverted-mordent|mordent|turn)[^>]*\/>/g, "");
}

function sounded(toolkit, text) {
  toolkit.setOptions({ expandNever: true });
  if (!toolkit.loadData(plain(text))) throw new Error("not read");
  const mei = toolkit.getMEI(), tied = new Set(), notes = [];
  for (const tie of mei.match(/<tie [^>]*>/g) || []) {
    const end = /endid="#([^"]+)"/.exec(tie);
    if (end) tied.add(end[1]);
  }
  for (const note of mei.match(/<note [^>]*>/g) || []) {
    if (/ tie="[mt]/.test(note)) tied.add(/xml:id="([^"]+)"/.exec(note)[1]);
    if (/ grace="/.test(note)) tied.add(/xml:id="([^"]+)"/.exec(note)[1]);
  }
  const measures = [];
  for (const moment of toolkit.renderToTimemap({ includeMeasures: true })) {
    if (moment.measureOn) measures.push(moment.qstamp);
    for (const id of moment.on || []) {
      if (!tied.has(id)) notes.push({ at: moment.qstamp, key: toolkit.getMIDIValuesForElement(id).pitch });
    }
  }
  return { notes, measures };
}

verovio.module.onRuntimeInitialized = async () => {
  for await (const line of readline.createInterface({ input: process.stdin })) {
    const answer = {};
    try {
      Object.assign(answer, sounded(new verovio.toolkit(), JSON.parse(line)));
    } catch (problem) {
      answer.error = String(problem.message || problem);
    }
    process.stdout.write(JSON.stringify(answer) + "\n");
  }
};
