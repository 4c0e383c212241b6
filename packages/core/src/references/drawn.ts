import { add3, scale3, toSpace, type Frame, type Vec2, type Vec3 } from '../math/index.ts';
import type { SpaceCurve } from '../geometry/index.ts';
import type { EdgeFacts } from '../kernel-port/index.ts';
import type { Id } from '../records/index.ts';
import { along, findEntity, lengthOf, type Geometry, type Piece } from '../sketch/index.ts';
import type { DrawnThing } from './things/index.ts';

/** A curve or a point of a sketch as a thing in space, its origin and axes among them; undefined if it is not there. */
export function drawnThing(frame: Frame, geometry: Geometry, entity: Id): DrawnThing | undefined {
  const record = findEntity(geometry.entities, entity);
  if (!record) return undefined;
  if (record.kind === 'point') return { to: 'drawn', curves: [], at: toSpace(frame, geometry.point(entity)) };
  const ends = geometry.ends(entity);
  const runs = joined(geometry.pieces(entity));
  return {
    to: 'drawn',
    normal: frame.z,
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

type Of<F extends Piece['form']> = Extract<Piece, { form: F }>;

/** The ends of what is round, as it runs counter-clockwise in space; none where it is closed. */
function endsOf(
  { from, to, sweep }: Of<'arc' | 'ellipse'>,
  frame: Frame,
): { readonly from?: Vec3; readonly to?: Vec3 } {
  if (Math.abs(Math.abs(sweep) - 2 * Math.PI) < 1e-12) return {};
  const [a, b] = sweep > 0 ? [from, to] : [to, from];
  return { from: toSpace(frame, a), to: toSpace(frame, b) };
}

const alongFrame = ({ x, y }: Frame, [u, v]: Vec2): Vec3 => add3(scale3(x, u), scale3(y, v));

/** What each kind of piece is in space; of Bezier pieces a run of them. */
const IN_SPACE: {
  readonly [F in Piece['form']]: (frame: Frame, first: Of<F>, run: readonly Of<F>[]) => SpaceCurve;
} = {
  segment: (frame, { from, to }) => ({ form: 'line', from: toSpace(frame, from), to: toSpace(frame, to) }),
  arc: (frame, piece) => ({
    ...{ form: 'circle', centre: toSpace(frame, piece.centre), axis: frame.z, radius: piece.radius },
    ...endsOf(piece, frame),
  }),
  ellipse: (frame, piece) => ({
    ...{ form: 'ellipse', centre: toSpace(frame, piece.centre) },
    ...{ major: alongFrame(frame, piece.major), minor: alongFrame(frame, piece.minor) },
    ...endsOf(piece, frame),
  }),
  bezier: (frame, _, run) => ({
    form: 'free',
    spans: run.map(({ from, inner, to }) => {
      const at = (place: Vec2) => toSpace(frame, place);
      return [at(from), at(inner[0]), at(inner[1]), at(to)] as const;
    }),
  }),
};

const inSpace = (frame: Frame, run: readonly Piece[]): SpaceCurve =>
  IN_SPACE[run[0]!.form](frame, run[0] as never, run as never);
