// Forms and links that change only the answer on the page. Without this script they load the page anew.

import { sentence } from "./sentences.js";

const PART = { headers: { "X-Part": "answer" }, credentials: "same-origin" };
let latest = 0;

// Which day it is where the trainer stands: the server may stand elsewhere.
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
if (zone) document.cookie = "wide-arc-zone=" + zone + "; path=/; SameSite=Lax; max-age=31536000";

function computing(words) {
  const note = document.getElementById("computing");
  if (note) note.textContent = words;
}

// Where the focus is, in words that are still true of the next answer.
function placeOf(element, answer) {
  if (!element || !answer.contains(element) || element === answer) return null;
  const form = element.form || element.closest("form");
  return {
    id: element.id,
    tag: element.tagName,
    name: element.getAttribute("name"),
    action: form && form.getAttribute("action"),
    words: (element.getAttribute("aria-label") || element.textContent).trim(),
    order: Array.from(answer.querySelectorAll(element.tagName)).indexOf(element),
  };
}

function focusAgain(place, answer) {
  if (!place) return;
  const alike = Array.from(answer.querySelectorAll(place.tag));
  const action = (e) => { const f = e.form || e.closest("form"); return f && f.getAttribute("action"); };
  const same = alike.filter((e) => e.getAttribute("name") === place.name && action(e) === place.action);
  const words = same.filter((e) => (e.getAttribute("aria-label") || e.textContent).trim() === place.words);
  const found = (place.id && document.getElementById(place.id)) || (words.length === 1 && words[0])
    || (place.action && same[0]) || alike[place.order] || answer;
  if (found === answer) answer.tabIndex = -1;
  found.focus({ preventScroll: true });
}

// What is open now, and what was typed into its finder: a later answer must not close it under the thumb.
function openedIn(answer) {
  return Array.from(answer.querySelectorAll("details[open]"), (details) => {
    const summary = details.querySelector("summary[id]");
    const finder = details.querySelector("[data-finds]");
    return { id: details.id || (summary && summary.id), typed: finder ? finder.value : "" };
  }).filter((opened) => opened.id);
}

function openAgain({ id, typed }) {
  const found = document.getElementById(id);
  if (!found) return;
  const details = found.closest("details");
  details.open = true;
  const finder = details.querySelector("[data-finds]");
  if (!finder) return;
  // its own script shows it a moment later: too late for the focus
  finder.closest("[data-finder]").hidden = false;
  finder.value = typed;
  finder.dispatchEvent(new Event("input", { bubbles: true }));
}

// A chooser of one thing has done its work with the choice.
function chose(element) {
  const pick = element.closest("details.wa-pick:not([id])");
  if (!pick) return;
  if (pick.contains(document.activeElement)) pick.querySelector("summary").focus({ preventScroll: true });
  pick.open = false;
}

export async function show(url, remember, options) {
  const mine = ++latest;
  const answer = document.getElementById("answer");
  const focused = placeOf(document.activeElement, answer);
  answer.classList.add("wa-busy");
  answer.setAttribute("aria-busy", "true");
  // a search waits for its turn when many ask at once
  const waits = window.setTimeout(() => computing(sentence("sayComputing")), 500);
  try {
    const response = await fetch(url, Object.assign({}, PART, options));
    const text = await response.text();
    if (mine !== latest) return;
    if (text.includes("<html")) {
      // a page of another kind, or an error: load it whole; what was posted is not sent again
      if (response.ok) window.location.assign(response.url);
      else if (remember) window.location.assign(remember);
      else window.location.reload();
      return;
    }
    const opened = openedIn(answer);
    const now = placeOf(document.activeElement, answer) || focused;
    answer.innerHTML = text;
    opened.forEach(openAgain);
    if (remember) window.history.replaceState(null, "", remember);
    focusAgain(now, answer);
    // a long computation answers in parts: ask for the next one
    const next = answer.querySelector("[data-again]");
    if (next) window.setTimeout(() => { if (mine === latest && next.isConnected) show(next.href); }, 0);
  } catch (error) {
    const note = document.getElementById("offline");
    if (note) note.hidden = false;
  } finally {
    window.clearTimeout(waits);
    if (mine === latest) {
      computing("");
      answer.classList.remove("wa-busy");
      answer.removeAttribute("aria-busy");
    }
  }
}

// Says what was changed, with an undo that goes back to the address before.
export function tell(words) {
  const trail = document.getElementById("trail");
  if (!trail) return;
  trail.textContent = words + " ";
  const button = document.createElement("button");
  button.type = "button";
  button.className = "wa-word";
  button.textContent = sentence("sayUndo");
  button.addEventListener("click", () => window.history.back());
  trail.append(button);
}

// Where a list and its drawing have no room beside each other they are two views: the browser's back goes to the list.
function narrow() { return window.matchMedia("(max-width: 1100px)").matches; }

function step(link) {
  const from = document.querySelector(".wa-swap");
  const list = !from.classList.contains("wa-picked");
  if (list) window.history.replaceState({ scrolled: window.scrollY }, "", window.location.href);
  const back = link.classList.contains("wa-to-list");
  const row = new URL(link.href).hash;
  const url = link.href.split("#")[0];
  return show(url).then(() => {
    if (list || back) window.history.pushState(null, "", url);
    else window.history.replaceState(null, "", url);
    if (back) seek(row);
    else window.scrollTo(0, 0);
  });
}

