// Repacks the engraver for slow lines: takes the WebAssembly out of its script,
// so that the browser compiles it while it comes, and blanks what the Bench does
// not draw with: three of the five music fonts, and the text font that is only
// for pictures taken elsewhere.
// Usage: node bin/pack-engraver.mjs verovio-toolkit-wasm.js FOLDER
import { readFileSync, writeFileSync } from "node:fs";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";

const unused = /^\/data\/(Leland|Petaluma|Gootville)[./]|^\/data\/Liberation\.css$/;

const [source, folder] = process.argv.slice(2);
const script = readFileSync(source, "utf8");

// replaceOnce refuses a script that is not laid out as expected.
function replaceOnce(text, from, to) {
  if (text.split(from).length !== 2) throw new Error("the engraver's script has changed: look for " + from);
  return text.replace(from, () => to);
}

const opening = "function findWasmBinary(){return binaryDecode(";
const from = script.indexOf(opening) + opening.length;
if (from < opening.length || script[from] !== "'") throw new Error("the WebAssembly is not where it was in the engraver's script");
let to = from + 1;
while (script[to] !== "'") to += script[to] === "\\" ? 2 : 1;
const characters = (0, eval)(script.slice(from, to + 1));
const code = Buffer.from(characters, "latin1");
for (let i = 0; i < code.length; i++) if (characters.charCodeAt(i) > 255) code[i] = 0;
if (!WebAssembly.validate(code)) throw new Error("what was taken out of the engraver's script is not WebAssembly");

let small = script.slice(0, from) + script.slice(to + 1);
small = replaceOnce(small, "function findWasmBinary(){return binaryDecode()}", "function findWasmBinary(){return globalThis.engraverCode.comes}");
small = replaceOnce(small, "async function instantiateAsync(binary,binaryFile,imports){return instantiateArrayBuffer(binaryFile,imports)}",
  "async function instantiateAsync(binary,binaryFile,imports){return WebAssembly.instantiateStreaming(binaryFile,imports).catch(reason=>{globalThis.engraverCode.failed(reason);return new Promise(()=>{})})}");

blank(code);
for (const [name, content] of [["verovio.js", Buffer.from(small)], ["verovio.wasm", code]]) {
  writeFileSync(`${folder}/${name}.gz`, gzipSync(content, { level: 9 }));
  writeFileSync(`${folder}/${name}.br`, brotliCompressSync(content, { params: {
    [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_LGWIN]: 24, [constants.BROTLI_PARAM_SIZE_HINT]: content.length } }));
}

// blank fills the files that are not used with spaces, where they lie.
function blank(code) {
  const { memory, file, length } = firstData(code);
  const word = (address) => code.readUInt32LE(address - memory + file);
  const inside = (address) => address >= memory && address < memory + length;
  const nameAt = (address) => {
    const start = address - memory + file;
    return code.toString("latin1", start, code.indexOf(0, start));
  };
  // The table of embedded files: an address of a name, a length, an address of the content.
  let seen = 0;
  for (let at = memory; at < memory + length - 12; at += 4) {
    const [name, size, content] = [word(at), word(at + 4), word(at + 8)];
    if (!inside(name) || !inside(content) || !inside(content + size) || code.toString("latin1", name - memory + file, name - memory + file + 6) !== "/data/") continue;
    seen++;
    if (unused.test(nameAt(name))) code.fill(" ", content - memory + file, content - memory + file + size);
  }
  if (seen < 1000) throw new Error(`only ${seen} files were found in the engraver`);
}

// firstData finds the first data segment: where it goes in memory and lies in the file.
function firstData(code) {
  let at = 8;
  const number = () => {
    let value = 0;
    for (let shift = 0, byte = 128; byte & 128; shift += 7) {
      byte = code[at++];
      value += (byte & 127) * 2 ** shift;
    }
    return value;
  };
  while (at < code.length) {
    const section = code[at++], size = number();
    if (section !== 11) { at += size; continue; }
    number(); // how many segments
    if (code[at++] !== 0 || code[at++] !== 0x41) break;
    const memory = number();
    if (code[at++] !== 0x0b) break;
    const length = number();
    return { memory, file: at, length };
  }
  throw new Error("the data of the engraver was not found");
}
