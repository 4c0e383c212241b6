import type { Profile } from '../kernel-port/index.ts';
import type { Frame, Vec3 } from '../math/index.ts';
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
