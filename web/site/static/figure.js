// The large drawings of fingerings, one for each mechanism: what is pressed, and
// with the fingering before it the arrows of what moves. Each part that can be
// pressed carries data-press, so that a drawing also serves to press on.
import { shape } from "./dom.js";


// arrow points down where something is pressed, up where it is lifted.
function arrow(svg, way, x, y) {
  const d = way === "down" ? `M${x - 6} ${y - 5} h12 l-6 10 Z` : `M${x - 6} ${y + 5} h12 l-6 -10 Z`;
  svg.append(shape("path", { class: "moves " + way, d }));
}

function sheet(width, height) {
  return shape("svg", { class: "figure", viewBox: `0 0 ${width} ${height}`, role: "img" });
}

function press(svg, element, key, label, down) {
  const g = shape("g", { "data-press": key, role: "button", "aria-label": label, "aria-pressed": String(down) });
  g.append(...element);
  svg.append(g);
}

// Woodwinds: the six holes down the middle, thumbs at the left of their hand, keys
// of the little fingers at the right, those of the sides between.
const woodwind = {
  state: (event) => new Set(event.drawn.keys || []),
  same: (a, b) => a.size === b.size && [...a].every((key) => b.has(key)),
  toggle(state, key, data) {
    const next = new Set(state);
    const at = Number(key);
    const half = data.keys.find((k) => k.name === "half");
    if (half && data.keys.some((k) => k.at === at && k.name === "1")) { // open, closed, half
      if (next.has(half.at)) next.delete(half.at);
      else if (next.has(at)) { next.delete(at); next.add(half.at); } else next.add(at);
    } else if (next.has(at)) next.delete(at);
    else next.add(at);
    return next;
  },
  // In the panel only what is pressed or moves is drawn, so that it can be read
  // small; on the chart every key is there to be pressed.
  draw(data, state, before, small) {
    const at = small
      ? { width: 172, height: 152, x: 86, first: 14, step: 20, gap: 10, r: 8.5, key: { width: 54, height: 15, step: 16.5, left: 1, right: 117 }, columns: { leftThumb: 14, leftSide: 14, leftLittle: 54, rightThumb: 92, rightSide: 92, rightLittle: 104 } }
      : { width: 236, height: 322, x: 118, first: 42, step: 36, gap: 36, r: 15, key: { width: 74, height: 17, step: 19, left: 2, right: 152 }, columns: { leftThumb: 26, leftSide: 20, leftLittle: 132, rightThumb: 182, rightSide: 182, rightLittle: 236 } };
    const svg = sheet(at.width, at.height);
    const hole = (name) => at.first + (Number(name) - 1) * at.step + (name > "3" ? at.gap : 0);
    svg.append(shape("path", { class: "body", d: `M${at.x} ${small ? 4 : 10} V${hole("6") + at.r + (small ? 4 : 27)}` }));
    if (!small) svg.append(shape("text", { class: "hand", x: at.x, y: 14 }, "left"), shape("text", { class: "hand", x: at.x, y: 160 }, "right"));
    const columns = at.columns;
    const half = data.keys.find((k) => k.name === "half");
    for (const key of data.keys) {
      if (key.name === "half") continue;
      const down = state.has(key.at);
      const moved = before && down !== before.has(key.at) ? (down ? "down" : "up") : "";
      if (key.by === "finger") {
        const y = hole(key.name);
        const halved = key.name === "1" && half && state.has(half.at);
        const wasHalf = key.name === "1" && half && before && before.has(half.at);
        const parts = [shape("circle", { class: "hole" + (down ? " down" : ""), cx: at.x, cy: y, r: at.r })];
        if (halved) parts.push(shape("path", { class: "half", d: `M${at.x} ${y - at.r} a${at.r} ${at.r} 0 0 0 0 ${2 * at.r} Z` }));
        parts.push(shape("text", { class: (down ? "on" : "off") + (small ? " small" : ""), x: halved ? at.x + at.r / 2.5 : at.x, y }, data.hands ? String((Number(key.name) - 1) % 3 + 1) : key.name));
        press(svg, parts, key.at, "finger " + key.name, down);
        const way = halved && before && !wasHalf ? (moved === "up" ? "up" : "down") : wasHalf && !halved ? (down ? "down" : "up") : moved;
        if (way) arrow(svg, way, at.x - at.r - 9, y);
        continue;
      }
      if (small && !down && !moved) continue;
      const side = key.by === "thumb" || (key.by === "side" && key.right);
      const column = (key.right ? "right" : "left") + key.by[0].toUpperCase() + key.by.slice(1);
      const x = side ? at.key.left : at.key.right;
      const y = columns[column];
      columns[column] += at.key.step;
      if (column === "rightThumb") columns.rightSide = columns[column];
      if (column === "leftThumb") columns.rightThumb = Math.max(columns.rightThumb, columns[column]);
      press(svg, [
        shape("rect", { class: "key" + (down ? " down" : ""), x, y: y - at.key.height / 2, width: at.key.width, height: at.key.height, rx: at.key.height / 2 }),
        shape("text", { class: "key-word " + (down ? "on" : "off"), x: x + at.key.width / 2, y: y + .5 }, key.word),
      ], key.at, `${key.right ? "right" : "left"} hand, ${key.word}`, down);
      if (moved) arrow(svg, moved, side ? at.key.left + at.key.width + (small ? 4 : 8) : at.key.right - (small ? 3 : 8), y);
    }
    return svg;
  },
};

