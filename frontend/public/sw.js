/*
 * Keeps the shell of the application and what the floor needs, so that a session goes on without a
 * connection. Everything is asked of the network first; what was last answered stands in for it.
 * Files under /assets/ carry a hash of their content in their name: they are never asked twice.
 */
const SHELL = "dialback-shell";
const ANSWERS = "dialback-answers";
/** So many answers are kept, the latest: some days of sessions. */
const MOST_ANSWERS = 80;
/** How long the network may take before the last answer stands in, where there is one. */
const PATIENCE_MS = 3000;

self.addEventListener("install", (event) => {
  event.waitUntil(keepShell().then(() => self.skipWaiting()));
});

self.addEventListener("activate", (event) => {
  event.waitUntil(self.clients.claim());
});

/** Counts how often whoever was here has gone: an answer begun for them is not kept after that. */
let gone = 0;
self.addEventListener("message", (event) => {
  if (event.data !== "forget") return;
  gone += 1;
  event.waitUntil(caches.delete(ANSWERS));
});

/** The page and every file it can ask for, by the list that the build makes. */
async function keepShell() {
  const cache = await caches.open(SHELL);
  const list = await (await fetch("/assets.json", { cache: "no-store" })).json();
  const files = Object.values(list).flatMap((one) => [
    one.file,
    ...(one.css ?? []),
    ...(one.assets ?? []),
  ]);
  const wanted = new Set([...files.map((one) => `/${one}`), "/icon.svg"]);
  const kept = await cache.keys();
  const have = new Set(kept.map((one) => new URL(one.url).pathname));
  await cache.addAll([...wanted].filter((one) => !have.has(one)));
  await cache.put("/", await fetch("/", { cache: "no-store" }));
  for (const one of kept) {
    const path = new URL(one.url).pathname;
    if (path !== "/" && !wanted.has(path)) await cache.delete(one);
  }
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== "GET" || url.origin !== self.location.origin) return;
  if (url.pathname.startsWith("/assets/")) event.respondWith(keptFirst(request));
  else if (request.mode === "navigate") event.respondWith(page(event));
  else if (isForTheFloor(url)) event.respondWith(networkFirst(request, ANSWERS, request));
});

/** What a run and its list ask for; the sensor's stream is not for keeping. */
const FOR_THE_FLOOR = new Set(["/api/floor", "/api/floor/run", "/api/unit", "/api/me"]);
const isForTheFloor = (url) => FOR_THE_FLOOR.has(url.pathname);

async function keptFirst(request) {
  return (await caches.match(request)) ?? fetch(request);
}

async function page(event) {
  const response = await networkFirst(event.request, SHELL, "/");
  // A new build has new files: they are fetched while there is a connection.
  event.waitUntil(keepShell().catch(() => undefined));
  return response;
}

async function networkFirst(request, name, key) {
  const cache = await caches.open(name);
  const kept = await cache.match(key);
  const before = gone;
  const asked = fetch(request).then(async (response) => {
    if (response.ok && (name !== ANSWERS || before === gone)) {
      await cache.put(key, response.clone());
      if (name === ANSWERS) await forget(cache);
    }
    return response;
  });
  if (!kept) return asked;
  const late = new Promise((resolve) => setTimeout(() => resolve(kept), PATIENCE_MS));
  return Promise.race([asked.catch(() => kept), late]);
}

/** The oldest answers go: a club that trains every day would fill the device. */
async function forget(cache) {
  const kept = await cache.keys();
  await Promise.all(
    kept.slice(0, Math.max(0, kept.length - MOST_ANSWERS)).map((one) => cache.delete(one)),
  );
}
