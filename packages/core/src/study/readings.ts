import {
  carriedBy,
  memberPose,
  originOf,
  pushesOn,
  SPACE,
  type Assembled,
  type Coordinates,
  type Place,
  type Pose,
  type Rates,
} from '../assembly/index.ts';
import { add3, dot3, length3, scale3, sub3, transformPoint, type Vec3 } from '../math/index.ts';
import { isAngle, type CoordinateKey } from '../naming/index.ts';
import { findUnit, type LengthUnit } from '../units/index.ts';
import { keyOfEnd, type StudyPlan } from './plan.ts';
import { SHOWN, type Chart, type Shown, type StudyEnd } from './records.ts';
import type { StudyFrame } from './run.ts';

type Kind = 'length' | 'angle';

/** What something is counted in: as mm, rad, N or N mm, by s once or twice, or as a plain number. */
interface SeriesUnit {
  readonly of: Kind | `${Kind} by ${Kind}` | 'force' | 'torque';
  readonly by: 0 | 1 | 2;
}

/** What a chart shows, one value for each frame; null where it can not be told. */
export interface Series {
  readonly name: string;
  readonly unit: SeriesUnit;
  readonly values: readonly (number | null)[];
}

/** How heavy a member is, and where its centre is in the coordinates of its part. */
export interface MemberMass {
  readonly member: string;
  readonly mass_g: number;
  readonly centre_mm: Vec3;
}

/** What is needed to tell what a study shows. */
export interface Reader {
  readonly assembled: Pick<Assembled, 'mechanism' | 'members' | 'traces'>;
  readonly plan: StudyPlan;
  /** Undefined where some part has no material. */
  readonly masses: readonly MemberMass[] | undefined;
  /** How far two placements are apart in a pose, mm. */
  distance(a: string, b: string, pose: Pose): number | null;
}

/** Standard gravity, m/s^2 (ISO 80000-3). Up is z. */
const GRAVITY = 9.80665;
const UP: Vec3 = [0, 0, 1];
/** A force of g m/s^2 in N, and a torque of that at a mm in N mm. */
const NEWTON = 1e-3;
const ORDERS: Readonly<Record<Shown, 0 | 1 | 2>> = { value: 0, speed: 1, acceleration: 2 };
/** A rate below this share of the fastest is none: it divides nothing. */
const STILL = 1e-9;

/** Derivatives by the time of something that goes with the way: the chain rule. */
const byTime = ({ pace: { speed, acceleration } }: StudyFrame, first: number, second: number | undefined) => ({
  speed: first * speed,
  acceleration: second === undefined ? null : second * speed ** 2 + first * acceleration,
});

/** What joints, placements and traces are called, by their paths and ids. */
export type NameAt = (path: string) => string;

interface Reading<C extends Chart> {
  /** What is shown, in words. */
  title(chart: C, nameAt: NameAt): string;
  series(chart: C, frames: readonly StudyFrame[], reader: Reader): readonly Series[];
}

const derived = (shown: Shown, of: string): string => (shown === 'value' ? of : `${SHOWN[shown]} of ${of}`);
const endName = ({ joint, coordinate }: StudyEnd, nameAt: NameAt): string => `${nameAt(joint)} ${coordinate}`;

