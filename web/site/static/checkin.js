// A check-in: what was typed stays while chunks are marked, and in a queue the time that is
// left is told quietly.
import * as Engraver from "./engrave.js";
import * as Lanes from "./lanes.js";
import * as Sheets from "./sheet.js";

const page = () => document.getElementById("checkin");
let said = null, day = null, pressed = null;

document.addEventListener("htmx:beforeSwap", (event) => {
  if (event.detail.target.id !== "checkin") return;
  said = page().querySelector("[name=comment]")?.value;
  day = page().querySelector("[name=on]")?.value;
  pressed = document.activeElement?.id;
});
document.addEventListener("htmx:afterSettle", () => {
  if (said === null || !page()) return;
  const comment = page().querySelector("[name=comment]"), on = page().querySelector("[name=on]");
  if (comment) comment.value = said;
  if (on && day) on.value = day;
  if (pressed) document.getElementById(pressed)?.focus();
  said = null;
  sayTime();
  draw();
});

// The music of what is due, one chunk after the other; what stands already stays.
const lanesOf = { count: ["tap", "count"], name: ["count", "name"], finger: ["name", "finger"], play: ["count", "name", "finger"] };
async function draw() {
  const music = JSON.parse(document.getElementById("due-music").textContent);
  for (const host of page().querySelectorAll(".due-sheet:not([data-drawn])")) {
    host.dataset.drawn = "yes";
    const { sheet, plan } = music[host.dataset.music];
    const shown = Object.fromEntries(["tap", "count", "name", "finger"].map((lane) => [lane, (lanesOf[host.dataset.form] || []).includes(lane)]));
    try {
      const systems = await Sheets.engrave(host, sheet, shown, { minLastJustification: 0, scale: 42, whole: true, spacing: { spacingNonLinear: 0.6, spacingLinear: 0.03 } });
      if (systems) Lanes.draw(host, sheet, { shown, chunk: { plan, whole: true, label: "" } }, systems);
    } catch (problem) {
      host.textContent = "The music could not be drawn. The Bench has it as a table.";
      Engraver.failed(problem);
    }
  }
  performance.mark("due:drawn");
}

function sayTime() {
  if (!page()?.dataset.begun) return;
  const left = Math.round(Number(page().dataset.minutes) - (Date.now() - Number(page().dataset.begun)) / 60000);
  page().querySelector(".queue-left").textContent = left >= 0 ? "· " + left + " min left" : "· " + -left + " min over";
}

document.addEventListener("DOMContentLoaded", () => { sayTime(); setInterval(sayTime, 15000); draw(); });
