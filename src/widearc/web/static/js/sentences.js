// The few sentences that scripts say, in the language of the page: the page brings them along.

export function sentence(name, values = {}) {
  const said = document.getElementById("sentences").dataset[name] || "";
  return said.replace(/\[(\w+)\]/g, (whole, key) => (key in values ? values[key] : whole));
}
