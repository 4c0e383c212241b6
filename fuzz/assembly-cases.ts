import {
  compose,
  frameOn,
  transformPoint,
  translation,
  rotation,
  transformDirection,
  inverse,
  valueScope,
  type RigidTransform,
  type Reference,
  type Vec3,
  type Coordinate,
  type CoordinateKey,
  coordinateKey,
  isAngle,
} from '@helb/core';
import {
  assemble,
  drive,
  emptyAssembly,
  Grab,
  JOINTS,
  memberPose,
  MechanismEquations,
  originOf,
  placementOf,
  restPose,
  triple,
  turnsOf,
  type Assembled,
  type Assembly,
  type Group,
  type JointName,
  type JointRecord,
  type Placement,
  type Pose,
} from '@helb/core/assembly';
import { Broken, brokenBy, same, type Outcome } from './case.ts';
import { Chance } from './chance.ts';

// Random mechanisms out of bars with datum frames, held against laws of rigid bodies. Nothing is built: only put together.

const NOWHERE: Vec3 = [0, 0, 0];
const frames = new Map<string, ReturnType<typeof frameOn>>();

/** Every part has the frames that are drawn for it, by the names of their steps. */
function find(_: string, reference: Reference) {
  if (reference.to !== 'datum') throw new Error('only frames are joined');
  return { ok: true, value: { to: 'datum', datum: { form: 'frame', frame: frames.get(reference.step)! } } } as const;
}

const put = (assembly: Partial<Assembly>, groups: Record<string, Group> = {}): Assembled =>
  assemble(
    { ...emptyAssembly(), ...assembly },
    { scope: valueScope([], 'mm'), groups, find, sizeOf: () => 60, restPose },
  );

const mm = (length: number): string => `${Number(length.toFixed(9))} mm`;
const deg = (angle: number): string => `${Number(((angle * 180) / Math.PI).toFixed(9))} deg`;

function placed(pose: RigidTransform, more: Partial<Placement> = {}): Placement {
  const [x, y, z] = originOf(pose).map(mm) as [string, string, string];
  const [u, v, w] = turnsOf(pose).map(deg) as [string, string, string];
  return { ...placementOf('P', { part: 'bar' }), at: triple(x, y, z), turn: triple(u, v, w), ...more };
}

const somewhere = (chance: Chance, far: number): RigidTransform =>
  [
    rotation(NOWHERE, [1, 0, 0], chance.number(-3, 3)),
    rotation(NOWHERE, [0, 1, 0], chance.number(-1.4, 1.4)),
    rotation(NOWHERE, [0, 0, 1], chance.number(-3, 3)),
    translation([chance.number(-far, far), chance.number(-far, far), chance.number(-far, far)]),
  ].reduce(compose);

/** A frame of its own for a side of a joint. */
function side(chance: Chance, placement: string): JointRecord['a'] {
  const normal: Vec3 = chance.one([
    [0, 0, 1],
    [1, 0, 0],
    [0, 0.6, 0.8],
  ] as const);
  const step = `frame${frames.size}`;
  frames.set(step, frameOn([chance.number(-40, 40), chance.number(-40, 40), chance.number(-20, 20)], normal));
  return { placement, on: { to: 'datum', step }, spot: 'middle' };
}

/** How many ways each kind of joint leaves (Reuleaux 1875). */
const FREE: Readonly<Record<JointName, number>> = {
  rigid: 0,
  revolute: 1,
  prismatic: 1,
  cylindrical: 2,
  'pin-in-slot': 2,
  planar: 3,
  spherical: 3,
};
const KINDS = Object.keys(FREE) as JointName[];

