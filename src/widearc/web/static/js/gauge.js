// The gauge at the Bench: draws the trace as it comes and puts steady readings into the sheet's empty rows.

import { sentence } from "./sentences.js";

const WIDE = 620, TALL = 150, SECONDS = 20;

function path(points, most) {
  const end = points.length ? points[points.length - 1][0] : 0;
  let d = "", pen = "M";
  for (const [t, , f] of points) {
    if (f === null) { pen = "M"; continue; }
    d += pen + ((t - end + SECONDS) / SECONDS * WIDE).toFixed(1) + " " + (TALL - f / most * (TALL - 10)).toFixed(1);
    pen = "L";
  }
  return d;
}

document.addEventListener("alpine:init", () => {
  window.Alpine.data("gauge", () => ({
    source: null,
    points: [],
    most: 10,
    words: sentence("sayNotConnected"),
    now: "–",
    back: "",
    warnings: "",
    problem: "",
    running: false,
    busy() { return this.running; },
    idle() { return !this.running; },
    untouched() { return !this.running && this.points.length === 0; },
    calm() { return this.problem === ""; },
    fine() { return this.warnings === ""; },
    async start() {
      this.problem = "";
      const form = new FormData(document.getElementById("gauge-form"));
      const response = await fetch(this.$root.dataset.connect, { method: "POST", body: form, credentials: "same-origin" });
      const answer = await response.json();
      if (!response.ok) { this.problem = answer.problem || sentence("sayNoGauge"); return; }
      this.points = [];
      this.most = 10;
      this.watch();
    },
    watch() {
      if (this.source) this.source.close();
      const units = ["length_unit", "force_unit"].map((id) => id + "=" + encodeURIComponent(document.getElementById(id).value));
      this.source = new EventSource(this.$root.dataset.stream + "?" + units.join("&"));
      this.running = true;
      this.source.onmessage = (event) => this.take(JSON.parse(event.data));
    },
    async stop() {
      const form = new FormData(document.getElementById("gauge-form"));
      if (this.source) this.source.close();
      this.source = null;
      await fetch(this.$root.dataset.stop, { method: "POST", body: form, credentials: "same-origin" });
      this.running = false;
      this.words = sentence("sayStopped");
    },
    take(news) {
      this.words = news.words;
      if (news.now) this.now = news.now;
      if (news.back) {
        this.back = news.back;
        const field = document.getElementById("back");
        if (field) field.value = news.back_percent;
      }
      this.warnings = news.warnings.join(" ");
      this.points = this.points.concat(news.points);
      const end = this.points.length ? this.points[this.points.length - 1][0] : 0;
      this.points = this.points.filter((point) => point[0] > end - SECONDS && point[0] <= end);
      for (const point of this.points) if (point[2] > this.most) this.most = point[2] * 1.1;
      this.$root.querySelector("[data-trace]").setAttribute("d", path(this.points, this.most));
      this.$root.querySelector("[data-most]").textContent = Math.round(this.most) + " " + document.getElementById("force_unit").value;
      const ways = this.$root.dataset.fills === "ways";
      for (const reading of news.captures) if (ways || reading.direction === "loading") this.put(reading);
      if (news.state === "stopped") { this.source.close(); this.running = false; }
    },
    put(reading) {
      const fills = this.$root.dataset.fills;
      const named = (selector) => Array.from(document.querySelectorAll(selector));
      const places = named('input[name="length"], input[name="at"]');
      const forces = named('input[name="force"]');
      const ways = named('select[name="direction"]');
      let row;
      if (fills === "ways") {
        const way = reading.direction === "loading" ? "push" : "return";
        row = forces.findIndex((input, i) => input.value === "" && ways[i].value === way);
      } else if (fills === "force") {
        row = forces.findIndex((input, i) => input.value === "" && (!places[i] || places[i].value !== ""));
      } else {
        if (places.some((input, i) => input.value === reading.length && forces[i].value === reading.force)) return;
        row = places.findIndex((input, i) => input.value === "" && forces[i].value === "");
        if (row >= 0) places[row].value = reading.length;
      }
      if (row >= 0) forces[row].value = reading.force;
    },
  }));
});
