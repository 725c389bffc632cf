// Sheets: draws the sheet of every instrument, one after another, and prints them together.
import { element } from "./dom.js";
import * as Engraver from "./engrave.js";
import * as Figures from "./figure.js";
import * as Lanes from "./lanes.js";
import * as Sheets from "./sheet.js";

const lane = (sheet, name) => sheet.dataset[name];

// drawSheet draws one sheet: its music, each with the lanes it is to have, or its cards.
async function drawSheet(sheet) {
  const cards = sheet.querySelector(".card-data");
  if (cards) { await drawCards(sheet, JSON.parse(cards.textContent)); return; }
  const hosts = [...sheet.querySelectorAll(".engraving")];
  for (const [n, source] of [...sheet.querySelectorAll(".sheet-data")].entries()) await drawMusic(sheet, hosts[n], JSON.parse(source.textContent));
}


// drawCards draws pages of twelve cards, and after each the backs, so that they lie behind
// their fronts when the sheet is turned over its long edge.
const across = 3, onPage = 12;
async function drawCards(sheet, { drawn, cards }) {
  const pages = sheet.querySelector(".card-pages");
  for (let from = 0; from < cards.length; from += onPage) {
    const page = cards.slice(from, from + onPage);
    while (page.length % across) page.push(null);
    const fronts = element("div", "card-page fronts"), backs = element("div", "card-page backs");
    pages.append(fronts, backs);
    for (const card of page) {
      const front = element("div", "note-card");
      fronts.append(front);
      if (card) await Engraver.draw(front, card.mei, { scale: 60, engraver: { breaks: "none", adjustPageWidth: true, svgViewBox: false } });
    }
    for (let row = 0; row < page.length; row += across) {
      for (const card of page.slice(row, row + across).reverse()) {
        const back = element("div", "note-card");
        backs.append(back);
        if (!card) continue;
        back.append(element("b", "", card.name), element("span", "", card.place));
        if (card.event.fingering) back.append(Figures.of(card.event, drawn, null), element("span", "", card.event.said));
        back.append(element("small", "", sheet.dataset.title));
      }
    }
  }
}

async function drawMusic(sheet, host, data) {
  const shown = {
    tap: lane(sheet, "count") === "filled", count: lane(sheet, "count") !== "none",
    name: lane(sheet, "name") !== "none", finger: lane(sheet, "finger") === "filled",
  };
  const only = host.dataset.lanes;
  if (only) for (const name of Object.keys(shown)) shown[name] = shown[name] && (only.includes(name) || (name === "tap" && only.includes("count")));
  const write = { count: lane(sheet, "count") === "empty", name: lane(sheet, "name") === "empty" };
  for (const name of Object.keys(write)) write[name] = write[name] && shown[name];
  if (write.count || write.name) shown.write = write;
  const systems = await Sheets.engrave(host, data, shown);
  Lanes.draw(host, data, { shown, chunk: { plan: [], whole: true, label: "" } }, systems);
}

document.addEventListener("DOMContentLoaded", async () => {
  const sheets = [...document.querySelectorAll(".print-sheet")];
  const bar = document.querySelector(".sheets-ask progress"), button = document.querySelector("[data-print-sheets]"), said = document.querySelector(".sheets-said");
  if (!button) return;
  button.addEventListener("click", () => window.print());
  const missing = [];
  for (const [n, sheet] of sheets.entries()) {
    try {
      await drawSheet(sheet);
    } catch (problem) { // the others are drawn all the same
      missing.push(sheet.getAttribute("aria-label"));
      sheet.append(element("p", "warn", "This sheet could not be drawn. Load the page again."));
      Engraver.failed(problem);
    }
    bar.value = n + 1;
    said.textContent = `${n + 1} of ${sheets.length} drawn`;
  }
  said.textContent = (sheets.length === 1 ? "1 sheet." : `${sheets.length} sheets.`) + (missing.length ? " Not drawn: " + missing.join(", ") + "." : "");
  bar.hidden = true;
  button.disabled = missing.length === sheets.length;
  performance.mark("sheets:drawn");
});
