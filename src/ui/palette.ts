/** The tokens of the look: paper and ink, and one arch. Plain values, for server and client alike. */
export const ink = {
  paper: "#FBFAF6",
  plaster: "#F1EEE6",
  line: "#DDD8CB",
  ink: "#1E2A28",
  ash: "#5E6A66",
  pine: "#24443F",
  ember: "#B4431F",
  honey: "#D99A25",
  moss: "#557A3A",
  lake: "#2E6C80",
  mist: "#C9D3CA",
  /** What stands out on customers' pages: the owner's colour, or pine. */
  accent: "var(--accent, #24443F)",
} as const;

/** The same as variables of CSS, for what is drawn by plain rules. */
export const inkVariables = Object.fromEntries(Object.entries(ink).map(([name, value]) => [`--${name}`, value]));

/** Eight hues for categories of services; they differ in lightness too, and always stand beside a two-letter code. */
export const hues = ["#8A5A2B", "#24443F", "#2E6C80", "#7A4B7C", "#946E1F", "#5B7A52", "#9B4A3C", "#4A5578"] as const;

export const arch = "999px 999px 6px 6px";
export const titleFont = '"Bricolage Grotesque Variable", sans-serif';
