// What a page sends later, when there is no network: a queue that lies in the browser's
// storage, and is sent in its order when the server answers again. Each entry has a key of its
// own, so that one that had arrived after all counts once.

// mostRefusals is how often the server may fail at an entry before the next one is sent.
const mostRefusals = 3;

export function newKey() {
  return Array.from(crypto.getRandomValues(new Uint8Array(12)), (n) => n.toString(16).padStart(2, "0")).join("");
}

// unreached says whether an answer comes from before the program, or from it without its records.
export const unreached = (status) => status >= 502 && status <= 504;

// what becomes of an entry by the status of its answer, 0 for none: "sent", "refused", "held"
// until the server answers, "signed out", or "failed".
export function outcome(status) {
  if (status === 0 || unreached(status) || status === 429) return "held";
  if (status === 401) return "signed out";
  if (status >= 500) return "failed";
  return status < 400 ? "sent" : "refused";
}

export class Outbox {
  #storage; #place; #base; #again; #headers; #on; #timer = 0; #sending = null;

  // An outbox lies at a place of a storage and tries again after some milliseconds. It calls
  // on.answer(entry, response), on.held(why, n) and on.empty({ sent, refused, full, waited }).
  constructor(storage, place, { base = "", again = 5000, headers = {}, on = {} } = {}) {
    this.#storage = storage;
    this.#place = place;
    this.#base = base;
    this.#again = again;
    this.#headers = { "Content-Type": "application/x-www-form-urlencoded", Accept: "application/json", ...headers };
    this.#on = on;
  }

  get busy() { return this.#sending !== null; }

  // list has the entries that wait: { path, fields, counts }. Those of an earlier release name a
  // page under the base.
  list() {
    return JSON.parse(this.#storage.getItem(this.#place) || "[]").map(({ page, ...entry }) =>
      page === undefined ? entry : { ...entry, path: this.#base + page, counts: true });
  }

  #save(entries) { this.#storage.setItem(this.#place, JSON.stringify(entries)); }

  add(path, fields, counts = true) {
    this.#save([...this.list(), { path, fields: new URLSearchParams(fields).toString(), counts }]);
  }

  // takeOver moves what waits at another place here, from addresses under another base.
  takeOver(place, base) {
    const there = new Outbox(this.#storage, place, { base });
    this.#save([...this.list(), ...there.list().map((entry) =>
      ({ ...entry, path: entry.path.startsWith(base) ? this.#base + entry.path.slice(base.length) : entry.path }))]);
    this.#storage.removeItem(place);
  }

  // later adds an entry and sends all there are.
  later(path, fields, counts = true) {
    this.add(path, fields, counts);
    return this.send();
  }

  // remove takes out the entry of a key that has not been sent; it says whether it was there.
  remove(key) {
    if (this.busy) return false;
    const left = this.list().filter((entry) => new URLSearchParams(entry.fields).get("request_key") !== key);
    const there = left.length < this.list().length;
    if (there) this.#save(left);
    return there;
  }

  // wait sends what there is after a while.
  wait() {
    clearTimeout(this.#timer);
    if (this.list().length > 0) this.#timer = setTimeout(() => this.send(), this.#again);
  }

  send() {
    this.#sending ??= this.#sendAll().finally(() => { this.#sending = null; });
    return this.#sending;
  }

  async #sendAll() {
    clearTimeout(this.#timer);
    const done = { sent: 0, refused: 0, full: false, waited: this.list().length };
    while (this.list().length > 0) {
      const entry = this.list()[0];
      const answer = await fetch(entry.path, { method: "POST", body: entry.fields, redirect: "manual", headers: this.#headers }).catch(() => null);
      let what = outcome(answer?.status ?? 0);
      if (answer?.type === "opaqueredirect") what = "refused"; // to where nothing was marked
      if (what === "failed") {
        const failures = (entry.failures || 0) + 1;
        if (failures < mostRefusals) {
          this.#save([{ ...entry, failures }, ...this.list().slice(1)]);
          what = "held";
        }
      }
      if (what === "held" || what === "signed out") {
        this.#on.held?.(what, this.list());
        this.wait();
        return;
      }
      this.#save(this.list().slice(1));
      if (entry.counts) done[what === "sent" ? "sent" : "refused"]++;
      done.full ||= answer.status === 409; // more than a day has
      await this.#on.answer?.(entry, answer);
    }
    this.#on.empty?.(done);
  }
}
