// A led run: its moves one after the other, spoken, sounded and shown, until it is stopped. It
// never waits for a mark; it goes on by itself.
import { element, shape } from "./dom.js";
import * as Engraver from "./engrave.js";
import * as Figures from "./figure.js";
import * as Lanes from "./lanes.js";
import * as Passes from "./passes.js";
import * as Sheets from "./sheet.js";
import * as Spoken from "./spoken.js";
import { stepped } from "./tempo.js";
import * as Voices from "./voices.js";

const patience = 1500; // milliseconds for a browser to let the page sound
const smallest = 0.7; // share of its size that music may be shrunk to
const settles = 0.4;  // before the first word of a move
const signs = { count: "M8 3a5 5 0 1 0 .01 0z", name: "M2 5h12v6H2z", finger: "M8 2l6 6-6 6-6-6z", play: "M3 6l5-4 5 4v8H3z" };

// Walk leads a run on a stage of the page. done is called when it ends.
export class Walk {
  constructor(host, data, { done, answered } = {}) {
    Object.assign(this, { host, data, run: data.run, done, answered, k: 0, tempo: data.run.tempo, drawn: [], shownChunk: "", turn: 0 });
    this.part = (selector) => host.querySelector(selector);
    this.onKey = (event) => this.key(event);
    this.onClick = (event) => this.press(event);
  }

  // begin opens the stage and the sound. It is for a press.
  async begin() {
    this.host.hidden = false;
    document.documentElement.classList.add("walking");
    document.addEventListener("keydown", this.onKey, true);
    this.host.addEventListener("click", this.onClick);
    this.part(".walk-end").hidden = true;
    this.host.dataset.parts = this.data.parts.length;
    this.frame();
    this.host.focus();
    this.awake();
    this.context = new AudioContext();
    await Promise.race([this.context.resume().catch(() => {}), new Promise((resolve) => setTimeout(resolve, patience))]);
    this.silent = this.context.state !== "running"; // it is shown without sound
    const quiet = (coming) => coming.catch(() => null); // what does not come is shown all the same
    [this.click, this.spoken, ...this.voices] = await Promise.all([
      quiet(Voices.load(Voices.click)), quiet(Spoken.load(this.data.voice)), ...this.data.parts.map((part) => quiet(Voices.load(part.voice))),
    ]);
    if (this.silent) { this.click = this.spoken = null; this.voices = this.voices.map(() => null); }
    if (!this.host.hidden) this.move(0);
  }

  // awake keeps the screen lit while the run goes on.
  async awake() {
    try { this.lock = await navigator.wakeLock?.request("screen"); } catch { this.lock = null; }
  }

  stop() {
    this.hush();
    this.turn++;
    cancelAnimationFrame(this.following);
    document.removeEventListener("keydown", this.onKey, true);
    this.host.removeEventListener("click", this.onClick);
    document.documentElement.classList.remove("walking");
    this.host.hidden = true;
    this.lock?.release?.();
    this.context?.close();
    this.context = null;
    this.done?.(this.finished);
  }

  hush() {
    this.out?.disconnect();
    this.out = null;
  }

  now() { return this.run.moves[this.k]; }

  // clock is the time in seconds: the sound's, or where there is none, the page's.
  clock() { return this.silent ? performance.now() / 1000 : this.context.currentTime; }

  // frame writes what stays: the stages and the shares of the line.
  frame() {
    const stages = [];
    for (const move of this.run.moves) if (!stages.some((s) => s.stage === move.stage)) stages.push(move);
    const list = this.run.moves.some((m) => m.act === "listen") ? [{ word: "Listen", form: "listen", stage: "" }, ...stages] : stages;
    this.part(".walk-stages").replaceChildren(...list.map((stage) => {
      const item = element("li", stage.form, "");
      item.dataset.stage = stage.stage;
      const svg = shape("svg", { viewBox: "0 0 16 16", "aria-hidden": "true" });
      svg.append(shape("path", { d: signs[stage.form] || "M3 8a5 5 0 0 1 10 0M3 8v4M13 8v4" , class: signs[stage.form] ? "" : "line" }), shape("path", { class: "tick", d: "M3 8l4 4 6-8" }));
      item.append(svg, element("span", "", stage.word));
      return item;
    }));
    this.part(".walk-bar").replaceChildren(...this.run.moves.map(() => element("i", "", "")));
  }

