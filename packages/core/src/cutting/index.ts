import { ok, type Result } from '../result/index.ts';
import type { Region } from '../sketch/index.ts';
import type { Piece } from '../sketch/pieces/index.ts';
import { asArcs } from './arcs.ts';
import { beside } from './beside.ts';
import { cutLoops } from './loops.ts';

export { cuttingWords } from './beside.ts';

/** How an outline goes to a machine. */
export interface CutOptions {
  /** Width of the cut, mm: the way of its middle is told, half of that off the outline. 0 for the outline itself. */
  readonly width: number;
  /** Curves other than arcs become arcs that are off by no more than this, mm; as they are if absent. */
  readonly arcs?: number;
}

/** Where the width of the cut is minded curves are followed this closely, mm, if nothing else is said. */
const FOLLOWED = 0.005;

/** Areas as the way of a cut: openings first, then the outside, with the material to the left. */
export function cutOut(regions: readonly Region[], { width, arcs }: CutOptions): Result<Piece[]> {
  const within = arcs ?? (width > 0 ? FOLLOWED : undefined);
  const all: Piece[] = [];
  for (const loop of cutLoops(regions)) {
    const way = beside(within === undefined ? loop : loop.flatMap((piece) => asArcs(piece, within)), width / 2);
    if (!way.ok) return way;
    all.push(...way.value);
  }
  return ok(all);
}
