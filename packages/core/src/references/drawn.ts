import { toSpace, type Frame, type Vec3 } from '../math/index.ts';
import type { SpaceCurve } from '../geometry/index.ts';
import type { EdgeFacts } from '../kernel-port/index.ts';
import type { Id } from '../records/index.ts';
import { along, lengthOf, type Geometry, type Piece } from '../sketch/index.ts';
import type { DrawnThing } from './things/index.ts';

/** A curve or a point of a sketch as a thing in space; undefined if it is not there. */
export function drawnThing(frame: Frame, geometry: Geometry, entity: Id): DrawnThing | undefined {
  const record = geometry.entities[entity];
  if (!record) return undefined;
  if (record.kind === 'point') return { to: 'drawn', curves: [], at: toSpace(frame, geometry.point(entity)) };
  const ends = geometry.ends(entity);
  const runs = joined(geometry.pieces(entity));
  return {
    to: 'drawn',
    curves: runs.map((run, k): EdgeFacts => {
      const named = runs.length === 1 && ends.length === 2 ? { ends: [ends[0]!, ends[1]!] as const } : {};
      const middle = run[Math.floor(run.length / 2)]!;
      return {
        name: runs.length === 1 ? entity : `${entity} ${k + 1}`,
        faces: [],
        curve: inSpace(frame, run),
        ...named,
        length: run.reduce((sum, piece) => sum + lengthOf(piece), 0),
        middle: toSpace(frame, run.length % 2 === 0 ? middle.from : along(middle, 0.5)),
      };
    }),
  };
}

/** Bezier spans that go on into each other belong together; all else stands alone. */
function joined(pieces: readonly Piece[]): Piece[][] {
  const runs: Piece[][] = [];
  for (const piece of pieces) {
    const before = runs.at(-1)?.at(-1);
    const goesOn =
      piece.form === 'bezier' &&
      before?.form === 'bezier' &&
      before.to[0] === piece.from[0] &&
      before.to[1] === piece.from[1];
    if (goesOn) runs.at(-1)!.push(piece);
    else runs.push([piece]);
  }
  return runs;
}

function inSpace(frame: Frame, run: readonly Piece[]): SpaceCurve {
  const at = (place: readonly [number, number]): Vec3 => toSpace(frame, place);
  const arm = (place: readonly [number, number]): Vec3 =>
    [0, 1, 2].map((k) => place[0] * frame.x[k]! + place[1] * frame.y[k]!) as unknown as Vec3;
  const [first] = run as [Piece];
  if (first.form === 'segment') return { form: 'line', from: at(first.from), to: at(first.to) };
  if (first.form === 'bezier')
    return {
      form: 'free',
      spans: run.map((piece) => {
        const { from, inner, to } = piece as Extract<Piece, { form: 'bezier' }>;
        return [at(from), at(inner[0]), at(inner[1]), at(to)] as const;
      }),
    };
  const closed = Math.abs(Math.abs(first.sweep) - 2 * Math.PI) < 1e-12;
  const ends = closed
    ? {}
    : first.sweep > 0
      ? { from: at(first.from), to: at(first.to) }
      : { from: at(first.to), to: at(first.from) };
  if (first.form === 'arc')
    return { form: 'circle', centre: at(first.centre), axis: frame.z, radius: first.radius, ...ends };
  return { form: 'ellipse', centre: at(first.centre), major: arm(first.major), minor: arm(first.minor), ...ends };
}
