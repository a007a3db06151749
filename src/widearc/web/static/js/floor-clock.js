// Clocks of the Floor: the rest, a hold, and the beat of a rep. Computes no mechanics.

let beat = null;
let held = null;
let sound = null;

function written(seconds) {
  const whole = Math.abs(Math.round(seconds));
  return Math.floor(whole / 60) + ":" + String(whole % 60).padStart(2, "0");
}

function tick(high) {
  if (navigator.vibrate) navigator.vibrate(high ? 60 : 25);
  if (!sound) return;
  const tone = sound.createOscillator();
  const loud = sound.createGain();
  tone.frequency.value = high ? 880 : 587;
  loud.gain.setValueAtTime(0.15, sound.currentTime);
  loud.gain.exponentialRampToValueAtTime(0.001, sound.currentTime + 0.12);
  tone.connect(loud).connect(sound.destination);
  tone.start();
  tone.stop(sound.currentTime + 0.14);
}

function listen() {
  try { sound = sound || new window.AudioContext(); sound.resume(); } catch { sound = null; }
}

function rest() {
  for (const row of document.querySelectorAll("[data-until]")) {
    const left = Math.round((Date.parse(row.dataset.until) - Date.now()) / 1000);
    if (Number.isNaN(left)) continue;
    row.querySelector("[data-clock]").textContent = (left < 0 ? "+" : "") + written(left);
    const whole = Number(row.dataset.rest) || 1;
    row.querySelector("[data-fill]").style.setProperty("--done", Math.min(1, Math.max(0, 1 - left / whole)));
    if (left === 0 && row.dataset.rang !== row.dataset.until) {
      row.dataset.rang = row.dataset.until;
      tick(true);
    }
  }
}

// Where a rep is after so many seconds: its phase, and the place of the marker from long (0) to short (1).
function phaseAt(seconds, down, hold, up) {
  const whole = down + hold + up;
  const within = seconds % whole;
  if (within < down) return { phase: "down", at: 1 - within / down, rep: Math.floor(seconds / whole) + 1 };
  if (within < down + hold) return { phase: "hold", at: 0, rep: Math.floor(seconds / whole) + 1 };
  return { phase: "up", at: (within - down - hold) / up, rep: Math.floor(seconds / whole) + 1 };
}

function stopBeat() {
  if (!beat) return;
  window.cancelAnimationFrame(beat.frame);
  beat.row.querySelector("[data-beat]").setAttribute("aria-pressed", "false");
  const words = beat.row.querySelector("[data-phase]");
  words.textContent = words.dataset.say;
  const mark = beat.row.querySelector("[data-sweep]");
  if (mark) mark.hidden = true;
  beat = null;
}

function sweep() {
  if (!beat) return;
  if (!beat.row.isConnected) { beat = null; return; }
  const { down, hold, up, reps } = beat;
  const seconds = (performance.now() - beat.begun) / 1000;
  const now = phaseAt(seconds, down, hold, up);
  if (now.rep > reps) { tick(true); stopBeat(); return; }
  if (now.phase !== beat.phase) {
    tick(now.phase === "down");
    beat.phase = now.phase;
    const words = beat.row.querySelector("[data-phase]");
    words.textContent = now.rep + " · " + words.dataset[{ down: "sayDown", hold: "sayHold", up: "sayUp" }[now.phase]];
  }
  const mark = beat.row.querySelector("[data-sweep]");
  if (mark) {
    mark.hidden = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
    mark.style.setProperty("--at", now.at);
  }
  beat.frame = window.requestAnimationFrame(sweep);
}

function startBeat(row) {
  listen();
  const numbers = ["down", "pause", "up", "reps"].map((name) => Number(row.dataset[name]));
  beat = { row: row, down: numbers[0], hold: numbers[1], up: numbers[2], reps: numbers[3], begun: performance.now(), phase: "" };
  row.querySelector("[data-beat]").setAttribute("aria-pressed", "true");
  sweep();
}

function stopHold() {
  if (!held) return;
  window.clearInterval(held.every);
  held.button.setAttribute("aria-pressed", "false");
  held.button.textContent = held.button.dataset.say;
  held = null;
}

function startHold(button) {
  listen();
  const whole = Number(button.dataset.holdFor);
  held = { button: button, begun: performance.now(), every: 0 };
  button.setAttribute("aria-pressed", "true");
  const show = () => {
    if (!button.isConnected) { stopHold(); return; }
    const gone = (performance.now() - held.begun) / 1000;
    const left = whole - gone;
    button.textContent = (left < 0 ? "+" : "") + written(left);
    // what the clock stood at when Done is tapped goes along with the set
    document.querySelectorAll("[name=held_s]").forEach((field) => { field.value = String(Math.round(gone)); });
    if (Math.round(left) === 0 && !held.rang) { held.rang = true; tick(true); }
  };
  held.every = window.setInterval(show, 250);
  show();
}

document.addEventListener("click", (event) => {
  const beats = event.target.closest("[data-beat]");
  if (beats) {
    const row = beats.closest("[data-down]");
    const same = beat && beat.row === row;
    stopBeat();
    if (!same) startBeat(row);
  }
  const holds = event.target.closest("[data-hold-for]");
  if (holds) {
    const same = held && held.button === holds;
    stopHold();
    if (!same) startHold(holds);
  }
});

window.setInterval(rest, 500);

// A set is done: its clocks are over.
function stopClocks() {
  stopBeat();
  stopHold();
  document.querySelectorAll("[name=held_s]").forEach((field) => { field.value = ""; });
}

export { rest, stopClocks };
