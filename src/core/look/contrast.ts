/** Contrast of two colours as WCAG 2.2 defines it (success criterion 1.4.3), 1 to 21. Colours are #rrggbb. */
export function contrast(one: string, other: string): number {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

/** What text on a colour must have. */
export const textContrast = 4.5;

/** The nearest colour that has the contrast to `against`: darker or lighter, by as little as is needed. */
export function mended(colour: string, against: string, least: number = textContrast): string {
  if (contrast(colour, against) >= least) return colour;
  const towards = luminance(against) > 0.18 ? 0 : 255;
  const parts = partsOf(colour);
  for (let step = 1; step <= 100; step++) {
    const tried = hex(parts.map((part) => Math.round(part + ((towards - part) * step) / 100)));
    if (contrast(tried, against) >= least) return tried;
  }
  return towards === 0 ? "#000000" : "#ffffff";
}

const partsOf = (colour: string): number[] => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
const hex = (parts: readonly number[]): string =>
  `#${parts.map((part) => part.toString(16).padStart(2, "0")).join("")}`;

/** Relative luminance, 0 to 1. */
function luminance(colour: string): number {
  const [r, g, b] = partsOf(colour).map((part) => {
    const share = part / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
