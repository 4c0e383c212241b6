import { unsplit } from '../../naming/index.ts';
import {
  addD3,
  boxRound,
  constant3,
  cross3,
  crossD3,
  direction3,
  distance3,
  dot3,
  Dual,
  footOnLine3,
  scale3,
  timesD3,
  type DualVec3,
  type Vec3,
} from '../../math/index.ts';
import type { Surface } from '../../geometry/index.ts';
import type { FaceFacts, Topology } from '../../kernel-port/index.ts';
import { placesOfFace } from './places.ts';
import { movingBall, movingCone, movingCylinder, movingPlane, movingRing, type MovingSurface } from './surfaces.ts';
import { Unknowns } from './unknowns.ts';

export const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** Off an axis, or off a right angle to it, by less than this a direction is along it. */
export const STRAIGHT = 1e-9;

/** A direction: the number that tells it apart, and how it turns. */
interface Direction {
  readonly key: string;
  readonly along: DualVec3;
  /** The axis of the part that it runs along. */
  readonly steady?: number;
  /** The axis of the part that it is square to, if only to one. */
  readonly about?: number;
}

/** A face of a part as it is looked at. */
export interface WitnessedFace {
  readonly body: number;
  readonly face: FaceFacts;
  readonly surface: MovingSurface;
  /** Places on its rim. */
  readonly places: readonly Vec3[];
}

/**
 * Flat and round faces as they are at this moment, and as they can move, turn and grow: each size of them hangs on numbers
 * that are shared where one sees that they are one, as of faces in one plane and of round things on one centre line.
 */
export class MovingFaces {
  protected readonly unknowns = new Unknowns();
  readonly faces: readonly WitnessedFace[];
  /** Faces that are neither flat nor round about an axis: numbers do not tell them. */
  readonly curved: readonly { readonly body: number; readonly face: FaceFacts }[];
  private readonly byName = new Map<string, WitnessedFace>();
  /** How large it all is, mm: turns are counted by how far they move it. */
  private readonly reach: number;

  constructor(readonly topologies: readonly Topology[]) {
    const all = topologies.flatMap((topology, body) =>
      topology.faces.map((face) => ({ body, face, places: placesOfFace(topology, face) })),
    );
    const box = boxRound(all.flatMap(({ places }) => places.map((place) => ({ low: place, high: place }))));
    this.reach = box ? Math.max(distance3(box.low, box.high), 1e-3) : 1;
    const declared = all.map((one) => ({ ...one, surface: this.declared(one.face) }));
    this.faces = declared.flatMap(({ surface, ...one }) => (surface ? [{ ...one, surface }] : []));
    this.curved = declared.filter(({ surface }) => !surface).map(({ body, face }) => ({ body, face }));
    for (const one of this.faces) this.byName.set(keyOf(one.body, one.face.name), one);
  }

  get count(): number {
    return this.unknowns.count;
  }

  face(body: number, name: string): WitnessedFace | undefined {
    return this.byName.get(keyOf(body, name));
  }

  private declared({ surface, name }: FaceFacts): MovingSurface | undefined {
    return surface.form === 'free' ? undefined : DECLARED[surface.form](this.parts, surface as never, unsplit(name));
  }

  private readonly parts: Parts = {
    size: (kind, value) => this.number(kind, value, [0, 0, 0]),
    angle: (kind, value) => new Dual(value, { at: [this.unknowns.at(kind, value)], by: [1 / this.reach] }),
    direction: (along) => this.direction(along),
    height: (direction, normal, value) => this.height(direction, normal, value),
    foot: (direction, along, place) => this.foot(direction, along, place),
    number: (kind, value, shift) => this.number(kind, value, shift),
  };

  private number(kind: string, value: number, shift: Vec3): Dual {
    return new Dual(value, { at: [this.unknowns.at(kind, value, shift)], by: [1] });
  }

  private direction(along: Vec3): Direction {
    const steady = along.findIndex((c) => Math.abs(c) > 1 - STRAIGHT);
    if (steady >= 0) return { key: `steady ${steady}`, along: constant3(along), steady };
    // unknowns rise in the order in which they are made
    const turned = (...turns: readonly (readonly [index: number, way: Vec3])[]): DualVec3 => {
      const at = turns.map(([index]) => index);
      return along.map(
        (c, k) => new Dual(c, { at, by: turns.map(([, way]) => way[k]! / this.reach) }),
      ) as unknown as DualVec3;
    };
    const about = along.findIndex((c) => Math.abs(c) < STRAIGHT);
    if (about >= 0) {
      const [i, j] = [(about + 1) % 3, (about + 2) % 3];
      const quarter = Math.PI / 2;
      const angle = ((Math.atan2(along[j]!, along[i]!) % quarter) + quarter) % quarter;
      const index = this.unknowns.turn(about, angle);
      const way = alongSame(along);
      return {
        key: `turn ${index} ${placeKey(way)}`,
        along: turned([index, cross3(AXES[about]!, along)]),
        about,
      };
    }
    const way = alongSame(along);
    const [u, v] = squareTo(way);
    const sign = dot3(way, along);
    const key = `lean ${placeKey(way)}`;
    const [a, b] = [this.unknowns.at(`${key} u`, 0), this.unknowns.at(`${key} v`, 0)];
    return {
      key,
      along: turned([a, scale3(u, sign)], [b, scale3(v, sign)]),
    };
  }

