// A round of reading cards: one at a time, pressed or turned and judged, by touch and by keys.
// What is missed comes again at the end of the round.
import { element } from "./dom.js";
import * as Engraver from "./engrave.js";
import * as Figures from "./figure.js";
import { base, later, say, tick } from "./own.js";
import * as Player from "./player.js";


const round = () => document.querySelector(".round");
const part = (selector) => round().querySelector(selector);

let cards = [], drawn = null, at = 0, seen = 0, turned = false, helped = false, answered = false;
let first = new Set();   // those answered once in this round
let right = 0, named = []; // right the first time; how long names took
let judging = localStorage.getItem("own:judging") === "yes";

const card = () => cards[at];
const pressing = () => !judging && card().choices?.length > 0;

async function show() {
  turned = helped = answered = false;
  const c = card();
  document.querySelector(".round-of").textContent = say("round.of", at + 1, cards.length);
  part(".round-why").textContent = say(c.why) + (c.where ? " · " + c.where : "") + (c.asking === "fast" ? " · " + say("round.fast") : "");
  part(".round-ask").textContent = say("q." + c.kind);
  part(".round-help").hidden = true;
  part(".round-verdict").textContent = "";
  part(".round-back").hidden = part(".round-next").hidden = part(".round-judge").hidden = true;
  part(".round-turn").hidden = false;
  part("[data-help]").hidden = !c.help || c.asking === "fast";
  part("[data-turn]").hidden = pressing();
  part("[data-way]").textContent = judging ? say("round.press") : say("round.judge");
  choices(c);
  const front = part(".round-front");
  front.classList.toggle("no-meter", c.kind !== "rhythm");
  front.setAttribute("aria-label", say("round.front", say("q." + c.kind)));
  try {
    await Engraver.draw(front, c.mei, { scale: 84, engraver: { breaks: "none", adjustPageWidth: true, svgViewBox: false, mnumInterval: 0 } });
  } catch (problem) {
    Engraver.failed(problem);
    front.textContent = say("music.none");
  }
  if (c === card()) seen = performance.now();
  part(".round-ask").focus({ preventScroll: true });
  performance.mark("card:drawn");
}

function choices(c) {
  const host = part(".round-choices");
  host.className = "round-choices of-" + c.kind;
  host.setAttribute("aria-label", say("q." + c.kind));
  host.hidden = !pressing();
  host.replaceChildren(...(pressing() ? c.choices : []).map((choice, k) => {
    const button = element("button", "btn quiet round-choice");
    button.type = "button";
    button.dataset.choice = k;
    if (choice.way) {
      button.append(Figures.of(choice.way.event, drawn, null));
      button.setAttribute("aria-label", choice.way.event.said);
    } else button.append(choice.text);
    return button;
  }));
}

// answer takes what was pressed, or how the student judges it.
function answer(isRight, slowly) {
  if (answered) return;
  answered = true;
  const c = card(), took = Math.round(performance.now() - seen);
  const again = first.has(c.id);
  if (!again) {
    first.add(c.id);
    if (isRight) right++;
    if (isRight && c.kind === "name" && !helped && !slowly) named.push(took);
  }
  later("answers", { card: c.id, right: isRight ? "yes" : "no", millis: took, helped: helped || slowly || again ? "yes" : "no", new: c.new && !again ? "yes" : "no" });
  if (!isRight) cards.push({ ...c, new: false });
  document.querySelector(".round-of").textContent = say("round.of", at + 1, cards.length);
  return isRight;
}

function back(verdict) {
  turned = true;
  const c = card();
  part(".round-verdict").textContent = verdict;
  part(".round-more").textContent = c.more || "";
  part(".round-ways").replaceChildren(...(c.ways || []).map((way) => {
    const figure = element("figure", "");
    figure.append(element("figcaption", "", way.name + ": " + way.event.said), Figures.of(way.event, drawn, null));
    return figure;
  }));
  part(".round-play").hidden = !c.sounds?.length;
  part(".round-play span").textContent = c.kind === "change" ? say("round.finger") : say("round.play");
  part(".round-back").hidden = false;
  part(".round-turn").hidden = true;
}

