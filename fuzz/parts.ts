import {
  ProjectScript,
  scale3,
  skinPieces,
  tightestPlace,
  toPlane,
  type FaceFacts,
  type Project,
  type Vec2,
  type Vec3,
} from '@helb/core';
import type { Chance } from './chance.ts';
import { outline } from './outlines.ts';
import { flatFaces, frameOf, isSteep, rimOf, roomAt, straightEdges, type Grounds } from './room.ts';

/** A step as it is added, its lengths times a factor. */
export interface Grown {
  readonly id: string;
  readonly kind: string;
  /** How far it sweeps its sketch, mm. */
  readonly sweep?: Vec3;
  fields(scale: number): Record<string, unknown>;
}

/** Grows a part within the room that there is: the next step is chosen from what is there. */
type Growth = (chance: Chance, id: string, bodies: readonly Grounds[]) => readonly Grown[];

const mm = (length: number, scale: number): string => `${Number((length * scale).toPrecision(12))} mm`;
const face = (name: string) => ({ to: 'face', name });

const sketch = (
  ...[id, plane, chance, at, radius]: [string, unknown, Chance, readonly [number, number], number]
): Grown & { readonly outline: string } => {
  const drawn = outline(chance, at, radius);
  const fields = (scale: number) => ({ plane, entities: drawn.draw(scale), relations: {} });
  return { id, kind: 'sketch', outline: drawn.kind, fields };
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
  // free curves can not lean
  const taper = chance.happens(0.2) && base.outline !== 'ellipse' ? { taper: `${chance.number(1, 5)} deg` } : {};
  return [
    base,
    { id, kind: 'extrude', fields: (scale) => ({ sketch: `${id}s`, distance: mm(height, scale), ...taper }) },
  ];
};

/** A place of a flat face with room about it. */
function standing(chance: Chance, bodies: readonly Grounds[]) {
  const all = bodies.flatMap((grounds) => flatFaces(grounds).map((one) => ({ grounds, one })));
  for (let tries = 0; tries < 8 && all.length > 0; tries++) {
    const { grounds, one } = chance.one(all);
    const rim = rimOf(grounds, one);
    const middle = toPlane(frameOf(one), one.centre);
    const off = Math.sqrt(one.area) / 4;
    const at: Vec2 = [middle[0] + chance.number(-off, off), middle[1] + chance.number(-off, off)];
    const room = roomAt(rim, at);
    if (room > 2) return { grounds, one, rim, at, room };
  }
  return undefined;
}

/** Longer than any part. */
const FAR = 1000;
/** So far square to a flat face. */
const across = ({ surface }: FaceFacts, by: number): Vec3 =>
  surface.form === 'plane' ? scale3(surface.normal, by) : [0, 0, 0];

/** A boss or a pocket on a flat face, or through everything. */
const onFace: Growth = (chance, id, bodies) => {
  const place = standing(chance, bodies);
  if (!place) return [];
  const { one, at, room } = place;
  const radius = chance.number(room * 0.4, room * 0.9);
  const cut = chance.happens(0.6);
  const deep = chance.number(2, 15);
  const extent = cut && chance.happens(0.3) ? { extent: 'through' } : undefined;
  return [
    sketch(`${id}s`, face(one.name), chance, [Number(at[0].toFixed(3)), Number(at[1].toFixed(3))], radius),
    {
      id,
      kind: 'extrude',
      sweep: across(one, extent ? -FAR : cut ? -deep : deep),
      fields: (scale) => ({
        ...{ sketch: `${id}s`, result: cut ? 'cut' : 'add', ways: cut ? 'backwards' : 'forwards' },
        ...(extent ?? { distance: mm(deep, scale) }),
      }),
    },
  ];
};

