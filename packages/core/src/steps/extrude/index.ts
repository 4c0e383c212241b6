import type { BodyHandle, ExtrudeRequest, Kernel, Profile, Stop } from '../../kernel-port/index.ts';
import {
  add3,
  boxCorners,
  dot3,
  frameOn,
  heightOver,
  scale3,
  toSpace,
  type Frame,
  type Vec3,
} from '../../math/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { planeOf, pointOf, type Thing } from '../../references/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { profileOf, thinFields } from '../areas.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import type { BodyResult } from '../kind.ts';
import { making, type ToolInputs } from '../define.ts';
import { pullOffPlane } from '../pulls.ts';
import { areasField, choice, number, picks, sketchField } from '../fields/index.ts';

const LONG = { asks: LENGTH, min: 1e-3, max: 1e5 } as const;

const fields = {
  sketch: sketchField,
  areas: areasField,
  extent: choice('extent', { by: 'by', to: 'up to', next: 'up to the next face', through: 'through everything' }, 'by'),
  distance: number('distance', {
    ...LONG,
    initial: '10 mm',
    hint: 'To go the other way, change the direction.',
    when: ({ extent }) => extent === 'by',
  }),
  /** Two lie on both sides of the sketch, and it goes up to each. */
  to: picks('up to', 'place', { max: 2, many: 'things', when: ({ extent }) => extent === 'to' }),
  /** Left between the end and what it goes up to. */
  clearance: number('clearance', {
    asks: LENGTH,
    min: 0,
    max: 1e5,
    initial: '0 mm',
    when: ({ extent }) => extent === 'to',
  }),
  /** Forwards is along the plane's normal, towards whoever looks square on it. */
  ways: choice(
    'direction',
    {
      forwards: 'forwards',
      backwards: 'backwards',
      both: 'both ways',
      each: 'both ways, as far each',
      two: 'with another distance back',
    },
    'forwards',
    ({ extent }) => extent !== 'to',
  ),
  back: number('distance back', {
    ...LONG,
    initial: '10 mm',
    when: ({ extent, ways }) => extent === 'by' && ways === 'two',
  }),
  ...thinFields,
  start: number('start off the sketch', { asks: LENGTH, min: -1e5, max: 1e5, initial: '0 mm' }),
  taper: number('taper', { asks: ANGLE, min: -1.4, max: 1.4, initial: '0 deg' }),
  result: resultField,
  only: touchedField,
};

interface Inputs extends ToolInputs, Omit<ExtrudeRequest, 'until'>, Stopped {
  /** The other way as well, up to something else. */
  readonly back?: Stopped;
}

interface Stopped {
  readonly until?: Until;
  readonly forwards: boolean;
}

/** Where it stops, by places of bodies among those before the step. */
type Until =
  | { readonly form: 'plane'; readonly plane: Frame }
  | { readonly form: 'face'; readonly body: number; readonly face: string }
  | { readonly form: 'next'; readonly both: boolean }
  | { readonly form: 'through'; readonly both: boolean };

export const extrude = making('extrude', {
  title: 'Extrude',
  noun: 'Extrusion',
  verb: { key: 'X', says: 'Gives the areas of a sketch a height: a new body, added, cut away, or what both share.' },
  fields,
  sentence:
    'Extrude {sketch}{areas}[? {body}][ of {wall}][ {lies}] {extent}[ {distance}][ {to}][?, {clearance} short of it][, {ways}][ of {back}][?, starting at {start}][?, leaning by {taper}] → {result}[? {only}]',
  // walls go along an open line
  begun: (_, { isPath }) => (isPath ? { body: 'thin' } : {}),
  pulls({ sketch, areas, extent, ways }, seen) {
    const drawn = seen.sketch(sketch as string, areas as 'outline' | string[]);
    if (!drawn || extent !== 'by') return [];
    const { frame, middle } = drawn;
    const forwards = pullOffPlane('distance', frame, middle, seen.number('start'));
    const backwards = { ...forwards, along: scale3(frame.z, -1) };
    if (ways === 'two') return [forwards, { ...backwards, field: 'back' }];
    if (ways === 'both') return [{ ...forwards, scale: 0.5 }];
    return [ways === 'backwards' ? backwards : forwards];
  },
  inputs(values, context): Result<Inputs> {
    const area = profileOf(values.sketch, values.areas, context, values);
    if (!area.ok) return area;
    const { profile } = area.value;
    const common = {
      profile,
      ...onBodies(values, context),
      ...(values.taper === 0 ? {} : { taper: values.taper }),
    };
    if (values.extent === 'by') {
      const [from, to] = span(values.ways, values.distance, values.back);
      return ok({ ...common, from: from + values.start, to: to + values.start, forwards: values.ways !== 'backwards' });
    }
    if (values.extent === 'to') {
      const [first, second] = values.to.map((thing) => towards(thing, values, profile));
      if (second && second.forwards === first!.forwards) return fail('extrude.sides');
      return ok({ ...common, ...first!, ...(second ? { back: second } : {}) });
    }
    const forwards = values.ways !== 'backwards';
    const both = values.ways !== 'forwards' && values.ways !== 'backwards';
    const until: Until = values.extent === 'next' ? { form: 'next', both } : { form: 'through', both };
    return ok({ ...common, from: values.start, to: values.start, forwards, until });
  },
  solids({ until, forwards, back, ...request }, before, kernel) {
    if (!until) return kernel.extrude(request);
    const both = back ?? (until.form === 'next' && until.both ? { until, forwards: !forwards } : undefined);
    const one = stopping(request, { until, forwards }, before, kernel);
    if (!both || !one.ok) return one;
    const other = stopping(request, both, before, kernel);
    const all = other.ok ? kernel.combine('add', one.value, other.value) : other;
    [...one.value, ...(other.ok ? other.value : [])].forEach((body) => kernel.release(body));
    return all.ok ? ok(all.value.bodies) : all;
  },
  words: {
    'extrude.taper': () => 'The sides can not lean that far, or one of them is a free curve: choose a smaller taper.',
    'extrude.sides': () =>
      'Both things that it shall go up to lie on the same side of the sketch: choose one on each side, or one alone.',
    'extrude.stop': () =>
      'It never gets there: what it shall go up to does not lie over the whole area. Choose another face, or a plane.',
  },
});

