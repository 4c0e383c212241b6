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
import type { FaceFacts, Surface, Topology } from '../../kernel-port/index.ts';
import { impliedRows } from './implied.ts';
import { mirrorsOf } from './mirrors.ts';
import { placesOfFace } from './places.ts';
import { Span } from './span.ts';
import { movingBall, movingCone, movingCylinder, movingPlane, movingRing, type MovingSurface } from './surfaces.ts';
import { Unknowns } from './unknowns.ts';

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** Off an axis, or off a right angle to it, by less than this a direction is along it. */
const STRAIGHT = 1e-9;

/** The unknowns that something is told by: all of the part, or only those of one face. */
interface Space {
  readonly count: number;
  /** Where an unknown of the part stands among them. */
  at(unknown: number): number;
}
/** A number or place once it is known which unknowns there are. */
type Later<T> = (space: Space) => T;

/** A direction: the number that tells it apart, and how it turns. */
interface Direction {
  readonly key: string;
  readonly along: Later<DualVec3>;
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
  /** The unknowns that it hangs on, and the surface as told by these alone: so what it does costs as little as it is. */
  readonly own: readonly number[];
  readonly alone: MovingSurface;
}

/**
 * A part whose flat and round faces can move, turn and grow, as it is at this moment: a witness of what sizes tell (the
 * witness configuration of Michelucci and Foufou, 2006, for faces instead of points). What one sees on a drawing without a
 * figure holds of itself: right angles and parallels, faces in one plane, round things on one centre line, roundings that
 * touch, and the two sides of what is symmetrical as a whole.
 */
export class Witness {
  private readonly unknowns = new Unknowns();
  readonly faces: readonly WitnessedFace[];
  /** Faces that are neither flat nor round about an axis: numbers do not tell them. */
  readonly curved: readonly { readonly body: number; readonly face: FaceFacts }[];
  /** What holds of itself. */
  readonly implied: Span;
  /** Where it mirrors as a whole; told by a centre line where more lies off the middle than the two outer faces. */
  readonly mirrors: readonly { readonly across: number; readonly at: number; readonly isTold: boolean }[];
  private readonly byName = new Map<string, WitnessedFace>();
  /** How large the part is, mm: turns are counted by how far they move it. */
  readonly reach: number;

  constructor(readonly topologies: readonly Topology[]) {
    const all = topologies.flatMap((topology, body) =>
      topology.faces.map((face) => ({ body, face, places: placesOfFace(topology, face) })),
    );
    const box = boxRound(all.flatMap(({ places }) => places.map((place) => ({ low: place, high: place }))));
    this.reach = box ? Math.max(distance3(box.low, box.high), 1e-3) : 1;
    const declared = all.map((one) => ({ ...one, surface: this.declared(one.face) }));
    const mirrors = mirrorsOf(all.map(({ face }) => face)).map(({ across, at }) => ({
      ...{ across, at },
      unknown: this.unknowns.at(`axis ${across}`, at, AXES[across]),
    }));
    this.mirrors = mirrors.map(({ across, at }) => {
      const off = this.unknowns.countOf(`axis ${across}`) + this.unknowns.countOf(`level steady ${across}`) - 1;
      return { across, at, isTold: off > 2 };
    });
    const { count } = this.unknowns;
    const whole: Space = { count, at: (unknown) => unknown };
    this.faces = declared.flatMap(({ surface, ...one }) => {
      if (!surface) return [];
      const own = unknownsOf(surface);
      const alone = surface({ count: own.length, at: (unknown) => own.indexOf(unknown) });
      return [{ ...one, surface: surface(whole), own, alone }];
    });
    this.curved = declared.filter(({ surface }) => !surface).map(({ body, face }) => ({ body, face }));
    for (const one of this.faces) this.byName.set(keyOf(one.body, one.face.name), one);
    this.implied = new Span(count);
    for (const row of this.held()) this.implied.add(row);
    for (const row of distinct(impliedRows(this, mirrors))) this.implied.add(row);
  }

  get count(): number {
    return this.unknowns.count;
  }

  face(body: number, name: string): WitnessedFace | undefined {
    return this.byName.get(keyOf(body, name));
  }

  still = (place: Vec3): DualVec3 => constant3(place, this.count);