/** An open chain or tree of bars, scattered; some coordinates are given. */
function tree(chance: Chance, held: boolean): { assembly: Assembly; free: number } {
  const assembly = emptyAssembly();
  const count = chance.whole(2, 7);
  let free = held ? 0 : 6;
  for (let k = 0; k < count; k++) {
    assembly.placements[`p${k}`] = placed(somewhere(chance, 150), k === 0 ? { held } : {});
    if (k === 0) continue;
    const kind = chance.one(KINDS);
    free += FREE[kind];
    assembly.joints[`j${k}`] = {
      name: `J${k}`,
      kind,
      a: side(chance, `p${chance.whole(0, k - 1)}`),
      b: side(chance, `p${k}`),
      flip: chance.happens(0.5),
      offset: mm(chance.happens(0.5) ? 0 : chance.number(-20, 20)),
      angle: deg(chance.happens(0.5) ? 0 : chance.number(-3, 3)),
      rest: Object.fromEntries(
        (JOINTS[kind].leaves as readonly Coordinate[])
          .filter(() => chance.happens(0.4))
          .map((name) => [name, name === 'turn' ? deg(chance.number(-3, 3)) : mm(chance.number(-30, 30))]),
      ),
    };
  }
  return { assembly, free };
}

/** The largest entry by which two poses differ, mm where it counts. */
const off = (a: RigidTransform, b: RigidTransform): number =>
  Math.max(...a.flatMap((row, r) => row.map((c, k) => Math.abs(c - b[r]![k]!) * (k === 3 ? 1 : 50))));
function near(law: string, a: RigidTransform, b: RigidTransform, within: number): void {
  const by = off(a, b);
  if (!(by <= within)) throw new Broken(law, `${by} off`);
}

const membersIn = (all: Assembled, pose: Pick<Pose, 'poses'> = all.rest): Map<string, RigidTransform> =>
  new Map(all.members.map((member) => [member.id, memberPose(member, pose)]));

/** Every joint by its own words: where the axes lie, what is square to what. Found from the poses alone. */
function holds({ mechanism }: Assembled, { poses }: Pick<Pose, 'poses'>): void {
  for (const { id, kind, a, b } of mechanism.joints) {
    const [p, q] = [poses[a.body]!, poses[b.body]!];
    const [za, zb] = [transformDirection(p, a.frame.z), transformDirection(q, b.frame.z)];
    const way = transformPoint(q, b.frame.origin).map(
      (c, k) => c - transformPoint(p, a.frame.origin)[k]!,
    ) as unknown as Vec3;
    const along = way.reduce((sum, c, k) => sum + c * za[k]!, 0);
    const tilt = Math.hypot(...za.map((c, k) => c - zb[k]!));
    const aside = Math.hypot(...way.map((c, k) => c - along * za[k]!));
    const wrong: Readonly<Record<JointName, number>> = {
      rigid: Math.hypot(...way) + 50 * tilt,
      revolute: Math.hypot(...way) + 50 * tilt,
      prismatic: aside + 50 * tilt,
      cylindrical: aside + 50 * tilt,
      'pin-in-slot': Math.abs(along) + 50 * tilt,
      planar: Math.abs(along) + 50 * tilt,
      spherical: Math.hypot(...way),
    };
    if (wrong[kind] > 1e-5) throw new Broken('joints hold by their own words', `${id} ${kind}: ${wrong[kind]} mm off`);
  }
}

/** Freedoms by the tree formula, and by counting at another pose. */
function counted(all: Assembled, free: number, chance: Chance): void {
  same('freedoms of a tree are those of its joints', all.freedoms.count, free, 0);
  const keys = [...all.rest.coordinates.keys()];
  if (keys.length === 0) return;
  const to = new Map(keys.map((key) => [key, all.rest.coordinates.get(key)! + chance.number(-0.7, 0.7)]));
  const { pose, arrived } = drive(all.mechanism, all.rest, to);
  if (!arrived) throw new Broken('an open chain goes where it is driven', keys.join());
  holds(all, pose);
  same('as many freedoms in another pose', new MechanismEquations(all.mechanism).freedoms(pose).count, free, 0);
}

