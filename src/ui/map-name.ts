/** A name on the map, as an element: names are people's own words, and never read as HTML. */
export function mapName(words: string): HTMLElement {
  const element = document.createElement("span");
  element.textContent = words;
  return element;
}
