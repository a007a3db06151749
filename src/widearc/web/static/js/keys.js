// "?" lists the keys of the page, "/" goes to where something is found.

function typing(element) {
  return element.closest("input, select, textarea, dialog");
}

function list() {
  const keys = document.getElementById("keys");
  if (keys && !keys.open) keys.showModal();
}

function find() {
  const finder = document.querySelector("[data-finds]");
  if (!finder) return false;
  for (let around = finder.closest("details"); around; around = around.parentElement.closest("details")) around.open = true;
  // its own script shows it a moment later
  window.setTimeout(() => finder.focus(), 0);
  return true;
}

document.addEventListener("keydown", (event) => {
  if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === "?") { event.preventDefault(); list(); }
  if (event.key === "/" && find()) event.preventDefault();
});
document.addEventListener("click", (event) => {
  if (event.target.id === "show-keys") list();
});
