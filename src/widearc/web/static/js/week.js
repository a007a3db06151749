// The week: a slot is dragged to another place or day; the sheet is printed. Computes no mechanics.

let dragged = null;

document.addEventListener("dragstart", (event) => {
  const slot = event.target.closest && event.target.closest("[data-slot]");
  if (!slot) return;
  dragged = slot;
  event.dataTransfer.effectAllowed = "move";
  event.dataTransfer.setData("text/plain", slot.dataset.slot);
});

document.addEventListener("dragover", (event) => {
  if (dragged && event.target.closest("[data-day]")) event.preventDefault();
});

document.addEventListener("drop", (event) => {
  const day = dragged && event.target.closest("[data-day]");
  if (!day) return;
  event.preventDefault();
  const before = event.target.closest("[data-slot]");
  const others = Array.from(day.querySelectorAll("[data-slot]")).filter((slot) => slot !== dragged);
  const at = before && before !== dragged ? others.indexOf(before) : others.length;
  const form = dragged.querySelector("form");
  const fields = new URLSearchParams(Array.from(new FormData(form)).filter(([name]) => name === "csrf_token" || name === "once" || name === "client" || name === "monday" || name === "template"));
  fields.set("day", day.dataset.day);
  fields.set("position", String(Math.max(0, at)));
  const address = day.dataset.move.replace("/0/", "/" + dragged.dataset.slot + "/");
  dragged = null;
  fetch(address, { method: "POST", body: fields, credentials: "same-origin" }).then(() => window.location.reload());
});

document.addEventListener("click", (event) => {
  if (event.target.closest("[data-print]")) window.print();
});
