// Marks that could not be sent wait here, also over a reload, and are sent in their
// order when the server answers again. Each carries the key of its press, so that one
// that had arrived after all is not logged twice.
(function () {
  "use strict";

  const place = "marks that wait";
  const again = 4000; // milliseconds between tries
  let timer = 0;

  function list() { return JSON.parse(sessionStorage.getItem(place) || "[]"); }

  function keep(marks) { sessionStorage.setItem(place, JSON.stringify(marks)); }

  // away says whether an answer comes from before the program, or from it without its records.
  function away(status) { return status >= 502 && status <= 504; }

  function isMark(config) { return config.verb === "post" && /\/(attempts|everybody)$/.test(config.path); }

  function sayWaiting() {
    const n = list().length;
    if (n > 0) window.advise((n === 1 ? "One mark waits" : n + " marks wait") + " in this page: the server does not answer. Go on; they are sent when it is back.");
  }

  // renew gives the forms of the page other keys, since theirs are taken.
  function renew() {
    for (const field of document.querySelectorAll("[name=press]")) {
      field.value = Array.from(crypto.getRandomValues(new Uint8Array(12)), (n) => n.toString(16).padStart(2, "0")).join("");
    }
  }

  function hold(event) {
    const config = event.detail.requestConfig;
    const status = event.detail.xhr.status;
    if (!isMark(config) || status > 0 && !away(status)) return;
    event.stopImmediatePropagation();
    const fields = new URLSearchParams(config.formData);
    fields.set("sure", "yes"); // it belongs to the stage it was pressed at
    keep([...list(), { path: config.path, fields: fields.toString() }]);
    renew();
    sayWaiting();
    wait();
  }

  function wait() {
    clearTimeout(timer);
    if (list().length > 0) timer = setTimeout(send, again);
  }

  async function send() {
    let sent = 0, refused = 0;
    while (list().length > 0) {
      const [mark, ...others] = list();
      let answer;
      try {
        answer = await fetch(mark.path, {
          method: "POST", body: mark.fields, redirect: "manual",
          headers: { "Content-Type": "application/x-www-form-urlencoded", "HX-Request": "true" },
        });
      } catch (problem) {
        break;
      }
      if (away(answer.status)) break;
      if (answer.status === 401) {
        window.advise("Sign in again in another window: " + list().length + " marks wait in this page until then.");
        break;
      }
      keep(others);
      if (answer.ok) sent++;
      else refused++;
    }
    if (list().length > 0) { wait(); return; }
    if (!document.getElementById("bench")) return;
    await htmx.ajax("GET", location.href, { target: "#side", swap: "outerHTML" });
    if (refused > 0) window.advise((refused === 1 ? "A mark that waited was" : refused + " marks that waited were") + " refused: look at the latest tries, and mark again what is missing.");
    else if (sent > 0) window.advise((sent === 1 ? "The mark that waited is" : "The " + sent + " marks that waited are") + " sent and logged.");
  }

  document.addEventListener("htmx:sendError", hold, true);
  document.addEventListener("htmx:responseError", hold, true);
  document.addEventListener("htmx:afterSettle", sayWaiting);
  document.addEventListener("DOMContentLoaded", () => { sayWaiting(); wait(); });
})();
