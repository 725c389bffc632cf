// A led run as a file: its sound alone, or a video of the music with its cursor. All is made in
// the browser, faster than it would be played.
import * as Figures from "./figure.js";
import * as Lanes from "./lanes.js";
import * as Passes from "./passes.js";
import { cut } from "./walk.js";
import * as Sheets from "./sheet.js";
import * as Spoken from "./spoken.js";
import * as Voices from "./voices.js";

const rate = 24000;           // of the sound, in hertz
const soundBits = 48000, videoBits = 190000; // a second
const width = 1280, height = 720, frames = 25; // a second
const before = 0.5, after = 1.5; // seconds of silence

// save makes a file of a kind, "sound" or "video", and has it kept. told hears the share that is
// done; it may say that enough was done by throwing.
export async function save(data, kind, media, told) {
  const kit = await import(media);
  const [click, spoken, ...voices] = await Promise.all([Voices.load(Voices.click), Spoken.load(data.voice), ...data.parts.map((part) => Voices.load(part.voice))]);
  const sounds = { click, spoken, voices }, plans = [];
  let at = before;
  for (const m of data.run.moves) {
    const plan = Passes.timed(data, spoken, m, { zero: at, tempo: data.run.tempo });
    plans.push(plan);
    at = plan.over;
  }
  const total = at + after;
  const context = new OfflineAudioContext(1, Math.ceil(total * rate), rate);
  const out = new GainNode(context, { gain: 0.9 });
  out.connect(context.destination);
  for (const plan of plans) Passes.sound(data, plan, out, sounds);
  const sound = await context.startRendering();
  told(kind === "sound" ? 0.5 : 0.05);
  return kind === "sound" ? saveSound(kit, data, sound) : saveVideo(kit, data, sound, plans, total, told);
}

async function saveSound(kit, data, sound) {
  kit.registerMp3Encoder();
  const output = new kit.Output({ format: new kit.Mp3OutputFormat(), target: new kit.BufferTarget() });
  const source = new kit.AudioBufferSource({ codec: "mp3", bitrate: 64000 });
  output.addAudioTrack(source);
  await output.start();
  await source.add(sound);
  source.close();
  await output.finalize();
  return keep(output.target.buffer, data.file + ".mp3", "audio/mpeg");
}

async function saveVideo(kit, data, sound, plans, total, told) {
  const video = await kit.getFirstEncodableVideoCodec(["avc", "vp9", "vp8"], { width, height, bitrate: videoBits });
  if (!video) throw new Error("this browser makes no videos");
  const mp4 = video === "avc";
  const audio = await kit.getFirstEncodableAudioCodec(mp4 ? ["aac", "opus"] : ["opus"], { numberOfChannels: 1, sampleRate: rate, bitrate: soundBits });
  const output = new kit.Output({ format: mp4 ? new kit.Mp4OutputFormat({ fastStart: "in-memory" }) : new kit.WebMOutputFormat(), target: new kit.BufferTarget() });
  const canvas = new OffscreenCanvas(width, height);
  const pictures = new kit.CanvasSource(canvas, { codec: video, bitrate: videoBits, keyFrameInterval: 10, latencyMode: "quality" });
  output.addVideoTrack(pictures, { frameRate: frames });
  const heard = audio && new kit.AudioBufferSource({ codec: audio, bitrate: soundBits });
  if (heard) output.addAudioTrack(heard);
  await output.start();
  const painter = await Painter.of(data, canvas.getContext("2d"));
  try {
    let k = 0, painted = "", spoken = 0;
    for (let n = 0; n < total * frames; n++) {
      const now = n / frames;
      while (k + 1 < plans.length && now >= plans[k].over) k++;
      const step = plans[k].steps.findLast((one) => one.time <= now);
      const state = `${k} ${step ? plans[k].steps.indexOf(step) : -1} ${now >= plans[k].ends}`;
      if (state !== painted) {
        await painter.paint(k, plans[k], now >= plans[k].ends ? null : step);
        painted = state;
      }
      await pictures.add(now, 1 / frames);
      if (heard && now >= spoken) { // so that neither waits long for the other
        await heard.add(part(sound, spoken, Math.min(total, spoken + 5)));
        spoken += 5;
      }
      if (n % 100 === 0) told(0.05 + 0.95 * n / (total * frames));
    }
  } finally {
    painter.gone();
  }
  pictures.close();
  heard?.close();
  await output.finalize();
  return keep(output.target.buffer, data.file + (mp4 ? ".mp4" : ".webm"), mp4 ? "video/mp4" : "video/webm");
}

// part is a stretch of a sound, in seconds.
function part(sound, from, to) {
  const samples = sound.getChannelData(0).subarray(Math.round(from * rate), Math.round(to * rate));
  const buffer = new AudioBuffer({ length: Math.max(1, samples.length), sampleRate: rate, numberOfChannels: 1 });
  buffer.copyToChannel(samples, 0);
  return buffer;
}