  /** How high a plane lies along its normal. */
  private height({ key, steady }: Direction, normal: Vec3, value: number): Dual {
    const way = steady === undefined ? alongSame(normal) : AXES[steady]!;
    const sign = Math.sign(dot3(way, normal));
    return this.number(`level ${key}`, sign * value, way).scaled(sign);
  }

  /** A place on an axis: shared in each coordinate with what lies on the same centre line. */
  private foot({ key, steady, about, along }: Direction, way: Vec3, place: Vec3): DualVec3 {
    const coordinate = (k: number) => this.number(`axis ${k}`, place[k]!, AXES[k]!);
    if (steady !== undefined) {
      return AXES.map((_, k) => (k === steady ? new Dual(0) : coordinate(k))) as unknown as DualVec3;
    }
    if (about !== undefined) {
      const side = cross3(AXES[about]!, way);
      const [level, across] = [coordinate(about), this.number(`across ${key}`, dot3(place, side), side)];
      const up = constant3(AXES[about]!);
      return addD3(timesD3(up, level), timesD3(crossD3(up, along), across));
    }
    const at = footOnLine3([0, 0, 0], place, way);
    const [u, v] = squareTo(way);
    const [a, b] = [u, v].map((side, k) =>
      timesD3(constant3(side), this.number(`across ${key} ${k}`, dot3(at, side), side)),
    );
    return addD3(a!, b!);
  }
}

/** What surfaces are made of. */
interface Parts {
  size(kind: string, value: number): Dual;
  angle(kind: string, value: number): Dual;
  direction(along: Vec3): Direction;
  height(direction: Direction, normal: Vec3, value: number): Dual;
  foot(direction: Direction, along: Vec3, place: Vec3): DualVec3;
  number(kind: string, value: number, shift: Vec3): Dual;
}

type Numbered = Exclude<Surface, { form: 'free' }>;
type Declared = {
  readonly [F in Numbered['form']]: (
    parts: Parts,
    surface: Extract<Numbered, { form: F }>,
    kin: string,
  ) => MovingSurface;
};

/** Which unknowns each form of surface has. */
const DECLARED: Declared = {
  plane(parts, { normal, origin }) {
    const direction = parts.direction(normal);
    return movingPlane(direction.along, parts.height(direction, normal, dot3(normal, origin)));
  },
  cylinder(parts, { origin, axis, radius }, kin) {
    const { at, direction } = axisOf(parts, axis, origin);
    const size = parts.size(`radius ${kin} ${placeKey(footOnLine3([0, 0, 0], origin, axis))}`, radius);
    return movingCylinder({ at, along: direction.along }, size);
  },
  cone(parts, { origin, axis, angle }, kin) {
    const { tip, direction } = placedAlong(parts, axis, origin, 'tip', kin);
    const half = parts.angle(`half ${kin} ${placeKey(origin)}`, angle);
    return movingCone({ at: tip, along: direction.along }, half);
  },
  sphere(parts, { centre, radius }, kin) {
    const at = AXES.map((way, k) => parts.number(`axis ${k}`, centre[k]!, way));
    const size = parts.size(`radius ${kin} ${placeKey(centre)}`, radius);
    return movingBall(at as unknown as DualVec3, size);
  },
  torus(parts, { origin, axis, major, minor }, kin) {
    const { tip, direction } = placedAlong(parts, axis, origin, 'ring', kin);
    const key = `${kin} ${placeKey(origin)}`;
    const [far, size] = [parts.size(`major ${key}`, major), parts.size(`minor ${key}`, minor)];
    return movingRing({ at: tip, along: direction.along }, far, size);
  },
};

function axisOf(parts: Parts, axis: Vec3, place: Vec3) {
  const direction = parts.direction(axis);
  return { direction, at: parts.foot(direction, axis, place) };
}

/** A place on an axis that is told by how far along it lies, too. */
function placedAlong(parts: Parts, axis: Vec3, place: Vec3, what: string, kin: string) {
  const { at, direction } = axisOf(parts, axis, place);
  const way = alongSame(axis);
  const rise = parts.number(`${what} ${kin} ${placeKey(place)}`, dot3(place, way), way);
  const sign = Math.sign(dot3(way, axis));
  return { tip: addD3(at, timesD3(direction.along, rise.scaled(sign))), direction };
}

const keyOf = (body: number, name: string): string => `${body} ${name}`;

/** The one of a direction and its opposite whose first entry is positive. */
const alongSame = (along: Vec3): Vec3 => ((along.find((c) => Math.abs(c) > 1e-6) ?? 1) < 0 ? scale3(along, -1) : along);

const placeKey = (place: Vec3): string => place.map((c) => (c + 0).toFixed(5)).join(' ');

function squareTo(along: Vec3): readonly [Vec3, Vec3] {
  const least = along.reduce((best, c, k) => (Math.abs(c) < Math.abs(along[best]!) ? k : best), 0);
  const u = direction3(cross3(AXES[least]!, along))!;
  return [u, cross3(along, u)];
}
