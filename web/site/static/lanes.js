// Lays the lanes of taps, counts, names and fingerings under the engraved part,
// each on its pulse or notehead, and marks the chunk at hand.
import { shape } from "./dom.js";
import * as Fingering from "./fingering.js";

const ROW = { tap: 19, count: 22, name: 24 };

const above = 30; // how far the frame of a chunk reaches over the staff

// centre gives the middle of an element and its box, in pixels of the sheet.
function box(element, origin) {
  const r = element.getBoundingClientRect();
  return { x: r.left - origin.left, y: r.top - origin.top, right: r.right - origin.left, bottom: r.bottom - origin.top, cx: (r.left + r.right) / 2 - origin.left };
}

// reach is how far the lines of a staff and what is written on them go; the clef, whose
// tail hangs below, stands where no lane is.
function reach(staff, origin) {
  const boxes = [...staff.querySelectorAll(":scope > path, g.note, g.rest, g.beam, g.tuplet")].map((e) => box(e, origin));
  return {
    x: Math.min(...boxes.map((b) => b.x)), right: Math.max(...boxes.map((b) => b.right)),
    y: Math.min(...boxes.map((b) => b.y)), bottom: Math.max(...boxes.map((b) => b.bottom)),
  };
}

// rows lists the lanes that are shown, with their place under the staff.
function rows(data, shown) {
  const list = [];
  let y = 7;
  for (const lane of ["tap", "count", "name", "finger"]) {
    if (!shown[lane] || (lane === "name" && !data.named) || (lane === "finger" && !data.fingered)) continue;
    const height = lane === "finger" ? Fingering[data.mechanism].height : ROW[lane] + (shown.write?.[lane] ? 14 : 0);
    list.push({ lane, y: y + height / 2, height });
    y += height;
  }
  return { list, height: y };
}

// measure finds where every pulse, note and measure lies, system by system.
function locate(host, data) {
  host.classList.toggle("has-beyond", data.measures.some((m) => m.events?.some((e) => e.beyond))); // for its words
  const origin = host.getBoundingClientRect();
  const systems = [];
  const byNode = new Map();
  data.measures.forEach((m, index) => {
    const several = m.rests || m.within !== undefined; // one sign stands for several measures of rest
    const node = host.querySelector("#" + (m.within === undefined ? m : data.measures[m.within]).id);
    if (!node) return;
    const systemNode = node.closest("g.system");
    let system = byNode.get(systemNode);
    if (!system) {
      system = { measures: [], over: Infinity, top: Infinity, bottom: 0, left: Infinity, right: 0 };
      byNode.set(systemNode, system);
      systems.push(system);
    }
    const lines = reach(node.querySelector("g.staff[data-n='1']"), origin);
    const other = node.querySelector("g.staff[data-n='3']"); // another line over the music
    system.top = Math.min(system.top, lines.y);
    system.over = Math.min(system.over, other ? reach(other, origin).y : lines.y);
    system.bottom = Math.max(system.bottom, lines.bottom);
    system.left = Math.min(system.left, lines.x);
    system.right = Math.max(system.right, lines.right);
    const find = (id) => { const e = host.querySelector("#" + id); return e && box(e.querySelector(".notehead") || e, origin); };
    if (several) {
      const x = (lines.x + lines.right) / 2;
      system.measures.push({ index, left: lines.x, right: lines.right, several, pulses: m.pulses.map((pulse) => ({ pulse, x })), events: [], rests: m.rests, x });
      return;
    }
    const pulses = (m.pulses || []).map((p) => ({ pulse: p, x: (find(p.id) || {}).cx }));
    const events = m.events.map((e) => ({ event: e, at: find(e.id) }));
    system.measures.push({ index, left: lines.x, right: lines.right, pulses, events, breaths: (m.breaths || []).map(find) });
  });
  return systems;
}

function tapMark(tap, x, y) {
  return tap === "down"
    ? shape("path", { class: "tap", d: `M${x - 5} ${y - 4} L${x} ${y + 4} L${x + 5} ${y - 4}` })
    : shape("path", { class: "tap", d: `M${x - 4} ${y + 3} L${x} ${y - 3} L${x + 4} ${y + 3}` });
}

