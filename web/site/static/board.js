// The Board follows a lesson that runs in another window: it asks whether there is something
// new, and only then fetches itself again.

const every = 3000; // milliseconds
let timer = 0;

const live = () => document.getElementById("board-live");

async function look() {
  clearTimeout(timer);
  if (!live()?.dataset.pulse) return;
  if (!document.hidden && !document.querySelector("dialog[open]")) {
    try {
      const answer = await fetch(live().dataset.pulse, { headers: { Accept: "application/json" } });
      const { latest } = answer.ok ? await answer.json() : {};
      if (latest && String(latest) !== live().dataset.latest) await htmx.ajax("GET", location.href, { target: "#board-live", select: "#board-live", swap: "outerHTML" });
    } catch (problem) {
      // The network is away: the next look may find it back.
    }
  }
  timer = setTimeout(look, every);
}

document.addEventListener("DOMContentLoaded", () => { timer = setTimeout(look, every); });