  // move begins a pass: its words first, but where it is taken again.
  async move(k, again) {
    this.hush();
    const mine = ++this.turn;
    this.k = k;
    const m = this.now();
    this.show(m);
    if (!this.context) return;
    const out = this.out = new GainNode(this.context, { gain: 0.9 });
    out.connect(this.context.destination);
    this.lay(m, out, again);
    cancelAnimationFrame(this.following);
    this.follow(mine);
    await this.draw(m, mine); // while it speaks
  }

  // lay puts everything that sounds in a pass on the clock.
  lay(m, out, again) {
    const plan = Passes.timed(this.data, this.spoken, m, { zero: this.clock() + settles, tempo: this.tempo, again });
    Passes.sound(this.data, plan, out, this);
    Object.assign(this, { steps: plan.steps, ends: plan.ends, over: plan.over });
  }

  // follow shows each step when it is heard, and goes on when the silence is over.
  follow(mine) {
    if (mine !== this.turn || !this.context) return;
    const now = this.clock() - (this.silent ? 0 : this.context.outputLatency || 0);
    let step = null;
    while (this.steps.length && this.steps[0].time <= now) { step = this.steps.shift(); this.step(step); }
    this.host.classList.toggle("walk-gap", now >= this.ends);
    if (now >= this.ends) for (const cursor of this.part(".walk-music").querySelectorAll(".cursor")) cursor.remove();
    if (now >= this.over) { this.next(); return; }
    this.following = requestAnimationFrame(() => this.follow(mine));
  }

  next() {
    if (this.k + 1 < this.run.moves.length) this.move(this.k + 1);
    else this.finish();
  }

  step(step) {
    const m = this.now();
    const cues = [...this.part(".walk-count").children];
    cues.forEach((cue, k) => cue.classList.toggle("now", m.countOff[k] === step.cue));
    if (step.cue) return;
    this.host.classList.toggle("walk-yours", step.who === "alone");
    this.part(".walk-count").hidden = true;
    if (this.data.parts.length > 1) this.turnTo(step.measure);
    for (const drawn of this.drawn) this.cursor(drawn, step);
    this.large(m, step);
  }

  cursor({ host, places, kept }, step) {
    const place = places.find((p) => kept[p.measure] === step.measure && Math.abs(p.pulse.at - step.at) < 1e-6);
    const svg = host.querySelector("svg.lanes");
    if (!svg) return;
    if (!place) { svg.querySelector(".cursor")?.remove(); return; }
    let cursor = svg.querySelector(".cursor");
    if (!cursor) {
      cursor = shape("rect", { class: "cursor", width: 30, rx: 6 });
      svg.prepend(cursor);
    }
    for (const [name, value] of Object.entries({ x: place.x - 15, y: place.top, height: place.bottom - place.top })) cursor.setAttribute(name, value);
    const room = this.part(".walk-music");
    if (this.data.parts.length > 1) return; // all stand there
    const top = host.offsetTop + place.top, bottom = host.offsetTop + place.bottom;
    if (top < room.scrollTop || bottom > room.scrollTop + room.clientHeight) room.scrollTop = Math.max(0, top - 20);
  }

