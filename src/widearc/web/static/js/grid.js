// A grid of sets by the keyboard alone: Enter and the arrows go down and up, Ctrl and Enter keeps.

document.addEventListener("keydown", (event) => {
  const form = event.target.closest("form[data-grid]");
  const cell = event.target.closest("td");
  if (!form || !cell || event.isComposing) return;
  if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) { event.preventDefault(); form.requestSubmit(); return; }
  const step = event.key === "Enter" || event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
  // an open list of names has the arrows to itself
  if (!step || (event.key !== "Enter" && event.target.hasAttribute("list"))) return;
  event.preventDefault();
  const row = cell.parentElement;
  const other = step > 0 ? row.nextElementSibling : row.previousElementSibling;
  if (other) other.children[cell.cellIndex].querySelector("input").focus();
});
