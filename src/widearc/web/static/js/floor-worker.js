// Keeps the Floor's pages on the device: what the line brings is newest, what was kept serves without it.

const CACHE = "wide-arc-floor-1";

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

// A session is found by its address alone too, whatever of it was looked at last.
async function put(address, answer) {
  const kept = await caches.open(CACHE);
  const alone = address.split("?")[0];
  if (/\/floor\/\d+$/.test(alone) && alone !== address) await kept.put(alone, answer.clone());
  await kept.put(address, answer);
}

async function keep(address) {
  try {
    const answer = await fetch(address, { credentials: "same-origin" });
    if (answer.ok && !answer.redirected) await put(address, answer);
  } catch { /* no line: tried again later */ }
}

self.addEventListener("message", (event) => {
  event.waitUntil((async () => {
    const kept = await caches.open(CACHE);
    for (const address of event.data.keep) await keep(address);
    for (const address of event.data.once) if (!(await kept.match(address, { ignoreVary: true }))) await keep(address);
  })());
});

async function answered(request) {
  const kept = await caches.open(CACHE);
  try {
    const answer = await fetch(request);
    // a session's pages and what they are made of; a part of a page is no page
    if (answer.ok && !answer.redirected && !request.headers.has("X-Part")) await put(request.url, answer.clone());
    return answer;
  } catch (error) {
    const there = request.headers.has("X-Part") ? undefined
      : (await kept.match(request.url, { ignoreVary: true })) || (request.mode === "navigate" ? await kept.match(request.url.split("?")[0], { ignoreVary: true }) : undefined);
    if (there) return there;
    throw error;
  }
}

async function ended(request) {
  const answer = await fetch(request);
  // a session that is over leaves nothing of the client on the device
  if (answer.ok || answer.type === "opaqueredirect") await caches.delete(CACHE);
  return answer;
}

self.addEventListener("fetch", (event) => {
  const address = new URL(event.request.url);
  if (address.origin !== self.location.origin) return;
  if (event.request.method === "POST" && address.pathname.endsWith("/end") && !address.pathname.includes("/lift/")) {
    event.respondWith(ended(event.request));
    return;
  }
  if (event.request.method !== "GET" || address.pathname.endsWith("/state") || address.pathname.endsWith("worker.js")) return;
  event.respondWith(answered(event.request));
});
