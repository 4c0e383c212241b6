import type { EdgeFacts, FaceFacts, Profile, Topology } from '../kernel-port/index.ts';
import { add3, cross3, direction3, distance3, length3, scale3, sub3, type Frame, type Vec3 } from '../math/index.ts';
import { enclosedVolume, readStl } from '../meshes/index.ts';
import { ORIGIN_PLANES } from '../references/index.ts';
import { filled, findRegions, Geometry, ORIGIN, type Entities, type Relations } from '../sketch/index.ts';

// What tests and benches draw, exactly where it is asked and without relations; and what they measure.

/** A rectangle with its lower left corner at a place: corners p0 to p3, sides a to d, counter-clockwise from below. */
export const rectangle = (x: number, y: number, w: number, h: number): Entities => ({
  p0: { kind: 'point', x, y },
  p1: { kind: 'point', x: x + w, y },
  p2: { kind: 'point', x: x + w, y: y + h },
  p3: { kind: 'point', x, y: y + h },
  a: { kind: 'line', a: 'p0', b: 'p1' },
  b: { kind: 'line', a: 'p1', b: 'p2' },
  c: { kind: 'line', a: 'p2', b: 'p3' },
  d: { kind: 'line', a: 'p3', b: 'p0' },
});

/** What holds that rectangle where its first corner is the origin: a width and a depth, as typed. */
export const rectangleSizes = (width: string, depth: string): Relations => {
  const far = (b: string, direction: 'horizontal' | 'vertical', value: string) =>
    ({ kind: 'distance', a: 'p0', b, direction, sense: 1, value }) as const;
  return {
    o: { kind: 'coincident', a: 'p0', b: ORIGIN },
    h: { kind: 'horizontal', a: 'p0', b: 'p1' },
    v: { kind: 'vertical', a: 'p1', b: 'p2' },
    u: { kind: 'horizontal', a: 'p2', b: 'p3' },
    l: { kind: 'vertical', a: 'p0', b: 'p3' },
    w: far('p1', 'horizontal', width),
    d: far('p3', 'vertical', depth),
  };
};

/** A circle o about m. */
export const circle = (x: number, y: number, radius: number): Entities => ({
  m: { kind: 'point', x, y },
  o: { kind: 'circle', centre: 'm', radius },
});

/** What is drawn as the areas that it fills. */
export const profile = (entities: Entities, frame: Frame = ORIGIN_PLANES.top): Profile => ({
  frame,
  regions: filled(findRegions(new Geometry(entities))),
});

/** Volume enclosed by the triangles of an STL file, mm^3; undefined if it is none. */
export function stlVolume(bytes: Uint8Array): number | undefined {
  const read = readStl(bytes);
  return read.ok ? enclosedVolume(read.value.mesh) : undefined;
}

/** A corner of a block from the origin, of eight. */
export const blockCorner = (k: number, [w, d, h]: Vec3): Vec3 => [(k & 1) * w, ((k >> 1) & 1) * d, ((k >> 2) & 1) * h];
/** The corners of its faces, counter-clockwise seen from outside. */
export const BLOCK_FACES = [
  [0, 2, 3, 1],
  [4, 5, 7, 6],
  [0, 1, 5, 4],
  [2, 6, 7, 3],
  [0, 4, 6, 2],
  [1, 3, 7, 5],
] as const;

/** A block from the origin, as a kernel would tell it: faces "0" to "5", an edge by the two faces that meet in it. */
export function blockTopology(size: Vec3): Topology {
  const at = (k: number) => blockCorner(k, size);
  const middleOf = (corners: readonly number[]): Vec3 =>
    scale3(
      corners.map(at).reduce((sum, corner) => add3(sum, corner)),
      1 / corners.length,
    );
  const edges = BLOCK_FACES.flatMap((face, f) => face.map((from, k) => ({ f, from, to: face[(k + 1) % 4]! })))
    .filter(({ from, to }) => from < to)
    .map(({ f, from, to }): EdgeFacts => {
      const other = BLOCK_FACES.findIndex(
        (face, k) => k !== f && face.includes(from as never) && face.includes(to as never),
      );
      const curve = { form: 'line', from: at(from), to: at(to) } as const;
      const facts = {
        curve,
        length: distance3(at(from), at(to)),
        middle: middleOf([from, to]),
        turn: 'outer',
      } as const;
      return { name: `${f}|${other}`, faces: [`${f}`, `${other}`], ends: [`${from}`, `${to}`], ...facts };
    });
  const faces = BLOCK_FACES.map((face, f): FaceFacts => {
    const [a, b, c] = [at(face[0]), at(face[1]), at(face[2])];
    const square = cross3(sub3(b, a), sub3(c, b));
    const surface = { form: 'plane', origin: a, normal: direction3(square)! } as const;
    return { name: `${f}`, surface, area: length3(square), centre: middleOf(face) };
  });
  const vertices = Array.from({ length: 8 }, (_, k) => ({ name: `${k}`, at: at(k) }));
  return { name: 'b', faces, edges, vertices };
}
export { BOMBS } from './bombs.ts';
export { SWARM } from './swarms.ts';
export { apartOf, lockDisc, outline, slottedWheel, type Leg } from './outline.ts';