function drawTaps(g, system, y) {
  for (const m of system.measures) {
    if (m.several) continue;
    for (const { pulse, x } of m.pulses) if (pulse.tap && x) g.append(tapMark(pulse.tap, x, y));
  }
}

// blank is a line to write on, as wide as a hand writes a letter.
const handWidth = 25;
function blank(x, y) { return shape("path", { class: "blank", d: `M${x - handWidth / 2 + 3} ${y + 12} h${handWidth - 6}` }); }

function drawCounts(g, system, y, toWrite) {
  for (const m of system.measures) {
    if (m.rests) g.append(shape("text", { class: "c-rest", x: m.x, y }, m.rests));
    if (m.several) continue;
    for (const { pulse, x } of m.pulses) {
      if (!x) continue;
      if (toWrite) {
        if (pulse.look !== "quiet") g.append(blank(x, y));
        continue;
      }
      if (pulse.look === "quiet") g.append(shape("circle", { class: "c-dot", cx: x, cy: y, r: 1.8 }));
      else g.append(shape("text", { class: "c-" + pulse.look, x, y }, pulse.text));
    }
  }
}

function marked(event, alert) { return (event.alerts || []).includes(alert); }

const nameWidth = (event) => 11 + 7 * (event.name.length - 1);

function drawNames(g, system, y, toWrite) {
  for (const m of system.measures) {
    for (const { event, at } of m.events) {
      if (at && toWrite) g.append(blank(at.cx, y));
      else if (at) drawName(g, event, at.cx, y);
    }
  }
}

function drawName(g, event, x, y) {
  const trap = marked(event, "trap");
  const width = nameWidth(event);
  if (trap || marked(event, "carried")) {
    g.append(shape("rect", { class: trap ? "box-trap" : "box-carried", x: x - width / 2 - 4, y: y - 12, width: width + 8, height: 24, rx: 5 }));
  }
  g.append(shape("text", { class: trap ? "n n-trap" : "n", x, y }, event.name));
}

function drawFingerings(g, system, y, height, data) {
  const drawing = Fingering[data.mechanism];
  for (const m of system.measures) {
    let before = null;
    for (const { event, at } of m.events) {
      if (at && event.unlisted) drawUnlisted(g, at.cx, y);
      if (!at || !event.fingering) { before = null; continue; }
      drawing.mark(g, event, at.cx, y, height, data, before);
      before = { event, x: at.cx };
      // What is not the usual way is underlined, so that it is seen to be meant.
      if (event.alternate) g.append(shape("path", { class: "f-alternate", d: `M${at.cx - 11} ${y + height / 2 - 1} h22` }));
    }
  }
}

// drawUnlisted leaves room where a fingering is to be written.
function drawUnlisted(g, x, y) {
  g.append(shape("rect", { class: "f-unlisted", x: x - 10, y: y - 11, width: 20, height: 22, rx: 5 }), shape("text", { class: "f f-open", x, y }, "?"));
}

// drawBeyond makes notes beyond the instrument pale, and says so over the first of several.
function drawBeyond(g, host, system) {
  let said = -Infinity;
  for (const m of system.measures) {
    for (const { event, at } of m.events) {
      if (!at || !event.beyond) continue;
      if (!event.unlisted) host.querySelector("#" + event.id)?.classList.add("beyond");
      if (at.cx < said) continue;
      const words = event.unlisted ? "none listed: write yours" : event.beyond, half = 3.4 * words.length;
      const x = Math.max(system.left + half, Math.min(system.right - half, at.cx));
      g.append(shape("text", { class: "beyond-word", x, y: Math.max(12, Math.min(system.top - 24, at.y - 14)) }, words));
      said = x + 2 * half;
    }
  }
}

// apart is how far two neighbouring fingerings have to stand from each other; where a note
// has none, there is nothing to touch.
function apart(drawing, a, b, data) {
  if (!a.fingering || !b.fingering) return a.unlisted || b.unlisted ? 24 : 0;
  return drawing.apart ? drawing.apart(a, b, data) : (drawing.width(a) + drawing.width(b)) / 2;
}