const READINGS: { readonly [K in Chart['of']]: Reading<Chart & { readonly of: K }> } = {
  coordinate: {
    title: ({ end, shown }, nameAt) => derived(shown, endName(end, nameAt)),
    series({ end, shown }, frames) {
      const key = keyOfEnd(end);
      const rate = (rates: Rates | undefined) => rates?.coordinates.get(key);
      const values = frames.map((frame) => {
        const [first, second] = [rate(frame.motion?.first), rate(frame.motion?.second)];
        if (shown === 'value') return frame.pose.coordinates.get(key) ?? null;
        return first === undefined ? null : byTime(frame, first, second)[shown];
      });
      return [{ name: '', unit: { of: isAngle(key) ? 'angle' : 'length', by: ORDERS[shown] }, values }];
    },
  },

  point: {
    title: ({ trace, shown }, nameAt) => derived(shown, nameAt(trace)),
    series({ trace, shown }, frames, { assembled }) {
      const place = assembled.traces.get(trace);
      const vectors = frames.map((frame) => place && goingOf(place, frame)[shown]);
      const along = (name: string, of: (vector: Vec3) => number): Series => ({
        name,
        unit: { of: 'length', by: ORDERS[shown] },
        values: vectors.map((vector) => (vector ? of(vector) : null)),
      });
      const axes = [along('x', ([x]) => x), along('y', ([, y]) => y), along('z', ([, , z]) => z)];
      return shown === 'value' ? axes : [...axes, along('all', length3)];
    },
  },

  distance: {
    title: ({ a, b }, nameAt) => `${nameAt(a)} to ${nameAt(b)}`,
    series: ({ a, b }, frames, { distance }) => [
      { name: '', unit: { of: 'length', by: 0 }, values: frames.map(({ pose }) => distance(a, b, pose)) },
    ],
  },

  ratio: {
    title: ({ first, second }, nameAt) => `${endName(second, nameAt)} by ${endName(first, nameAt)}`,
    series({ first, second }, frames) {
      const [p, q] = [keyOfEnd(first), keyOfEnd(second)];
      const values = frames.map(({ motion }) => (motion ? ratioOf(motion.first.coordinates, p, q) : null));
      return [{ name: '', unit: { of: `${kindOf(q)} by ${kindOf(p)}`, by: 0 }, values }];
    },
  },

  holding: {
    title: () => 'what holds it against its weight',
    series(_, frames, { assembled, masses, plan }) {
      const { key } = plan.drives[0]!;
      const values = frames.map(({ pose, motion }) => {
        const rate = motion?.first.coordinates.get(key);
        if (!masses || !motion || !rate) return null;
        const raised = masses.reduce((sum, { member: id, mass_g, centre_mm }) => {
          const member = assembled.members.find((one) => one.id === id)!;
          const pushes = pushesOn(member, pose, transformPoint(memberPose(member, pose), centre_mm), UP);
          return sum + mass_g * pushes.reduce((rise, push) => rise + riseOf(push, pose, motion.first), 0);
        }, 0);
        return (raised * GRAVITY * NEWTON) / rate;
      });
      return [{ name: '', unit: { of: isAngle(key) ? 'torque' : 'force', by: 0 }, values }];
    },
  },
};

const readingOf = (chart: Chart) => READINGS[chart.of] as Reading<Chart>;

/** What a chart shows, in words. */
export const chartTitle = (chart: Chart, nameAt: NameAt): string => readingOf(chart).title(chart, nameAt);

/** What a chart shows of a study that was run: one value for each frame. */
export const seriesOf = (chart: Chart, frames: readonly StudyFrame[], reader: Reader): readonly Series[] =>
  readingOf(chart).series(chart, frames, reader);

const kindOf = (key: CoordinateKey) => (isAngle(key) ? 'angle' : 'length');

/** How fast the place that is pushed goes along the push. */
function riseOf({ body, at, along }: ReturnType<typeof pushesOn>[number], { poses }: Pose, rates: Rates): number {
  return dot3(carriedBy(rates.bodies[body]!, undefined, sub3(at, originOf(poses[body]!))).first, along);
}

/** How much the second goes while the first goes by 1, rad or mm. */
function ratioOf(rates: Coordinates, first: CoordinateKey, second: CoordinateKey): number | null {
  const [p, q] = [rates.get(first), rates.get(second)];
  const most = Math.max(...[...rates.values()].map(Math.abs));
  return p === undefined || q === undefined || Math.abs(p) < STILL * most ? null : q / p;
}

/** Where a place of a body is, its velocity and its acceleration, as far as they can be told. */
function goingOf({ body, at }: Place, frame: StudyFrame): Partial<Record<Shown, Vec3>> {
  if (body === SPACE) return { value: at, speed: [0, 0, 0], acceleration: [0, 0, 0] };
  const { pose, motion } = frame;
  const value = transformPoint(pose.poses[body]!, at);
  if (!motion) return { value };
  const arm = sub3(value, originOf(pose.poses[body]!));
  const { first, second } = carriedBy(motion.first.bodies[body]!, motion.second?.bodies[body], arm);
  const { speed, acceleration } = frame.pace;
  return {
    ...{ value, speed: scale3(first, speed) },
    ...(second ? { acceleration: add3(scale3(second, speed ** 2), scale3(first, acceleration)) } : {}),
  };
}

/** How a series is written: what its unit is called, and how many of that one of its own is. */
export function unitOf(
  { of, by }: SeriesUnit,
  length: LengthUnit,
): { readonly symbol: string; readonly scale: number } {
  const { size } = findUnit(length)!;
  const [along, angle] = [
    { symbol: length, scale: 1 / size },
    { symbol: 'deg', scale: 180 / Math.PI },
  ];
  const units: Readonly<Record<SeriesUnit['of'], { readonly symbol: string; readonly scale: number }>> = {
    length: along,
    angle,
    'angle by angle': { symbol: '', scale: 1 },
    'length by length': { symbol: '', scale: 1 },
    'length by angle': { symbol: `${length}/deg`, scale: along.scale / angle.scale },
    'angle by length': { symbol: `deg/${length}`, scale: angle.scale / along.scale },
    force: { symbol: 'N', scale: 1 },
    torque: { symbol: 'N mm', scale: 1 },
  };
  const { symbol, scale } = units[of];
  return { symbol: `${symbol}${['', '/s', '/s²'][by]}`, scale };
}
