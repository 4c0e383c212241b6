import {
  transformDirection,
  transformFrame,
  transformPoint,
  type Frame,
  type RigidTransform,
  type Vec3,
} from '../../math/index.ts';
import { endsOfCurve, type Axis } from '../../geometry/index.ts';
import type { EdgeFacts } from '../../kernel-port/index.ts';
import { fingerprintOfPlane } from '../fingerprints.ts';
import { transformEdge } from './facts.ts';
import type { ThingKind } from './kind.ts';

interface DatumPlane {
  readonly form: 'plane';
  readonly frame: Frame;
}
interface DatumAxis {
  readonly form: 'axis';
  readonly origin: Vec3;
  readonly direction: Vec3;
  /** As that of any axis. */
  readonly side?: Vec3;
}
interface DatumPoint {
  readonly form: 'point';
  readonly at: Vec3;
}
interface DatumCurve {
  readonly form: 'curve';
  readonly edge: EdgeFacts;
}
interface DatumFrame {
  readonly form: 'frame';
  readonly frame: Frame;
}

/** A datum, as a step makes it. */
export type Datum = DatumPlane | DatumAxis | DatumPoint | DatumCurve | DatumFrame;

/** What a kind of datum has to say of itself. */
interface DatumKind<D> {
  /** It elsewhere. @param by a transform without reflection */
  transform(datum: D, by: RigidTransform): D;
  plane?(datum: D): Frame;
  axis?(datum: D): Axis;
  point?(datum: D): Vec3;
  curves?(datum: D): readonly EdgeFacts[];
  /** Where numbers told from it count from; of what has no directions they are those of the part. */
  seenFrom?(datum: D): Frame;
  /** A place on it and the direction in which it goes, as they are told. */
  told(datum: D): { readonly at: Vec3; readonly along: Vec3 | null };
}

const KINDS: { readonly [F in Datum['form']]: DatumKind<Extract<Datum, { form: F }>> } = {
  plane: {
    transform: ({ form, frame }, by) => ({ form, frame: transformFrame(frame, by) }),
    plane: ({ frame }) => frame,
    told: ({ frame }) => ({ at: frame.origin, along: frame.z }),
  },
  axis: {
    transform: ({ form, origin, direction, side }, by) => ({
      form,
      origin: transformPoint(by, origin),
      direction: transformDirection(by, direction),
      ...(side && { side: transformDirection(by, side) }),
    }),
    axis: ({ form: _, ...axis }) => axis,
    told: ({ origin, direction }) => ({ at: origin, along: direction }),
  },
  point: {
    transform: ({ form, at }, by) => ({ form, at: transformPoint(by, at) }),
    point: ({ at }) => at,
    seenFrom: ({ at }) => ({ origin: at, x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }),
    told: ({ at }) => ({ at, along: null }),
  },
  curve: {
    transform: ({ form, edge }, by) => ({ form, edge: transformEdge(edge, by) }),
    curves: ({ edge }) => [edge],
    told: ({ edge: { curve, middle } }) => ({ at: endsOfCurve(curve)[0] ?? middle, along: null }),
  },
  frame: {
    transform: ({ form, frame }, by) => ({ form, frame: transformFrame(frame, by) }),
    plane: ({ frame }) => frame,
    point: ({ frame }) => frame.origin,
    seenFrom: ({ frame }) => frame,
    told: ({ frame }) => ({ at: frame.origin, along: frame.z }),
  },
};
const kindOf = (datum: Datum): DatumKind<Datum> => KINDS[datum.form];

/** The frame from which numbers can be told: of datum frames and points. */
export const frameSeenFrom = (datum: Datum): Frame | undefined => kindOf(datum).seenFrom?.(datum);
/** A place on a datum and the direction in which it goes, if it has one. */
export const toldOfDatum = (datum: Datum) => kindOf(datum).told(datum);

export interface DatumThing {
  readonly to: 'datum';
  readonly datum: Datum;
}

export const datum: ThingKind<DatumThing> = {
  transform: ({ datum: one }, by) => ({ to: 'datum', datum: kindOf(one).transform(one, by) }),
  fingerprint(thing) {
    const frame = datum.plane?.(thing);
    return frame && fingerprintOfPlane(frame);
  },
  plane: ({ datum: one }) => kindOf(one).plane?.(one),
  axis: ({ datum: one }) => kindOf(one).axis?.(one),
  point: ({ datum: one }) => kindOf(one).point?.(one),
  curves: ({ datum: one }) => kindOf(one).curves?.(one) ?? [],
};
