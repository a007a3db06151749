// The Floor: sets that go on without the line, and what another device did. Computes no mechanics.

import { rest, stopClocks } from "./floor-clock.js";
import { add, all, change, drop, waiting } from "./floor-store.js";

const LOOK_MS = 4000;
const SENT_KEPT_MS = 12 * 3600 * 1000;
let lock = null;
let sending = null;

const floor = () => document.querySelector("[data-floor]");
const panel = () => document.querySelector("[data-panel]");
const newId = () => "d" + crypto.getRandomValues(new Uint32Array(3)).join("-");

async function tellKept() {
  const place = document.getElementById("kept");
  if (!place) return;
  const left = await waiting();
  if (left.some((one) => one.refused)) {
    const button = document.createElement("button");
    button.type = "button";
    button.className = "wa-word";
    button.textContent = place.dataset.sayDrop;
    button.addEventListener("click", async () => {
      for (const one of await waiting()) if (one.refused) await drop(one);
      tellKept();
    });
    place.replaceChildren(place.dataset.sayRefused + " ", button);
    return;
  }
  const n = left.filter((one) => one.kind === "set").length;
  const more = left.length && !n ? place.dataset.sayChange : "";
  place.textContent = more || (n === 0 ? place.dataset.sayKept : n === 1 ? place.dataset.sayOne : place.dataset.sayMore.replace("[n]", n));
}

// The next set is on the page already: it is shown at once, whatever the line does.
function fill(step) {
  const here = panel();
  const put = (name, words) => here.querySelectorAll("[data-now=" + name + "]").forEach((e) => { e.textContent = words; });
  for (const name of ["side", "of", "reps", "done", "hand"]) put(name, step.querySelector("[data-is=" + name + "]").textContent);
  here.querySelectorAll("[name=side]").forEach((e) => { if (e.type === "hidden") e.value = step.dataset.side; });
  here.querySelectorAll("[name=number]").forEach((e) => { e.value = step.dataset.number; });
  here.querySelectorAll("[name=uid]").forEach((e) => { e.value = newId(); });
  here.querySelectorAll("[data-all-reps]").forEach((e) => { e.value = step.dataset.reps; });
  here.querySelectorAll("details[open]").forEach((e) => { e.open = false; });
  here.querySelectorAll("[data-after-set]").forEach((e) => { e.hidden = true; });
}

function clockFrom(rests, at) {
  const row = panel().querySelector("[data-rest]");
  if (!row) return;
  row.hidden = !rests;
  if (!rests) { delete row.dataset.until; return; }
  row.dataset.until = new Date(Date.parse(at) + 1000 * Number(row.dataset.rest)).toISOString();
  row.querySelector("[data-clock-until]").hidden = true;
  rest();
}

function goOn(at) {
  const steps = panel() ? panel().querySelectorAll("[data-steps] > li") : [];
  if (steps.length > 1) {
    const next = steps[1];
    fill(next);
    clockFrom(next.dataset.rests === "1", at);
    steps[0].remove();
    return;
  }
  const done = panel() && panel().dataset.lift;
  const others = Array.from(document.querySelectorAll("template[data-lift]"));
  const next = others.find((t) => t.dataset.lift !== done && !t.dataset.used) || document.querySelector("template[data-all-done]");
  if (done) document.querySelectorAll("template[data-lift='" + done + "']").forEach((t) => { t.dataset.used = "1"; });
  if (next && panel()) showPanel(next.innerHTML);
}

function showPanel(html) {
  panel().outerHTML = html;
  panel().querySelectorAll("[name=uid]").forEach((e) => { e.value = newId(); });
  window.scrollTo(0, 0);
}

// What the page in hand shows as done: what the server wrote into it, and what was gone on from since.
function shows(uid) {
  const here = floor().dataset;
  if ((here.has || "").split(" ").includes(uid)) return true;
  here.has = (here.has || "") + " " + uid;
  return false;
}

// The page may be one that was kept a while ago: what was done since, sent or waiting, goes on from there.
async function replay() {
  if (!floor()) return;
  const session = floor().dataset.floor;
  for (const one of await all()) {
    if (one.sent && Date.now() - Date.parse(one.at) > SENT_KEPT_MS) await drop(one);
    if (one.refused || one.session !== session || !panel() || shows(one.uid)) continue;
    if (one.kind === "instead") { showPanel(one.html); continue; }
    if (panel().dataset.lift !== one.lift) {
      const found = document.querySelector("template[data-lift='" + one.lift + "']");
      if (found) showPanel(found.innerHTML);
    }
    goOn(one.at);
  }
}

