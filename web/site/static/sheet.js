// Engraves a part so that the lanes under it have room. Where they stand is for lanes.js.
import * as Engraver from "./engrave.js";
import * as Lanes from "./lanes.js";

const touching = 1.05; // from which crowding on the signs of neighbours touch
let drawing = 0;       // counts what is drawn: what was begun before gives way

// engrave draws the music of a part into an element and gives where its systems lie, or
// nothing where other music has begun to be drawn. The music is drawn once in a line, to
// see how wide its measures are and how much wider their names and fingerings need them,
// and then in systems that have room. Between the drawings the page answers keys.
async function engrave(element, data, shown, engraver = { minLastJustification: 0 }) {
  const narrow = element.clientWidth < 520;
  const bowed = data.measures.some((m) => m.events.some((e) => e.bow));
  const lanesHeight = Lanes.rows(data, shown).height + (bowed ? 8 : 0);
  const { scale: wanted, phone, spacing, whole, airy, ...others } = engraver;
  const close = touching / (airy || 1); // how close signs may come, airy times as far apart as they must
  const scale = narrow ? phone || 36 : wanted || 46;
  element.style.paddingLeft = narrow ? "44px" : "60px";
  const turn = ++drawing;
  await document.fonts.ready;
  const canvas = element.querySelector(".canvas") || element.appendChild(Object.assign(document.createElement("div"), { className: "canvas" }));
  const draw = async (mei, options) => {
    await new Promise((resolve) => setTimeout(resolve));
    if (turn !== drawing) return null;
    await Engraver.draw(canvas, mei, { scale, engraver: Object.assign({
      svgAdditionalAttribute: ["staff@n"], spacingNonLinear: 0.85, spacingLinear: 0.05,
      ...spacing, ...roomUnder(lanesHeight, scale), justifyVertically: false,
    }, options) });
    const svg = canvas.querySelector("svg");
    if (whole && options.breaks === "none") svg.style.maxWidth = svg.getAttribute("width"); // a line that is short stays so
    return Lanes.crowding(element, data, shown, Boolean(airy));
  };
  const line = await draw(data.mei, { breaks: "none", pageWidth: 100000, adjustPageWidth: true, svgViewBox: false });
  if (!line) return null;
  let drawn = null;
  for (let room = canvas.clientWidth - 4, tries = 0; tries < 3; tries++, room *= 0.9) {
    drawn = await draw(broken(data, line, room, close), { breaks: "encoded", ...others });
    if (!drawn) return null;
    if (Math.max(...drawn.map((m) => m.crowded)) <= close + 0.01) break;
  }
  element.classList.add("ruled");
  hideRuler(canvas);
  repaint(canvas);
  return drawn.systems;
}

// broken is the music with a new system wherever the next measure would not have room:
// the widest-needing measure of a system stretches all of it. A last system of one
// measure takes another one to it.
function broken(data, line, room, close) {
  const clef = Math.max(0, line[0].lead - 14);
  const systems = [];
  let now = null;
  line.forEach((m, index) => {
    const width = index === 0 ? m.width - clef : m.width;
    const stretch = Math.max(1, m.crowded / close);
    if (now && clef + (now.width + width) * Math.max(now.stretch, stretch) <= room) {
      Object.assign(now, { width: now.width + width, stretch: Math.max(now.stretch, stretch), count: now.count + 1 });
    } else {
      now = { first: index, count: 1, width, stretch };
      systems.push(now);
    }
  });
  const last = systems[systems.length - 1], other = systems[systems.length - 2];
  if (other && last.count === 1 && other.count > 2) last.first -= 1;
  return systems.slice(1).reduce((mei, system) => {
    const measure = `<measure xml:id="${data.measures[system.first].id}"`;
    return mei.replace(measure, "<sb/>" + measure);
  }, data.mei);
}

// repaint has the browser paint the music once more: Chromium leaves some clefs
// out of the first painting when the music is drawn several times in a row.
function repaint(canvas) {
  canvas.style.transform = "";
  requestAnimationFrame(() => requestAnimationFrame(() => { canvas.style.transform = "translateZ(0)"; }));
}

// roomUnder makes room for the lanes under each system. The engraver takes at
// most 48 units between systems, so what is over goes between the staff and the
// hidden ruler.
function roomUnder(height, scale) {
  const unit = 9 * scale / 100; // pixels
  const needed = Math.ceil((height - (scale < 40 ? 2 : 12)) / unit);
  const spacingSystem = Math.min(needed, 48);
  return { spacingSystem, spacingStaff: Math.min(4 + needed - spacingSystem, 48) };
}

// hideRuler hides the ruler staff and its share of the bar lines, which lies
// below the lines of the staff it hangs under. All is measured before any is hidden, so
// that the browser lays the page out once.
function hideRuler(canvas) {
  const hidden = [...canvas.querySelectorAll("g.staff[data-n='2'], g.system > path, g.systemDivider, g.grpSym")];
  for (const measure of canvas.querySelectorAll("g.measure")) {
    const lines = [...measure.querySelectorAll("g.staff[data-n='1'] > path")].map((path) => path.getBoundingClientRect().bottom);
    const bottom = Math.max(...lines) + 2;
    hidden.push(...[...measure.querySelectorAll(".barLine > *")].filter((part) => part.getBoundingClientRect().top > bottom));
  }
  for (const part of hidden) part.style.visibility = "hidden";
}

export { engrave, broken };
