// One value, the sample, behind figure, curves and readings. Draws what the server sent; computes nothing.

import { sentence } from "./sentences.js";

function place(root, data, at) {
  const set = (element, names, values) => names.forEach((name, i) => element.setAttribute(name, values[i]));
  for (const element of root.querySelectorAll("[data-line]")) {
    set(element, ["x1", "y1", "x2", "y2"], data.frames[element.dataset.line][at]);
  }
  for (const element of root.querySelectorAll("[data-dot]")) {
    const [x, y] = data.frames[element.dataset.dot][at];
    element.setAttribute("transform", "translate(" + x + " " + y + ")");
  }
  for (const element of root.querySelectorAll("[data-dial]")) {
    const [x, y, turn] = data.frames[element.dataset.dial][at];
    element.setAttribute("transform", "translate(" + x + " " + y + ") rotate(" + turn + ")");
  }
  for (const joint of data.joints) {
    const cursor = root.querySelector('[data-cursor="' + joint.name + '"]');
    if (cursor) {
      cursor.setAttribute("transform", "translate(" + joint.x[at] + " 0)");
      cursor.querySelector("text").textContent = joint.angle[at];
      cursor.setAttribute("aria-valuenow", Math.round(joint.deg[at]));
      cursor.setAttribute("aria-valuetext", joint.say[at]);
    }
    for (const kind of Object.keys(joint.read)) {
      const cell = root.querySelector('[data-reading="' + joint.name + "-" + kind + '"]');
      if (cell) cell.textContent = joint.read[kind][at];
    }
    const own = root.querySelector('[data-angle="' + joint.name + '"]');
    if (own) own.textContent = joint.bend[at];
  }
  const lead = root.querySelector("[data-at]");
  if (lead) lead.textContent = sentence("sayAt", { angle: data.joints[0].angle[at] });
}

function nearest(list, value) {
  let best = 0;
  list.forEach((item, i) => { if (Math.abs(item - value) < Math.abs(list[best] - value)) best = i; });
  return best;
}

document.addEventListener("alpine:init", () => {
  window.Alpine.data("scrub", () => ({
    data: null,
    at: 0,
    playing: false,
    init() {
      this.data = JSON.parse(this.$root.dataset.script);
      this.at = Number(this.$root.dataset.start);
      place(this.$root, this.data, this.at);
    },
    go(at) {
      this.at = Math.max(0, Math.min(this.data.n - 1, at));
      place(this.$root, this.data, this.at);
    },
    // which joint's line of force is drawn
    pick(event) {
      this.$root.dataset.lineOf = event.currentTarget.value;
    },
    joint(event) {
      const name = event.currentTarget.dataset.joint;
      return this.data.joints.find((joint) => joint.name === name);
    },
    drag(event) {
      if (event.type === "pointermove" && event.buttons !== 1) return;
      const svg = event.currentTarget;
      this.playing = false;
      if (event.type === "pointerdown") {
        svg.setPointerCapture(event.pointerId);
        const cursor = svg.querySelector("[role=slider]");
        if (cursor) cursor.focus({ preventScroll: true });
      }
      const box = svg.getBoundingClientRect();
      const x = (event.clientX - box.left) * svg.viewBox.baseVal.width / box.width;
      this.go(nearest(this.joint(event).x, x));
    },
    // plays the rep at its tempo, lowering included; any other key or a drag stops it
    play() {
      if (this.playing) { this.playing = false; return; }
      this.playing = true;
      const last = this.data.n - 1;
      const [lift, lower] = this.data.tempo || [2, 2];
      const calm = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
      const start = performance.now() - (this.at < last ? this.at / last * lift : 0) * 1000;
      const frame = (now) => {
        if (!this.playing) return;
        const t = (now - start) / 1000;
        if (t >= lift + lower) { this.playing = false; this.go(0); return; }
        const share = t < lift ? t / lift : 1 - (t - lift) / lower;
        this.go(Math.round(share * last / (calm ? 10 : 1)) * (calm ? 10 : 1));
        window.requestAnimationFrame(frame);
      };
      window.requestAnimationFrame(frame);
    },
    key(event) {
      if (event.key === " ") { this.play(); event.preventDefault(); return; }
      this.playing = false;
      const joint = this.joint(event);
      // right and up go towards the shortened end, one degree a press, ten with shift
      const turn = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
      if (event.key === "Home") this.go(0);
      else if (event.key === "End") this.go(this.data.n - 1);
      else if (turn) {
        const sense = Math.sign(joint.deg[this.data.n - 1] - joint.deg[0]) || 1;
        const wanted = joint.deg[this.at] + turn * sense * (event.shiftKey ? 10 : 1);
        const found = nearest(joint.deg, wanted);
        this.go(found === this.at ? this.at + turn : found);
      } else return;
      event.preventDefault();
    },
  }));
});