const dressed =
  (kind: 'fillet' | 'chamfer'): Growth =>
  (chance, id, bodies) => {
    const edges = bodies.flatMap(straightEdges).filter(({ room }) => room > 1);
    if (edges.length === 0) return [];
    const chosen = chance.some(edges, chance.whole(1, 3));
    const most = Math.min(...chosen.map(({ room }) => room));
    const size = chance.number(0.05 * most, 0.3 * most, 3);
    const named = chosen.map(({ name }) => ({ to: 'edge', name }));
    const field = kind === 'fillet' ? 'radius' : 'distance';
    return [{ id, kind, fields: (scale) => ({ edges: named, [field]: mm(size, scale) }) }];
  };

const shelled: Growth = (chance, id, bodies) => {
  const [grounds] = chance.some(bodies, 1);
  // what stands on an open face would hang in the air
  const faces = grounds
    ? flatFaces(grounds).filter(({ name }) => skinPieces(grounds.topology, [name]).length === 1)
    : [];
  if (!grounds || faces.length === 0) return [];
  const open = chance.one(faces).name;
  const tight = tightestPlace(grounds.mesh, grounds.topology, [open]);
  const most = Math.min(8, 0.5 * (tight?.radius ?? 8));
  if (most < 0.3) return [];
  const wall = chance.number(0.3 * most, most, 3);
  return [{ id, kind: 'shell', fields: (scale) => ({ open: [face(open)], wall: mm(wall, scale) }) }];
};

const setOff: Growth = (chance, id, bodies) => {
  const steep = bodies.flatMap((grounds) =>
    flatFaces(grounds)
      .filter((one) => isSteep(grounds, one))
      .map((one) => ({ one, room: roomAt(rimOf(grounds, one), toPlane(frameOf(one), one.centre)) })),
  );
  const fit = steep.filter(({ room }) => room > 2);
  if (fit.length === 0) return [];
  const { one, room } = chance.one(fit);
  const [distance, side] = [chance.number(0.02 * room, 0.1 * room, 3), chance.one(['inwards', 'outwards'])];
  const faces = [face(one.name)];
  return [{ id, kind: 'offset-face', fields: (scale) => ({ faces, side, distance: mm(distance, scale) }) }];
};

/** Pockets or bosses round the z axis, each with its room on one face across it. */
const turnedRound: Growth = (chance, id, bodies) => {
  const count = chance.whole(2, 6);
  const level = bodies.flatMap((grounds) =>
    flatFaces(grounds)
      .filter(({ surface }) => surface.form === 'plane' && Math.abs(surface.normal[2]) > 1 - 1e-9)
      .map((one) => ({ grounds, one })),
  );
  for (let tries = 0; tries < 8 && level.length > 0; tries++) {
    const { grounds, one } = chance.one(level);
    const [rim, frame] = [rimOf(grounds, one), frameOf(one)];
    const off = Math.sqrt(one.area) / 2;
    const [x, y] = [chance.number(-off, off), chance.number(-off, off)];
    const places = Array.from({ length: count }, (_, k): Vec2 => {
      const [c, s] = [Math.cos((2 * Math.PI * k) / count), Math.sin((2 * Math.PI * k) / count)];
      return toPlane(frame, [x * c - y * s, x * s + y * c, one.centre[2]]);
    });
    const room = Math.min(...places.map((place) => roomAt(rim, place)), Math.hypot(x, y) * Math.sin(Math.PI / count));
    if (room < 1.5) continue;
    const at: Vec2 = [Number(places[0]![0].toFixed(3)), Number(places[0]![1].toFixed(3))];
    const cut = chance.happens(0.5);
    const deep = chance.number(1, 6);
    return [
      sketch(`${id}s`, face(one.name), chance, at, chance.number(0.4 * room, 0.85 * room)),
      {
        id: `${id}b`,
        kind: 'extrude',
        sweep: across(one, cut ? -deep : deep),
        fields: (scale) => ({
          ...{ sketch: `${id}s`, result: cut ? 'cut' : 'add', ways: cut ? 'backwards' : 'forwards' },
          distance: mm(deep, scale),
        }),
      },
      {
        id,
        kind: 'pattern-round',
        fields: () => ({ steps: [`${id}b`], about: [{ to: 'origin', name: 'z' }], count: `${count}` }),
      },
    ];
  }
  return [];
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
