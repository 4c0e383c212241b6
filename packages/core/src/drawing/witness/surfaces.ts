import {
  addD3,
  alongD3,
  constant3,
  direction3,
  dotD3,
  lengthD3,
  subD3,
  timesD3,
  valueOf3,
  type Dual,
  type DualVec3,
  type Vec3,
} from '../../math/index.ts';

/** A line without end that moves. */
export interface MovingAxis {
  readonly at: DualVec3;
  readonly along: DualVec3;
}

/** A surface that moves and grows with the unknowns of a part. */
export interface MovingSurface {
  /** How far a place that stays where it is lies over the surface, mm: it falls by as much as the surface comes out there. */
  off(place: Vec3): Dual;
  /** The direction in which that grows, at a place on the surface. */
  normal(place: Vec3): Vec3;
  /** Of flat ones: places on it have the height along its normal. */
  readonly plane?: { readonly normal: DualVec3; readonly height: Dual };
  /** Of round ones. */
  readonly axis?: MovingAxis;
  /** Of cylinders, balls; of rings that of their section. */
  readonly radius?: Dual;
  /** Of cones: half of the angle between the flanks, rad. */
  readonly half?: Dual;
  /** Of balls. */
  readonly centre?: DualVec3;
  /** Set on rings: nothing is measured to their axis. */
  readonly ring?: true;
}

/** A plane whose normal (a unit vector) and height over the origin can change. */
export function movingPlane(normal: DualVec3, height: Dual): MovingSurface {
  return {
    off: (place) => alongD3(normal, place).sub(height),
    normal: () => valueOf3(normal),
    plane: { normal, height },
  };
}

/** A place told by an axis: how far along it, and what is left square to it. */
function seenFrom({ at, along }: MovingAxis, place: Vec3): { readonly rise: Dual; readonly out: DualVec3 } {
  const from = subD3(constant3(place), at);
  const rise = dotD3(from, along);
  return { rise, out: subD3(from, timesD3(along, rise)) };
}

const outwards = (out: DualVec3): Vec3 => direction3(valueOf3(out)) ?? [0, 0, 1];

/** A cylinder whose axis and radius can change. */
export function movingCylinder(axis: MovingAxis, radius: Dual): MovingSurface {
  return {
    off: (place) => lengthD3(seenFrom(axis, place).out).sub(radius),
    normal: (place) => outwards(seenFrom(axis, place).out),
    axis,
    radius,
  };
}

/** @param axis from its tip into it @param half of the angle between its flanks */
export function movingCone(axis: MovingAxis, half: Dual): MovingSurface {
  const [cos, sin] = [half.cos(), half.sin()];
  return {
    off(place) {
      const { rise, out } = seenFrom(axis, place);
      return lengthD3(out).times(cos).sub(rise.times(sin));
    },
    normal(place) {
      const out = outwards(seenFrom(axis, place).out);
      const along = valueOf3(axis.along);
      return [0, 1, 2].map((k) => out[k]! * cos.value - along[k]! * sin.value) as unknown as Vec3;
    },
    axis,
    half,
  };
}

/** A sphere whose centre and radius can change. */
export function movingBall(centre: DualVec3, radius: Dual): MovingSurface {
  const from = (place: Vec3) => subD3(constant3(place), centre);
  return {
    off: (place) => lengthD3(from(place)).sub(radius),
    normal: (place) => outwards(from(place)),
    centre,
    radius,
  };
}

/** @param axis through its middle @param major how far the middle of its section is from there @param radius of the section */
export function movingRing(axis: MovingAxis, major: Dual, radius: Dual): MovingSurface {
  const from = (place: Vec3): DualVec3 => {
    const { out } = seenFrom(axis, place);
    const middle = addD3(axis.at, timesD3(out, major.over(lengthD3(out))));
    return subD3(constant3(place), middle);
  };
  return {
    off: (place) => lengthD3(from(place)).sub(radius),
    normal: (place) => outwards(from(place)),
    axis,
    radius,
    ring: true,
  };
}
