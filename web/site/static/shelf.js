// The Shelf: an exercise is dragged to another place in its book, or moved by keys.

let held = null;

function move(item, before) {
  const form = Object.assign(document.createElement("form"), { method: "post", action: `/exercises/${item.dataset.exercise}/move` });
  form.append(Object.assign(document.createElement("input"), { type: "hidden", name: "before", value: before ? before.dataset.exercise : "0" }));
  document.body.append(form);
  form.submit();
}

// over is the exercise whose place the one that is held would take.
function over(list, y, x) {
  return [...list.querySelectorAll("[data-exercise]")].find((item) => {
    const box = item.getBoundingClientRect();
    return x <= box.right && y < (box.top + box.bottom) / 2 && y > box.top - box.height;
  });
}

function ready() {
  for (const item of document.querySelectorAll("[data-exercise]")) item.draggable = true;
}
document.addEventListener("DOMContentLoaded", ready);
document.addEventListener("htmx:afterSettle", ready);

document.addEventListener("dragstart", (event) => {
  held = event.target.closest?.("[data-exercise]");
  if (held) event.dataTransfer.effectAllowed = "move";
});
document.addEventListener("dragover", (event) => {
  const list = held && event.target.closest(".exercises");
  if (!list || !list.contains(held)) return;
  event.preventDefault();
  for (const item of list.children) item.classList.toggle("drop-before", item === over(list, event.clientY, event.clientX));
});
document.addEventListener("drop", (event) => {
  const list = held && event.target.closest(".exercises");
  if (!list || !list.contains(held)) return;
  event.preventDefault();
  const before = over(list, event.clientY, event.clientX);
  if (before !== held) move(held, before);
});
document.addEventListener("dragend", () => {
  for (const item of document.querySelectorAll(".drop-before")) item.classList.remove("drop-before");
  held = null;
});

// With Alt the arrows move the exercise at hand.
document.addEventListener("keydown", (event) => {
  const item = event.altKey && event.target.closest?.("[data-exercise]");
  const way = { ArrowUp: "[data-up]", ArrowDown: "[data-down]" }[event.key];
  if (!item || !way) return;
  event.preventDefault();
  item.querySelector(way)?.click();
});
