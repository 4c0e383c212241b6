import { z } from 'zod';
import { add2, dot2, left2, middle2, scale2, sub2, type Vec2 } from '../../../math/index.ts';
import { endsOfCurve, straightAlong } from '../../../geometry/index.ts';
import type { Id } from '../../../records/index.ts';
import type { Reference, Thing } from '../../../references/index.ts';
import { fail, ok, type Result } from '../../../result/index.ts';
import { boxAround, type Box } from '../../../sketch/pieces/index.ts';
import { ALONG, between, type Between } from '../between.ts';
import { rowWords, sizeFields, sizeRow, things } from '../fields.ts';
import { gapOf, labelOf, linear } from '../ink.ts';
import type { MarkContext, MarkInk, MarkKind, MarkTry, Picked, ReadMark } from '../kind.ts';

/**
 * How far things are apart: two of them, or several in a row, each from the one before (in a chain) or all from the first
 * (from a base).
 */
const distanceSchema = z.strictObject({
  kind: z.literal('distance'),
  ...sizeFields,
  of: things(2),
  /** Between places: in which direction of the view. */
  along: z.enum(['straight', 'level', 'upright']).optional(),
  /** How several are told. */
  lay: z.enum(['chain', 'base']).optional(),
});
type DistanceMark = z.infer<typeof distanceSchema>;

export const distance: MarkKind<DistanceMark> = {
  schema: distanceSchema,
  title: 'Distance',
  sized: true,
  between: true,
  way: ({ lay }) => (lay ? LAID[lay] : ''),
  tries(picks, view) {
    if (picks.length < 2) return lengthOf(picks, view);
    const of = picks.map(({ reference }) => reference);
    const things = picks.map(({ thing }) => thing);
    const ways: Pick<DistanceMark, 'along' | 'lay'>[] =
      picks.length === 2
        ? [{ along: 'straight' }, { along: 'level' }, { along: 'upright' }]
        : (['level', 'upright'] as const).flatMap((along) => [
            { along, lay: 'chain' },
            { along, lay: 'base' },
          ]);
    return ways.map((way) => ({ mark: { kind: 'distance', view, of, ...way }, things }));
  },
  // from where what is round is seen as a circle
  cost: (_, held) => held.filter(({ spot }) => spot?.radius && !spot.endOn && !spot.rim).length,
  read(mark, held, context): Result<ReadMark> {
    const spots = held.map(({ spot }) => spot);
    if (spots.some((spot) => !spot)) return fail('mark.leans');
    const pairs = pairsOf(mark).map(([a, b]) => between(spots[a]!, spots[b]!, mark.along ?? ALONG.straight));
    const wrong = pairs.find((pair) => !pair.ok);
    if (wrong && !wrong.ok) return wrong;
    const stretches: DimensionSpan[] = [];
    for (const pair of pairs) {
      if (!pair.ok) return pair;
      if (pair.value.amount.value < 1e-9) return fail('mark.same');
      const row = sizeRow([], pair.value.amount.value, '', mark);
      if (!row.ok) return row;
      stretches.push(spanOf(pair.value, labelOf(context, row.value), rowWords(row.value), context));
    }
    const way = stretches[0]!.way;
    if (stretches.some((one) => Math.abs(Math.abs(dot2(one.way, way)) - 1) > 1e-6)) return fail('mark.slant');
    return ok({
      toCentres: true,
      tells: stretches.map(({ between: { amount } }) => amount),
      words: stretches.map(({ words }) => words).join(mark.lay === 'base' ? ', ' : ' + '),
      long: Math.max(...stretches.map(({ between: { amount } }) => amount.value)) * context.factor,
      places: () => stretches[0]!.line.places(),
      draw: (at) => drawn(stretches, at, mark.lay === 'base' ? gapOf(context) * 0.85 : 0, context),
    });
  },
};

const LAID = { chain: 'chain', base: 'from one base' } as const;

/** How long a straight edge is, by the corners at its ends. */
function lengthOf([pick]: readonly Picked[], view: Id): MarkTry<DistanceMark>[] {
  if (!pick || !('edge' in pick.thing)) return [];
  const { edge, body } = pick.thing;
  if (!edge.ends || !straightAlong(edge.curve)) return [];
  const places = endsOfCurve(edge.curve);
  const { reference } = pick;
  const ends = edge.ends.map((name): Reference => {
    const on = { to: 'vertex', name } as const;
    return reference.to === 'other' ? { to: 'other', at: reference.at, on } : on;
  });
  const things = edge.ends.map((name, k): Thing => ({ to: 'vertex', vertex: { name, at: places[k]! }, body }));
  return [{ mark: { kind: 'distance', view, of: ends, along: 'straight' }, things }];
}

const pairsOf = ({ of, lay }: DistanceMark): (readonly [number, number])[] =>
  of.slice(1).map((_, k): readonly [number, number] => [lay === 'base' ? 0 : k, k + 1]);

interface DimensionSpan {
  readonly between: Between;
  readonly way: Vec2;
  readonly words: string;
  readonly middle: Vec2;
  readonly line: ReturnType<typeof linear>;
}

function spanOf(
  found: Between,
  label: Parameters<typeof linear>[3],
  words: string,
  context: MarkContext,
): DimensionSpan {
  const [from, to] = [found.from, found.to].map((places) => places.map((place) => context.paper(place)));
  const line = linear(from!, to!, found.way, label, context);
  return { between: found, way: found.way, words, middle: middle2(from![0]!, to![0]!), line };
}

/** Several are drawn on one line, or each from the base farther out. */
function drawn(stretches: readonly DimensionSpan[], at: Vec2, apart: number, { box }: MarkContext): MarkInk {
  const [first] = stretches;
  if (stretches.length === 1) return first!.line.draw(at);
  const across = left2(first!.way);
  const out = dot2(sub2(at, middle2(box.low, box.high)), across) < 0 ? -1 : 1;
  const all = stretches.map(({ middle, line }, k) => {
    const height = dot2(at, across) + out * k * apart;
    return line.draw(add2(middle, scale2(across, height - dot2(middle, across))));
  });
  return {
    pieces: all.flatMap(({ pieces }) => pieces),
    letters: all.flatMap(({ letters }) => letters),
    text: boxRound(all.map(({ text }) => text)),
    lines: all.flatMap(({ lines }) => lines),
  };
}

const boxRound = (boxes: readonly Box[]): Box => boxAround(boxes.flatMap(({ low, high }) => [low, high]));
