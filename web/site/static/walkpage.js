// The page of a led run: it begins with a press, and comes back to it. It may be kept as a file.
import { Walk } from "./walk.js";
import { save } from "./walkfile.js";

const data = () => JSON.parse(document.getElementById("walk-data").textContent);
const begin = document.querySelector("[data-walk-begin]");
begin?.addEventListener("click", () => {
  new Walk(document.getElementById("walk"), data(), { done: () => begin.focus() }).begin();
});

const saving = document.querySelector("[data-media]");
let stopped = false;

// make makes files of a kind, one after the other, and says how far it is.
async function make(kind, list) {
  const bar = saving.querySelector("progress"), said = saving.querySelector("[role=status]"), enough = saving.querySelector("[data-enough]");
  const buttons = [...saving.querySelectorAll("[data-save]")];
  stopped = false;
  for (const button of buttons) button.disabled = true;
  bar.hidden = enough.hidden = false;
  try {
    for (const [k, load] of list.entries()) {
      const one = await load();
      said.textContent = `Making ${one.file}${list.length > 1 ? `, ${k + 1} of ${list.length}` : ""}`;
      const made = await save(one, kind, saving.dataset.media, (share) => {
        if (stopped) throw new Error("stopped");
        bar.value = (k + share) / list.length;
      });
      said.textContent = `${made.name} is made, ${Math.max(0.1, made.size / 1e6).toFixed(1)} MB. It is where your browser keeps what it fetches.`;
      saving.made = made.file;
    }
  } catch (problem) {
    said.textContent = stopped ? "Stopped. What was made before is kept." : `It could not be made: ${problem.message}. Try another browser, or save it as sound.`;
  }
  bar.hidden = enough.hidden = true;
  for (const button of buttons) button.disabled = false;
}

saving?.addEventListener("click", (event) => {
  const button = event.target.closest("[data-save]");
  if (event.target.closest("[data-enough]")) stopped = true;
  if (!button) return;
  const of = button.dataset.of ? JSON.parse(button.dataset.of) : null;
  make(button.dataset.save, of ? of.map((address) => async () => (await fetch(address)).json()) : [async () => data()]);
});