// Valves: the pistons side by side, the thumb's before them.
const valves = {
  state: (event) => new Set(event.drawn.down || []),
  same: woodwind.same,
  toggle(state, key) { const next = new Set(state); if (!next.delete(key)) next.add(key); return next; },
  draw(data, state, before) {
    const names = [...(data.thumbSide ? ["T"] : []), ...["1", "2", "3", "4"].slice(0, data.valves || 3)];
    const svg = sheet(24 + 52 * names.length, 190);
    names.forEach((name, i) => {
      const x = 38 + 52 * i;
      const down = state.has(name);
      const top = down ? 62 : 30;
      press(svg, [
        shape("rect", { class: "stem", x: x - 4, y: top + 6, width: 8, height: 84 - top }),
        shape("rect", { class: "casing", x: x - 17, y: 84, width: 34, height: 92, rx: 6 }),
        shape("ellipse", { class: "hole" + (down ? " down" : ""), cx: x, cy: top, rx: 19, ry: 10 }),
        shape("text", { class: "valve-name" + (name === "T" ? " word" : ""), x, y: 130 }, name === "T" ? "thumb" : name),
      ], name, name === "T" ? "thumb" : "valve " + name, down);
      if (before && before.has(name) !== down) arrow(svg, down ? "down" : "up", x, 14);
    });
    return svg;
  },
};

// The slide: seven places along the tube, the bell's rim between third and fourth.
const slide = {
  state: ({ drawn }) => ({ trigger: Boolean(drawn.held), at: drawn.slide, raised: Boolean(drawn.raised) }),
  same: (a, b) => a.trigger === b.trigger && a.at === b.at && a.raised === b.raised,
  toggle(state, key) {
    if (key === "F") return { ...state, trigger: !state.trigger };
    if (key === "+") return { ...state, raised: !state.raised };
    return { ...state, at: Number(key) };
  },
  draw(data, state, before) {
    const svg = sheet(340, 170);
    const x = (n) => 44 + 40 * (n - (n === state.at && state.raised ? .35 : 0));
    const end = x(state.at);
    svg.append(shape("path", { class: "tube", d: `M6 96 H${end} a14 14 0 0 1 0 28 H6` }));
    svg.append(shape("path", { class: "bell", d: "M6 60 H120 C150 60 168 52 178 38 M6 70 H120 C150 70 168 78 178 92" }), shape("text", { class: "hand", x: 178, y: 28 }, "bell"));
    for (let n = 1; n <= 7; n++) {
      const down = n === state.at;
      const at = 44 + 40 * n;
      press(svg, [
        shape("rect", { class: "touch-place", x: at - 20, y: 84, width: 40, height: 76 }),
        shape("circle", { class: "hole" + (down ? " down" : ""), cx: at, cy: 148, r: 13 }),
        shape("text", { class: down ? "on" : "off", x: at, y: 148 }, down && state.raised ? n + "+" : String(n)),
      ], n, "position " + n, down);
    }
    press(svg, [shape("rect", { class: "key" + (state.raised ? " down" : ""), x: 250, y: 6, width: 84, height: 20, rx: 10 }),
      shape("text", { class: "key-word " + (state.raised ? "on" : "off"), x: 292, y: 16 }, "a little in")], "+", "a little in", state.raised);
    if (data.trigger) {
      press(svg, [shape("rect", { class: "key" + (state.trigger ? " down" : ""), x: 8, y: 6, width: 84, height: 20, rx: 10 }),
        shape("text", { class: "key-word " + (state.trigger ? "on" : "off"), x: 50, y: 16 }, "F trigger")], "F", "F attachment", state.trigger);
      if (before && before.trigger !== state.trigger) arrow(svg, state.trigger ? "down" : "up", 104, 16);
    }
    if (before && before.at !== state.at) travel(svg, 44 + 40 * before.at, 110, end, 110);
    return svg;
  },
};

