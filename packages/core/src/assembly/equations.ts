import { add3, cross3, dot3, length3, scale3, sub3, type Vec3 } from '../math/index.ts';

// What joints and relations are made of: scalar equations between places and directions that bodies carry.

/** A body by its place in the list; SPACE for what stands still. */
export type BodyIndex = number;
export const SPACE: BodyIndex = -1;

export interface Place {
  readonly body: BodyIndex;
  /** In the body's own coordinates, mm. */
  readonly at: Vec3;
}

export interface Direction {
  readonly body: BodyIndex;
  /** A unit vector in the body's own coordinates. */
  readonly along: Vec3;
}

/** Each is fulfilled where it comes to 0. A coordinate is an unknown of its own: an angle (rad) or a way (mm). */
export type Equation =
  /** Two directions have this cosine. */
  | { readonly form: 'dot'; readonly a: Direction; readonly b: Direction; readonly is: number }
  /** From a place to another it is so far along a direction: a number, or a coordinate. */
  | {
      readonly form: 'span';
      readonly from: Place;
      readonly to: Place;
      readonly along: Direction;
      readonly is: number;
      readonly coordinate?: number;
    }
  /** A direction stands at an angle to x, towards y; both of one body. */
  | {
      readonly form: 'turn';
      readonly x: Direction;
      readonly y: Direction;
      readonly b: Direction;
      readonly coordinate: number;
    }
  /** Two places are so far apart, seen along a direction where there is one. */
  | {
      readonly form: 'away';
      readonly from: Place;
      readonly to: Place;
      readonly across?: Direction;
      readonly is: number;
    };

/** The equation with every place and direction in it changed. */
export const overSides = (equation: Equation, change: <S extends Place | Direction>(side: S) => S): Equation =>
  Object.fromEntries(
    Object.entries(equation).map(([key, side]: [string, Side | number | string]) => [
      key,
      typeof side === 'object' ? change(side) : side,
    ]),
  ) as unknown as Equation;
type Side = Place | Direction;

/** The bodies of all places and directions of an equation. */
export function bodiesOf(equation: Equation): BodyIndex[] {
  const bodies = new Set<BodyIndex>();
  overSides(equation, (side) => {
    bodies.add(side.body);
    return side;
  });
  return [...bodies];
}

/** What an equation needs to know of where the bodies are. */
export interface Positions {
  place(place: Place): Vec3;
  direction(direction: Direction): Vec3;
  /** The arm of a place about the origin of its body. */
  arm(place: Place): Vec3;
  coordinate(k: number): number;
}

/** Takes the gradient: what moving a body does is a force on its origin and a torque about it, as in statics. */
export interface Gradient {
  force(body: BodyIndex, force: Vec3): void;
  torque(body: BodyIndex, torque: Vec3): void;
  slope(k: number, slope: number): void;
}

/** Are its values angles (rad) rather than lengths (mm)? */
export const isAngular = ({ form }: Equation): boolean => form === 'dot' || form === 'turn';

/** How far an equation is from being fulfilled; its gradient goes to `gradient`. */
export function valueOf(equation: Equation, at: Positions, gradient: Gradient): number {
  const form = FORMS[equation.form] as Form<Equation>;
  return form(equation, at, gradient);
}

type Form<E> = (equation: E, at: Positions, gradient: Gradient) => number;
const FORMS: { readonly [F in Equation['form']]: Form<Extract<Equation, { form: F }>> } = {
  dot({ a, b, is }, at, gradient) {
    const [u, v] = [at.direction(a), at.direction(b)];
    turned(gradient, a.body, u, v);
    turned(gradient, b.body, v, u);
    return dot3(u, v) - is;
  },

  span({ from, to, along, is, coordinate }, at, gradient) {
    const u = at.direction(along);
    const way = sub3(at.place(to), at.place(from));
    moved(gradient, at, to, u);
    moved(gradient, at, from, scale3(u, -1));
    turned(gradient, along.body, u, way);
    if (coordinate === undefined) return dot3(way, u) - is;
    gradient.slope(coordinate, -1);
    return dot3(way, u) - is - at.coordinate(coordinate);
  },

  turn({ x, y, b, coordinate }, at, gradient) {
    const angle = at.coordinate(coordinate);
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const [u, w, v] = [at.direction(x), at.direction(y), at.direction(b)];
    // square to where it should stand
    const square = add3(scale3(w, c), scale3(u, -s));
    turned(gradient, x.body, square, v);
    turned(gradient, b.body, v, square);
    gradient.slope(coordinate, -s * dot3(w, v) - c * dot3(u, v));
    return dot3(square, v);
  },

  away({ from, to, across, is }, at, gradient) {
    const way = sub3(at.place(to), at.place(from));
    const u = across && at.direction(across);
    const seen = u ? sub3(way, scale3(u, dot3(way, u))) : way;
    const length = Math.max(length3(seen), 1e-12);
    const unit = scale3(seen, 1 / length);
    moved(gradient, at, to, unit);
    moved(gradient, at, from, scale3(unit, -1));
    if (u && across) turned(gradient, across.body, u, scale3(unit, -dot3(way, u)));
    return length - is;
  },
};

/** A direction u of a body changes by turning it; with weight w that is a torque of u x w. */
const turned = (gradient: Gradient, body: BodyIndex, u: Vec3, w: Vec3): void => gradient.torque(body, cross3(u, w));

function moved(gradient: Gradient, at: Positions, place: Place, force: Vec3): void {
  gradient.force(place.body, force);
  gradient.torque(place.body, cross3(at.arm(place), force));
}
