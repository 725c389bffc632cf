// Keeps a student's pages, and what they need, for when there is no network. A page is asked
// for first, and taken from what is kept where nobody answers. Where the link was ended, what
// is kept goes.
const place = "my-page " + new URL(self.registration.scope).pathname;
const pages = ["", "music", "cards", "notes", "care"];

self.addEventListener("install", (event) => {
  event.waitUntil((async () => {
    const kept = await caches.open(place);
    await kept.addAll(files);
    self.skipWaiting();
  })());
});

self.addEventListener("activate", (event) => {
  event.waitUntil((async () => {
    const kept = await caches.open(place);
    for (const request of await kept.keys()) {
      const path = new URL(request.url).pathname;
      if (path.startsWith("/static/") && !files.includes(path)) await kept.delete(request);
    }
    await self.clients.claim();
    await keepPages();
  })());
});

// keepPages fetches the week's pages while there is network.
async function keepPages() {
  const kept = await caches.open(place);
  for (const page of pages) {
    const address = self.registration.scope + page;
    const answer = await fetch(address, { credentials: "same-origin" }).catch(() => null);
    if (answer && answer.ok) await kept.put(address, answer);
  }
}

async function fromNetwork(request) {
  const kept = await caches.open(place);
  const address = request.url.split("?")[0].split("#")[0];
  try {
    const answer = await fetch(request);
    if (answer.ok) await kept.put(address, answer.clone());
    if (answer.status === 404 || answer.status === 410) { await caches.delete(place); await self.registration.unregister(); }
    if (answer.status >= 502 && answer.status <= 504) throw new Error("away");
    return answer;
  } catch (problem) {
    const before = await kept.match(address);
    if (before) return before;
    throw problem;
  }
}

async function fromKept(request) {
  const kept = await caches.open(place);
  const before = await kept.match(request.url);
  return before || fetch(request);
}

self.addEventListener("fetch", (event) => {
  const at = new URL(event.request.url);
  if (event.request.method !== "GET" || at.origin !== self.location.origin) return;
  if (at.pathname.startsWith("/static/")) event.respondWith(fromKept(event.request));
  else if (event.request.url.startsWith(self.registration.scope) && !at.pathname.endsWith("/worker.js")) event.respondWith(fromNetwork(event.request));
});

self.addEventListener("message", (event) => { if (event.data === "keep pages") event.waitUntil(keepPages()); });