// travel draws an arrow from one place to another, or from so far after the one to
// so far before the other.
function travel(svg, x1, y1, x2, y2, after = 0, before = 0) {
  const long = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [ux, uy] = [(x2 - x1) / long, (y2 - y1) / long];
  [x1, y1, x2, y2] = [x1 + after * ux, y1 + after * uy, x2 - before * ux, y2 - before * uy];
  const [tx, ty] = [x2 - 14 * ux, y2 - 14 * uy];
  svg.append(shape("path", { class: "travel", d: `M${x1} ${y1} L${tx} ${ty}` }),
    shape("path", { class: "moves down", d: `M${tx - 7 * uy} ${ty + 7 * ux} L${tx + 7 * uy} ${ty - 7 * ux} L${x2 - 2 * ux} ${y2 - 2 * uy} Z` }));
}

// Strings: the fingerboard with the nut at the top, a place for every half step.
const strings = {
  state: ({ drawn }) => ({ string: drawn.string, up: drawn.up, finger: drawn.finger }),
  same: (a, b) => a.string === b.string && a.up === b.up,
  toggle(state, key) { const [string, up] = key.split(":").map(Number); return { string, up, finger: "" }; },
  draw(data, state, before) {
    const rows = Math.max(5, state.up, before ? before.up : 0, data.boardRows || 0);
    const step = 26;
    const svg = sheet(200, 66 + step * rows);
    const x = (n) => 34 + 44 * n;
    const y = (up) => (up === 0 ? 33 : 40 + step * (up - .4));
    svg.append(shape("rect", { class: "fingerboard", x: 14, y: 50, width: 172, height: step * rows + 8 }), shape("rect", { class: "nut", x: 12, y: 47, width: 176, height: 5 }));
    data.strings.forEach((s, n) => {
      svg.append(shape("path", { d: `M${x(n)} 50 V${58 + step * rows}`, stroke: s.colour, "stroke-width": 5 - n, fill: "none" }));
      svg.append(shape("text", { class: "string-name", x: x(n), y: 9, style: "fill:" + s.colour }, s.name));
      for (let up = 0; up <= rows; up++) {
        const here = state.string === n && state.up === up;
        const parts = [shape("circle", { class: "spot", cx: x(n), cy: y(up), r: 12.5 })];
        if (here && up === 0) parts.push(shape("circle", { cx: x(n), cy: y(up), r: 9, fill: "none", stroke: s.colour, "stroke-width": 4 }));
        else if (here) {
          parts.push(shape("circle", { cx: x(n), cy: y(up), r: 12.5, fill: s.colour }), shape("text", { class: "finger-name", x: x(n), y: y(up), style: "fill:" + s.ink }, state.finger));
        }
        press(svg, parts, n + ":" + up, `${s.name} string, ${up === 0 ? "open" : up === 1 ? "one half step up" : up + " half steps up"}`, here);
      }
    });
    if (before && !strings.same(before, state)) {
      svg.append(shape("circle", { class: "was", cx: x(before.string), cy: y(before.up), r: 10 }));
      travel(svg, x(before.string), y(before.up), x(state.string), y(state.up));
    }
    return svg;
  },
};

const BLACK = new Set([1, 3, 6, 8, 10]);
const LETTERS = ["C", "", "D", "", "E", "F", "", "G", "", "A", "", "B"];

