// The page of a led run: it begins with a press, and comes back to it.
import { Walk } from "./walk.js";

const data = document.getElementById("walk-data");
const begin = document.querySelector("[data-walk-begin]");
begin?.addEventListener("click", () => {
  new Walk(document.getElementById("walk"), JSON.parse(data.textContent), { done: () => begin.focus() }).begin();
});
