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

  // Strings: the finger over the string's letter.
  const strings = {
    height: 42,
    width: (text) => 9 * (text.replace(" ", "").length - 1) + 5,
    mark(g, text, x, y) {
      g.append(make("text", { class: "f", x, y: y - 9 }, text.slice(1).trim()));
      g.append(make("text", { class: "f-string", x, y: y + 9 }, text[0]));
    },
  };

  // The clarinet: thumb and register key on top, six holes downwards, the names
  // of other keys beside the hand that presses them.
  const woodwind = {
    height: 68,
    width: (text) => (/[A-Za-z]-|side|sliver|G#|A/.test(text) ? 30 : 21),
    mark(g, text, x, y, height) {
      const [left, right] = text.split("|").map((hand) => hand.trim().split(" ").filter(Boolean));
      const pressed = new Set([...left, ...right]);
      const step = (height - 12) / 6.4;
      const top = y - height / 2 + 7;
      ["1", "2", "3", "4", "5", "6"].forEach((finger, i) => {
        g.append(make("circle", { class: "f-hole" + (pressed.has(finger) ? " down" : ""), cx: x, cy: top + i * step + (i > 2 ? 4 : 0), r: 3.6 }));
      });
      g.append(make("circle", { class: "f-hole" + (pressed.has("T") ? " down" : ""), cx: x - 10, cy: top + 3, r: 3 }));
      if (pressed.has("R")) g.append(make("text", { class: "f-key", x: x - 11, y: top + 14 }, "R"));
      left.filter((key) => !/^[TR123]$/.test(key)).forEach((key, i) => g.append(make("text", { class: "f-key", x: x + 11, y: top + 6 + 11 * i }, short(key))));
      right.filter((key) => !/^[456]$/.test(key)).forEach((key, i) => g.append(make("text", { class: "f-key", x: x + 11, y: top + 3 * step + 8 + 11 * i }, short(key))));
    },
  };

  function short(key) { return key.replace(/^[LR]-/, "").replace("side", "s").replace("#", "♯").replace(/b$/, "♭"); }

  return { valves: ring, slide: ring, sticks, strings, woodwind };
})();
