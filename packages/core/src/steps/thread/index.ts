import { solidOf } from '../../naming/index.ts';
import type { BodyHandle, Kernel } from '../../kernel-port/index.ts';
import { add3, dot3, frameOn, scale3, sub3, type Vec3 } from '../../math/index.ts';
import { axisOf, type Thing } from '../../references/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { filled, findRegions, Geometry } from '../../sketch/index.ts';
import { LENGTH } from '../../units/index.ts';
import { changedBodies } from '../bodies.ts';
import { changing } from '../define.ts';
import { choice, number, picks, type Values } from '../fields/index.ts';
import { BOLT_NAMES, BOLTS } from '../hole/tables.ts';

const fields = {
  faces: picks('round faces', 'round', { max: 50, many: 'round faces' }),
  size: choice<string>('size', { ...BOLT_NAMES, own: 'with a pitch of' }, 'm8'),
  pitch: number('pitch', { asks: LENGTH, min: 0.1, max: 100, initial: '1.25 mm', when: ({ size }) => size === 'own' }),
  hand: choice('hand', { right: 'right-handed', left: 'left-handed' }, 'right'),
  extent: choice('extent', { all: 'over the whole length', part: 'for' }, 'all'),
  length: number('length', {
    asks: LENGTH,
    min: 0.1,
    max: 1e4,
    initial: '10 mm',
    when: ({ extent }) => extent === 'part',
  }),
  from: choice(
    'from',
    { first: 'from one end', last: 'from the other end' },
    'first',
    ({ extent }) => extent === 'part',
  ),
  shown: choice('shown', { sign: 'as a sign', full: 'cut in full' }, 'sign'),
};

/** A thread on a round face: what drawings and views show of it whether it is cut in full or not. */
export interface Sign {
  /** "M8", or the diameter and pitch. */
  readonly name: string;
  readonly origin: Vec3;
  /** A unit vector along which it runs from the origin. */
  readonly axis: Vec3;
  readonly length: number;
  /** Of the round face, mm. */
  readonly radius: number;
  /** Nominal diameter and pitch, mm. */
  readonly diameter: number;
  readonly pitch: number;
  readonly left: boolean;
  readonly inside: boolean;
  readonly full: boolean;
}

interface Threaded extends Sign {
  readonly body: number;
}

interface Inputs {
  readonly threads: readonly Threaded[];
  readonly step: string;
}

type Round = Extract<Thing, { to: 'face' }>;

/**
 * What the flanks take off the diameter: basic minor diameter d - 1.0825 P (ISO 724); the crest of an outer thread lies
 * below the basic one by the deviation of position g, (15 + 11 P) micrometres for P in mm (ISO 965-1).
 */
const DEPTH = 1.0825;
const allowance = (pitch: number): number => (15 + 11 * pitch) / 1000;

export const thread = changing('thread', {
  title: 'Thread',
  verb: { key: 'R', says: 'Puts a thread on a round face, inside or outside, after its standard.' },
  fields,
  sentence: 'Thread {faces} {size}[ {pitch}], {hand}, {extent}[ {length}][ {from}], {shown}',
  inputs(values, { step }): Result<Inputs> {
    const threads: Threaded[] = [];
    for (const thing of values.faces) {
      const made = threadOn(thing as Round, values);
      if (!made.ok) return made;
      threads.push(made.value);
    }
    return ok({ threads, step });
  },
  build({ threads, step }, before, kernel) {
    let bodies = before;
    for (const [k, sign] of threads.filter(({ full }) => full).entries()) {
      const made = changedBodies(
        bodies,
        [{ body: sign.body, make: (handle) => cutInFull(handle, sign, solidOf(step, k + 1), kernel) }],
        kernel,
      );
      bodies
        .filter((body) => !before.includes(body) && !(made.ok && made.value.includes(body)))
        .forEach(kernel.release, kernel);
      if (!made.ok) return made;
      bodies = made.value;
    }
    return ok(bodies);
  },
  signs: ({ threads }) => threads,
  words: {
    'thread.size': (f) =>
      `${f['size']} does not fit here: this ${f['inside'] === 1 ? 'bore' : 'shaft'} is ⌀${f['found']}, and it needs ⌀${f['needs']}.`,
    'thread.pitch': (f, length) =>
      `The flanks would meet in the axis: choose a pitch well below the diameter of ${length(f['diameter'] as number)}.`,
    'thread.cut': () => 'The thread would cut the body in pieces, or does not reach it: choose another size or length.',
  },
});

