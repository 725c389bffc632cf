// The fingering chart: draws each fingering, and finds the notes that what is
// typed as pressed can sound.
(function () {
  "use strict";

  document.addEventListener("DOMContentLoaded", () => {
    const go = document.querySelector("[data-go]");
    if (go) go.addEventListener("change", () => { location.href = go.value; });
    const chart = document.querySelector("table.chart");
    if (!chart) return;
    draw(chart);
    const box = document.querySelector("[data-find]");
    box.addEventListener("input", () => find(chart, box.value));
  });

  function draw(chart) {
    const drawing = window.fingering[chart.dataset.mechanism];
    for (const cell of chart.querySelectorAll("[data-fingering]")) {
      const text = cell.dataset.fingering;
      const width = Math.max(64, drawing.width(text) + 30);
      const svg = window.lanes.make("svg", { class: "lanes in-chart", width, height: drawing.height, "aria-hidden": "true" });
      drawing.mark(svg, text, width / 2 - 4, drawing.height / 2, drawing.height, { thumb: chart.dataset.thumb === "true" });
      cell.append(svg);
    }
  }

  // tidy makes spellings comparable: one space between keys, a stroke between
  // the hands only where something is pressed by the right one.
  function tidy(text) { return text.trim().replace(/\s+/g, " ").replace(/\s*\|\s*$/, "").toLowerCase(); }

  function find(chart, typed) {
    const wanted = tidy(typed);
    let found = 0;
    for (const row of chart.querySelectorAll("tbody tr")) {
      const shown = wanted === "" || row.dataset.text.split(";").some((text) => tidy(text) === wanted);
      row.hidden = !shown;
      if (shown) found++;
    }
    document.querySelector("[data-found]").textContent = wanted === "" ? "" : found === 0 ? "No note in this chart is played so." : found === 1 ? "One note." : found + " notes.";
  }
})();
