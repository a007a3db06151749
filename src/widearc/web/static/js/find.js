// A long choice narrows to what is typed in its finder; Enter takes the one of that name, else the first left.

const plain = (text) => text.toLowerCase().replace(/[-\s]+/g, " ").trim();

function narrow(finder) {
  const words = plain(finder.value).split(" ");
  const choices = finder.closest("details");
  for (const group of choices.querySelectorAll("[data-group]")) {
    for (const label of group.querySelectorAll("label")) {
      const names = plain(label.textContent + " " + label.dataset.also);
      label.hidden = !words.every((word) => names.includes(word));
    }
    group.hidden = !group.querySelector("label:not([hidden])");
  }
  choices.querySelector("[data-none]").hidden = Boolean(choices.querySelector("label[data-also]:not([hidden])"));
}

// without this script there is nothing to type into
document.addEventListener("toggle", (event) => {
  const finder = event.target.querySelector("[data-finder]");
  if (finder) finder.hidden = false;
}, true);
document.addEventListener("input", (event) => {
  if (event.target.matches("[data-finds]")) narrow(event.target);
});
document.addEventListener("keydown", (event) => {
  if (event.key !== "Enter" || !event.target.matches("[data-finds]")) return;
  event.preventDefault();
  const left = Array.from(event.target.closest("details").querySelectorAll("label[data-also]:not([hidden])"));
  const named = left.find((label) => plain(label.textContent) === plain(event.target.value));
  const taken = named || left[0];
  if (taken) taken.click();
});