  /** The part is shifted nowhere; nor turned, where neither a face nor centre lines at several places tell how it stands. */
  private held(): Float64Array[] {
    const rows = AXES.map((_, k) => Float64Array.from(this.unknowns.shifts, (shift) => shift[k]!));
    const loose = AXES.flatMap((_, about) => {
      const turning = this.unknowns.turns.find(([axis]) => axis === about);
      const steady = this.faces.some(({ surface }) =>
        [surface.plane?.normal, surface.axis?.along].some((way) => way && isAlongAnother(way, about)),
      );
      const lines = AXES.some((_, k) => k !== about && this.unknowns.countOf(`axis ${k}`) > 1);
      return turning && !steady && !lines ? [turning[1]] : [];
    });
    return [...rows, ...loose.map((index) => unit(this.count, index))];
  }

  private declared({ surface, name }: FaceFacts): Later<MovingSurface> | undefined {
    return surface.form === 'free' ? undefined : DECLARED[surface.form](this.parts, surface as never, kinOf(name));
  }

  private readonly parts: Parts = {
    size: (kind, value) => this.number(kind, value, [0, 0, 0]),
    angle: (kind, value) => {
      const index = this.unknowns.at(kind, value);
      return (n) => dual(n, value, [[index, 1 / this.reach]]);
    },
    direction: (along) => this.direction(along),
    height: (direction, normal, value) => this.height(direction, normal, value),
    foot: (direction, along, place) => this.foot(direction, along, place),
    number: (kind, value, shift) => this.number(kind, value, shift),
  };

  private number(kind: string, value: number, shift: Vec3): Later<Dual> {
    const index = this.unknowns.at(kind, value, shift);
    return (n) => dual(n, value, [[index, 1]]);
  }

  private direction(along: Vec3): Direction {
    const steady = along.findIndex((c) => Math.abs(c) > 1 - STRAIGHT);
    if (steady >= 0) return { key: `steady ${steady}`, along: (n) => constant3(along, n.count), steady };
    const turned = (turns: readonly (readonly [index: number, by: Vec3])[]): Later<DualVec3> => {
      const by = 1 / this.reach;
      return (n) =>
        along.map((c, k) =>
          dual(
            n,
            c,
            turns.map(([index, way]) => [index, way[k]! * by]),
          ),
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
        key: `turn ${index} ${told(way)}`,
        along: turned([[index, cross3(AXES[about]!, along)]]),
        about,
      };
    }
    const way = alongSame(along);
    const [u, v] = squareTo(way);
    const sign = dot3(way, along);
    const key = `lean ${told(way)}`;
    const [a, b] = [this.unknowns.at(`${key} u`, 0), this.unknowns.at(`${key} v`, 0)];
    return {
      key,
      along: turned([
        [a, scale3(u, sign)],
        [b, scale3(v, sign)],
      ]),
    };
  }

  /** How high a plane lies along its normal. */
  private height({ key, steady }: Direction, normal: Vec3, value: number): Later<Dual> {
    const way = steady === undefined ? alongSame(normal) : AXES[steady]!;
    const sign = Math.sign(dot3(way, normal));
    const height = this.number(`level ${key}`, sign * value, way);
    return (n) => height(n).scaled(sign);
  }

  /** A place on an axis: shared in each coordinate with what lies on the same centre line. */
  private foot({ key, steady, about, along }: Direction, way: Vec3, place: Vec3): Later<DualVec3> {
    const coordinate = (k: number) => this.number(`axis ${k}`, place[k]!, AXES[k]!);
    if (steady !== undefined) {
      const others = AXES.map((_, k) => (k === steady ? undefined : coordinate(k)));
      return (n) => others.map((other) => other?.(n) ?? dual(n, 0, [])) as unknown as DualVec3;
    }
    if (about !== undefined) {
      const side = cross3(AXES[about]!, way);
      const [level, across] = [coordinate(about), this.number(`across ${key}`, dot3(place, side), side)];
      return (n) => {
        const up = constant3(AXES[about]!, n.count);
        return addD3(timesD3(up, level(n)), timesD3(crossD3(up, along(n)), across(n)));
      };
    }
    const at = footOnLine3([0, 0, 0], place, way);
    const [u, v] = squareTo(way);
    const [a, b] = [u, v].map((side, k) => this.number(`across ${key} ${k}`, dot3(at, side), side)) as [
      Later<Dual>,
      Later<Dual>,
    ];
    return (n) => addD3(timesD3(constant3(u, n.count), a(n)), timesD3(constant3(v, n.count), b(n)));
  }
}

/** What surfaces are made of. */
interface Parts {
  size(kind: string, value: number): Later<Dual>;
  angle(kind: string, value: number): Later<Dual>;
  direction(along: Vec3): Direction;
  height(direction: Direction, normal: Vec3, value: number): Later<Dual>;
  foot(direction: Direction, along: Vec3, place: Vec3): Later<DualVec3>;
  number(kind: string, value: number, shift: Vec3): Later<Dual>;
}