// crowdedCounts is crowding by what is said in a measure.
function crowdedCounts(m) {
  const said = m.pulses.filter(({ pulse, x }) => x && pulse.text);
  return Math.max(0, ...said.slice(1).map(({ pulse, x }, k) => (4 * (pulse.text.length + said[k].pulse.text.length) + 3) / (x - said[k].x)));
}

// crowding is how many times wider the notes of each measure would have to stand for
// the widest neighbours in any lane not to touch, from the note before it on; 1 or less
// is room enough. Counts are looked at where it is asked for. With it comes how wide a measure is, and how far its first note is in.
function crowding(host, data, shown, counts) {
  const drawing = Fingering[data.mechanism];
  const list = data.measures.map(() => ({ crowded: 0, width: 0, lead: 0 }));
  list.systems = locate(host, data);
  for (const system of list.systems) {
    let before = null;
    for (const m of system.measures) {
      const here = list[m.index];
      if (m.several) {
        here.width = m.rests ? m.right - m.left : 0;
        here.crowded = m.rests ? (6.8 * m.rests.length + 14) / here.width : 0;
        before = null;
        continue;
      }
      here.width = m.right - m.left;
      const first = m.pulses.find((p) => p.x);
      here.lead = first ? first.x - m.left : 0;
      if (counts && shown.count) here.crowded = crowdedCounts(m);
      for (const { event, at } of m.events) {
        if (!at) continue;
        if (before) {
          const gap = at.cx - before.at.cx;
          const names = shown.name && data.named ? (nameWidth(before.event) + nameWidth(event)) / 2 + 2 : 0;
          const written = shown.write?.name || shown.write?.count ? handWidth : 0;
          const fingers = shown.finger && data.fingered ? apart(drawing, before.event, event, data) : 0;
          here.crowded = Math.max(here.crowded, Math.max(names, fingers, written) / gap);
        }
        before = { event, at };
      }
    }
  }
  return list;
}

// drawAlerts sets a filled diamond over a trap and an open hook over a note
// that an earlier accidental still governs, and gives each note a reason.
function drawAlerts(g, system, bottom) {
  for (const m of system.measures) {
    for (const { event, at } of m.events) {
      if (!at) continue;
      const top = Math.min(system.top, at.y) - 14;
      if (marked(event, "trap")) {
        g.append(shape("path", { class: "mark-trap", d: `M${at.cx} ${top - 7} l6 7 l-6 7 l-6 -7 Z` }));
      } else if (marked(event, "carried")) {
        g.append(shape("path", { class: "mark-carried", d: `M${at.cx - 7} ${top + 4} q0 -8 7 -8 q7 0 7 8` }));
      }
      const why = event.why.join(" ");
      const touch = shape("rect", { class: "touch", x: at.cx - 12, y: top - 8, width: 24, height: bottom - top, rx: 5, "data-event": event.id, tabindex: -1, role: "img", "aria-label": why });
      touch.append(shape("title", {}, why));
      g.append(touch);
    }
  }
}

function breathSign(pen, at, system) { return shape("path", { class: pen, d: `M${at.right + 4} ${system.top - 12} q7 3 1 10` }); }

// drawHand sets the bows and the breaths that are worth a sign, and what the teacher
// wrote, which is drawn as with a pencil.
function drawHand(g, system) {
  for (const m of system.measures) {
    for (const at of m.breaths || []) if (at) g.append(breathSign("hand-sign", at, system));
    for (const { event, at } of m.events) {
      if (!at) continue;
      let y = Math.min(system.top, at.y) - 12;
      if (marked(event, "trap") || marked(event, "carried")) y -= 15;
      const pencils = event.pencils || [];
      const own = (kind) => pencils.some((p) => p.kind === kind);
      const pen = (kind) => own(kind) ? "pencil" : "hand-sign";
      if (event.bow) {
        g.append(shape("path", { class: pen(event.bow), d: event.bow === "down" ? `M${at.cx - 5} ${y + 5} v-8 h10 v8 m0 -7 h-10` : `M${at.cx - 4} ${y - 4} l4 9 l4 -9` }));
        y -= 13;
      }
      if (event.breath) g.append(breathSign(pen("breath"), at, system));
      if (own("no-breath")) g.append(shape("path", { class: "pencil", d: `M${at.right + 1} ${system.top - 4} q4 -5 8 0` }));
      const sign = pencils.find((p) => p.kind === "sign");
      if (sign) g.append(shape("text", { class: "pencil-word pencil-sign", x: at.cx - 15, y: (at.y + at.bottom) / 2 }, sign.word));
      if (own("circle")) g.append(shape("ellipse", { class: "pencil", cx: at.cx, cy: (at.y + at.bottom) / 2, rx: 12, ry: 9 }));
      if (own("arrow")) { g.append(shape("path", { class: "pencil", d: `M${at.cx} ${y - 6} v10 m-4 -4 l4 4 l4 -4` })); y -= 13; }
      const word = pencils.find((p) => p.kind === "word");
      if (word) g.append(shape("text", { class: "pencil-word", x: at.cx, y: y + 2 }, word.word));
    }
  }
}

