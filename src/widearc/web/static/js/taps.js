// Three taps on a photo that never leaves the device: only the places are put in the form.
import { sentence } from "./sentences.js";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("taps", () => ({
    loaded: false,
    points: [],
    empty() { return !this.loaded; },
    words() {
      if (!this.loaded) return "";
      return sentence(["sayTapUpper", "sayTapJoint", "sayTapLower", "sayTapped"][this.points.length]);
    },
    load(event) {
      const file = event.target.files[0];
      if (!file) return;
      const reader = new FileReader();
      reader.onload = () => { this.$refs.picture.src = reader.result; this.loaded = true; this.clear(); };
      reader.readAsDataURL(file);
    },
    tap(event) {
      if (this.points.length > 2) return;
      const box = event.target.getBoundingClientRect();
      const scale = event.target.naturalWidth / box.width;
      this.points.push([(event.clientX - box.left) * scale, (event.clientY - box.top) * scale]);
      this.draw();
    },
    clear() { this.points = []; this.draw(); },
    draw() {
      const picture = this.$refs.picture, marks = this.$refs.marks, form = document.getElementById("taps");
      const width = picture.naturalWidth || 1, height = picture.naturalHeight || 1;
      marks.setAttribute("viewBox", "0 0 " + width + " " + height);
      while (marks.firstChild) marks.removeChild(marks.firstChild);
      const line = document.createElementNS("http://www.w3.org/2000/svg", "path");
      line.setAttribute("d", this.points.map((p, i) => (i ? "L" : "M") + p[0] + " " + p[1]).join("") || "M0 0");
      line.setAttribute("stroke-width", width / 100);
      marks.appendChild(line);
      for (let n = 0; n < 3; n++) {
        const p = this.points[n];
        form.elements["x" + (n + 1)].value = p ? p[0].toFixed(1) : "";
        form.elements["y" + (n + 1)].value = p ? p[1].toFixed(1) : "";
        if (!p) continue;
        const dot = document.createElementNS("http://www.w3.org/2000/svg", "circle");
        dot.setAttribute("cx", p[0]);
        dot.setAttribute("cy", p[1]);
        dot.setAttribute("r", width / 60);
        marks.appendChild(dot);
      }
    },
  }));
});