function threadOn(thing: Round, values: Values<typeof fields>): Result<Threaded> {
  const surface = thing.face.surface as Extract<Round['face']['surface'], { form: 'cylinder' }>;
  const { direction, stretch } = axisOf(thing)!;
  const bolt = BOLTS[values.size];
  const pitch = bolt?.pitch ?? values.pitch;
  const found = 2 * surface.radius;
  const diameter = bolt?.d ?? (surface.hollow ? found + DEPTH * pitch : found);
  const fits = surface.hollow
    ? found > diameter - DEPTH * pitch - 0.1 && found < diameter
    : Math.abs(found - diameter) < pitch / 2;
  if (!fits)
    return fail('thread.size', {
      found: Math.round(found * 1000) / 1000,
      size: bolt ? BOLT_NAMES[values.size]! : 'This thread',
      needs: surface.hollow ? (bolt?.tapDrill ?? diameter) : diameter,
      inside: surface.hollow ? 1 : 0,
    });
  if (diameter <= DEPTH * pitch) return fail('thread.pitch', { diameter: Math.round(diameter * 1000) / 1000 });
  const [low, high] = stretch!;
  const reach = dot3(sub3(high, low), direction);
  const length = values.extent === 'part' ? Math.min(values.length, reach) : reach;
  const last = values.from === 'last';
  return ok({
    name: bolt ? BOLT_NAMES[values.size]! : `⌀${Math.round(diameter * 100) / 100} × ${pitch}`,
    origin: last ? high : low,
    axis: last ? scale3(direction, -1) : direction,
    length,
    radius: surface.radius,
    diameter,
    pitch,
    left: values.hand === 'left',
    inside: surface.hollow,
    full: values.shown === 'full',
    body: thing.body,
  });
}

/** Cuts the rod out of what is round it; of a shaft, what lies outside the rod. */
function cutInFull(body: BodyHandle, sign: Threaded, step: string, kernel: Kernel): Result<BodyHandle> {
  const { origin, axis, length, diameter, pitch, left, inside } = sign;
  const minor = (diameter - DEPTH * pitch) / 2;
  const major = (diameter - (inside ? 0 : allowance(pitch))) / 2;
  const rod = kernel.thread({ origin, axis, major, minor, pitch, length, left, step });
  if (!rod.ok) return rod;
  // no longer than the face: beyond its ends may be a head, or a wall
  const circle = { m: { kind: 'point', x: 0, y: 0 }, o: { kind: 'circle', centre: 'm', radius: diameter } } as const;
  const sleeve = kernel.extrude({
    profile: { frame: frameOn(origin, axis), regions: filled(findRegions(new Geometry(circle))) },
    from: 0,
    to: length,
    step,
  });
  if (!sleeve.ok) {
    kernel.release(rod.value);
    return sleeve;
  }
  const tool = kernel.combine(inside ? 'overlap' : 'cut', sleeve.value, [rod.value]);
  [rod.value, ...sleeve.value].forEach((handle) => kernel.release(handle));
  if (!tool.ok) return tool;
  const made = kernel.combine('cut', [body], tool.value.bodies);
  tool.value.bodies.forEach((handle) => kernel.release(handle));
  if (!made.ok) return made;
  const [only, ...more] = made.value.bodies as [BodyHandle, ...BodyHandle[]];
  if (more.length === 0 && made.value.touched) return ok(only);
  made.value.bodies.forEach((handle) => kernel.release(handle));
  return fail('thread.cut');
}

/** How a thread is shown on a model: a helix on its face, as segments of two places each. */
export function signLines({ origin, axis, length, radius, pitch, left }: Sign): Vec3[] {
  const { x, y } = frameOn(origin, axis);
  const turns = Math.min(length / pitch, MOST_TURNS);
  const count = Math.ceil(turns * SEGMENTS);
  const at = (k: number): Vec3 => {
    const angle = ((left ? -2 : 2) * Math.PI * turns * k) / count;
    const out = add3(scale3(x, radius * Math.cos(angle)), scale3(y, radius * Math.sin(angle)));
    return add3(add3(origin, scale3(axis, (length * k) / count)), out);
  };
  return Array.from({ length: count }, (_, k) => [at(k), at(k + 1)]).flat();
}
const SEGMENTS = 24;
const MOST_TURNS = 60;