/** One way, as far as something is. */
function stopping(
  { profile, from: start, result, ...request }: Omit<Inputs, 'until' | 'forwards' | 'back'>,
  { until, forwards }: Stopped,
  before: readonly BodyHandle[],
  kernel: Kernel,
): Result<BodyHandle[]> {
  const reach = reachOver(profile, before, kernel, until!);
  const [from, to] = forwards ? [start, reach] : [-reach, start];
  if (until!.form === 'through') {
    const span = until!.both ? { from: -reach, to: reach } : { from, to };
    return kernel.extrude({ ...request, profile, ...span });
  }
  return kernel.extrude({
    ...{ ...request, profile, from, to },
    until: { ...stopOf(until!, before, result), forwards },
  });
}

/** Where the extrusion starts and ends along the normal. */
function span(
  ways: 'forwards' | 'backwards' | 'both' | 'each' | 'two',
  far: number,
  back: number,
): readonly [number, number] {
  const spans = {
    forwards: [0, far],
    backwards: [-far, 0],
    both: [-far / 2, far / 2],
    each: [-far, far],
    two: [-back, far],
  } as const;
  return spans[ways];
}

/** Up to a thing, whichever way it lies from the area: a plane, the plane through a point, or the surface of a face. */
function towards(
  thing: Thing,
  { start, clearance }: { start: number; clearance: number },
  { frame, regions }: Profile,
) {
  const point = pointOf(thing);
  const stop = planeOf(thing) ?? (point && frameOn(point, frame.z));
  if (!stop) {
    const { face, body } = thing as Extract<Thing, { to: 'face' }>;
    const forwards = heightOver(frame, face.centre) >= start;
    return { from: start, to: start, forwards, until: { form: 'face', body, face: face.name } as const };
  }
  const forwards = wayTo(stop, toSpace(frame, regions[0]!.outer[0]!.from), frame) >= start;
  // the clearance is measured square to what it goes up to
  const facing = dot3(stop.z, frame.z) < 0 ? -1 : 1;
  const origin = add3(stop.origin, scale3(stop.z, (forwards ? -1 : 1) * facing * clearance));
  return { from: start, to: start, forwards, until: { form: 'plane', plane: { ...stop, origin } } as const };
}

/** How far along the frame's z it is from a place to a plane; endless along it. */
function wayTo(plane: Frame, place: Vec3, { z }: Frame): number {
  const slope = dot3(plane.z, z);
  return Math.abs(slope) < 1e-9 ? Infinity : -heightOver(plane, place) / slope;
}

const stopOf = (
  until: Exclude<Until, { form: 'through' }>,
  before: readonly BodyHandle[],
  result: BodyResult,
): Stop => {
  if (until.form === 'face') return { ...until, body: before[until.body]! };
  // what is cut away is the wall itself: its far side comes next
  return until.form === 'next' ? { form: 'next', bodies: before, within: result === 'cut' } : until;
};

/** Farther along the normal than any body, and than the stop is from any place of the outline. */
function reachOver({ frame, regions }: Profile, before: readonly BodyHandle[], kernel: Kernel, until: Until): number {
  const far = before
    .flatMap((body) => boxCorners(kernel.measure(body).box_mm))
    .map((corner) => Math.abs(heightOver(frame, corner)));
  if (until.form === 'plane')
    for (const { from } of regions.flatMap(({ outer }) => outer)) {
      const way = Math.abs(wayTo(until.plane, toSpace(frame, from), frame));
      if (Number.isFinite(way)) far.push(way);
    }
  return 2 * Math.max(10, ...far);
}