async function refresh() {
  if (!floor() || document.querySelector("[data-instead]")) return;
  const address = floor().dataset.address;
  let answer;
  try { answer = await fetch(address, { headers: { "X-Part": "answer" }, credentials: "same-origin" }); } catch { return; }
  const text = await answer.text();
  if (!answer.ok || text.includes("<html")) { window.location.assign(address); return; }
  const onDone = document.activeElement && document.activeElement.hasAttribute("data-done");
  document.getElementById("answer").innerHTML = text;
  window.history.replaceState(null, "", address);
  if (onDone) document.querySelector("[data-done]")?.focus({ preventScroll: true });
  await replay();
  rest();
  tellKept();
  keepHere();
}

// Each is sent once: under its own name, in the order in which it was done.
async function sendAll() {
  for (const one of (await waiting()).filter((other) => !other.refused)) {
    let answer;
    try {
      answer = await fetch(one.address, { method: "POST", credentials: "same-origin", headers: { "X-Queue": "1" }, body: new URLSearchParams(one.fields) });
    } catch { return; }
    if (answer.status >= 500) return;
    if (answer.ok) await change(Object.assign({}, one, { sent: true }));
    // refused, so not lost in silence: it waits until it is looked at
    else await change(Object.assign({}, one, { refused: true }));
    await tellKept();
  }
}

async function send() {
  // one after the other, or a set would be under way twice
  while (sending) await sending;
  const before = (await waiting()).filter((one) => !one.refused).length;
  if (!before) return;
  sending = sendAll().finally(() => { sending = null; });
  await sending;
  const left = (await waiting()).filter((one) => !one.refused).length;
  if (left < before && !left) await refresh();
  tellKept();
}

document.addEventListener("submit", async (event) => {
  const form = event.target;
  if (!form.hasAttribute("data-queue")) return;
  event.preventDefault();
  const at = new Date().toISOString();
  form.querySelectorAll("[data-done-at]").forEach((field) => { field.value = at; });
  const fields = Array.from(new FormData(form, event.submitter || null)).filter(([, value]) => typeof value === "string");
  const one = { kind: form.dataset.queue || "set", uid: new Map(fields).get("uid"), address: form.action, fields: fields, at: at };
  if (one.kind === "instead") {
    const card = form.closest("[data-card]");
    Object.assign(one, { session: form.dataset.session, html: card.querySelector("template").innerHTML });
    await add(one);
    await send();
    window.location.assign(form.dataset.back);
    return;
  }
  Object.assign(one, { session: floor().dataset.floor, lift: panel().dataset.lift });
  await add(one);
  stopClocks();
  if (!shows(one.uid)) goOn(at);
  const aches = fields.some(([name, value]) => name === "pain" && value);
  await tellKept();
  await send();
  if (aches && !(await waiting()).length) window.location.assign(form.dataset.hurts + "?why=hurts&joint=" + encodeURIComponent(new Map(fields).get("pain_joint")));
});

// What another device did is seen here, but never under the thumb.
async function look() {
  const here = floor();
  if (!here || document.hidden || !here.dataset.state) return;
  if (document.querySelector("[data-floor] details[open]") || (await waiting()).length) return;
  if (document.activeElement && document.activeElement.matches("input, select, textarea")) return;
  try {
    const answer = await fetch(here.dataset.state, { credentials: "same-origin" });
    if (answer.ok && (await answer.json()).mark !== here.dataset.mark) await refresh();
  } catch { /* no line: what is here goes on */ }
}

async function awake() {
  if (!floor() || !("wakeLock" in navigator) || document.hidden) return;
  try { lock = lock || await navigator.wakeLock.request("screen"); } catch { lock = null; }
}

// The page, what it is made of, and three stand-ins for each lift are kept for when the line is away.
function keepHere() {
  const worker = navigator.serviceWorker && navigator.serviceWorker.controller;
  if (!worker || !floor()) return;
  const used = performance.getEntriesByType("resource").map((entry) => entry.name).filter((name) => name.includes("/static/"));
  const ahead = Array.from(document.querySelectorAll("[data-ahead]"), (link) => link.href);
  worker.postMessage({ keep: [new URL(floor().dataset.address, window.location.href).href], once: Array.from(new Set(used.concat(ahead))) });
}

async function stay() {
  const told = document.querySelector("[data-no-worker]");
  if (!("serviceWorker" in navigator) || !window.isSecureContext) {
    if (told) told.hidden = false;
    return;
  }
  navigator.serviceWorker.addEventListener("controllerchange", keepHere);
  try {
    const place = document.querySelector("[data-worker]");
    if (place) await navigator.serviceWorker.register(place.dataset.worker);
    await navigator.serviceWorker.ready;
    keepHere();
  } catch { if (told) told.hidden = false; }
}

window.addEventListener("online", send);
document.addEventListener("visibilitychange", () => { lock = null; awake(); send(); });
window.setInterval(async () => { if ((await waiting()).length) send(); else look(); }, LOOK_MS);
replay().then(() => { rest(); tellKept(); return send(); });
awake();
stay();
