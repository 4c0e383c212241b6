import { z } from 'zod';
import { Dual, dotD3, type DualVec3 } from '../../../math/index.ts';
import type { EdgeFacts } from '../../../kernel-port/index.ts';
import type { Thing } from '../../../references/index.ts';
import { fail, ok, type Result } from '../../../result/index.ts';
import { formatAmount } from '../../../units/index.ts';
import { pointOn } from '../../witness/index.ts';
import { rowWords, sizeFields, sizeRow, things } from '../fields.ts';
import { onePlain } from '../tries.ts';
import type { MarkContext, MarkKind, ReadMark } from '../kind.ts';
import { pointing } from '../pointing.ts';
import { timesRow } from '../round.ts';

/** A bevelled edge: how much is cut off along one side, and at which angle to it. */
const chamferSchema = z.strictObject({ kind: z.literal('chamfer'), ...sizeFields, of: things(1) });
type ChamferMark = z.infer<typeof chamferSchema>;

export const chamferMark: MarkKind<ChamferMark> = {
  schema: chamferSchema,
  title: 'Chamfer',
  sized: true,
  tries: onePlain('chamfer'),
  read(mark, held, context): Result<ReadMark> {
    const bevels = held.map(({ thing }) => bevelOf(thing, context));
    const sizes = bevels.flatMap((bevel) => bevel ?? []);
    const [first] = sizes;
    if (!first || sizes.length < held.length) return fail('mark.bevel');
    if (sizes.some(({ leg, angle }) => !isAlike(leg, first.leg) || !isAlike(angle, first.angle)))
      return fail('mark.unlike');
    const degrees = (first.angle.value * 180) / Math.PI;
    if (degrees < 0.01 || degrees > 89.99) return fail('mark.bevel');
    const row = sizeRow(timesRow(sizes.length), first.leg.value, '', mark);
    if (!row.ok) return row;
    const full = [...row.value, ` × ${formatAmount(degrees, 2)}°`];
    return ok({
      tells: sizes.flatMap(({ leg, angle }) => [leg, angle]),
      words: rowWords(full),
      ...pointing(held[0]!, [full], context),
    });
  },
};

const isAlike = (a: Dual, b: Dual): boolean => Math.abs(a.value - b.value) < 1e-6;

interface Bevel {
  readonly leg: Dual;
  readonly angle: Dual;
}

/** A face between a flat one and another: how far its rim with the other lies from the flat one, and how it leans. */
function bevelOf(thing: Thing, { faces, topologies }: MarkContext): Bevel | undefined {
  if (thing.to !== 'face') return undefined;
  const { body, face } = thing;
  const own = faces.face(body, face.name)?.surface;
  const [a, b] = longestRims(topologies[body]!.edges, face.name);
  if (!own || !a || !b) return undefined;
  for (const [near, far] of [
    [a, b],
    [b, a],
  ] as const) {
    const flat = faces.face(body, otherOf(near, face.name))?.surface.plane;
    const side = faces.face(body, otherOf(far, face.name))?.surface;
    const rim = side && pointOn([own, side], far.middle);
    if (!flat || !side || !rim) continue;
    const leg = dotD3(flat.normal, rim).sub(flat.height).abs();
    const angle = own.half ?? (own.plane && side.plane && between(own.plane.normal, side.plane.normal));
    if (angle) return { leg, angle };
  }
  return undefined;
}

const otherOf = ({ faces }: EdgeFacts, name: string): string => faces.find((other) => other !== name) ?? name;

/** The longest edges with two different neighbours. */
function longestRims(edges: readonly EdgeFacts[], name: string): EdgeFacts[] {
  const rims = edges.filter(({ faces }) => faces.includes(name)).sort((a, b) => b.length - a.length);
  const [first] = rims;
  const second = rims.find((rim) => first && otherOf(rim, name) !== otherOf(first, name));
  return first && second ? [first, second] : [];
}

/** The acute angle between two planes. */
function between(a: DualVec3, b: DualVec3): Dual {
  const cos = dotD3(a, b).abs();
  const sin = cos.times(cos).scaled(-1).plus(1).sqrt();
  return sin.atan2(cos);
}
