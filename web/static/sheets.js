// Sheets: draws the sheet of every instrument, one after another, and prints them together.
(function () {
  "use strict";

  const lane = (sheet, name) => sheet.dataset[name];

  // drawSheet draws one sheet with the lanes it is to have.
  async function drawSheet(sheet) {
    const data = JSON.parse(sheet.querySelector(".sheet-data").textContent);
    const host = sheet.querySelector(".engraving");
    const shown = {
      tap: lane(sheet, "count") === "filled", count: lane(sheet, "count") !== "none",
      name: lane(sheet, "name") !== "none", finger: lane(sheet, "finger") === "filled",
    };
    const write = { count: lane(sheet, "count") === "empty", name: lane(sheet, "name") === "empty" };
    if (write.count || write.name) shown.write = write;
    const systems = await window.sheet.engrave(host, data, shown);
    window.lanes.draw(host, data, { shown, piece: { plan: [], whole: true, label: "" } }, systems);
  }

  document.addEventListener("DOMContentLoaded", async () => {
    const sheets = [...document.querySelectorAll(".print-sheet")];
    const bar = document.querySelector(".sheets-ask progress"), button = document.querySelector("[data-print-sheets]"), said = document.querySelector(".sheets-said");
    if (!button) return;
    button.addEventListener("click", () => window.print());
    try {
      for (const [n, sheet] of sheets.entries()) {
        await drawSheet(sheet);
        bar.value = n + 1;
        said.textContent = `${n + 1} of ${sheets.length} drawn`;
      }
      said.textContent = sheets.length === 1 ? "1 sheet." : `${sheets.length} sheets.`;
      bar.hidden = true;
      button.disabled = false;
      performance.mark("sheets:drawn");
    } catch (problem) {
      said.textContent = "The sheets could not be drawn (" + problem.message + "). Load the page again.";
    }
  });
})();