// drawChunk frames the measures of the chunk in a system, as much of them as belongs
// to it; measures that do not stand side by side have frames of their own.
function drawChunk(g, system, data, chunk, bottom) {
  const runs = [];
  for (const part of chunk.plan) {
    const m = system.measures.find((m) => m.index === part.index);
    if (!m) continue;
    const measure = data.measures[part.index];
    const at = (place) => m.pulses.find((p) => p.pulse.at >= place - 1e-6 && p.x)?.x - 14;
    const edge = m.index === system.measures[0].index ? -4 : 1;
    const left = part.from > measure.offset + 1e-6 ? at(part.from) : m.left + edge;
    const right = part.to < measure.offset + measure.length - 1e-6 ? at(part.to) : m.right;
    const last = runs[runs.length - 1];
    if (last && last.index + 1 === part.index && last.right >= m.left - 2) Object.assign(last, { index: part.index, right, last: part === chunk.plan[chunk.plan.length - 1] });
    else runs.push({ index: part.index, first: part === chunk.plan[0], last: part === chunk.plan[chunk.plan.length - 1], left, right });
  }
  const top = system.over - above;
  for (const run of runs) {
    g.append(shape("rect", { class: "chunk-box", x: run.left, y: top, width: Math.max(12, run.right - run.left), height: bottom - top, rx: 7 }));
    for (const [edge, x, is] of [["first", run.left, run.first], ["last", run.right, run.last]]) {
      if (chunk.moves && is) g.append(shape("rect", { class: "edge", x: x - 5, y: top + 4, width: 10, height: bottom - top - 8, "data-edge": edge }));
    }
    if (run.first) g.append(shape("text", { class: "chunk-label", x: run.left + 6, y: top - 8 }, chunk.label));
  }
}

// draw puts the lanes into the sheet and returns where each pulse lies, for
// the cursor.
// systems says where everything lies, where that has been found already.
function draw(host, data, view, systems) {
  host.querySelector("svg.lanes")?.remove();
  const svg = shape("svg", { class: "lanes", width: host.clientWidth, height: host.clientHeight });
  const { list, height } = rows(data, view.shown);
  const places = [];
  let last = 0;
  host.cuts = [];
  host.bars = [];
  host.paper = data.paper;
  const names = { tap: "Tap", count: "Count", name: "Name", finger: data.laneName };
  for (const system of systems || locate(host, data)) {
    const bottom = last = system.bottom + height + 8;
    const g = shape("g", {});
    host.cuts.push(system.bottom + height + 4);
    if (!view.chunk.whole) drawChunk(g, system, data, view.chunk, system.bottom + height + 3);
    for (const row of list) {
      const y = system.bottom + row.y;
      const lane = shape("g", { "aria-hidden": "true" });
      lane.append(shape("text", { class: "lane-name", x: 0, y }, names[row.lane]));
      if (row.lane === "tap") drawTaps(lane, system, y);
      if (row.lane === "count") drawCounts(lane, system, y, view.shown.write?.count);
      if (row.lane === "name") drawNames(lane, system, y, view.shown.write?.name);
      if (row.lane === "finger") drawFingerings(lane, system, y, row.height, data);
      g.append(lane);
    }
    drawHand(g, system);
    drawBeyond(g, host, system);
    if (!view.shown.write) drawAlerts(g, system, bottom); // they would tell
    svg.append(g);
    for (const m of system.measures) {
      host.bars.push({ number: data.measures[m.index].number, left: m.left, right: m.right, top: system.over - above, bottom });
      for (const { pulse, x } of m.pulses) places.push({ measure: m.index, pulse, x, top: system.over - 18, bottom });
    }
  }
  svg.querySelector(".touch")?.setAttribute("tabindex", "0");
  host.append(svg);
  host.style.minHeight = `${last + 8}px`;
  svg.setAttribute("height", Math.max(last + 8, host.clientHeight));
  return places;
}

