// Keeps what is typed into the form of an exercise in this browser until it is saved, offers
// it again to the same teacher, and asks before the page is left with it.
import { advise } from "./advice.js";

const pause = 400; // milliseconds without a key
const oldest = 30 * 24 * 3600 * 1000; // a draft is kept a month
const place = (id) => "draft of exercise " + id;
const form = () => document.querySelector("form.entry[data-draft]");
let begun = null, leaving = false, timer = 0;

// typed is what a form holds that was typed or chosen; a file cannot be kept.
function typed(f) {
  const fields = {};
  for (const field of f.elements) {
    if (field.name && field.type !== "file" && field.type !== "submit" && field.type !== "button" && (field.type !== "hidden" || field.name === "way")) fields[field.name] = field.value;
  }
  return fields;
}

const same = (a, b) => JSON.stringify(a) === JSON.stringify(b);
const changed = () => form() && begun && !same(typed(form()), begun);

function keep() {
  clearTimeout(timer);
  if (!changed()) return;
  try {
    localStorage.setItem(place(form().dataset.draft), JSON.stringify({ at: Date.now(), fields: typed(form()) }));
  } catch {
    advise("This browser keeps no draft: save before you leave the page.");
  }
}

function drop(id) { localStorage.removeItem(place(id)); }

function kept(id) {
  const draft = JSON.parse(localStorage.getItem(place(id)) || "null");
  if (draft && Date.now() - draft.at > oldest) { drop(id); return null; }
  return draft;
}

// offer says that a draft is there, and puts it back into the form or deletes it.
function offer(draft) {
  const box = document.querySelector(".draft-offer");
  box.querySelector("time").textContent = new Date(draft.at).toLocaleString([], { weekday: "long", hour: "2-digit", minute: "2-digit" });
  box.hidden = false;
  box.querySelector("[data-draft-use]").addEventListener("click", () => {
    box.hidden = true;
    if (draft.fields.way !== form().elements.way.value) { // another way in has other fields
      for (const name in draft.fields) {
        if (!form().elements[name]) form().append(Object.assign(document.createElement("input"), { type: "hidden", name }));
        form().elements[name].value = draft.fields[name];
      }
      leaving = true;
      form().append(Object.assign(document.createElement("input"), { type: "hidden", name: "to", value: draft.fields.way }));
      form().action = "/exercises/turn";
      form().submit();
      return;
    }
    for (const name in draft.fields) if (form().elements[name]) form().elements[name].value = draft.fields[name];
    for (const field of form().querySelectorAll("textarea")) field.dispatchEvent(new Event("input", { bubbles: true }));
  });
  box.querySelector("[data-draft-drop]").addEventListener("click", () => { box.hidden = true; drop(form().dataset.draft); });
}

document.addEventListener("input", (event) => {
  if (!form()?.contains(event.target)) return;
  clearTimeout(timer);
  timer = setTimeout(keep, pause);
});
document.addEventListener("change", (event) => { if (form()?.contains(event.target)) keep(); });

document.addEventListener("submit", (event) => {
  if (event.target !== form()) return;
  keep();
  leaving = true;
  if (event.submitter?.name !== "to") sessionStorage.setItem("draft sent", form().dataset.draft); // not where one way is turned into another
});
window.addEventListener("beforeunload", (event) => {
  keep();
  if (!leaving && changed()) event.preventDefault();
});
// A page that comes back from the browser's own memory may ask again.
window.addEventListener("pageshow", () => { leaving = false; });

document.addEventListener("DOMContentLoaded", () => {
  if (!form()) return;
  begun = form().dataset.back ? {} : typed(form()); // what came back is not saved yet
  const draft = kept(form().dataset.draft);
  if (draft && !form().dataset.back && !same(draft.fields, begun)) offer(draft);
});
