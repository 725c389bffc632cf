// The small drawings of fingerings, one for each mechanism. Each has the width
// it needs and a function that draws it centred on x and y.
window.fingering = (function () {
  "use strict";

  const make = (...args) => window.lanes.make(...args);

  // Valves and slide: the numbers in a ring.
  const ring = {
    height: 32,
    width: (text) => (text.length < 3 ? 23 : 10 + 6 * text.length),
    mark(g, text, x, y) {
      const width = this.width(text);
      g.append(make("rect", { class: "f-ring", x: x - width / 2, y: y - 12, width, height: 24, rx: 12 }));
      g.append(make("text", { class: text.length < 3 ? "f" : "f f-long", x, y }, text));
    },
  };

  const sticks = {
    height: 28,
    width: () => 13,
    mark(g, text, x, y) { g.append(make("text", { class: "f", x, y }, text)); },
  };

  // Strings: the finger over the string's letter, and a position other than the
  // first beside it.
  const strings = {
    height: 42,
    width: (text) => (text.includes("(") ? 40 : 9 * (text.replace(" ", "").length - 1) + 5),
    mark(g, text, x, y) {
      const [place, position] = text.replace(")", "").split("(");
      g.append(make("text", { class: "f", x, y: y - 9 }, place.slice(1).trim()));
      g.append(make("text", { class: "f-string", x, y: y + 9 }, position ? place[0] + " " + position : place[0]));
    },
  };

  // Woodwinds: six holes downwards, the left hand's first; the thumb, where there
  // is one for it, beside the first; the names of other keys beside the hand that
  // presses them, those of the thumb on the left.
  const thumbKeys = /^(R|oct|oct1|oct2|TBb)$/;
  const woodwind = {
    height: 68,
    width(text) {
      const [left, right] = text.split("|").map((hand) => hand.trim().split(" ").filter((key) => key && !/^([T1-6]|half)$/.test(key) && !thumbKeys.test(key)));
      const longest = Math.max(0, ...[...left, ...right].map((key) => short(key).length));
      return 21 + 6 * longest;
    },
    mark(g, text, x, y, height, data) {
      const [left, right] = text.split("|").map((hand) => hand.trim().split(" ").filter(Boolean));
      const pressed = new Set([...left, ...right]);
      const step = (height - 12) / 6.4;
      const top = y - height / 2 + 7;
      ["1", "2", "3", "4", "5", "6"].forEach((finger, i) => {
        const cy = top + i * step + (i > 2 ? 4 : 0);
        g.append(make("circle", { class: "f-hole" + (pressed.has(finger) ? " down" : ""), cx: x, cy, r: 3.6 }));
        if (i === 0 && pressed.has("half")) g.append(make("path", { class: "f-half", d: `M${x} ${cy - 3.6} a3.6 3.6 0 0 0 0 7.2 Z` }));
      });
      if (data.thumb) g.append(make("circle", { class: "f-hole" + (pressed.has("T") || pressed.has("TBb") ? " down" : ""), cx: x - 10, cy: top + 3, r: 3 }));
      left.filter((key) => thumbKeys.test(key)).forEach((key) => g.append(make("text", { class: "f-key", x: x - 12, y: top + 14 }, { oct: "8", oct1: "8¹", oct2: "8²", TBb: "B♭" }[key] || key)));
      const label = (key, at) => g.append(make("text", { class: "f-key f-side", x: x + 6, y: at }, short(key)));
      left.filter((key) => !/^([T123]|half)$/.test(key) && !thumbKeys.test(key)).forEach((key, i) => label(key, top + 2 + 11 * i));
      right.filter((key) => !/^[456]$/.test(key)).forEach((key, i) => label(key, top + 3 * step + 8 + 11 * i));
    },
  };

  function short(key) { return key.replace(/^[LR]-/, "").replace(/side|palm|high/, (word) => word[0]).replace("#", "♯").replace(/b$/, "♭"); }

  return { valves: ring, slide: ring, bars: ring, sticks, strings, woodwind };
})();
