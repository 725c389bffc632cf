// The plan of a lesson: a step is dragged to another place, or moved by keys, and what it
// adds up to follows.

let held = null;
let wanted = null; // which control gets the focus back

function send(item, what, to) {
  const form = item.querySelector("form");
  return htmx.ajax("POST", form.getAttribute("hx-post"), { target: "#plan", swap: "outerHTML", values: { do: what, at: item.dataset.step, to } });
}

function place(item) { return Number(item.dataset.step); }

document.addEventListener("change", (event) => {
  const control = event.target.closest("select[data-plan]");
  if (!control) return;
  wanted = control.id;
  send(control.closest("[data-step]"), control.dataset.plan, control.value);
});

// over is the step whose place the one that is held would take.
function over(y) {
  return [...document.querySelectorAll(".plan-steps [data-step]")].find((item) => {
    const box = item.getBoundingClientRect();
    return y < (box.top + box.bottom) / 2;
  });
}

function ready() {
  for (const item of document.querySelectorAll(".plan-steps [data-step]")) item.draggable = true;
  if (wanted) document.getElementById(wanted)?.focus();
  wanted = null;
}
document.addEventListener("DOMContentLoaded", ready);
document.addEventListener("htmx:afterSettle", ready);

document.addEventListener("dragstart", (event) => {
  held = event.target.closest?.("[data-step]");
  if (held) event.dataTransfer.effectAllowed = "move";
});
document.addEventListener("dragover", (event) => {
  if (!held || !event.target.closest("#plan")) return;
  event.preventDefault();
  const before = over(event.clientY);
  for (const item of document.querySelectorAll(".plan-steps [data-step]")) item.classList.toggle("drop-before", item === before);
});
document.addEventListener("drop", (event) => {
  if (!held || !event.target.closest("#plan")) return;
  event.preventDefault();
  const before = over(event.clientY), from = place(held);
  const to = before ? place(before) : document.querySelectorAll(".plan-steps [data-step]").length;
  if (to !== from && to !== from + 1) send(held, "move", to > from ? to - 1 : to);
});
document.addEventListener("dragend", () => {
  for (const item of document.querySelectorAll(".drop-before")) item.classList.remove("drop-before");
  held = null;
});

document.addEventListener("keydown", (event) => {
  const item = event.altKey && event.target.closest?.("[data-step]");
  const way = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (!item || !way) return;
  event.preventDefault();
  const to = place(item) + way;
  if (to < 0 || to >= item.parentElement.children.length) return;
  wanted = "times-" + to;
  send(item, "move", to);
});

// The arrows of a step keep the focus on it.
document.addEventListener("click", (event) => {
  const arrow = event.target.closest("button[data-plan]");
  if (!arrow) return;
  const to = place(arrow.closest("[data-step]")) + (arrow.dataset.plan === "up" ? -1 : 1);
  wanted = arrow.dataset.plan + "-" + to;
});
