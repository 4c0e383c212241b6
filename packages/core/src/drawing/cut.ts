import {
  add3,
  cross3,
  distance2,
  dot3,
  heightOver,
  scale3,
  toPlane,
  type Frame,
  type Vec2,
  type Vec3,
} from '../math/index.ts';
import type { Profile } from '../kernel-port/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import { segment } from './picture.ts';

/**
 * Where something is cut open: at a plane, of which the side of its z is left out; and from other planes on, on their
 * front, at another one, or not at all: offset and half sections (ISO 128-3).
 */
export interface Cut {
  readonly plane: Frame;
  readonly steps: readonly { readonly at: Frame; readonly plane: Frame | undefined }[];
}

/** A stretch along a cut: from where to where, and how high over its first plane; undefined where nothing is cut. */
interface CutStretch {
  readonly from: number;
  readonly to: number;
  readonly height: number | undefined;
}

/** A cut as it is seen along its planes: x along it, y to the side that is left out. */
export interface CutLine {
  readonly frame: Frame;
  /** One after the other, the outer ones endless. */
  readonly stretches: readonly CutStretch[];
}

const FLAT = 1e-6;

/** A cut as a line. Fails where its planes do not stand square to each other, or side by side. */
export function cutLine({ plane, steps }: Cut): Result<CutLine> {
  const first = steps[0]?.at.z;
  const x = first ?? plane.x;
  if (steps.some(({ at }) => Math.abs(dot3(at.z, plane.z)) > FLAT || Math.abs(Math.abs(dot3(at.z, x)) - 1) > FLAT))
    return fail('cut.across');
  if (steps.some((step) => step.plane && Math.abs(Math.abs(dot3(step.plane.z, plane.z)) - 1) > FLAT))
    return fail('cut.beside');
  const frame: Frame = { origin: plane.origin, x, y: plane.z, z: cross3(x, plane.z) };
  const along = steps
    .map(({ at, plane: next }) => ({
      at: dot3(at.origin, x) - dot3(plane.origin, x),
      height: next && heightOver(plane, next.origin),
    }))
    .sort((a, b) => a.at - b.at);
  const ends = [-Infinity, ...along.map(({ at }) => at), Infinity];
  const heights = [0, ...along.map(({ height }) => height)];
  return ok({ frame, stretches: heights.map((height, k) => ({ from: ends[k]!, to: ends[k + 1]!, height })) });
}

/** What a cut takes away, as areas that are extruded both ways. @param reach how far from its plane anything is, mm */
export function cutAway({ frame, stretches }: CutLine, reach: number): Profile {
  const pieces: CutStretch[][] = [[]];
  for (const stretch of stretches) {
    if (stretch.height === undefined) pieces.push([]);
    else pieces.at(-1)!.push(stretch);
  }
  const within = (x: number) => Math.max(-reach, Math.min(reach, x));
  const regions = pieces
    .filter((some) => some.length > 0)
    .map((some) => {
      const line = some.flatMap(({ from, to, height }): Vec2[] => [
        [within(from), height!],
        [within(to), height!],
      ]);
      const round: Vec2[] = [...line, [line.at(-1)![0], reach], [line[0]![0], reach]];
      const corners = round.filter((corner, k) => k === 0 || distance2(corner, round[k - 1]!) > FLAT);
      const outer = corners.map((corner, k) => ({
        ...segment(corner, corners[(k + 1) % corners.length]!),
        entity: `${k}`,
      }));
      return { key: '', outer, holes: [], area: 0, depth: 0 };
    });
  return { frame, regions };
}

/** Is a place in what a cut takes away? Not on its planes. */
export const isCutAway = ({ frame, stretches }: CutLine, place: Vec3): boolean => {
  const [x, y] = toPlane(frame, place);
  return stretches.some(({ from, to, height }) => height !== undefined && x > from && x < to && y > height + FLAT);
};

/** The planes of a cut, each as far as it goes: for what is drawn only where it lies in one. */
export const cutPlanes = ({ frame, stretches }: CutLine): Frame[] =>
  stretches.flatMap(({ height }) =>
    height === undefined
      ? []
      : [{ ...frame, origin: add3(frame.origin, scale3(frame.y, height)), y: frame.z, z: frame.y }],
  );

export const cutWords: Words = {
  'cut.across': () =>
    'Where a section goes on elsewhere must be told by planes that stand square to it, all side by side: choose another.',
  'cut.beside': () => 'A section goes on only at planes that lie along it: choose another, or leave the rest uncut.',
};
