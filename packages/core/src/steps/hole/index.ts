import { solidOf } from '../../naming/index.ts';
import type { Kernel, BodyHandle, Profile } from '../../kernel-port/index.ts';
import {
  add3,
  boxCorners,
  dot3,
  frameOn,
  heightOver,
  scale3,
  squareTo3,
  direction3,
  type Frame,
  type Vec2,
} from '../../math/index.ts';
import { axisOf, planeOf, pointOf, type Reference, type Thing } from '../../references/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { filled, findRegions, Geometry, type Entity } from '../../sketch/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { bodiesIn, gathered, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { choice, number, picks, type Filled } from '../fields/index.ts';
import { BOLT_NAMES, BOLTS } from './tables.ts';

const LONG = { asks: LENGTH, min: 1e-3, max: 1e5 } as const;
const sized = ({ size }: Filled) => size === 'own';
const bolted = ({ size }: Filled) => size !== 'own';

const fields = {
  at: picks('places', 'point', { max: 500, many: 'places' }),
  /** The face or plane that it goes into, square. */
  into: picks('into', 'plane'),
  size: choice<string>('size', { ...BOLT_NAMES, own: 'of diameter' }, 'm5'),
  diameter: number('diameter', { ...LONG, initial: '5 mm', when: sized }),
  fit: choice(
    'fit',
    { medium: 'clearance', fine: 'fine clearance', coarse: 'coarse clearance', tapped: 'tapped' },
    'medium',
    bolted,
  ),
  head: choice('head', { plain: 'plain', counterbore: 'counterbored', countersink: 'countersunk' }, 'plain'),
  /** As the tables say for the bolt; an own size is asked for its head. */
  wide: number('head diameter', { ...LONG, initial: '10 mm', when: (step) => sized(step) && step['head'] !== 'plain' }),
  sunk: number('head depth', {
    ...LONG,
    initial: '5 mm',
    when: (step) => sized(step) && step['head'] === 'counterbore',
  }),
  extent: choice('depth', { through: 'through', blind: 'deep' }, 'through'),
  depth: number('depth', { ...LONG, initial: '10 mm', when: ({ extent }) => extent === 'blind' }),
  /** Between the flanks of the drill's tip; 180 deg for a flat bottom. */
  tip: number('tip', {
    asks: ANGLE,
    min: 0.5,
    max: Math.PI,
    initial: '118 deg',
    when: ({ extent }) => extent === 'blind',
  }),
  only: { ...touchedField, when: () => true },
};

/** Half of a hole's section: radii and depths from the face down to the tip. */
interface HoleShape {
  readonly radius: number;
  /** Depth of the full diameter; undefined for through. */
  readonly depth: number | undefined;
  /** Half the angle of the tip, rad. */
  readonly tip: number;
  readonly head:
    | { readonly form: 'bore'; readonly radius: number; readonly depth: number }
    | { readonly form: 'sink'; readonly radius: number }
    | undefined;
}

interface Inputs extends ToolInputs {
  readonly shape: HoleShape;
  /** Where each begins, with z out of the material. */
  readonly frames: readonly Frame[];
  readonly step: string;
}

export const hole = making('hole', {
  title: 'Hole',
  verb: {
    key: 'O',
    title: 'Drill',
    likely: ['face'],
    says: 'Drills holes at points of a sketch or on a face: plain, countersunk, for bolts, with thread.',
  },
  fields,
  sentence:
    'Drill {size}[ {diameter}][ {fit}] at {at} into {into}, {head}[ {wide}][ deep {sunk}], {extent}[ {depth}][?, tip {tip}][? {only}]',
  pulls({ at, into, extent }, { find }) {
    const [place, flat] = [at, into].map((picked) => {
      const [reference] = picked as readonly Reference[];
      return reference && find(reference);
    });
    const plane = flat && planeOf(flat);
    if (extent !== 'blind' || !plane || !place || !pointOf(place)) return [];
    const { origin, z } = frameAt(place, plane);
    return [{ field: 'depth', from: origin, along: scale3(z, -1) }];
  },
  inputs(values, context): Result<Inputs> {
    const plane = planeOf(values.into[0]!)!;
    const frames = values.at.map((thing) => frameAt(thing, plane));
    const shape = shapeOf(values);
    return ok({ shape, frames, step: context.step, result: 'cut', only: bodiesIn(values.only) });
  },
  solids: drilled,
  words: {
    'hole.head': () => 'The head is no wider than the hole: give it a larger diameter, or make the hole plain.',
  },
});

/** Straight down into the plane at the place; along its own axis where what was chosen is round and leans. */
function frameAt(thing: Thing, plane: Frame): Frame {
  const at = pointOf(thing)!;
  const axis = axisOf(thing);
  const along = axis && Math.abs(dot3(axis.direction, plane.z)) > 0.1 ? axis.direction : plane.z;
  const z = dot3(along, plane.z) < 0 ? scale3(along, -1) : along;
  // down along z onto the plane
  const foot = add3(at, scale3(z, -heightOver(plane, at) / dot3(z, plane.z)));
  return frameOn(foot, z, direction3(squareTo3(plane.x, z)));
}

interface Sizes {
  readonly size: string;
  readonly diameter: number;
  readonly fit: 'medium' | 'fine' | 'coarse' | 'tapped';
  readonly head: 'plain' | 'counterbore' | 'countersink';
  readonly wide: number;
  readonly sunk: number;
  readonly extent: 'through' | 'blind';
  readonly depth: number;
  readonly tip: number;
}

/** The section of a hole from a bolt of the tables or from own sizes. */
export function shapeOf(values: Sizes): HoleShape {
  const bolt = BOLTS[values.size];
  const diameter = !bolt ? values.diameter : values.fit === 'tapped' ? bolt.tapDrill : bolt.clearance[values.fit];
  const wide = bolt ? (values.head === 'countersink' ? bolt.countersink : bolt.counterbore) : values.wide;
  const heads = {
    plain: undefined,
    counterbore: { form: 'bore', radius: wide / 2, depth: bolt ? bolt.head : values.sunk },
    countersink: { form: 'sink', radius: wide / 2 },
  } as const;
  return {
    radius: diameter / 2,
    depth: values.extent === 'blind' ? values.depth : undefined,
    tip: values.tip / 2,
    head: heads[values.head],
  };
}

/** Each hole as a solid of revolution about its axis; all of them are cut in one operation. */
function drilled({ shape, frames, step }: Inputs, before: readonly BodyHandle[], kernel: Kernel): Result<BodyHandle[]> {
  if (shape.head && shape.head.radius <= shape.radius) return fail('hole.head');
  return gathered(
    frames,
    (frame, k) =>
      kernel.revolve({
        profile: sectionOf(shape, shape.depth ?? throughDepth(frame, before, kernel), frame),
        origin: frame.origin,
        axis: frame.z,
        from: 0,
        to: 2 * Math.PI,
        step: solidOf(step, k + 1),
      }),
    kernel,
  );
}

function throughDepth(frame: Frame, before: readonly BodyHandle[], kernel: Kernel): number {
  const depths = before
    .flatMap((body) => boxCorners(kernel.measure(body).box_mm))
    .map((corner) => -heightOver(frame, corner));
  return Math.max(1, ...depths) + 1;
}

/** Half the section in the plane of the axis and the frame's x: right of the axis, downwards. */
function sectionOf(shape: HoleShape, depth: number, frame: Frame): Profile {
  const { radius, head } = shape;
  const tip = shape.depth === undefined ? 0 : radius / Math.tan(Math.min(shape.tip, Math.PI / 2 - 1e-9));
  const flat = tip < 1e-6;
  const outline: (readonly [key: string, at: Vec2])[] = [['axis', [0, 0]]];
  if (head?.form === 'bore')
    outline.push(['top', [head.radius, 0]], ['head', [head.radius, -head.depth]], ['seat', [radius, -head.depth]]);
  else if (head) outline.push(['top', [head.radius, 0]], ['sink', [radius, radius - head.radius]]);
  else outline.push(['top', [radius, 0]]);
  outline.push(['wall', [radius, -depth]]);
  if (flat) outline.push(['floor', [0, -depth]]);
  else outline.push(['tip', [0, -depth - tip]]);
  const entities: Record<string, Entity> = {};
  outline.forEach(([key, [x, y]]) => (entities[`p-${key}`] = { kind: 'point', x, y }));
  outline.forEach(([key], k) => {
    const before = outline.at(k - 1)![0];
    entities[key] = { kind: 'line', a: `p-${before}`, b: `p-${key}` };
  });
  const upright: Frame = { origin: frame.origin, x: frame.x, y: frame.z, z: scale3(frame.y, -1) };
  return { frame: upright, regions: filled(findRegions(new Geometry(entities))) };
}
