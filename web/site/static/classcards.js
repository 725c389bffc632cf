// Cards for a class: one concert note at a time, everybody's own card, turned together.
import { element } from "./dom.js";
import * as Engraver from "./engrave.js";
import * as Figures from "./figure.js";

const page = () => document.getElementById("class-cards");
const fastAfter = 3000; // milliseconds to a turn, and on to the next
let notes = [], drawn = {}, order = [], at = 0, turned = false, timer = 0, drawing = 0;

const note = () => notes[order[at]];

function arrange() {
  order = notes.map((_, k) => k);
  if (page().querySelector("[data-order]").value === "up") return;
  for (let k = order.length - 1; k > 0; k--) { const n = Math.floor(Math.random() * (k + 1)); [order[k], order[n]] = [order[n], order[k]]; }
}

async function show() {
  const turn = ++drawing;
  turned = false;
  clearTimeout(timer);
  page().querySelector(".class-note").textContent = "Concert " + note().concert;
  page().querySelector(".class-of").textContent = at + 1 + " of " + notes.length;
  const grid = page().querySelector(".class-grid");
  grid.replaceChildren(...note().cards.map((card) => {
    const item = element("li", "class-card" + (card.met ? "" : " not-met"));
    const front = element("div", "class-front");
    front.setAttribute("role", "img");
    front.setAttribute("aria-label", card.title + ": a note in " + card.place);
    const back = element("div", "class-back");
    back.hidden = true;
    back.append(element("b", "", card.name));
    if (card.way) back.append(Figures.of(card.way.event, drawn[card.instrument], null), element("span", "said", card.way.event.said));
    item.append(element("h3", "", card.title), front, back);
    if (!card.met) item.append(element("span", "hint", "new to them"));
    return item;
  }));
  for (const [k, front] of [...grid.querySelectorAll(".class-front")].entries()) {
    if (turn !== drawing) return;
    await Engraver.draw(front, note().cards[k].mei, { scale: 58, engraver: { breaks: "none", adjustPageWidth: true, svgViewBox: false, mnumInterval: 0 } });
  }
  performance.mark("class:drawn");
  if (turn === drawing && fast()) timer = setTimeout(() => { flip(); timer = setTimeout(() => go(1), fastAfter); }, fastAfter);
}

const fast = () => page().querySelector("[data-order]").value === "fast";

function flip() {
  turned = !turned;
  for (const back of page().querySelectorAll(".class-back")) back.hidden = !turned;
}

function go(way) {
  at = (at + way + order.length) % order.length;
  show();
}

document.addEventListener("click", (event) => {
  const hit = (selector) => event.target.closest(selector);
  if (!page()) return;
  if (hit("#class-cards [data-turn]")) flip();
  else if (hit("#class-cards [data-next]")) go(1);
  else if (hit("#class-cards [data-before]")) go(-1);
});

document.addEventListener("change", (event) => { if (event.target.matches("[data-order]")) { arrange(); at = 0; show(); } });

document.addEventListener("keydown", (event) => {
  if (!page() || event.ctrlKey || event.metaKey || event.altKey || event.target.closest("select, input, summary")) return;
  if (event.key === " " && !event.target.closest("button, a")) { event.preventDefault(); flip(); }
  if (event.key === "ArrowRight") go(1);
  if (event.key === "ArrowLeft") go(-1);
});

document.addEventListener("DOMContentLoaded", () => {
  if (!page()) return;
  notes = JSON.parse(document.getElementById("class-notes").textContent);
  drawn = JSON.parse(document.getElementById("class-drawn").textContent);
  arrange();
  show();
});