// keep has the browser keep a file, and gives it with its name.
function keep(bytes, name, type) {
  const file = new Blob([bytes], { type });
  const link = Object.assign(document.createElement("a"), { href: URL.createObjectURL(file), download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 60000);
  return { name, file };
}

const ink = "#1e2833", soft = "#55606c", warning = "#b03a14";
const colours = { count: "#2a6496", name: "#7d3c66", finger: "#8a5208", play: "#2f6b4f", listen: soft };
const sans = '"Atkinson Hyperlegible", sans-serif', serif = "Fraunces, serif";
const top = 204, room = 312; // of the music

// Painter paints a run on a canvas: what a page shows of it.
class Painter {
  static async of(data, canvas) {
    const painter = new Painter();
    Object.assign(painter, { data, canvas, chunks: new Map(), figures: new Map() });
    painter.host = Object.assign(document.createElement("div"), { className: "walk-offstage" });
    Object.assign(painter.host.style, { position: "absolute", left: "-5000px", top: "0", width: "1200px" });
    document.body.append(painter.host);
    await Promise.all([document.fonts.load(`700 40px ${sans}`), document.fonts.load(`600 40px ${serif}`)]);
    painter.fonts = await embedded();
    return painter;
  }

  gone() { this.host.remove(); }

  // chunk is the music of a move as a picture, with the places of its pulses.
  async chunk(m) {
    const key = m.chunk + " " + m.shows.join(" ");
    if (this.chunks.has(key)) return this.chunks.get(key);
    const kept = [...new Set(m.passages.map((s) => s.index))].sort((a, b) => a - b);
    const sheet = cut(this.data.parts[0].sheet, kept);
    const host = document.createElement("div");
    host.className = "engraving";
    host.style.position = "relative";
    this.host.replaceChildren(host);
    const shown = Object.fromEntries(["tap", "count", "name", "finger"].map((lane) => [lane, m.shows.includes(lane)]));
    const systems = await Sheets.engrave(host, sheet, shown, { minLastJustification: 0, scale: 56, whole: true, airy: 1.3 });
    const places = Lanes.draw(host, sheet, { shown, chunk: { plan: [], whole: true, label: "" } }, systems);
    const box = host.getBoundingClientRect(), layers = [];
    for (const svg of [host.querySelector(".canvas svg"), host.querySelector("svg.lanes")]) {
      const at = svg.getBoundingClientRect();
      layers.push({ picture: await this.picture(svg, at.width, at.height), x: at.left - box.left, y: at.top - box.top, width: at.width, height: at.height });
    }
    const lowest = Math.max(...places.map((p) => p.bottom)) + 10;
    const drawn = { layers, places, kept, scale: Math.min(1.15, 1200 / box.width, room / lowest), height: lowest, width: box.width };
    this.chunks.set(key, drawn);
    return drawn;
  }

  // picture is an SVG that stands in the page as an image, with the styles it has there.
  async picture(svg, wide, high) {
    const copy = svg.cloneNode(true);
    const from = [svg, ...svg.querySelectorAll("*")], to = [copy, ...copy.querySelectorAll("*")];
    from.forEach((element, k) => {
      if (element.closest("defs")) return; // what is used takes its style where it is used
      const style = getComputedStyle(element);
      to[k].setAttribute("style", styles.map((name) => `${name}:${style.getPropertyValue(name)}`).join(";").replaceAll('"', "'"));
    });
    copy.setAttribute("width", wide);
    copy.setAttribute("height", high);
    const style = document.createElementNS("http://www.w3.org/2000/svg", "style");
    style.textContent = this.fonts;
    copy.prepend(style);
    const image = new Image(wide, high);
    image.src = "data:image/svg+xml;charset=utf-8," + encodeURIComponent(new XMLSerializer().serializeToString(copy));
    await image.decode();
    return createImageBitmap(image, { resizeWidth: Math.round(wide * 1.15), resizeHeight: Math.round(high * 1.15), resizeQuality: "high" });
  }

  async figure(event) {
    if (!event.fingering) return null;
    const key = event.midi + " " + event.fingering;
    if (!this.figures.has(key)) {
      const holder = document.createElement("div");
      holder.className = "drawing";
      holder.append(Figures.of(event, this.data.parts[0].sheet, null));
      this.host.append(holder);
      const svg = holder.querySelector("svg"), box = svg.getBoundingClientRect();
      this.figures.set(key, { picture: await this.picture(svg, box.width, box.height), share: box.width / box.height });
    }
    return this.figures.get(key);
  }

  write(text, x, y, font, colour, align = "left") {
    Object.assign(this.canvas, { font, fillStyle: colour, textAlign: align, textBaseline: "alphabetic" });
    this.canvas.fillText(text, x, y);
  }

  // paint paints a move at a step: of its count-off, of its music, or none.
  async paint(k, { m }, step) {
    const c = this.canvas, { run } = this.data, listening = m.act === "listen", colour = listening ? soft : colours[m.form];
    c.fillStyle = "#f6f1e7";
    c.fillRect(0, 0, width, height);
    this.write(run.title + (m.where === "the line" ? "" : ", " + m.where), 40, 52, `600 30px ${serif}`, ink);
    this.write(this.data.parts[0].with[0].name, width - 40, 52, `700 26px ${sans}`, soft, "right");
    run.moves.forEach((_, n) => {
      const share = (width - 80) / run.moves.length;
      c.fillStyle = n < k ? "#8d8676" : n === k ? "#e0a84a" : "#e0d5c0";
      c.fillRect(40 + n * share, 68, share - 4, 7);
    });
    this.write(listening ? "Listen" : `${m.word} · ${m.with === "alone" ? "on your own" : "together"}`, 40, 112, `700 26px ${sans}`, colour);
    this.write(m.says, 40, 160, `600 40px ${serif}`, ink);
    c.fillStyle = "#fffefa";
    c.fillRect(0, top - 24, width, room + 34);
    const drawn = await this.chunk(m), left = (width - drawn.width * drawn.scale) / 2;
    if (step?.pulse) {
      const place = drawn.places.find((p) => drawn.kept[p.measure] === step.measure && Math.abs(p.pulse.at - step.at) < 1e-6);
      if (place) {
        c.fillStyle = "rgba(224, 168, 74, .45)";
        c.fillRect(left + (place.x - 15) * drawn.scale, top + place.top * drawn.scale, 30 * drawn.scale, (place.bottom - place.top) * drawn.scale);
      }
    }
    for (const l of drawn.layers) c.drawImage(l.picture, left + l.x * drawn.scale, top + l.y * drawn.scale, l.width * drawn.scale, l.height * drawn.scale);
    if (!step?.pulse) {
      this.write([...(m.minds || []), step === null ? m.again || "" : ""].join(" "), width / 2, 572, `400 28px ${sans}`, warning, "center");
      if (step === null) return; // the silence after it
      m.countOff.forEach((cue) => {
        if (!cue.beat) return;
        const beats = m.countOff.filter((one) => one.beat), at = beats.indexOf(cue);
        this.write(cue.word, width / 2 + (at - (beats.length - 1) / 2) * 150, 660, `700 ${step?.cue === cue ? 72 : 48}px ${sans}`, step?.cue === cue ? colours.count : "#9fb6c8", "center");
      });
      return;
    }
    await this.large(m, step);
  }

  async large(m, step) {
    if (m.form === "count") {
      this.last = step.pulse.text ? { text: step.pulse.text.replace(/[()[\]]/g, ""), held: step.pulse.look !== "struck" } : this.last;
      if (this.last) this.write(this.last.text, width / 2, 660, `700 110px ${sans}`, this.last.held ? "#a9bfd2" : colours.count, "center");
      return;
    }
    const sheet = this.data.parts[0].sheet;
    const event = sheet.measures[step.measure].events.findLast((e) => e.at <= step.at + 1e-6);
    if (!event) return;
    const figure = m.hand ? await this.figure(event) : null;
    if (figure) {
      const high = 160, wide = Math.min(560, high * figure.share);
      this.canvas.drawImage(figure.picture, width / 2 - wide - 30, 540, wide, wide / figure.share);
    }
    this.write(event.spoken || event.name, figure ? width / 2 + 30 : width / 2, 655, `700 ${figure ? 84 : 110}px ${sans}`, colours.name, figure ? "left" : "center");
  }
}

// styles are what of a page's styles an image of its SVG needs.
const styles = ["fill", "fill-opacity", "stroke", "stroke-width", "stroke-opacity", "stroke-dasharray", "opacity", "visibility", "display", "font-family", "font-size", "font-weight", "font-style", "text-anchor", "dominant-baseline", "color", "overflow"];

// embedded are the page's fonts, inside of what may fetch nothing.
async function embedded() {
  const rules = [...document.querySelectorAll("head style")].flatMap((style) => [...style.textContent.matchAll(/@font-face \{[^}]*\}/g)].map((m) => m[0])).filter((rule) => rule.includes("Atkinson") && !rule.includes("U+0100"));
  const list = await Promise.all(rules.map(async (rule) => {
    const [, address] = rule.match(/url\(([^)]*)\)/);
    const bytes = new Uint8Array(await (await fetch(address.replaceAll(/["']/g, ""))).arrayBuffer());
    return rule.replace(/url\([^)]*\)/, `url(data:font/woff2;base64,${btoa(bytes.reduce((text, byte) => text + String.fromCharCode(byte), ""))})`);
  }));
  return list.join("\n");
}
