// What every page needs: a dialog for a student's history, and a check of a
// chosen file's size before it is sent.

import { advise } from "./advice.js";

document.addEventListener("htmx:afterSwap", (event) => {
  const dialog = document.querySelector("dialog.history-dialog");
  if (dialog && dialog.contains(event.detail.elt) && !dialog.open) dialog.showModal();
  // A mark taken back in the dialog changes the table behind it.
  if (dialog && dialog.open && event.detail.requestConfig.verb === "post") dialog.dataset.changed = "yes";
});

document.addEventListener("click", (event) => {
  if (event.target.closest("[data-close]")) event.target.closest("dialog").close();
  const shown = event.target.closest("[data-line]");
  if (shown) selectMeasure(Number(shown.dataset.line), Number(shown.dataset.column));
  const cell = event.target.closest(".board td a");
  if (!cell || event.ctrlKey || event.metaKey || event.shiftKey) return;
  event.preventDefault();
  htmx.ajax("GET", cell.getAttribute("href"), { target: "#history", swap: "outerHTML" });
});

// Escape closes an open menu, and gives the focus back to what opened it.
document.addEventListener("keydown", (event) => {
  const menu = event.key === "Escape" && (event.target.closest?.("details.more[open]") || document.querySelector("details.more[open]"));
  if (!menu || document.querySelector("dialog[open]")) return;
  menu.open = false;
  menu.querySelector("summary").focus();
});

// The draft of a form that was sent and did not come back is no longer needed: it is saved.
document.addEventListener("DOMContentLoaded", () => {
  const sent = sessionStorage.getItem("draft sent");
  sessionStorage.removeItem("draft sent");
  if (sent && document.querySelector("form[data-draft]")?.dataset.draft !== sent) localStorage.removeItem("draft of exercise " + sent);
});

document.addEventListener("DOMContentLoaded", () => {
  const dialog = document.querySelector("dialog.history-dialog");
  if (dialog) dialog.addEventListener("close", () => { if (dialog.dataset.changed) location.reload(); });
  const form = document.querySelector("form[data-largest]");
  if (form && form.querySelector("input[type=file]")) watchFile(form);
});

// selectMeasure marks the measure of the typed ABC that starts at a column of a
// line, or the whole line where no column is known.
function selectMeasure(n, column) {
  const box = document.querySelector("textarea[name=abc]");
  const lines = box.value.split("\n");
  const line = lines[n - 1] || "";
  const start = lines.slice(0, n - 1).join("\n").length + (n > 1 ? 1 : 0);
  const from = column > 0 ? column - 1 : 0;
  const bar = line.indexOf("|", from);
  const to = column > 0 && bar > 0 ? bar : line.length;
  box.focus();
  box.setSelectionRange(start + from, start + to);
}

function watchFile(form) {
  const file = form.querySelector("input[type=file]");
  const note = form.querySelector(".file-note");
  const check = () => {
    const chosen = file.files[0];
    const tooLarge = chosen && chosen.size > Number(form.dataset.largest);
    note.textContent = tooLarge
      ? "This file is larger than 5 MB. Choose a single exercise."
      : "";
    return !tooLarge;
  };
  file.addEventListener("change", check);
  form.addEventListener("submit", (event) => {
    if (!check()) { event.preventDefault(); file.focus(); }
  });
}

document.addEventListener("change", (event) => {
  if (event.target.matches("select[data-submit]")) event.target.form.requestSubmit();
});

// What was swapped in a moment ago is made ready as it is pressed: else the browser sends a
// form by itself, and the page with all that is typed on it is loaded again.
for (const what of ["submit", "click"]) {
  window.addEventListener(what, (event) => {
    const own = event.target.closest?.("[hx-get], [hx-post]");
    if (own) htmx.process(own);
  }, true);
}

// Where a form is sent by the browser all the same, what is typed into the others of its page
// is there again on the page that comes back.
const unsent = "typed beside a form that was sent";
let sent = null;
const typedIn = (field) => field.name && !["hidden", "password", "file", "submit", "button", "radio", "checkbox"].includes(field.type) && "defaultValue" in field && field.value !== field.defaultValue;
document.addEventListener("submit", (event) => { sent = event.defaultPrevented ? null : event.target; });
window.addEventListener("pagehide", () => {
  if (!sent) return;
  const fields = [...document.forms].filter((form) => form !== sent && !form.dataset.draft).flatMap((form) =>
    [...form.elements].filter(typedIn).map((field) => ({ form: form.getAttribute("action"), name: field.name, value: field.value })));
  if (fields.length) sessionStorage.setItem(unsent, JSON.stringify({ path: location.pathname, fields }));
});
document.addEventListener("DOMContentLoaded", () => {
  const kept = JSON.parse(sessionStorage.getItem(unsent) || "null");
  sessionStorage.removeItem(unsent);
  if (kept?.path !== location.pathname) return;
  for (const { form, name, value } of kept.fields) {
    const field = [...document.forms].find((f) => f.getAttribute("action") === form)?.elements[name];
    if (field && "value" in field) field.value = value;
  }
});

// A form that comes back with what is wrong with it stands in its place.
document.addEventListener("htmx:beforeSwap", (event) => {
  const answer = event.detail.xhr;
  if (answer.status !== 422 || !answer.getResponseHeader("Content-Type")?.startsWith("text/html") || answer.responseText.startsWith("<!doctype")) return;
  event.detail.shouldSwap = true;
  event.detail.isError = false;
});

// A refusal from the server is shown instead of being swallowed.
document.addEventListener("htmx:responseError", (event) => {
  advise(event.detail.xhr.status === 422 ? event.detail.xhr.responseText
    : "That did not reach the server or was refused. Nothing was changed; try again.");
});
document.addEventListener("htmx:sendError", () => {
  advise("The server does not answer. Nothing was marked; try again when it is back.");
});

// The first browser says in which time zone the school is.
document.addEventListener("DOMContentLoaded", () => {
  for (const field of document.querySelectorAll("input[data-zone]")) field.value = Intl.DateTimeFormat().resolvedOptions().timeZone || "";
});