  // large writes what is said now, or draws the hand.
  large(m, step) {
    const large = this.part(".walk-large");
    if (large.hidden) return;
    const sheet = this.data.parts[0].sheet;
    if (m.form === "count") {
      const text = step.pulse.text;
      if (text) large.replaceChildren(element("b", "count", text.replace(/[()[\]]/g, "")));
      large.classList.toggle("held", step.pulse.look !== "struck");
      return;
    }
    const event = sheet.measures[step.measure].events.find((e) => Math.abs(e.at - step.at) < 1e-6);
    if (!event) return;
    if (m.hand && event.fingering) {
      const figure = element("div", "drawing", "");
      figure.append(Figures.of(event, sheet, null));
      large.replaceChildren(figure, element("b", "name", event.spoken || event.name));
    } else {
      large.replaceChildren(element("b", "name", event.spoken || event.name));
    }
  }

  // show writes what a move is.
  show(m) {
    const where = this.run.title + (m.where === "the line" ? "" : ", " + m.where);
    this.part(".walk-line").textContent = where;
    [...this.part(".walk-bar").children].forEach((bit, k) => { bit.className = k < this.k ? "done" : k === this.k ? "now" : ""; });
    const left = this.run.moves.slice(this.k).reduce((sum, one) => sum + one.ends + one.gap - one.at, 0) * this.run.tempo / this.tempo / 60;
    this.part(".walk-left").textContent = left < 1 ? "the last minute" : `${Math.round(left)} min left`;
    const listening = m.act === "listen";
    const stages = [...this.part(".walk-stages").children];
    const at = stages.findIndex((s) => (listening ? s.dataset.stage === "" : s.dataset.stage === m.stage));
    stages.forEach((s, k) => { s.classList.toggle("now", k === at); s.classList.toggle("done", k < at); if (k === at) s.setAttribute("aria-current", "step"); else s.removeAttribute("aria-current"); });
    this.host.dataset.form = listening ? "listen" : m.form;
    this.part(".walk-with").textContent = { heard: "Listen", together: "Together", alone: this.data.parts.length > 1 ? "Without me" : "On your own" }[m.with];
    this.part(".walk-says").textContent = m.says;
    this.part(".walk-mind").textContent = [...(m.minds || []), m.again || ""].join(" ").trim();
    this.part(".walk-count").hidden = false;
    const cue = { breath: "breathe", bow: "bows up", sticks: "sticks up" }[m.cue];
    this.part(".walk-count").replaceChildren(...m.countOff.map((c) => {
      const item = element("li", c.beat ? "" : "between", c.word);
      if (c.breath) item.append(element("small", "", cue));
      return item;
    }));
    this.part(".walk-large").replaceChildren();
    this.part(".walk-large").hidden = this.data.parts.length > 1;
    const back = this.before();
    this.part("[data-walk=back]").disabled = back < 0;
    this.part(".walk-back-to").textContent = back < 0 ? "" : "to " + (this.run.moves[back].act === "listen" ? "Listen" : this.run.moves[back].word);
    this.sayTempo();
  }

  sayTempo() {
    const slower = stepped(this.data.scale, this.tempo, -1);
    this.part(".walk-tempo").textContent = `${this.run.beat} = ${slower}`;
  }

  // draw has the chunk of a move engraved, where another stood there, and draws its lanes.
  async draw(m, mine) {
    if (this.shownChunk !== m.chunk) {
      this.shownChunk = m.chunk;
      this.engraved = this.engrave(m);
    }
    await this.engraved;
    if (mine !== this.turn) return;
    const shown = this.lanes((lane) => m.shows.includes(lane));
    for (const drawn of this.drawn) {
      if (!drawn.systems) continue;
      drawn.places = Lanes.draw(drawn.host, drawn.sheet, { shown, chunk: { plan: [], whole: true, label: "" } }, drawn.systems);
      if (shown.finger) drawn.others.forEach((other, n) => writeFingers(drawn, other, n));
    }
    this.turnTo(m.passages[0].index);
    this.part(".walk-music").scrollTop = 0;
  }

  // turnTo shows the page that a measure stands on.
  turnTo(measure) {
    for (const page of this.part(".walk-music").children) page.classList.toggle("other", !page.kept.includes(measure));
  }