/** What is driven away and back is home, and so is what was driven all at once or one after the other. */
function driven(all: Assembled, chance: Chance): void {
  const keys = [...all.rest.coordinates.keys()];
  if (keys.length === 0) return;
  const key = chance.one(keys);
  const home = all.rest.coordinates.get(key)!;
  const far = home + (isAngle(key) ? chance.number(-9, 9) : chance.number(-60, 60));
  const out = drive(all.mechanism, all.rest, new Map([[key, far]]));
  holds(all, out.pose);
  if (out.arrived) reached('it comes to what it is driven to', out.pose.coordinates.get(key)!, far);
  const back = drive(all.mechanism, out.pose, new Map([[key, home]]));
  reached('and back', back.pose.coordinates.get(key)!, home);
  limited(all, key, home, far);
}

/** Two values of a coordinate, rad or mm. */
function reached(law: string, is: number, wanted: number): void {
  if (!(Math.abs(is - wanted) <= 1e-7)) throw new Broken(law, `${is} and ${wanted}`);
}

/** A limit half way stops it there, whoever drives. */
function limited(all: Assembled, key: CoordinateKey, home: number, far: number): void {
  const half = (home + far) / 2;
  if (Math.abs(far - home) < 1e-6) return;
  const limits = new Map([[key, [Math.min(home, half), Math.max(home, half)] as const]]);
  const stopped = drive({ ...all.mechanism, limits }, all.rest, new Map([[key, far]]));
  reached('a limit stops it', stopped.pose.coordinates.get(key)!, half);
  if (stopped.arrived) throw new Broken('a limit is told', key);
}

/** A group that moves inside is what its members are placed singly, moved as it is; so are its repeats. */
function asGroup(assembly: Assembly, chance: Chance): void {
  const inside = put(assembly);
  const at = somewhere(chance, 200);
  const by: Vec3 = [chance.number(-90, 90), chance.number(-90, 90), 0];
  const group: Group = { name: 'G', ...assembly };
  const repeat = { layout: 'line', count: '3', by: triple(mm(by[0]), mm(by[1]), mm(by[2])) } as const;
  for (const stiff of [true, false]) {
    const all = put({ placements: { g: placed(at, { of: { group: 'g', stiff }, held: true, repeat }) } }, { g: group });
    const found = membersIn(all);
    for (const [id, pose] of membersIn(inside)) {
      near(`a ${stiff ? 'stiff' : 'moving'} group equals its members`, found.get(`g/${id}`)!, compose(pose, at), 1e-4);
      for (const k of [2, 3]) {
        const further = translation(by.map((c) => c * (k - 1)) as unknown as Vec3);
        near(
          'a repeat is the same further on',
          found.get(`g:${k}/${id}`)!,
          compose(found.get(`g/${id}`)!, further),
          1e-6,
        );
      }
    }
    const [key] = all.rest.coordinates.keys();
    if (stiff || key === undefined) continue;
    const { pose } = drive(all.mechanism, all.rest, new Map([[key, all.rest.coordinates.get(key)! + 0.6]]));
    const moved = membersIn(all, pose);
    for (const id of membersIn(inside).keys())
      near(
        'a repeat does what the first does',
        moved.get(`g:2/${id}`)!,
        compose(moved.get(`g/${id}`)!, translation(by)),
        1e-6,
      );
  }
}

/** A closed ring of four bars in a plane moves in one way; the ends stay as far apart as the bars are long. */
function ring(chance: Chance): void {
  const assembly = emptyAssembly();
  const [crank, coupler, rocker, ground] = [chance.number(10, 25), chance.number(60, 80), chance.number(50, 70), 70];
  const bars = { ground, crank, coupler, rocker };
  const at = (placement: string, x: number): JointRecord['a'] => ({
    placement,
    on: { to: 'datum', step: frameStep(x) },
    spot: 'middle',
  });
  const base = somewhere(chance, 100);
  for (const name of Object.keys(bars)) assembly.placements[name] = placed(base, { held: name === 'ground' });
  const joint = (a: JointRecord['a'], b: JointRecord['a']): JointRecord => ({
    ...{ name: 'J', kind: 'revolute', a, b, flip: false, offset: '0 mm', angle: '0 deg' },
  });
  assembly.joints['shaft'] = { ...joint(at('ground', 0), at('crank', 0)), rest: { turn: deg(chance.number(-3, 3)) } };
  assembly.joints['p'] = joint(at('crank', crank), at('coupler', 0));
  assembly.joints['q'] = joint(at('coupler', coupler), at('rocker', rocker));
  assembly.joints['pivot'] = joint(at('ground', ground), at('rocker', 0));
  const all = put(assembly);
  if (!all.rest.fulfilled) throw new Broken('a ring that can close closes', JSON.stringify(bars));
  same('a ring of four moves in one way', all.freedoms.count, 1, 0);
  const key = coordinateKey('shaft', 'turn');
  const home = all.rest.coordinates.get(key)!;
  const round = drive(all.mechanism, all.rest, new Map([[key, home + 2 * Math.PI]]));
  if (!round.arrived) throw new Broken('a crank goes round (Grashof 1883)', JSON.stringify(bars));
  holds(all, round.pose);
  for (const [k, pose] of round.pose.poses.entries()) near('once round is home', pose, all.rest.poses[k]!, 1e-4);
}
function frameStep(x: number): string {
  const step = `at ${x}`;
  frames.set(step, frameOn([x, 0, 0], [0, 0, 1], [1, 0, 0]));
  return step;
}

