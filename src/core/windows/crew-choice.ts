/**
 * The crew of a visit that is put down on somebody's row: that one, then whoever had it before, then whoever could come
 * with them, up to the size of the crew. Ids.
 */
export function crewWith(
  dropped: number,
  size: number,
  before: readonly number[],
  offered: readonly number[],
): number[] {
  const others = [...before, ...offered].filter((id) => id !== dropped);
  return [dropped, ...new Set(others)].slice(0, size);
}