  // lanes are those that a place is kept for; on a wall nobody reads the taps.
  lanes(wanted) {
    return Object.fromEntries(["tap", "count", "name", "finger"].map((lane) => [lane, wanted(lane) && (lane !== "tap" || this.data.parts.length === 1)]));
  }

  // engrave writes the chunk of a move for each part, with room for its lanes; smaller where
  // the room is a little too low for it. Several parts turn pages of a system together.
  async engrave(m) {
    const room = this.part(".walk-music"), measures = [...new Set(m.passages.map((s) => s.index))].sort((a, b) => a - b);
    room.replaceChildren();
    const list = this.drawn = [], pages = this.data.parts.length > 1 ? inPages(measures, this.data.parts[0].sheet, (room.clientWidth - 260) / 58) : [measures];
    for (const [n, kept] of pages.entries()) {
      const page = element("div", n ? "walk-leaf other" : "walk-leaf", "");
      page.kept = kept;
      room.append(page);
      for (const part of this.data.parts) {
        const row = element("div", "walk-part", ""), host = element("div", "engraving", "");
        if (this.data.parts.length > 1) row.append(this.firsts(part));
        row.append(host);
        page.append(row);
        list.push({ host, sheet: cut(part.sheet, kept), kept, systems: null, places: [], others: part.others || [] });
        row.style.paddingBottom = `${18 * (part.others || []).length}px`;
      }
    }
    await this.write(list, 1);
    const share = room.clientHeight / Math.max(...[...room.children].map((page) => page.scrollHeight + 30));
    if (this.drawn === list && share < 1) await this.write(list, Math.max(smallest, share * 0.94));
  }

  // write engraves each part at a share of its size, unless another chunk is at hand meanwhile.
  async write(list, share) {
    const scale = [64, 64, 50, 44, 40][this.data.parts.length];
    const room = this.lanes((lane) => lane === "name" || lane === "finger"); // no move shows more than two, and these are the highest
    for (const drawn of list) {
      try {
        drawn.systems = await Sheets.engrave(drawn.host, drawn.sheet, room, { minLastJustification: 0, scale: Math.round(scale * share), phone: Math.round(50 * share), whole: true, airy: 1.3 });
        if (drawn.systems) drawn.places = Lanes.draw(drawn.host, drawn.sheet, { shown: room, chunk: { plan: [], whole: true, label: "" } }, drawn.systems);
      } catch (problem) {
        Engraver.failed(problem);
      }
      if (this.drawn !== list) return;
    }
  }

  firsts(part) {
    const list = element("div", "walk-firsts", "");
    for (const who of part.with) {
      const line = element("p", "", "");
      line.append(element("b", "", who.name), " starts on ", element("b", "first", who.first), " ", element("span", "way", who.finger || ""));
      list.append(line);
    }
    return list;
  }

  // before is the move that a step back leads to: the last of the stage before this one.
  before() {
    const m = this.now();
    for (let k = this.k - 1; k >= 0; k--) {
      const other = this.run.moves[k];
      if (other.stage !== m.stage || other.chunk !== m.chunk || other.act !== m.act) {
        let first = k; // where that stage began
        while (first > 0 && this.run.moves[first - 1].stage === other.stage && this.run.moves[first - 1].chunk === other.chunk && this.run.moves[first - 1].act === other.act) first--;
        return first;
      }
    }
    return -1;
  }

