/** A browser in a few words, for the list of one's own sessions: "Firefox on Linux". Good enough to tell one's devices apart. */
export function browserWords(agent: string | null): string {
  const name = /(Edg|OPR|Firefox|Chrome|Safari)[/ ]/.exec(agent ?? "")?.[1] ?? "A browser";
  const system = /(Android|iPhone|iPad|Windows|Mac OS X|CrOS|Linux)/.exec(agent ?? "")?.[1];
  const names: Record<string, string> = { Edg: "Edge", OPR: "Opera", "Mac OS X": "macOS", CrOS: "ChromeOS" };
  return [names[name] ?? name, system && `on ${names[system] ?? system}`].filter(Boolean).join(" ");
}
