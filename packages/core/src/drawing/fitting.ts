import type { Frame } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Reference, Thing } from '../references/index.ts';
import { readMark, type Held, type Mark, type MarkContext } from './marks/index.ts';
import { spotOf } from './witness/index.ts';

/** A mark that could be made of what is picked, with what it would say. */
export interface FittingMark {
  readonly mark: Mark;
  readonly words: string;
}

/** What is picked, as it is. */
export interface Pick {
  readonly reference: Reference;
  readonly thing: Thing;
}

/** The dimensions that make sense for what is picked in a view, the likeliest first. */
export function fittingMarks(
  picks: readonly Pick[],
  view: Id,
  eye: Frame,
  context: Omit<MarkContext, 'eye'>,
): FittingMark[] {
  const found: FittingMark[] = [];
  for (const { mark, things } of triesFor(picks, view)) {
    const held = things.map((thing): Held => ({ thing, spot: spotOf(thing, context.faces, eye) }));
    const read = readMark(mark, held, { ...context, eye });
    if (read.ok && !found.some(({ words, mark: { kind } }) => words === read.value.words && kind === mark.kind))
      found.push({ mark, words: read.value.words });
  }
  return found;
}

interface Try {
  readonly mark: Mark;
  readonly things: readonly Thing[];
}

function triesFor(picks: readonly Pick[], view: Id): Try[] {
  const of = picks.map(({ reference }) => reference);
  const things = picks.map(({ thing }) => thing);
  const on = (...marks: Mark[]): Try[] => marks.map((mark) => ({ mark, things }));
  const all = on(
    { kind: 'diameter', view, of },
    { kind: 'radius', view, of },
    { kind: 'hole', view, of },
    { kind: 'chamfer', view, of },
  );
  if (picks.length < 2) return [...all, ...lengthOf(picks, view)];
  const apart = on(
    { kind: 'distance', view, of, along: 'straight' },
    { kind: 'distance', view, of, along: 'level' },
    { kind: 'distance', view, of, along: 'upright' },
  );
  if (picks.length === 2) return [...apart, ...on({ kind: 'angle', view, of }), ...all];
  const rows = (['level', 'upright'] as const).flatMap((along) =>
    on({ kind: 'distance', view, of, along, lay: 'chain' }, { kind: 'distance', view, of, along, lay: 'base' }),
  );
  return [...rows, ...on({ kind: 'circle-of', view, of }), ...all];
}

/** How long a straight edge is, by the corners at its ends. */
function lengthOf([pick]: readonly Pick[], view: Id): Try[] {
  if (pick?.thing.to !== 'edge' || !pick.thing.edge.ends || pick.thing.edge.curve.form !== 'line') return [];
  const { edge, body } = pick.thing;
  const { from, to } = pick.thing.edge.curve;
  const places = [from, to];
  const { reference } = pick;
  const ends = edge.ends!.map((name): Reference => {
    const on = { to: 'vertex', name } as const;
    return reference.to === 'other' ? { to: 'other', at: reference.at, on } : on;
  });
  const things = edge.ends!.map((name, k): Thing => ({ to: 'vertex', vertex: { name, at: places[k]! }, body }));
  return [{ mark: { kind: 'distance', view, of: ends, along: 'straight' }, things }];
}
