import { Geometry, ORIGIN, type Entities, type Entity, type Relation, type Relations, type Sizes } from './index.ts';

// Short words for the sketches of tests: a case is one readable expression.

/** A point. */
export const point = (x: number, y: number): Entity => ({ kind: 'point', x, y });
/** A line between two points. */
export const line = (a: string, b: string): Entity => ({ kind: 'line', a, b });
/** A circle about a point. */
export const circle = (centre: string, radius: number): Entity => ({ kind: 'circle', centre, radius });

/** A rough quadrangle p q r s with sides l1 (p-q) to l4 (s-p). */
export const quadrangle: Entities = {
  p: point(0.3, -0.2),
  q: point(41, 1),
  r: point(39, 22),
  s: point(-1, 19),
  l1: line('p', 'q'),
  l2: line('q', 'r'),
  l3: line('r', 's'),
  l4: line('s', 'p'),
};

/** A line along x. */
export const level = (a: string): Relation => ({ kind: 'horizontal', a });
/** A line along y. */
export const upright = (a: string): Relation => ({ kind: 'vertical', a });
/** A distance straight from one thing to another. */
export const aligned = (a: string, b: string): Relation => ({
  kind: 'distance',
  a,
  b,
  direction: 'aligned',
  sense: 1,
  value: '1',
});
export const rectangle: Relations = { h1: level('l1'), h3: level('l3'), v2: upright('l2'), v4: upright('l4') };
export const sized: Relations = { ...rectangle, w: aligned('p', 'q'), h: aligned('q', 'r') };
export const atOrigin: Relations = { o: { kind: 'coincident', a: 'p', b: ORIGIN } };

/** What dimensions come to, by their ids. */
export const sizes = (entries: Record<string, number>): Sizes => new Map(Object.entries(entries));
/** Places of points, rounded so that tests can compare them. */
export const places = (geometry: Geometry, ...ids: string[]) =>
  ids.map((id) => geometry.point(id).map((c) => Math.round(c * 1e8) / 1e8 + 0));