// toPaper makes each system a block of its own, so that no page ends in the middle
// of one: a window of its height on a copy of the whole drawing. The drawing keeps
// the width it was made for and is made smaller as a whole, so that the lanes stay
// under their notes; a little smaller again where it then fits on one page.
function toPaper() {
  const above = 16; // what stands over the first system
  const hosts = [...document.querySelectorAll(".engraving")].filter((host) => host.cuts?.length);
  // All is measured before any is changed, so that the page is laid out once.
  const sizes = hosts.map((host) => sizeOnPaper(host, above));
  for (const [k, host] of hosts.entries()) {
    const { wide, zoom, nextPage } = sizes[k];
    if (nextPage) nextPage.classList.add("next-page");
    const paper = Object.assign(document.createElement("div"), { className: "paper" });
    paper.style.cssText = `width: ${wide + 8}px; zoom: ${zoom}`;
    let top = -above;
    for (const [n, bottom] of host.cuts.entries()) {
      const system = paper.appendChild(Object.assign(document.createElement("div"), { className: "paper-system" }));
      system.style.height = bottom - top + "px";
      const copy = system.appendChild(host.cloneNode(true));
      for (const drawn of ["g.system", "svg.lanes > g"]) {
        [...copy.querySelectorAll(drawn)].forEach((other, k) => { if (k !== n) other.remove(); });
      }
      copy.style.top = -top + "px";
      copy.style.width = wide + "px";
      top = bottom;
    }
    host.after(paper);
    host.classList.add("on-paper");
  }
}

// sizeOnPaper is how wide the music was drawn and how small it is printed. Where the music
// of a sheet and the line under it do not fit on one page, the line is to have its own.
function sizeOnPaper(host, above) {
  const wide = Number(host.querySelector("svg.lanes").getAttribute("width"));
  const height = (music) => music.cuts[music.cuts.length - 1] + above;
  const zoom = Math.min(1, host.paper.width / wide);
  const line = host.closest(".print-sheet")?.querySelector("h3");
  if (!line) {
    const fit = host.paper.height / (zoom * height(host));
    return { wide, zoom: fit < 1 && fit > 0.8 ? zoom * fit : zoom };
  }
  const sheet = host.closest(".print-sheet");
  const beside = [...sheet.querySelectorAll("h3, table, .rungs")].reduce((sum, part) => sum + part.offsetHeight + 12, 0);
  const music = [...sheet.querySelectorAll(".engraving")].reduce((sum, other) => sum + (other.cuts?.length ? height(other) : 0), 0);
  let fit = (host.paper.height - beside) / (zoom * music), nextPage = null;
  if (fit <= 0.7) {
    nextPage = line;
    fit = host.paper.height / (zoom * height(host));
  }
  return { wide, zoom: fit < 1 && fit > 0.7 ? zoom * fit : zoom, nextPage };
}

function fromPaper() {
  for (const paper of document.querySelectorAll(".paper")) paper.remove();
  for (const host of document.querySelectorAll(".on-paper")) host.classList.remove("on-paper");
  for (const line of document.querySelectorAll(".next-page")) line.classList.remove("next-page");
}

window.addEventListener("beforeprint", toPaper);
window.addEventListener("afterprint", fromPaper);

// stepNote moves from note to note in the music, which is a single stop of Tab.
function stepNote(from, step) {
  const notes = [...document.querySelectorAll(".lanes .touch")];
  const next = notes[notes.indexOf(from) + step];
  if (!next) return;
  from.setAttribute("tabindex", "-1");
  next.setAttribute("tabindex", "0");
  next.focus();
}

export { draw, rows, crowding, stepNote, crowdedCounts };