/** Pulled away by the hand it never breaks what holds, and pulled home it can be driven home. */
function pulled(all: Assembled, chance: Chance): void {
  const body = all.mechanism.bodies.findIndex(({ grounded }) => !grounded);
  if (body < 0) return;
  const grab = new Grab(all.mechanism, { body, at: [10, 5, 0] });
  const from = transformPoint(all.rest.poses[body]!, [10, 5, 0]);
  const goal = from.map((c) => c + chance.number(-40, 40)) as unknown as Vec3;
  holds(all, grab.pull(all.rest, goal));
}

/** A random assembly, held against laws that need no answer key. */
export function assemblyCase(seed: number): Outcome {
  frames.clear();
  const chance = new Chance(seed);
  const tried = ['assembly'];
  const held = chance.happens(0.8);
  const { assembly, free } = tree(chance, held);
  try {
    const all = put(assembly);
    if (all.issues.size > 0) throw new Broken('what can be read is read', [...all.issues.values()][0]!.code);
    if (!all.rest.fulfilled) throw new Broken('an open chain comes together', `${all.rest.residual}`);
    holds(all, all.rest);
    counted(all, free, chance);
    driven(all, chance);
    pulled(all, chance);
    if (held) asGroup(assembly, chance);
    elsewhere(assembly, all, chance);
    ring(chance);
    return { seed, refused: [], tried };
  } catch (error) {
    return {
      seed,
      refused: [],
      tried,
      broken: brokenBy(error),
      shown: JSON.stringify({ assembly, frames: [...frames] }),
    };
  }
}

/** All drawn elsewhere and turned: the same seen from the first. */
function elsewhere(assembly: Assembly, all: Assembled, chance: Chance): void {
  const by = somewhere(chance, 100);
  const placements = Object.fromEntries(
    Object.entries(assembly.placements).map(([id, one], k) => [
      id,
      placed(compose(all.mechanism.bodies[k]!.pose, by), { held: one.held }),
    ]),
  );
  const moved = membersIn(put({ ...assembly, placements }));
  const seen = (poses: Map<string, RigidTransform>, id: string) => compose(poses.get(id)!, inverse(poses.get('p0')!));
  const here = membersIn(all);
  // what nothing holds may turn where it is: only what hangs rigidly on what is held has to be the same
  if (!assembly.placements['p0']!.held) return;
  // a turn is not told by how parts are drawn where the axes of the two lie square to each other
  const drawn = all.mechanism.bodies.map(({ pose }) => pose);
  const isTold = all.mechanism.joints.every(({ a, b }) => {
    const [z, x] = [transformDirection(drawn[a.body]!, a.frame.z), transformDirection(drawn[b.body]!, b.frame.x)];
    return Math.abs(z.reduce((sum, c, k) => sum + c * x[k]!, 0)) < 1 - 1e-6;
  });
  if (!isTold) return;
  for (const id of here.keys()) near('drawn elsewhere it is the same', seen(moved, id), seen(here, id), 1e-3);
}
