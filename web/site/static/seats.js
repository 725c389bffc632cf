// Who sits where: a name is taken and put down elsewhere, by touch, by drag or by keys.

let held = null; // the seat that was taken
const form = () => document.getElementById("seats");
const rows = () => [...form().querySelectorAll("[data-rows] .seat-row")];
const say = (words) => { form().querySelector(".seats-said").textContent = words; };

// settle numbers the rows again, with an empty one at the back and at the front to put
// somebody in, and writes down where everybody sits.
function settle() {
  const list = form().querySelector("[data-rows]");
  for (const row of rows()) if (!row.querySelector(".seat")) row.remove();
  const taken = rows();
  taken.forEach((row, k) => {
    const number = taken.length - k;
    row.querySelector(".seat-label").textContent = "Row " + number;
    row.classList.remove("spare");
    [...row.querySelectorAll(".seat")].forEach((seat, place) => write(seat, number, place + 1));
  });
  if (taken.length < 12) { list.prepend(spare()); list.append(spare()); }
  const none = form().querySelector(".no-seat");
  for (const seat of none.querySelectorAll(".seat")) write(seat, 0, 0);
  none.hidden = !held && !none.querySelector(".seat");
}

function spare() {
  const row = Object.assign(document.createElement("li"), { className: "seat-row spare" });
  row.append(Object.assign(document.createElement("span"), { className: "seat-label", textContent: "A new row" }), document.createElement("ul"));
  return row;
}

function write(seat, row, place) {
  seat.querySelector("[name^=row-]").value = row;
  seat.querySelector("[name^=place-]").value = place;
}

function take(seat) {
  held = seat;
  for (const name of form().querySelectorAll(".seat-name")) name.setAttribute("aria-pressed", name.parentElement === seat);
  form().classList.toggle("placing", Boolean(seat));
  settle();
  if (seat) say(name(seat) + " is taken up.");
}

const name = (seat) => seat.querySelector(".seat-name").firstChild.textContent.trim();

// put sets the held seat down before another one, or at the end of a row.
function put(row, before) {
  const moved = held;
  if (before === moved) return;
  row.querySelector("ul").insertBefore(moved, before);
  settle();
  say(where(moved));
}

function where(seat) {
  const row = seat.querySelector("[name^=row-]").value, place = seat.querySelector("[name^=place-]").value;
  return row === "0" ? name(seat) + " has no seat." : name(seat) + ": row " + row + ", place " + place + ".";
}

// beside is the seat of a row before which a point lies, null for its end.
function beside(row, x) {
  return [...row.querySelectorAll(".seat")].find((seat) => {
    const box = seat.getBoundingClientRect();
    return seat !== held && x < (box.left + box.right) / 2;
  }) || null;
}

document.addEventListener("click", (event) => {
  if (!form()) return;
  const seat = event.target.closest(".seat"), row = event.target.closest(".seat-row");
  if (!held && seat && event.target.closest(".seat-name")) { take(seat); return; }
  if (!held) return;
  if (seat === held) { take(null); say(""); return; }
  if (!row) return;
  put(row, seat || beside(row, event.clientX));
  take(null);
});

document.addEventListener("keydown", (event) => {
  if (!held || !event.target.closest(".seat-name")) return;
  const row = held.closest(".seat-row"), list = [...row.querySelectorAll(".seat")], at = list.indexOf(held);
  const all = [...rows(), form().querySelector(".no-seat")], here = all.indexOf(row);
  const to = { ArrowUp: all[here - 1], ArrowDown: all[here + 1] }[event.key];
  if (event.key === "Escape") { take(null); return; }
  if (!["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown"].includes(event.key)) return;
  event.preventDefault();
  if (event.key === "ArrowLeft" && at > 0) put(row, list[at - 1]);
  else if (event.key === "ArrowRight" && at < list.length - 1) put(row, list[at + 2] || null);
  else if (to) { to.hidden = false; put(to, to.querySelectorAll(".seat")[at] || null); }
  held.querySelector(".seat-name").focus();
});

document.addEventListener("dragstart", (event) => {
  const seat = event.target.closest?.(".seat");
  if (seat) { take(seat); event.dataTransfer.effectAllowed = "move"; }
});
document.addEventListener("dragover", (event) => { if (held && event.target.closest(".seat-row")) event.preventDefault(); });
document.addEventListener("drop", (event) => {
  const row = held && event.target.closest(".seat-row");
  if (!row) return;
  event.preventDefault();
  put(row, beside(row, event.clientX));
});
document.addEventListener("dragend", () => { if (held) take(null); });

document.addEventListener("DOMContentLoaded", () => {
  if (!form()) return;
  for (const seat of form().querySelectorAll(".seat")) seat.draggable = true;
  settle();
});
