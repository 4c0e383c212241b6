import { ProjectScript, type Project, type Topology } from '@helb/core';
import type { Chance } from './chance.ts';
import { outline } from './outlines.ts';

/** A step as it is added, its lengths times a factor. */
export interface Grown {
  readonly id: string;
  readonly kind: string;
  fields(scale: number): Record<string, unknown>;
}

/** Grows a part: the next step is chosen from what is there. */
export type Growth = (chance: Chance, id: string, bodies: readonly Topology[]) => readonly Grown[];

const mm = (length: number, scale: number): string => `${Number((length * scale).toPrecision(12))} mm`;
const face = (name: string) => ({ to: 'face', name });

const sketch = (id: string, plane: unknown, chance: Chance, at: readonly [number, number], radius: number): Grown => {
  const drawn = outline(chance, at, radius);
  return { id, kind: 'sketch', fields: (scale) => ({ plane, entities: drawn.draw(scale), relations: {} }) };
};

/** What every part begins with. */
export const begin: Growth = (chance, id) => {
  const height = chance.number(8, 40);
  const base = sketch(`${id}s`, 'top', chance, [0, 0], chance.number(20, 40));
  const how = chance.one(['extrude', 'extrude', 'extrude', 'revolve', 'loft'] as const);
  if (how === 'revolve')
    return [
      sketch(`${id}s`, 'front', chance, [chance.number(35, 45), 0], chance.number(10, 25)),
      { id, kind: 'revolve', fields: () => ({ sketch: `${id}s`, axis: [{ to: 'origin', name: 'z' }] }) },
    ];
  if (how === 'loft')
    return [
      base,
      {
        id: `${id}p`,
        kind: 'datum-plane',
        fields: (scale) => ({ how: 'offset', on: [{ to: 'origin', name: 'top' }], by: mm(height, scale) }),
      },
      sketch(
        `${id}t`,
        { to: 'datum', step: `${id}p` },
        chance,
        [chance.number(-5, 5), chance.number(-5, 5)],
        chance.number(12, 30),
      ),
      { id, kind: 'loft', fields: () => ({ sections: [`${id}s`, `${id}t`] }) },
    ];
  const taper = chance.happens(0.2) ? { taper: `${chance.number(1, 8)} deg` } : {};
  return [
    base,
    { id, kind: 'extrude', fields: (scale) => ({ sketch: `${id}s`, distance: mm(height, scale), ...taper }) },
  ];
};

const flatFaces = (bodies: readonly Topology[]) =>
  bodies.flatMap(({ faces }) => faces.filter(({ surface, area }) => surface.form === 'plane' && area > 60));

/** A boss or a pocket on a flat face, or through everything. */
const onFace: Growth = (chance, id, bodies) => {
  const faces = flatFaces(bodies);
  if (faces.length === 0) return [];
  const { name, area } = chance.one(faces);
  const radius = chance.number(2, Math.max(3, Math.sqrt(area) / 3));
  const cut = chance.happens(0.6);
  const deep = chance.number(2, 15);
  const extent = cut && chance.happens(0.3) ? { extent: 'through' } : undefined;
  return [
    sketch(`${id}s`, face(name), chance, [chance.number(-6, 6), chance.number(-6, 6)], radius),
    {
      id,
      kind: 'extrude',
      fields: (scale) => ({
        ...{ sketch: `${id}s`, result: cut ? 'cut' : 'add', ways: cut ? 'backwards' : 'forwards' },
        ...(extent ?? { distance: mm(deep, scale) }),
      }),
    },
  ];
};

const edgesOf = (bodies: readonly Topology[]) =>
  bodies.flatMap(({ edges }) =>
    edges.filter(({ turn, length }) => (turn === 'outer' || turn === 'inner') && length > 3),
  );

const dressed =
  (kind: 'fillet' | 'chamfer'): Growth =>
  (chance, id, bodies) => {
    const edges = edgesOf(bodies);
    if (edges.length === 0) return [];
    const chosen = chance.some(edges, chance.whole(1, 3)).map(({ name }) => ({ to: 'edge', name }));
    const size = chance.number(0.3, 2);
    const field = kind === 'fillet' ? 'radius' : 'distance';
    return [{ id, kind, fields: (scale) => ({ edges: chosen, [field]: mm(size, scale) }) }];
  };

const shelled: Growth = (chance, id, bodies) => {
  const faces = flatFaces(bodies);
  if (faces.length === 0) return [];
  const open = [face(chance.one(faces).name)];
  const wall = chance.number(0.6, 2.5);
  return [{ id, kind: 'shell', fields: (scale) => ({ open, wall: mm(wall, scale) }) }];
};

const setOff: Growth = (chance, id, bodies) => {
  const faces = flatFaces(bodies);
  if (faces.length === 0) return [];
  const chosen = chance.some(faces, chance.whole(1, 2)).map(({ name }) => face(name));
  const [distance, side] = [chance.number(0.1, 1.5), chance.one(['inwards', 'outwards'])];
  return [{ id, kind: 'offset-face', fields: (scale) => ({ faces: chosen, side, distance: mm(distance, scale) }) }];
};

const turnedRound: Growth = (chance, id, bodies) => {
  const inner = onFace(chance, `${id}b`, bodies);
  if (inner.length === 0) return [];
  const count = chance.whole(2, 6);
  return [
    ...inner,
    {
      id,
      kind: 'pattern-round',
      fields: () => ({ steps: [`${id}b`], about: [{ to: 'origin', name: 'z' }], count: `${count}` }),
    },
  ];
};

const MORE: readonly Growth[] = [
  onFace,
  onFace,
  onFace,
  dressed('fillet'),
  dressed('fillet'),
  dressed('chamfer'),
  shelled,
  setOff,
  turnedRound,
];

export const more: Growth = (chance, id, bodies) => chance.one(MORE)(chance, id, bodies);

/** The part of steps, all lengths times a factor. */
export function projectOf(steps: readonly Grown[], scale = 1): Project {
  const script = new ProjectScript('Fuzz').do('part.add', { id: 'part', name: 'Part' });
  for (const { id, kind, fields } of steps)
    script.do('step.add', { part: 'part', id, step: { kind, name: id, ...fields(scale) } as never });
  return script.project;
}
