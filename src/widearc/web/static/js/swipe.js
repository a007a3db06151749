// A swipe over what is shown goes to the next or the one before; not over what is dragged itself.

const FAR = 60, ALONG = 2;
let start = null;

function free(element) {
  return element.closest("section") && element.closest("section").querySelector("[data-swipe]")
    && !element.closest("svg.wa-plot, .wa-scroll, input, select, textarea, .wa-handle, .wa-rule-scrub");
}

document.addEventListener("touchstart", (event) => {
  const touch = event.touches[0];
  start = event.touches.length === 1 && free(event.target) ? { x: touch.clientX, y: touch.clientY } : null;
}, { passive: true });
document.addEventListener("touchend", (event) => {
  if (!start) return;
  const touch = event.changedTouches[0];
  const x = touch.clientX - start.x, y = touch.clientY - start.y;
  start = null;
  if (Math.abs(x) < FAR || Math.abs(x) < ALONG * Math.abs(y)) return;
  const link = document.querySelector(`a[data-step="${x < 0 ? 1 : -1}"]`);
  if (link) link.click();
}, { passive: true });
