// Saves a drawing of the page as SVG or PNG: the styles become presentation attributes, nothing is drawn anew.

const KEPT = ["fill", "fill-opacity", "stroke", "stroke-width", "stroke-dasharray", "stroke-linecap", "stroke-linejoin",
  "opacity", "font-size", "font-weight", "text-anchor", "paint-order", "display"];

function standalone(svg) {
  const copy = svg.cloneNode(true);
  const from = [svg].concat(Array.from(svg.querySelectorAll("*")));
  const to = [copy].concat(Array.from(copy.querySelectorAll("*")));
  from.forEach((element, i) => {
    const style = window.getComputedStyle(element);
    for (const name of KEPT) {
      const value = style.getPropertyValue(name);
      if (value && !(name === "display" && value !== "none")) to[i].setAttribute(name, value.replace(/"/g, ""));
    }
    for (const extra of ["class", "style", "x-on:pointerdown", "x-on:pointermove", "x-on:keydown"]) to[i].removeAttribute(extra);
  });
  // hatches, dots and arrow heads live in a drawing of their own
  const defs = document.querySelector("svg defs");
  if (defs) {
    const kept = defs.cloneNode(true);
    const parts = Array.from(defs.querySelectorAll("*"));
    Array.from(kept.querySelectorAll("*")).forEach((element, i) => {
      const style = window.getComputedStyle(parts[i]);
      for (const name of ["fill", "stroke", "stroke-width"]) element.setAttribute(name, style.getPropertyValue(name));
      element.removeAttribute("class");
    });
    copy.insertBefore(kept, copy.firstChild);
  }
  const box = svg.viewBox.baseVal;
  const ground = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  for (const [name, value] of [["x", box.x], ["y", box.y], ["width", box.width], ["height", box.height]]) {
    ground.setAttribute(name, value);
  }
  ground.setAttribute("fill", window.getComputedStyle(document.body).backgroundColor);
  copy.insertBefore(ground, copy.firstChild);
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("font-family", "sans-serif");
  copy.setAttribute("width", box.width);
  copy.setAttribute("height", box.height);
  return new XMLSerializer().serializeToString(copy);
}

function download(name, url) {
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
}

document.addEventListener("click", (event) => {
  const button = event.target.closest("button[data-save]");
  if (!button) return;
  const svg = document.getElementById(button.dataset.save);
  const text = standalone(svg);
  const url = "data:image/svg+xml;charset=utf-8," + encodeURIComponent(text);
  if (button.dataset.as === "svg") {
    download(button.dataset.name + ".svg", url);
    return;
  }
  const image = new Image();
  image.onload = () => {
    const canvas = document.createElement("canvas");
    canvas.width = 2 * svg.viewBox.baseVal.width;
    canvas.height = 2 * svg.viewBox.baseVal.height;
    canvas.getContext("2d").drawImage(image, 0, 0, canvas.width, canvas.height);
    download(button.dataset.name + ".png", canvas.toDataURL("image/png"));
  };
  image.src = url;
});