function press(k) {
  const choice = card().choices[k];
  if (!choice || answered) return;
  const ok = answer(choice.right, false);
  for (const [n, button] of [...part(".round-choices").children].entries()) {
    button.disabled = true;
    button.classList.toggle("is-right", card().choices[n].right);
    button.classList.toggle("was-wrong", n === k && !choice.right);
  }
  back((ok ? say("round.right") + " " : "") + say("round.itis", card().answer));
  part(".round-next").hidden = false;
  part("[data-next]").focus({ preventScroll: true });
}

function turn() {
  if (turned || pressing()) return;
  back(card().answer);
  part(".round-judge").hidden = false;
  part("[data-judge=yes]").focus({ preventScroll: true });
}

function judge(how) {
  answer(how !== "no", how === "slow");
  next();
}

function next() {
  at++;
  if (at < cards.length) { show(); return; }
  round().hidden = true;
  document.querySelector(".round-of").textContent = "";
  const end = document.querySelector(".round-end");
  end.hidden = false;
  end.querySelector(".round-sum").textContent = say("round.sum", first.size, right);
  named.sort((a, b) => a - b);
  end.querySelector(".round-speed").textContent = named.length ? say("round.speed", (named[Math.floor(named.length / 2)] / 1000).toFixed(1)) : "";
  end.focus();
  over();
}

// over ticks the line of the day that led here.
function over() {
  const line = JSON.parse(sessionStorage.getItem("round of " + base) || "null");
  if (line) tick(line.on, line.line);
  sessionStorage.removeItem("round of " + base);
}

// hear sounds the notes of the card, one after the other.
async function hear() {
  const host = document.getElementById("round-voice"), voice = JSON.parse(host.textContent);
  for (const [k, midi] of card().sounds.entries()) {
    if (k > 0) await new Promise((resolve) => setTimeout(resolve, 1300));
    await Player.sound([{ voice, midi: [midi] }], Number(host.dataset.a4), 1.2);
  }
}

function help() {
  if (!card().help || card().asking === "fast" || turned) return;
  helped = true;
  part(".round-help").textContent = card().help;
  part(".round-help").hidden = false;
}

document.addEventListener("click", (event) => {
  const hit = (selector) => event.target.closest(selector);
  if (hit("[data-choice]")) press(Number(hit("[data-choice]").dataset.choice));
  else if (hit("[data-turn]")) turn();
  else if (hit("[data-judge]")) judge(hit("[data-judge]").dataset.judge);
  else if (hit("[data-next]")) next();
  else if (hit("[data-help]")) help();
  else if (hit("[data-hear]")) hear();
  else if (hit("[data-way]") && !answered && !turned) { judging = !judging; localStorage.setItem("own:judging", judging ? "yes" : "no"); show(); }
});

document.addEventListener("keydown", (event) => {
  if (!round() || round().hidden || event.ctrlKey || event.metaKey || event.altKey) return;
  const figure = Number(event.key);
  if (figure && !turned && pressing()) { press(figure - 1); return; }
  if (figure && turned && !part(".round-judge").hidden) { round().querySelectorAll("[data-judge]")[figure - 1]?.click(); return; }
  const letter = event.key.toUpperCase();
  if (!turned && pressing() && card().kind === "name" && /^[A-G]$/.test(letter)) {
    const same = card().choices.findIndex((choice) => choice.text.toUpperCase() === letter);
    if (same >= 0) { press(same); return; }
  }
  if (letter === "H") { help(); return; }
  if (event.key === " " && !event.target.closest("button, a")) { event.preventDefault(); if (answered) next(); else turn(); }
});

document.addEventListener("DOMContentLoaded", () => {
  if (!round()) { over(); return; } // none is due
  cards = JSON.parse(document.getElementById("round").textContent) || [];
  drawn = JSON.parse(document.getElementById("round-drawn").textContent);
  if (cards.length) show();
});