type Numbered = Exclude<Surface, { form: 'free' }>;
type Declared = {
  readonly [F in Numbered['form']]: (
    parts: Parts,
    surface: Extract<Numbered, { form: F }>,
    kin: string,
  ) => Later<MovingSurface>;
};

/** Which unknowns each form of surface has. */
const DECLARED: Declared = {
  plane(parts, { normal, origin }) {
    const direction = parts.direction(normal);
    const height = parts.height(direction, normal, dot3(normal, origin));
    return (n) => movingPlane(direction.along(n), height(n));
  },
  cylinder(parts, { origin, axis, radius }, kin) {
    const { at, direction } = axisOf(parts, axis, origin);
    const size = parts.size(`radius ${kin} ${told(footOnLine3([0, 0, 0], origin, axis))}`, radius);
    return (n) => movingCylinder({ at: at(n), along: direction.along(n) }, size(n));
  },
  cone(parts, { origin, axis, angle }, kin) {
    const { tip, direction } = placedAlong(parts, axis, origin, 'tip', kin);
    const half = parts.angle(`half ${kin} ${told(origin)}`, angle);
    return (n) => movingCone({ at: tip(n), along: direction.along(n) }, half(n));
  },
  sphere(parts, { centre, radius }, kin) {
    const at = AXES.map((way, k) => parts.number(`axis ${k}`, centre[k]!, way));
    const size = parts.size(`radius ${kin} ${told(centre)}`, radius);
    return (n) => movingBall(at.map((c) => c(n)) as unknown as DualVec3, size(n));
  },
  torus(parts, { origin, axis, major, minor }, kin) {
    const { tip, direction } = placedAlong(parts, axis, origin, 'ring', kin);
    const key = `${kin} ${told(origin)}`;
    const [far, size] = [parts.size(`major ${key}`, major), parts.size(`minor ${key}`, minor)];
    return (n) => movingRing({ at: tip(n), along: direction.along(n) }, far(n), size(n));
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
  const rise = parts.number(`${what} ${kin} ${told(place)}`, dot3(place, way), way);
  const sign = Math.sign(dot3(way, axis));
  const tip: Later<DualVec3> = (n) => addD3(at(n), timesD3(direction.along(n), rise(n).scaled(sign)));
  return { tip, direction };
}

/** Rows that are not alike: of places on one face many say the same. */
function* distinct(rows: Iterable<Float64Array>): Generator<Float64Array> {
  const known = new Set<string>();
  for (const row of rows) {
    let key = '';
    for (let k = 0; k < row.length; k++) if (Math.abs(row[k]!) > 1e-9) key += `${k} ${row[k]!.toFixed(7)} `;
    if (key === '' || known.has(key)) continue;
    known.add(key);
    yield row;
  }
}

const keyOf = (body: number, name: string): string => `${body} ${name}`;

/** The name of a face without what tells the pieces of a split apart: they are one surface. */
const kinOf = (name: string): string => name.replace(/[@#].*$/, '');

/** The one of a direction and its opposite whose first entry is positive. */
const alongSame = (along: Vec3): Vec3 => ((along.find((c) => Math.abs(c) > 1e-6) ?? 1) < 0 ? scale3(along, -1) : along);

const told = (place: Vec3): string => place.map((c) => (c + 0).toFixed(5)).join(' ');

function squareTo(along: Vec3): readonly [Vec3, Vec3] {
  const least = along.reduce((best, c, k) => (Math.abs(c) < Math.abs(along[best]!) ? k : best), 0);
  const u = direction3(cross3(AXES[least]!, along))!;
  return [u, cross3(along, u)];
}

function dual(space: Space, value: number, by: readonly (readonly [index: number, derivative: number])[]): Dual {
  const d = new Float64Array(space.count);
  for (const [index, derivative] of by) d[space.at(index)] = derivative;
  return new Dual(value, d);
}

/** Which unknowns something is told by. */
function unknownsOf(something: Later<unknown>): number[] {
  const found = new Set<number>();
  something({ count: 0, at: (unknown) => found.add(unknown).size });
  return [...found];
}

const unit = (n: number, index: number): Float64Array => {
  const row = new Float64Array(n);
  row[index] = 1;
  return row;
};

const isAlongAnother = (way: DualVec3, about: number): boolean =>
  way.some(({ value }, k) => k !== about && Math.abs(value) > 1 - STRAIGHT);