  key(event) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const does = { " ": "again", PageDown: "again", ArrowRight: "on", ArrowLeft: "back", PageUp: "back", "[": "slower", "]": "faster", Escape: "stop" }[event.key];
    if (!does) return;
    if (event.key === " " && event.target.closest?.("button, select, input, summary, a")) return; // it presses that
    event.preventDefault();
    event.stopPropagation();
    this.does(does);
  }

  press(event) {
    const hit = event.target.closest("[data-walk]");
    if (hit) this.does(hit.dataset.walk);
  }

  does(what) {
    const over = !this.part(".walk-end").hidden;
    if (what === "stop") { this.stop(); return; }
    if (over) return;
    if (what === "again") this.move(this.k, true);
    if (what === "on") this.next();
    if (what === "back" && this.before() >= 0) this.move(this.before());
    if (what === "slower" || what === "faster") {
      this.tempo = stepped(this.data.scale, this.tempo, what === "slower" ? -1 : 1);
      this.move(this.k, true);
    }
  }

  // finish asks its question, and then how it was.
  finish() {
    this.finished = true;
    this.hush();
    this.turn++;
    const end = this.part(".walk-end"), q = this.run.question;
    end.hidden = false;
    this.host.dataset.form = "end";
    [...this.part(".walk-bar").children].forEach((bit) => { bit.className = "done"; });
    this.part(".walk-left").textContent = "";
    this.part(".walk-answer").textContent = "";
    this.part(".walk-after").replaceChildren();
    this.part(".walk-question").textContent = q ? q.text : "That was the line.";
    this.part(".walk-choices").replaceChildren(...(q?.choices || []).map((text, k) => {
      const button = element("button", "btn quiet", text);
      button.type = "button";
      button.addEventListener("click", () => this.answer(k));
      return button;
    }));
    if (!q) this.closing();
    (this.part(".walk-choices button") || this.part(".walk-stop")).focus();
  }

  answer(k) {
    const q = this.run.question, right = k === q.answer;
    this.part(".walk-answer").textContent = right ? q.right : q.wrong;
    for (const button of this.part(".walk-choices").children) button.disabled = true;
    this.answered?.(right, q);
    this.closing();
  }

  closing() {
    const once = element("button", "btn main", "Once more");
    once.type = "button";
    once.addEventListener("click", () => { this.part(".walk-end").hidden = true; this.move(this.run.moves.length - 1); });
    const close = element("button", "btn quiet", "Done");
    close.type = "button";
    close.addEventListener("click", () => this.stop());
    const after = this.part(".walk-after");
    after.replaceChildren(once, close);
    const mark = document.getElementById("walk-mark");
    if (mark) { mark.hidden = false; after.prepend(mark); }
    once.focus();
  }
}

// inPages parts measures into as many as stand in one system: four, fewer where they hold more
// notes than there is room for.
function inPages(measures, sheet, most) {
  const pages = [[]];
  let notes = 0;
  for (const k of measures) {
    const more = sheet.measures[k].events.length, page = pages[pages.length - 1];
    if (page.length && (page.length === 4 || notes + more > most)) { pages.push([k]); notes = more; } else { page.push(k); notes += more; }
  }
  return pages;
}

// writeFingers writes how another instrument fingers the music, under the lanes.
function writeFingers({ host, sheet, places }, other, n) {
  const svg = host.querySelector("svg.lanes");
  sheet.measures.forEach((measure, index) => {
    for (const event of measure.events) {
      const place = places.find((p) => p.measure === index && Math.abs(p.pulse.at - event.at) < 1e-6);
      if (place && other.fingers[event.id]) svg.append(shape("text", { class: "f", x: place.x, y: place.bottom + 8 + 18 * n }, other.fingers[event.id]));
    }
  });
  const first = places[0];
  if (first) svg.append(shape("text", { class: "lane-name", x: 0, y: first.bottom + 8 + 18 * n }, other.name));
  svg.style.overflow = "visible";
}

// cut is a sheet of some measures alone, by their indexes.
export function cut(sheet, kept) {
  const music = new DOMParser().parseFromString(sheet.mei, "text/xml");
  const ids = new Set(kept.map((k) => sheet.measures[k].id));
  for (const measure of [...music.getElementsByTagName("measure")]) if (!ids.has(measure.getAttribute("xml:id"))) measure.remove();
  for (const empty of [...music.getElementsByTagName("ending")]) if (!empty.getElementsByTagName("measure").length) empty.remove();
  return { ...sheet, mei: new XMLSerializer().serializeToString(music), measures: kept.map((k) => sheet.measures[k]) };
}
