// Handles on a drawing: a drag or an arrow key changes the field of the same name; the server draws anew.
// px to a field's value is the drawing's own scale, sent with the handle. Computes no mechanics.

import { addressOf, show, tell } from "./live.js";
import { sentence } from "./sentences.js";

let drag = null;
let keyed = null;  // the handle the arrow keys move, and where it was: Escape puts it back

function fieldOf(name) { return document.getElementById(name); }

function tidy(value, step) {
  const places = step < 1 ? 1 : 0;
  return Number((Math.round(value / step) * step).toFixed(places)).toString();
}

// the places a handle with stops may stand at
function stopsOf(handle) {
  return (handle.dataset.stops || "").split(";").filter(Boolean).map((stop) => {
    const [value, x, y] = stop.split(" ");
    return { value: value, x: Number(x), y: Number(y) };
  });
}

function held(value, handle) {
  return Math.max(Number(handle.getAttribute("aria-valuemin")), Math.min(Number(handle.getAttribute("aria-valuemax")), value));
}

function put(field, value) {
  field.value = value;
  const other = field.dataset.clears && field.form.elements[field.dataset.clears];
  if (other) other.value = "";
}

// one request at a time: what was dragged meanwhile goes with the next
async function redraw() {
  if (!drag || drag.busy) { if (drag) drag.again = true; return; }
  drag.busy = true;
  const form = document.getElementById(drag.form);
  const headers = { "X-Part": "answer", "X-Drag": "1", "X-Scale": drag.scale, "X-Was": drag.before.split("?")[1] || "" };
  await show(addressOf(form), null, { headers: headers });
  if (!drag) return;
  // what was dragged while the answer was on its way is not lost with the fields it replaced
  drag.names.forEach((name, i) => { if (fieldOf(name)) put(fieldOf(name), drag.values[i]); });
  drag.busy = false;
  if (drag.again) { drag.again = false; redraw(); }
}

function begin(handle, x, y) {
  const svg = handle.ownerSVGElement;
  const box = svg.getBoundingClientRect();
  const names = handle.dataset.handle.split(" ");
  keyed = null;
  drag = {
    values: names.map((name) => fieldOf(name).value),
    names: names, form: fieldOf(names[0]).form.id, start: names.map((name) => fieldOf(name).value), stops: stopsOf(handle),
    before: window.location.pathname + window.location.search, x: x, y: y, id: handle.id,
    scale: svg.dataset.scale || "", per: svg.viewBox.baseVal.width / box.width, moved: false,
    px: handle.dataset.px.split(" ").map(Number), dx: handle.dataset.dx.split(" ").map(Number), dy: handle.dataset.dy.split(" ").map(Number),
    step: Number(handle.dataset.step), label: handle.dataset.label, unit: handle.dataset.unit,
  };
}

function finish(keep) {
  if (!drag) return;
  const done = drag;
  drag = null;
  if (!done.moved && keep) return;
  done.names.forEach((name, i) => put(fieldOf(name), keep ? done.values[i] : done.start[i]));
  const form = document.getElementById(done.form);
  const address = keep ? addressOf(form) : done.before;
  const now = done.values;
  show(address, null).then(() => {
    if (!keep) return;
    window.history.pushState(null, "", address);
    const unit = done.unit ? " " + done.unit : "";
    tell(done.unit || done.names.length === 1 && !document.querySelector("input[name=feel]:checked")
      ? sentence("sayMoved", { label: done.label, before: done.start.join(", "), after: now.join(", ") + unit })
      : sentence("sayChanged", { label: done.label }));
    const again = document.getElementById(done.id);
    if (again) again.focus({ preventScroll: true });
  });
}

document.addEventListener("pointerdown", (event) => {
  const handle = event.target.closest && event.target.closest("[data-handle]");
  if (!handle || event.button !== 0) return;
  event.preventDefault();
  handle.focus({ preventScroll: true });
  begin(handle, event.clientX, event.clientY);
});
document.addEventListener("pointermove", (event) => {
  if (!drag) return;
  const handle = document.getElementById(drag.id);
  if (!handle) return;
  const mx = (event.clientX - drag.x) * drag.per, my = (event.clientY - drag.y) * drag.per;
  if (Math.abs(mx) + Math.abs(my) < 2 && !drag.moved) return;
  drag.moved = true;
  let changed = false;
  drag.names.forEach((name, i) => {
    const along = mx * drag.dx[i] + my * drag.dy[i];
    let value = tidy(held((Number(drag.start[i]) || 0) + along / drag.px[i], handle), drag.step);
    if (drag.stops.length) {
      const from = drag.stops.find((stop) => stop.value === drag.start[0]) || drag.stops[0];
      const far = (stop) => Math.hypot(stop.x - from.x - mx, stop.y - from.y - my);
      value = drag.stops.reduce((best, stop) => (far(stop) < far(best) ? stop : best)).value;
    }
    if (drag.values[i] !== value) {
      drag.values[i] = value;
      if (fieldOf(name)) put(fieldOf(name), value);
      changed = true;
    }
  });
  if (changed) redraw();
});
document.addEventListener("pointerup", () => finish(true));
document.addEventListener("pointercancel", () => finish(false));
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape" && drag) { finish(false); return; }
  const handle = event.target.closest && event.target.closest("[data-handle]");
  if (!handle) return;
  const names = handle.dataset.handle.split(" ");
  const turns = { ArrowRight: [0, 1], ArrowLeft: [0, -1], ArrowUp: [names.length - 1, 1], ArrowDown: [names.length - 1, -1] };
  const turn = turns[event.key];
  if (event.key === "Escape" && keyed && keyed.id === handle.id) {
    names.forEach((name, i) => put(fieldOf(name), keyed.was[i]));
    keyed = null;
  } else if (turn) {
    if (!keyed || keyed.id !== handle.id) keyed = { id: handle.id, was: names.map((name) => fieldOf(name).value) };
    const field = fieldOf(names[turn[0]]);
    const step = Number(handle.dataset.step) * (event.shiftKey ? 10 : 1);
    const stops = stopsOf(handle);
    if (stops.length) {
      const at = stops.findIndex((stop) => stop.value === field.value) + turn[1];
      put(field, stops[Math.max(0, Math.min(stops.length - 1, at))].value);
    } else put(field, tidy(held((Number(field.value) || 0) + turn[1] * step, handle), Number(handle.dataset.step)));
  } else return;
  event.preventDefault();
  event.stopPropagation();
  const label = handle.dataset.label, id = handle.id, unit = handle.dataset.unit;
  const form = fieldOf(names[0]).form;
  const address = addressOf(form);
  show(address, null).then(() => {
    window.history.pushState(null, "", address);
    const again = document.getElementById(id);
    if (!again) return;
    again.focus({ preventScroll: true });
    tell(unit ? label + ": " + again.getAttribute("aria-valuetext") + "." : sentence("sayChanged", { label: label }));
  });
});
