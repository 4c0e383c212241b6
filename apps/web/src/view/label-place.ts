import type { Vec2 } from '@helb/core';

/** Room that a name takes right of its place and below it, px; and that the words and verbs at the edges of the view take. */
const [WIDE, TALL, ABOVE, BELOW] = [72, 18, 30, 56];

/**
 * Where the name of lines is written: at its usual place, else where the first of the lines comes into the view; undefined
 * where none does.
 * @param lines ends of segments, two each, px from the upper left of the view
 */
export function labelPlace(
  usual: Vec2,
  lines: readonly Vec2[],
  { width, height }: { readonly width: number; readonly height: number },
): Vec2 | undefined {
  const low: Vec2 = [0, ABOVE];
  const high: Vec2 = [width - WIDE, height - BELOW - TALL];
  if (usual.every((u, k) => u >= low[k]! && u <= high[k]!)) return usual;
  for (let k = 0; k + 1 < lines.length; k += 2) {
    const place = entry(lines[k]!, lines[k + 1]!, low, high);
    if (place) return place;
  }
  return undefined;
}

/** The first place of a segment within a rectangle (Liang and Barsky, 1984). */
function entry(from: Vec2, to: Vec2, low: Vec2, high: Vec2): Vec2 | undefined {
  let [first, last] = [0, 1];
  for (const k of [0, 1] as const) {
    const along = to[k] - from[k];
    const [a, b] = [low[k] - from[k], high[k] - from[k]];
    if (along === 0) {
      if (a > 0 || b < 0) return undefined;
      continue;
    }
    const [t, u] = along > 0 ? [a / along, b / along] : [b / along, a / along];
    [first, last] = [Math.max(first, t), Math.min(last, u)];
  }
  if (first > last) return undefined;
  return [from[0] + first * (to[0] - from[0]), from[1] + first * (to[1] - from[1])];
}
