import type { z } from 'zod';
import type { BodyHandle, ExtrudeRequest, Kernel } from '../../kernel-port/index.ts';
import { dot3, frameOn, heightOver, type Frame, type Vec3 } from '../../math/index.ts';
import { ok, type Result, type Words } from '../../result/index.ts';
import { planeOf, pointOf, type Thing } from '../../references/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { profileOf } from '../areas.ts';
import { bodiesIn, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { areasField, choice, number, picks, schemaOf, sketchField } from '../fields.ts';

const LONG = { asks: LENGTH, least: 1e-3, most: 1e5 } as const;

const fields = {
  sketch: sketchField,
  areas: areasField,
  extent: choice('extent', { by: 'by', to: 'up to', next: 'up to the next face', through: 'through everything' }, 'by'),
  distance: number('distance', {
    ...LONG,
    usual: '10 mm',
    hint: 'To go the other way, change the direction.',
    when: ({ extent }) => extent === 'by',
  }),
  to: picks('up to', 'place', { when: ({ extent }) => extent === 'to' }),
  /** Left between the end and what it goes up to. */
  clearance: number('clearance', {
    asks: LENGTH,
    least: 0,
    most: 1e5,
    usual: '0 mm',
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
      two: 'forwards',
    },
    'forwards',
    ({ extent }) => extent !== 'to',
  ),
  back: number('distance back', {
    ...LONG,
    usual: '10 mm',
    when: ({ extent, ways }) => extent === 'by' && ways === 'two',
  }),
  start: number('start off the sketch', { asks: LENGTH, least: -1e5, most: 1e5, usual: '0 mm' }),
  taper: number('taper', { asks: ANGLE, least: -1.4, most: 1.4, usual: '0 deg' }),
  result: resultField,
  only: touchedField,
};

export const extrudeSchema = schemaOf('extrude', fields);
export type ExtrudeStep = z.infer<typeof extrudeSchema>;

interface Inputs extends ToolInputs, Omit<ExtrudeRequest, 'until'> {
  readonly until?: Until;
  readonly forwards: boolean;
}

/** Where it stops, by places of bodies among those before the step. */
type Until =
  | { readonly form: 'plane'; readonly plane: Frame }
  | { readonly form: 'face'; readonly body: number; readonly face: string }
  | { readonly form: 'next' }
  | { readonly form: 'through'; readonly both: boolean };

export const extrude = making('extrude', {
  title: 'Extrude',
  fields,
  sentence:
    'Extrude {sketch}{areas} {extent}[ {distance}][ {to}][?, {clearance} short of it][, {ways}][ and back {back}][?, starting at {start}][?, leaning by {taper}] → {result}[? {only}]',
  inputs(values, context): Result<Inputs> {
    const area = profileOf(values.sketch, values.areas, context);
    if (!area.ok) return area;
    const { profile } = area.value;
    const common = {
      profile,
      step: context.step,
      result: values.result,
      only: bodiesIn(values.only),
      ...(values.taper === 0 ? {} : { taper: values.taper }),
    };
    if (values.extent === 'by') {
      const [from, to] = span(values.ways, values.distance, values.back);
      return ok({ ...common, from: from + values.start, to: to + values.start, forwards: values.ways !== 'backwards' });
    }
    if (values.extent === 'to') return ok({ ...common, ...towards(values.to[0]!, values, profile.frame) });
    const forwards = values.ways !== 'backwards';
    const both = values.ways !== 'forwards' && values.ways !== 'backwards';
    const until: Until = values.extent === 'next' ? { form: 'next' } : { form: 'through', both };
    return ok({ ...common, from: values.start, to: values.start, forwards, until });
  },
  solids({ until, forwards, ...request }, before, kernel) {
    if (!until) return kernel.extrude(request);
    const reach = reachOver(request.profile.frame, before, kernel, until);
    const [from, to] = forwards ? [request.from, reach] : [-reach, request.from];
    if (until.form === 'through')
      return kernel.extrude({ ...request, from: until.both ? -reach : from, to: until.both ? reach : to });
    return kernel.extrude({ ...request, from, to, until: { ...stopOf(until, before), forwards } });
  },
});

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

/** Up to a thing, whichever way it lies: a plane, the plane through a point, or the surface of a face. */
function towards(thing: Thing, { start, clearance }: { start: number; clearance: number }, frame: Frame) {
  const plane = planeOf(thing);
  const point = pointOf(thing);
  const at: Vec3 = plane?.origin ?? point ?? (thing.to === 'face' ? thing.face.centre : frame.origin);
  const forwards = (plane && Math.abs(dot3(plane.z, frame.z)) < 1e-9 ? 1 : heightOver(frame, at)) >= start;
  const stop = plane ?? (point && frameOn(point, frame.z));
  const way = forwards ? 1 : -1;
  if (!stop && thing.to === 'face')
    return {
      from: start,
      to: start,
      forwards,
      until: { form: 'face', body: thing.body, face: thing.face.name } as const,
    };
  // the clearance is measured square to what it goes up to
  const side = Math.sign(dot3(stop!.z, frame.z)) || 1;
  const origin = stop!.origin.map((c, k) => c - way * side * clearance * stop!.z[k]!) as unknown as Vec3;
  return { from: start, to: start, forwards, until: { form: 'plane', plane: { ...stop!, origin } } as const };
}

const stopOf = (until: Exclude<Until, { form: 'through' }>, before: readonly BodyHandle[]) => {
  if (until.form === 'face') return { ...until, body: before[until.body]! };
  return until.form === 'next' ? { form: 'next' as const, bodies: before } : until;
};

/** Farther than any body and any stop along the normal. */
function reachOver(frame: Frame, before: readonly BodyHandle[], kernel: Kernel, until: Until): number {
  const places = before.flatMap((body) => {
    const { low, high } = kernel.measure(body).box_mm;
    return [low, high].flatMap(([x]) => [low, high].flatMap(([, y]) => [low, high].map(([, , z]): Vec3 => [x, y, z])));
  });
  if (until.form === 'plane') places.push(until.plane.origin);
  const far = Math.max(10, ...places.map((place) => Math.hypot(...place.map((c, k) => c - frame.origin[k]!))));
  return 2 * far;
}

export const extrudeWords: Words = {
  'extrude.taper': () => 'The sides can not lean that far, or one of them is a free curve: choose a smaller taper.',
  'extrude.stop': () =>
    'It never gets there: what it shall go up to does not lie over the whole area. Choose another face, or a plane.',
};
