// Elements made by scripts.

// element makes an HTML element.
export const element = (name, className, text) =>
  Object.assign(document.createElement(name), { className, textContent: text || "" });

// shape makes an SVG element.
export function shape(name, attributes, text) {
  const element = document.createElementNS("http://www.w3.org/2000/svg", name);
  for (const key in attributes) element.setAttribute(key, attributes[key]);
  if (text !== undefined) element.textContent = text;
  return element;
}
