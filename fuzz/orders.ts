import { boxRound, boxesApart, type BodyMesh, type Box3, type Vec3 } from '@helb/core';
import type { PartModel } from '@helb/engine';
import type { Grown } from './parts.ts';

// Steps that have nothing to do with each other: their order is no matter.

/** Nearer than this, mm, two places of work are taken as one. */
const APART = 0.5;

/** Do two steps that follow each other work at places of their own, the second not on what the first has made? */
export function areDisjoint(
  [before, between, after]: readonly [PartModel, PartModel, PartModel],
  first: readonly Grown[],
  second: readonly Grown[],
): boolean {
  if ([...first, ...second].some(({ kind }) => kind === 'shell')) return false;
  const isNamed = (id: string) => second.some(({ fields }) => JSON.stringify(fields(1)).includes(id));
  if (first.some(({ id }) => isNamed(id))) return false;
  const [one, other] = [placeOf(before, between, first), placeOf(between, after, second)];
  return one !== undefined && other !== undefined && boxesApart(one, other) > APART;
}

/** The box round all edges that a step made or took, and round what it swept over. */
function placeOf(before: PartModel, after: PartModel, steps: readonly Grown[]): Box3 | undefined {
  const [was, is] = [before, after].map((model) => new Map(model.bodies.flatMap(({ mesh }) => edgesOf(mesh!))));
  const changed = [
    ...[...was!].filter(([key]) => !is!.has(key)).map(([, box]) => box),
    ...[...is!].filter(([key]) => !was!.has(key)).map(([, box]) => box),
  ];
  const swept = steps.flatMap(({ sweep }) => (sweep ? changed.map((box) => shifted(box, sweep)) : []));
  return boxRound([...changed, ...swept]);
}

/** Each edge by where it runs, with its box. */
const edgesOf = ({ edgePoints, edges }: BodyMesh): (readonly [string, Box3])[] =>
  edges.map(({ start, count }) => {
    const points = Array.from({ length: count }, (_, k): Vec3 => {
      const at = 3 * (start + k);
      return [edgePoints[at]!, edgePoints[at + 1]!, edgePoints[at + 2]!];
    });
    const [ends, middle] = [[points[0]!, points.at(-1)!], points[Math.floor(count / 2)]!];
    // one edge can be run through either way
    const key = [...ends.map((point) => point.map((c) => c.toFixed(3)).join()).sort(), count > 2 ? String(middle) : ''];
    return [key.join(' '), boxRound(points.map((point) => ({ low: point, high: point })))!] as const;
  });

const shifted = ({ low, high }: Box3, by: Vec3): Box3 => ({
  low: low.map((c, k) => c + by[k]!) as unknown as Vec3,
  high: high.map((c, k) => c + by[k]!) as unknown as Vec3,
});
