// The bench without a line: what was opened on this device opens again, drawn as it was last; what is pressed waits in queueing.js.
const PAGES = "bench-pages";
const PARTS = "bench-parts"; // styles and scripts, whose names change with their content
const MOST_PARTS = 120;

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

// A page and a piece of it have one address and two contents.
function keyOf(request, address = request.url) {
  const url = new URL(address);
  url.hash = "";
  if (request.headers.get("HX-Request")) url.searchParams.set("piece", "1");
  return url.href;
}

async function kept(name, key) {
  const cache = await caches.open(name);
  return cache.match(key, { ignoreVary: true });
}

async function keep(name, key, answer) {
  const cache = await caches.open(name);
  await cache.put(key, answer);
  if (name !== PARTS) return;
  const keys = await cache.keys();
  await Promise.all(keys.slice(0, Math.max(0, keys.length - MOST_PARTS)).map((old) => cache.delete(old)));
}

async function part(request) {
  const there = await kept(PARTS, request.url);
  if (there) return there;
  const answer = await fetch(request);
  if (answer.ok) await keep(PARTS, request.url, answer.clone());
  return answer;
}

const NOTHING = "<!doctype html><meta charset=utf-8><title>No line</title><h1>No line</h1><p>This was not opened on this device yet.";

async function page(request) {
  try {
    const answer = await fetch(request);
    if (answer.type === "opaqueredirect") await caches.delete(PAGES); // signed out: what was seen is not for the next one
    else if (answer.ok) await keep(PAGES, keyOf(request), answer.clone());
    return answer;
  } catch (fault) {
    const url = new URL(request.url);
    const there = (await kept(PAGES, keyOf(request))) || (await kept(PAGES, keyOf(request, url.origin + url.pathname)));
    if (there) return there;
    if (request.mode !== "navigate") throw fault;
    return new Response(NOTHING, { status: 503, headers: { "Content-Type": "text/html; charset=utf-8" } });
  }
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== "GET" || url.origin !== self.location.origin) return;
  if (url.pathname.startsWith("/static/")) event.respondWith(part(request));
  else if (request.url.startsWith(self.registration.scope) && url.pathname.endsWith("/")) event.respondWith(page(request));
});
