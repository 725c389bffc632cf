// Marks that could not be sent wait here, also over a reload, and are sent in their
// order when the server answers again. Each carries the key of its press, so that one
// that had arrived after all is not logged twice.
window.waiting = (function () {
  "use strict";

  const place = "marks that wait";
  const again = 4000; // milliseconds between tries
  let timer = 0;
  let sending = null;

  function list() { return JSON.parse(sessionStorage.getItem(place) || "[]"); }

  function keep(marks) { sessionStorage.setItem(place, JSON.stringify(marks)); }

  // away says whether an answer comes from before the program, or from it without its records.
  function away(status) { return status >= 502 && status <= 504; }

  function isMark(config) { return config.verb === "post" && /\/(attempts|everybody|move)$/.test(config.path); }

  function sayWaiting() {
    const n = list().filter((mark) => mark.counts).length;
    if (n > 0) window.advise((n === 1 ? "One mark waits" : n + " marks wait") + " in this page: the server does not answer. Go on; they are sent when it is back.");
  }

  function press() { return Array.from(crypto.getRandomValues(new Uint8Array(12)), (n) => n.toString(16).padStart(2, "0")).join(""); }

  // renew gives the forms of the page other keys, since theirs are taken.
  function renew() {
    for (const field of document.querySelectorAll("[name=press]")) field.value = press();
  }

  function hold(event) {
    const config = event.detail.requestConfig;
    const status = event.detail.xhr.status;
    if (!isMark(config) || status > 0 && !away(status)) return;
    event.stopImmediatePropagation();
    const fields = new URLSearchParams(config.formData);
    fields.set("sure", "yes"); // it belongs to the stage it was pressed at
    add(config.path, fields, true);
    renew();
    wait();
  }

  function add(path, fields, counts) {
    keep([...list(), { path, fields: fields.toString(), counts }]);
    sayWaiting();
  }

  function wait() {
    clearTimeout(timer);
    if (list().length > 0) timer = setTimeout(send, again);
  }

  function send() {
    sending = sending || sendAll().finally(() => { sending = null; });
    return sending;
  }

  async function sendAll() {
    let sent = 0, refused = 0;
    while (list().length > 0) {
      const mark = list()[0];
      let answer;
      try {
        answer = await fetch(mark.path, {
          method: "POST", body: mark.fields, redirect: "manual",
          headers: { "Content-Type": "application/x-www-form-urlencoded", "HX-Request": "true", Accept: "application/json" },
        });
      } catch (problem) {
        break;
      }
      if (away(answer.status)) break;
      if (answer.status === 401) {
        window.advise("Sign in again in another window: " + list().length + " marks wait in this page until then.");
        break;
      }
      keep(list().slice(1));
      if (answer.ok && mark.counts) sent++;
      else if (mark.counts) refused++;
      const said = answer.ok ? await answer.json().catch(() => null) : null;
      document.dispatchEvent(new CustomEvent("waiting:answer", { detail: { mark, said, ok: answer.ok } }));
    }
    if (list().length > 0) { sayWaiting(); wait(); return; }
    document.dispatchEvent(new CustomEvent("waiting:sent", { detail: { sent, refused } }));
  }

  // later sends what a page marks by itself, after all that waits; a reader hears of it by
  // waiting:answer. What does not count is no mark, and nothing is said of it.
  function later(path, fields, counts) {
    keep([...list(), { path, fields: fields.toString(), counts }]);
    return send();
  }

  // drop takes back a mark that has not been sent; it says whether it was there.
  function drop(key) {
    const left = list().filter((mark) => new URLSearchParams(mark.fields).get("press") !== key);
    const there = left.length < list().length && !sending;
    if (there) keep(left);
    return there;
  }

  document.addEventListener("waiting:sent", async (event) => {
    const { sent, refused } = event.detail;
    if (!document.getElementById("bench")) return;
    await htmx.ajax("GET", location.href, { target: "#side", swap: "outerHTML" });
    if (refused > 0) window.advise((refused === 1 ? "A mark that waited was" : refused + " marks that waited were") + " refused: look at the latest tries, and mark again what is missing.");
    else if (sent > 0) window.advise((sent === 1 ? "The mark that waited is" : "The " + sent + " marks that waited are") + " sent and logged.");
  });
  document.addEventListener("htmx:sendError", hold, true);
  document.addEventListener("htmx:responseError", hold, true);
  document.addEventListener("htmx:afterSettle", sayWaiting);
  document.addEventListener("DOMContentLoaded", () => { sayWaiting(); wait(); });

  return { later, drop, press, busy: () => sending !== null };
})();