// Back in the list the eye is where it was.
function seek(row) {
  const found = row && document.querySelector(row);
  if (!found) return;
  found.scrollIntoView({ block: "center" });
  found.focus({ preventScroll: true });
}

function labelOf(field) {
  const label = field.labels && field.labels[0];
  return label ? label.textContent.trim() : field.name;
}

window.addEventListener("popstate", (event) => {
  const scrolled = event.state && event.state.scrolled;
  if (document.querySelector("form[data-trail], .wa-swap")) {
    show(window.location.href).then(() => { if (scrolled) window.scrollTo(0, scrolled); });
  }
});

export function addressOf(form, submitter) {
  const query = new URLSearchParams(new FormData(form, submitter || null));
  return form.getAttribute("action") + "?" + query.toString();
}

// Moves through the equipment, from the item that has the focus.
function move(step) {
  const marks = Array.from(document.querySelectorAll(".wa-mark-button"));
  const here = document.activeElement && document.activeElement.closest(".wa-items li");
  const now = here ? marks.indexOf(here.querySelector(".wa-mark-button")) : -step / 2 - 0.5;
  const next = marks[Math.max(0, Math.min(marks.length - 1, now + step))];
  if (next) next.focus();
}

document.addEventListener("change", (event) => {
  const form = event.target.form;
  if (!form || !form.hasAttribute("data-live")) return;
  chose(event.target);
  const other = event.target.dataset.clears && form.elements[event.target.dataset.clears];
  if (other) other.value = "";
  if (!form.hasAttribute("data-trail")) { show(addressOf(form), addressOf(form)); return; }
  // here every change is a step of its own: the browser's back, or Undo, takes it back
  const address = addressOf(form);
  const words = sentence("sayChanged", { label: labelOf(event.target) });
  show(address).then(() => { window.history.pushState(null, "", address); tell(words); });
});
// Back to this page as it is now: in another language, or read in the other units.
function backHere(form) {
  if (form.dataset.here === "all") return window.location.pathname + window.location.search;
  const here = new URLSearchParams(window.location.search);
  here.delete("units");
  const query = here.toString();
  return window.location.pathname + (query ? "?" + query : "");
}

document.addEventListener("submit", (event) => {
  const form = event.target;
  if (form.hasAttribute("data-here")) form.elements.back.value = backHere(form);
  if (form.hasAttribute("data-live")) {
    event.preventDefault();
    chose(event.submitter || form);
    show(addressOf(form, event.submitter), addressOf(form, event.submitter));
  } else if (form.hasAttribute("data-live-post")) {
    event.preventDefault();
    const body = new URLSearchParams(new FormData(form, event.submitter || null));
    // a button named "action" hides the form's own
    show(form.getAttribute("action"), null, { method: "POST", body: body });
  }
});
document.addEventListener("click", (event) => {
  const link = event.target.closest("a[data-live]");
  if (link && !event.metaKey && !event.ctrlKey && event.button === 0) {
    event.preventDefault();
    if (link.closest(".wa-swap") && narrow()) step(link);
    else show(link.href, link.href);
  }
  // a chooser closes when something else is touched
  for (const open of document.querySelectorAll("details.wa-pick[open]")) {
    if (!open.contains(event.target)) open.removeAttribute("open");
  }
});
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape") {
    for (const open of document.querySelectorAll("details.wa-pick[open]")) {
      open.removeAttribute("open");
      open.querySelector("summary").focus();
    }
  }
  const typing = event.target.closest("input, select, textarea");
  if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
  for (const field of document.querySelectorAll("[data-key]")) {
    if (field.dataset.key === event.key) {
      event.preventDefault();
      field.focus();
    }
  }
  if (event.key === "p") {
    const pin = document.getElementById("pin");
    if (pin) pin.click();
  }
  if (event.key === "u") {
    const undo = document.querySelector("#trail button") || document.getElementById("undo");
    if (undo) undo.click();
  }
  if (event.key === "j" || event.key === "k") {
    const step = event.key === "j" ? 1 : -1;
    const beside = document.querySelector(`a[data-step="${step}"]`);
    if (beside && beside.offsetParent) { beside.click(); return; }
    const rows = Array.from(document.querySelectorAll(".wa-rows a.wa-row")).filter((row) => row.offsetParent);
    const now = rows.findIndex((row) => row.getAttribute("aria-current"));
    const next = rows[Math.max(0, Math.min(rows.length - 1, now + step))];
    if (next) { next.focus(); next.click(); } else move(step);
  }
  const item = document.activeElement && document.activeElement.closest(".wa-items li");
  if (item && event.key === "t") item.querySelector(".wa-mark-button").click();
  if (item && event.key === "b") {
    const broken = item.querySelector("[id^='broken-']");
    if (broken) broken.click();
  }
});

// a page that was loaded whole goes on computing too
const unfinished = document.querySelector("#answer [data-again]");
if (unfinished) show(unfinished.href);
