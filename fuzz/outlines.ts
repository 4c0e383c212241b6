import type { Entities } from '@helb/core';
import type { Chance } from './chance.ts';

/** A closed outline about a place, within a radius: what it is made of, all lengths times a factor. */
interface Outline {
  readonly kind: string;
  /** Of the drawing at scale 1, mm^2. */
  readonly area: number;
  draw(scale: number): Entities;
}

type Maker = (chance: Chance, at: readonly [number, number], radius: number) => Outline;

const point = (x: number, y: number, scale: number) => ({ kind: 'point', x: x * scale, y: y * scale }) as const;

const polygon = (corners: readonly (readonly [number, number])[], scale: number): Entities =>
  Object.fromEntries(
    corners.flatMap(([x, y], k): [string, Entities[string]][] => [
      [`p${k}`, point(x, y, scale)],
      [`l${k}`, { kind: 'line', a: `p${k}`, b: `p${(k + 1) % corners.length}` }],
    ]),
  );

const shoelace = (corners: readonly (readonly [number, number])[]): number =>
  Math.abs(
    corners.reduce((sum, [x, y], k) => {
      const [u, v] = corners[(k + 1) % corners.length]!;
      return sum + x * v - y * u;
    }, 0) / 2,
  );

const straight = (kind: string, corners: readonly (readonly [number, number])[]): Outline => ({
  ...{ kind, area: shoelace(corners) },
  draw: (scale) => polygon(corners, scale),
});

const rectangle: Maker = (chance, [x, y], radius) => {
  const [w, h] = [chance.number(radius * 0.5, radius * 1.4), chance.number(radius * 0.5, radius * 1.4)];
  const [l, b] = [x - w / 2, y - h / 2];
  return straight('rectangle', [
    [l, b],
    [l + w, b],
    [l + w, b + h],
    [l, b + h],
  ]);
};

const star: Maker = (chance, [x, y], radius) => {
  const count = chance.whole(3, 8);
  return straight(
    'polygon',
    Array.from({ length: count }, (_, k) => {
      const angle = ((k + chance.number(0.15, 0.85)) / count) * 2 * Math.PI;
      const far = chance.number(radius * 0.55, radius);
      return [x + far * Math.cos(angle), y + far * Math.sin(angle)] as const;
    }),
  );
};

const circle: Maker = (chance, [x, y], radius) => {
  const r = chance.number(radius * 0.4, radius);
  return {
    ...{ kind: 'circle', area: Math.PI * r * r },
    draw: (scale) => ({ m: point(x, y, scale), o: { kind: 'circle', centre: 'm', radius: r * scale } }),
  };
};

const ellipse: Maker = (chance, [x, y], radius) => {
  const [a, b] = [chance.number(radius * 0.5, radius), chance.number(radius * 0.3, radius * 0.9)];
  return {
    ...{ kind: 'ellipse', area: Math.PI * a * b },
    draw: (scale) => ({
      m: point(x, y, scale),
      t: point(x + a, y, scale),
      o: { kind: 'ellipse', centre: 'm', tip: 't', minor: b * scale },
    }),
  };
};

/** Lines with tangent arcs: a slot, turned. */
const slot: Maker = (chance, [x, y], radius) => {
  const r = chance.number(radius * 0.2, radius * 0.45);
  const half = radius - r;
  const turn = chance.number(0, Math.PI);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const at = (u: number, v: number, scale: number) => point(x + u * c - v * s, y + u * s + v * c, scale);
  return {
    ...{ kind: 'slot', area: 4 * half * r + Math.PI * r * r },
    draw: (scale) => ({
      m: at(-half, 0, scale),
      n: at(half, 0, scale),
      a: at(-half, -r, scale),
      b: at(half, -r, scale),
      d: at(half, r, scale),
      e: at(-half, r, scale),
      ab: { kind: 'line', a: 'a', b: 'b' },
      de: { kind: 'line', a: 'd', b: 'e' },
      bd: { kind: 'arc', centre: 'n', a: 'b', b: 'd', radius: r * scale },
      ea: { kind: 'arc', centre: 'm', a: 'e', b: 'a', radius: r * scale },
    }),
  };
};

const MAKERS = [rectangle, rectangle, star, circle, circle, ellipse, slot];

export const outline: Maker = (chance, at, radius) => chance.one(MAKERS)(chance, at, radius);
