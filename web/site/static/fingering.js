// The small drawings of fingerings in the lanes, one for each mechanism. Each has
// the height of its lane, the width an event needs, and a function that draws it
// centred on x and y. The large ones are in figure.js.
import { shape } from "./dom.js";


// Valves and slide: the numbers in a ring.
const ring = {
  height: 29,
  width: ({ drawn: { label } }) => (label.length < 3 ? 21 : 8 + 4.6 * label.length),
  mark(g, event, x, y) {
    const text = event.drawn.label;
    const width = this.width(event);
    g.append(shape("rect", { class: "f-ring" + (event.minded ? " minded" : ""), x: x - width / 2, y: y - 12, width, height: 24, rx: 12 }));
    g.append(shape("text", { class: text.length < 2 ? "f" : "f f-bar", x, y }, text));
  },
};

// Bars: the name of the bar over the hand that strikes it.
const bars = {
  height: 46,
  width: ({ drawn: { label } }) => 7 + 6.2 * label.length,
  mark(g, event, x, y) {
    const width = this.width(event);
    g.append(shape("rect", { class: "f-ring", x: x - width / 2, y: y - 23, width, height: 24, rx: 3 }));
    g.append(shape("text", { class: "f f-bar", x, y: y - 11 }, event.drawn.label));
    if (event.hand) g.append(shape("text", { class: "f-string", x, y: y + 13 }, event.hand));
    if (event.hand && event.roll) rolled(g, x + 9, y + 13);
  },
};

// rolled draws the strokes of a roll.
function rolled(g, x, y) {
  g.append(shape("path", { class: "f-roll", d: [-4, 0, 4].map((up) => `M${x - 4} ${y + up + 2} l8 -4`).join(" ") }));
}

// Drums: the size of the kettle in a round.
const drums = {
  height: 48,
  width: () => 24,
  mark(g, event, x, y) {
    g.append(shape("circle", { class: "f-ring" + (event.minded ? " minded" : ""), cx: x, cy: y - 9, r: 11.5 }));
    g.append(shape("text", { class: "f f-long", x, y: y - 9 }, event.drawn.label));
    if (event.hand) g.append(shape("text", { class: "f-string", x, y: y + 16 }, event.hand));
    if (event.hand && event.roll) rolled(g, x + 9, y + 16);
  },
};

// Sticks: the hand, small strokes small before it, and the strokes of a roll.
const sticks = {
  height: 40,
  width: ({ drawn, roll }) => (roll ? 30 + (roll === "long" ? 12 : 0) : 15 + 6 * (drawn.small || "").length),
  mark(g, event, x, y) {
    const { small, stroke } = event.drawn;
    if (small) g.append(shape("text", { class: "f-key f-small", x: x - 7, y: y - 7 }, small));
    g.append(shape("text", { class: "f", x: small ? x + 2 : x, y: y - 6 }, stroke));
    if (event.roll) {
      const long = event.roll === "long" ? 9 : 0;
      if (event.roll !== "all") g.append(shape("text", { class: "f-string", x: x - 5 - long, y: y + 11 }, event.roll));
      rolled(g, x + 10, y + 11);
    }
  },
};

// Strings: the finger over the string's letter on its colour, and a position other
// than the first beside it. Where two notes on one string in one position stand too
// close for both, a line from the first says that it goes on.
const strings = {
  height: 43,
  width: ({ drawn }) => Math.max(18, fingerWidth(drawn), chipWidth(drawn.chip)),
  apart(a, b) {
    const next = sameString(a, b) ? fingerWidth(b.drawn) : this.width(b);
    return (this.width(a) + next) / 2;
  },
  mark(g, event, x, y, height, data, before) {
    const { finger, chip } = event.drawn;
    const string = data.strings[event.drawn.string];
    const width = chipWidth(chip);
    g.append(shape("text", { class: "f", x, y: y - 11 }, finger));
    if (before && sameString(before.event, event) && x - before.x < width + 1) {
      g.prepend(shape("path", { class: "f-goes-on", d: `M${before.x} ${y + 9.5} H${x + 6}`, stroke: string.colour }));
      return;
    }
    g.append(shape("rect", { class: "f-chip", x: x - width / 2, y: y, width, height: 19, rx: 4, fill: string.colour }));
    g.append(shape("text", { class: "f-chip-text", x, y: y + 10, style: "fill:" + string.ink }, chip.replace(" ", "\u200a")));
  },
};

// What stands in a chip is written close: a letter and, after a thin space, a position.
const chipWidth = (chip) => 9 + 8 * chip.replace(" ", "").length + (chip.includes(" ") ? 1 : 0);

const fingerWidth = (drawn) => 9 * drawn.finger.length + 5;

const sameString = (a, b) => a.drawn.string === b.drawn.string && a.drawn.chip === b.drawn.chip;

// Woodwinds: six holes downwards, the left hand's first; the thumb, where there
// is one for it, beside the first; the names of other keys beside the hand that
// presses them, those of the thumb on the left.
const woodwind = {
  height: 52,
  // The keys of a hand stand beside its own holes: only what is at the same height is in the way.
  apart({ drawn: { left = [], right = [] } }, next, data) {
    const beside = (keys) => Math.max(5, ...keys.map((key) => 6 + keyWidth(key)));
    return Math.max(beside(left) + (data.thumb ? 14 : 5), beside(right) + 5);
  },
  width({ drawn: { left = [], right = [] } }) {
    return 20 + Math.max(0, ...[...left, ...right].map(keyWidth));
  },
  mark(g, event, x, y, height, data) {
    const { holes = [], half, thumb, byIt, left = [], right = [] } = event.drawn;
    const step = (height - 12) / 6.4;
    const top = y - height / 2 + 6;
    for (let i = 0; i < 6; i++) {
      const cy = top + i * step + (i > 2 ? 4 : 0);
      g.append(shape("circle", { class: "f-hole" + (holes[i] ? " down" : ""), cx: x, cy, r: 3.1 }));
      if (i === 0 && half) g.append(shape("path", { class: "f-half", d: `M${x} ${cy - 3.1} a3.1 3.1 0 0 0 0 6.2 Z` }));
    }
    if (data.thumb) g.append(shape("circle", { class: "f-hole" + (thumb ? " down" : ""), cx: x - 10, cy: top + 3, r: 3 }));
    if (byIt) g.append(shape("text", { class: "f-key", x: x - 13, y: top + 14 }, byIt));
    const label = (key, at) => g.append(shape("text", { class: "f-key f-side", x: x + 6, y: at }, key));
    left.forEach((key, i) => label(key, top + 2 + 11 * i));
    right.forEach((key, i) => label(key, top + 3 * step + 8 + 11 * i));
  },
};

// keyWidth is how wide the name of a key is written; a flat or sharp is narrow.
const keyWidth = (key) => [...key].reduce((sum, letter) => sum + ("♭♯".includes(letter) ? 4.5 : 6.2), 0);

export { ring as valves, ring as slide, bars, drums, sticks, strings, woodwind };
