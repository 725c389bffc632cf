// Keeps a student's pages, and what they need, for when there is no network. A page is asked
// for first, and taken from what is kept where nobody answers. Where the link was ended, what
// is kept goes.
const place = "my-page " + new URL(self.registration.scope).pathname;
const pages = ["", "music", "cards", "notes", "care"];

self.addEventListener("install", (event) => {
  event.waitUntil((async () => {
    await (await caches.open(place)).addAll(files);
    self.skipWaiting();
  })());
});

self.addEventListener("activate", (event) => {
  event.waitUntil((async () => {
    const all = await caches.open(place);
    for (const request of await all.keys()) {
      const path = new URL(request.url).pathname;
      if (path.startsWith("/static/") && !files.includes(path) && !spoken.includes(path)) await all.delete(request);
    }
    await self.clients.claim();
    await keepPages();
  })());
});

// keepPages fetches the week's pages while there is network.
async function keepPages() {
  for (const page of pages) {
    const address = self.registration.scope + page;
    const answer = await fetch(address, { credentials: "same-origin" }).catch(() => null);
    if (answer && answer.ok) await keep(address, answer);
  }
}

// ended says that the link leads nowhere any more, so that nothing is kept again.
let ended = false;

async function keep(address, answer) {
  if (ended) return;
  await (await caches.open(place)).put(address, answer);
  if (ended) await caches.delete(place); // it ended meanwhile
}

// kept is what is kept of an address; it makes no place for what is to be kept.
const kept = (address) => caches.match(address, { cacheName: place });

async function fromNetwork(request) {
  const address = request.url.split("?")[0].split("#")[0];
  try {
    const answer = await fetch(request);
    if (answer.ok) await keep(address, answer.clone());
    if (answer.status === 404 || answer.status === 410) {
      ended = true;
      await caches.delete(place);
      await self.registration.unregister();
    }
    if (answer.status >= 502 && answer.status <= 504) throw new Error("away");
    return answer;
  } catch (problem) {
    const before = await kept(address);
    if (before) return before;
    throw problem;
  }
}

async function fromKept(request) {
  const before = await kept(request.url);
  if (before) return before;
  const answer = await fetch(request);
  if (answer.status === 200 && spoken.includes(new URL(request.url).pathname)) await keep(request.url, answer.clone());
  return answer;
}

self.addEventListener("fetch", (event) => {
  const at = new URL(event.request.url);
  if (event.request.method !== "GET" || at.origin !== self.location.origin) return;
  if (at.pathname.startsWith("/static/")) event.respondWith(fromKept(event.request));
  else if (event.request.url.startsWith(self.registration.scope) && !at.pathname.endsWith("/worker.js")) event.respondWith(fromNetwork(event.request));
});

self.addEventListener("message", (event) => { if (event.data === "keep pages") event.waitUntil(keepPages()); });
