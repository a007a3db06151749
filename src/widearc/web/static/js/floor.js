// The Floor: the rest clock, the screen that stays awake, and sets that wait for the line. Computes no mechanics.

const QUEUE = "wide-arc sets";
let lock = null;

function waiting() {
  try { return JSON.parse(window.localStorage.getItem(QUEUE) || "[]"); } catch { return []; }
}

function keep(list) {
  window.localStorage.setItem(QUEUE, JSON.stringify(list));
  tellKept();
}

function tellKept() {
  const place = document.getElementById("kept");
  if (!place) return;
  const n = waiting().length;
  if (waiting().some((set) => set.refused)) {
    place.textContent = place.dataset.sayRefused;
    const drop = document.createElement("button");
    drop.type = "button";
    drop.className = "wa-word";
    drop.textContent = place.dataset.sayDrop;
    drop.addEventListener("click", () => keep(waiting().filter((set) => !set.refused)));
    place.append(" ", drop);
    return;
  }
  place.textContent = n === 0 ? place.dataset.sayKept : n === 1 ? place.dataset.sayOne : place.dataset.sayMore.replace("[n]", n);
}

function clock() {
  for (const rest of document.querySelectorAll("[data-until]")) {
    const left = Math.round((Date.parse(rest.dataset.until) - Date.now()) / 1000);
    const shown = Math.abs(left);
    rest.querySelector(".wa-floor-clock").textContent =
      (left < 0 ? "+" : "") + Math.floor(shown / 60) + ":" + String(shown % 60).padStart(2, "0");
    const whole = Number(rest.dataset.rest) || 1;
    rest.querySelector("[data-fill]").style.setProperty("--done", Math.min(1, Math.max(0, 1 - left / whole)));
  }
}

async function awake() {
  if (!document.querySelector("[data-floor]") || !("wakeLock" in navigator) || document.hidden) return;
  try { lock = lock || await navigator.wakeLock.request("screen"); } catch { lock = null; }
}

// A set is sent once: under its own name, in the order in which it was done.
async function send() {
  let sent = 0;
  for (const one of waiting().filter((set) => !set.refused)) {
    let answer;
    try {
      answer = await fetch(one.address, { method: "POST", credentials: "same-origin", headers: { "X-Queue": "1" }, body: new URLSearchParams(one.fields) });
    } catch { return sent; }
    if (answer.status >= 500) return sent;
    if (!answer.ok) {
      // refused, so not lost in silence: it waits until it is looked at
      one.refused = true;
      keep(waiting().map((other) => (other.uid === one.uid ? one : other)));
      continue;
    }
    keep(waiting().filter((other) => other.uid !== one.uid));
    sent += 1;
  }
  return sent;
}

document.addEventListener("submit", async (event) => {
  const form = event.target;
  if (!form.hasAttribute("data-queue")) return;
  event.preventDefault();
  const at = form.querySelector("[data-done-at]");
  if (at) at.value = new Date().toISOString();
  const fields = Array.from(new FormData(form, event.submitter || null)).filter(([, value]) => typeof value === "string");
  const uid = form.querySelector("[name=uid]").value;
  keep(waiting().concat([{ uid: uid, address: form.action, fields: fields }]));
  for (const button of document.querySelectorAll("[data-queue] button")) button.disabled = true;
  await send();
  if (waiting().every((set) => set.refused)) window.location.reload();
  else offline();
});

// Without the line the next set can be done, too: it gets a name of its own.
function offline() {
  for (const form of document.querySelectorAll("form[data-queue]")) {
    form.querySelector("[name=uid]").value = "d" + crypto.getRandomValues(new Uint32Array(3)).join("-");
    for (const button of form.querySelectorAll("button")) button.disabled = false;
  }
}

window.addEventListener("online", () => { send().then((sent) => { if (sent && waiting().every((set) => set.refused)) window.location.reload(); }); });
document.addEventListener("visibilitychange", () => { lock = null; awake(); });
window.setInterval(clock, 500);
window.setInterval(() => { if (waiting().length) send().then((sent) => { if (sent && waiting().every((set) => set.refused)) window.location.reload(); }); }, 5000);
clock();
tellKept();
awake();
if (waiting().length) send().then((sent) => { if (sent && waiting().every((set) => set.refused)) window.location.reload(); });