// Bars: two rows, the ones around the note and the one it comes from.
const bars = {
  state: (event) => ({ midi: event.midi, hand: event.hand }),
  same: (a, b) => a.midi === b.midi,
  toggle: (state, key) => ({ midi: Number(key) }),
  draw(data, state, before) {
    let low = Math.min(state.midi, before ? before.midi : state.midi) - 5;
    let high = Math.max(state.midi, before ? before.midi : state.midi) + 5;
    if (data.lowest) { low = Math.max(low, data.lowest); high = Math.min(high, data.highest); }
    while (BLACK.has(low % 12)) low--;
    while (BLACK.has(high % 12)) high++;
    const whites = [];
    for (let midi = low; midi <= high; midi++) if (!BLACK.has(midi % 12)) whites.push(midi);
    const wide = 26;
    const svg = sheet(8 + wide * whites.length, 190);
    const x = (midi) => (BLACK.has(midi % 12) ? 4 + wide * whites.findIndex((w) => w > midi) : 4 + wide * whites.indexOf(midi) + wide / 2);
    for (let midi = low; midi <= high; midi++) {
      const black = BLACK.has(midi % 12);
      const here = midi === state.midi;
      const parts = [shape("rect", { class: "bar" + (here ? " down" : ""), x: x(midi) - 11, y: black ? 10 : 96, width: 22, height: black ? 74 : 86, rx: 3 })];
      if (LETTERS[midi % 12]) parts.push(shape("text", { class: here ? "on" : "off", x: x(midi), y: 164 }, LETTERS[midi % 12]));
      if (here && state.hand) parts.push(shape("text", { class: "on", x: x(midi), y: black ? 46 : 126 }, state.hand));
      press(svg, parts, midi, "bar " + (LETTERS[midi % 12] || `${LETTERS[(midi + 11) % 12]} sharp or ${LETTERS[(midi + 1) % 12]} flat`), here);
    }
    if (before && before.midi !== state.midi) travel(svg, x(before.midi), BLACK.has(before.midi % 12) ? 70 : 110, x(state.midi), BLACK.has(state.midi % 12) ? 70 : 110);
    return svg;
  },
};

// Timpani: the kettles around the player, the largest at the left.
const KETTLES = [[46, 128], [88, 50], [176, 50], [216, 128]];
const drums = {
  state: ({ drawn }) => ({ drum: drawn.label }),
  same: (a, b) => a.drum === b.drum,
  toggle: (state, key) => ({ drum: key }),
  draw(data, state, before) {
    const svg = sheet(258, 176);
    const radius = (i) => 42 - 4 * i;
    data.drums.forEach((name, i) => {
      const [x, y] = KETTLES[i];
      const here = name === state.drum;
      press(svg, [shape("circle", { class: "hole" + (here ? " down" : ""), cx: x, cy: y, r: radius(i) }),
        shape("text", { class: "kettle " + (here ? "on" : "off"), x, y }, name + "″")], name, name + " inch drum", here);
    });
    if (before && before.drum !== state.drum) {
      const from = data.drums.indexOf(before.drum);
      const to = data.drums.indexOf(state.drum);
      travel(svg, ...KETTLES[from], ...KETTLES[to], radius(from) - 12, radius(to));
    }
    return svg;
  },
};

// Sticks: the two hands.
const sticks = {
  state: ({ drawn }) => ({ small: drawn.small || "", stroke: drawn.stroke }),
  same: (a, b) => a.small === b.small && a.stroke === b.stroke,
  toggle: (state) => state,
  draw(data, state) {
    const svg = sheet(190, 110);
    [["L", 50], ["R", 140]].forEach(([hand, x]) => {
      const here = state.stroke === hand;
      const small = state.small.includes(hand.toLowerCase());
      svg.append(shape("circle", { class: "hole" + (here ? " down" : ""), cx: x, cy: 56, r: here ? 34 : small ? 18 : 26 }),
        shape("text", { class: here ? "on" : "off", x, y: 56 }, here ? hand : small ? state.small : hand));
    });
    return svg;
  },
};

const all = { woodwind, valves, slide, strings, bars, drums, sticks };

// of draws an event's fingering, with what moves when the event before is given.
function of(event, data, before) {
  if (!event.fingering) return document.createTextNode("");
  const drawing = all[data.mechanism];
  const svg = drawing.draw(data, drawing.state(event, data), before && before.fingering ? drawing.state(before, data) : null, true);
  svg.setAttribute("aria-label", event.said);
  for (const g of svg.querySelectorAll("[data-press='+']")) if (!event.drawn.raised) g.remove();
  for (const g of svg.querySelectorAll("[data-press]")) { g.removeAttribute("role"); g.removeAttribute("aria-pressed"); g.removeAttribute("aria-label"); }
  return svg;
}

export { all, of };
