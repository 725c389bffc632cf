// A teacher's marks that could not be sent wait in this page, also over a reload.
import { advise } from "./advice.js";
import { newKey, Outbox, unreached } from "./outbox.js";

export const outbox = new Outbox(sessionStorage, "marks that wait", {
  again: 4000,
  headers: { "HX-Request": "true" },
  on: {
    async answer(mark, answer) {
      const said = answer.ok ? await answer.json().catch(() => null) : null;
      document.dispatchEvent(new CustomEvent("waiting:answer", { detail: { mark, said, ok: answer.ok } }));
    },
    held(why, marks) {
      if (why === "signed out") advise("Sign in again in another window: " + marks.length + " marks wait in this page until then.");
      else sayWaiting();
    },
    async empty({ sent, refused }) {
      if (!document.getElementById("bench")) return;
      await htmx.ajax("GET", location.href, { target: "#side", swap: "outerHTML" });
      if (refused > 0) advise((refused === 1 ? "A mark that waited was" : refused + " marks that waited were") + " refused: look at the latest tries, and mark again what is missing.");
      else if (sent > 0) advise((sent === 1 ? "The mark that waited is" : "The " + sent + " marks that waited are") + " sent and logged.");
    },
  },
});

function sayWaiting() {
  const n = outbox.list().filter((mark) => mark.counts).length;
  if (n > 0) advise((n === 1 ? "One mark waits" : n + " marks wait") + " in this page: the server does not answer. Go on; they are sent when it is back.");
}

const isMark = (config) => config.verb === "post" && /\/(attempts|everybody|move)$/.test(config.path);

// hold takes a mark that did not arrive into the outbox, and gives the forms of the page other
// keys, since theirs are taken.
function hold(event) {
  const config = event.detail.requestConfig;
  const status = event.detail.xhr.status;
  if (!isMark(config) || status > 0 && !unreached(status)) return;
  event.stopImmediatePropagation();
  const fields = new URLSearchParams(config.formData);
  fields.set("sure", "yes"); // it belongs to the stage it was pressed at
  outbox.add(config.path, fields);
  sayWaiting();
  for (const field of document.querySelectorAll("[name=request_key]")) field.value = newKey();
  outbox.wait();
}

document.addEventListener("htmx:sendError", hold, true);
document.addEventListener("htmx:responseError", hold, true);
document.addEventListener("htmx:afterSettle", sayWaiting);
document.addEventListener("DOMContentLoaded", () => { sayWaiting(); outbox.wait(); });
