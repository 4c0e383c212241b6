import {
  alongPlane,
  cross2,
  distance2,
  dot2,
  heightOver,
  length2,
  principalAxes,
  scale2,
  sub2,
  add2,
  toPlane,
  type Frame,
  type Vec2,
  type Vec3,
} from '../math/index.ts';
import { angleOn, armsOf, helixSpans, type SpaceCurve } from '../geometry/index.ts';
import type { EdgeFacts } from '../kernel-port/index.ts';
import { ok, fail, type Result } from '../result/index.ts';
import { inTurn, type Entities, type Entity } from '../sketch/index.ts';
import { axisOf, curvesOf, rimsOf, type Datum, type Thing } from './things/index.ts';

/** How something is borrowed: seen square on, the axis of what is round, or where the sketch plane crosses it. */
export type Borrowing = 'shape' | 'axis' | 'crossing';

/**
 * What a thing looks like on a plane: sketch entities under keys that last as long as their source (names of edges and
 * corners). Exact: lines stay lines, circles become circles, ellipses or lines, free curves keep their control points.
 * Fails where nothing of it is seen.
 * @param crossings the curves in which the plane crosses the bodies of the part that the thing is of, each by the name of
 *   its face
 */
export function projected(
  thing: Thing,
  how: Borrowing,
  frame: Frame,
  crossings: () => readonly EdgeFacts[],
): Result<Entities> {
  const shadow = new Shadow(frame);
  if (how === 'axis') shadow.axis(thing);
  else if (how === 'crossing')
    crossings()
      .filter((edge) => isOn(edge, thing))
      .forEach((edge) => shadow.edge(edge, edge.name));
  else SHAPES[thing.to](shadow, thing as never);
  return Object.keys(shadow.entities).length > 0 ? ok(shadow.entities) : fail('borrow.nothing', { how });
}

/** Crossings are named by their face; several on one face are counted. */
const isOn = ({ faces }: EdgeFacts, thing: Thing): boolean => thing.to === 'face' && faces.includes(thing.face.name);

/** Nearer than this (mm) two projected places are one, and a direction that short is seen end-on. */
const NEAR = 1e-7;

/** An end of a round curve: its key, where it is seen, and its angle on the curve. */
interface RoundEnd {
  readonly key: string;
  readonly at: Vec2;
  readonly angle: number;
}

class Shadow {
  readonly entities: Record<string, Entity> = {};

  constructor(readonly frame: Frame) {}

  point(key: string, at: Vec3): string {
    return this.place(key, toPlane(this.frame, at));
  }

  axis(thing: Thing): void {
    const axis = axisOf(thing);
    if (!axis) return;
    const [from, to] = axis.stretch ?? [axis.origin, axis.origin];
    this.line('axis', ['axis from', toPlane(this.frame, from)], ['axis to', toPlane(this.frame, to)]);
  }

  edge({ curve, ends }: EdgeFacts, key: string): void {
    const [from, to] = ends ?? [`${key} from`, `${key} to`];
    SHADOWS[curve.form](this, curve as never, key, from, to);
  }

  /** The line between two places, or a point where they are one. */
  line(key: string, [a, p]: readonly [string, Vec2], [b, q]: readonly [string, Vec2]): void {
    if (distance2(p, q) < NEAR) this.place(a === 'axis from' ? 'point' : a, p);
    else this.entities[key] = { kind: 'line', a: this.place(a, p), b: this.place(b, q) };
  }

  place(key: string, [x, y]: Vec2): string {
    this.entities[key] = { kind: 'point', x, y };
    return key;
  }

  seen = (place: Vec3): Vec2 => toPlane(this.frame, place);
  heading = (direction: Vec3): Vec2 => alongPlane(this.frame, direction);

  /** What is round, by two conjugate half diameters u and v: a circle, an ellipse, or edge-on a line. */
  round(key: string, centre: Vec2, [u, v]: readonly [Vec2, Vec2], ends?: readonly [RoundEnd, RoundEnd]): void {
    const [p, q] = principalAxes(u, v);
    if (length2(q) < NEAR) return this.edgeOn(key, centre, p, [u, v], ends);
    const middle = this.place(`${key} centre`, centre);
    // sketch arcs run counter-clockwise
    const [a, b] = (cross2(u, v) < 0 ? ends?.toReversed() : ends) ?? [];
    const stretch = a && b ? { a: this.place(a.key, a.at), b: this.place(b.key, b.at) } : undefined;
    if (length2(p) - length2(q) < NEAR) {
      const radius = length2(p);
      this.entities[key] = stretch
        ? { kind: 'arc', centre: middle, ...stretch, radius }
        : { kind: 'circle', centre: middle, radius };
      return;
    }
    const tip = this.place(`${key} tip`, add2(centre, p));
    const minor = length2(q);
    this.entities[key] = stretch
      ? { kind: 'ellipse-arc', centre: middle, tip, ...stretch, minor }
      : { kind: 'ellipse', centre: middle, tip, minor };
  }

  /** Free curves: one spline for each span, since only so the control points stay what they are. */
  free(key: string, spans: readonly (readonly [Vec3, Vec3, Vec3, Vec3])[], from: string, to: string): void {
    const last = spans.length - 1;
    const closed = spans.length > 1 && distance2(this.seen(spans[0]![0]), this.seen(spans[last]![3])) < NEAR;
    const between = (k: number) => (k === 0 ? from : k > last ? (closed ? from : to) : `${key} point ${k}`);
    spans.forEach((span, k) => {
      const [a, b, c, d] = span.map(this.seen) as [Vec2, Vec2, Vec2, Vec2];
      const points = [this.place(between(k), a), this.place(between(k + 1), d)];
      const [start, end] = [this.place(`${key} ${k} start`, b), this.place(`${key} ${k} end`, c)];
      const knots = [0, Math.max(distance2(a, d), 1e-3)];
      this.entities[k === 0 ? key : `${key} ${k}`] = { kind: 'spline', points, start, end, knots };
    });
  }

  /** A round curve seen edge-on goes from its least to its greatest place along the line that it is seen as. */
  private edgeOn(
    key: string,
    centre: Vec2,
    p: Vec2,
    [u, v]: readonly [Vec2, Vec2],
    ends?: readonly [RoundEnd, RoundEnd],
  ): void {
    const reach = length2(p);
    if (reach < NEAR) return void this.place('point', centre);
    const unit = scale2(p, 1 / reach);
    const top = Math.atan2(dot2(v, unit), dot2(u, unit));
    const turns = [
      [top, reach],
      [top + Math.PI, -reach],
    ] as const;
    const passed = ends
      ? turns.filter(([turn]) => inTurn(turn - ends[0].angle) < inTurn(ends[1].angle - ends[0].angle))
      : turns;
    const heights = [
      ...passed.map(([, height]) => height),
      ...(ends ?? []).map(({ at }) => dot2(sub2(at, centre), unit)),
    ];
    const at = (height: number) => add2(centre, scale2(unit, height));
    this.line(key, [`${key} low`, at(Math.min(...heights))], [`${key} high`, at(Math.max(...heights))]);
  }

  /** What has no ends, so long that it can be used. */
  endless(at: Vec2, along: Vec2): void {
    this.line('axis', ['axis from', add2(at, scale2(along, -HALF))], ['axis to', add2(at, scale2(along, HALF))]);
  }
}
/** Half the length at which endless things are drawn, mm. */
const HALF = 50;

const curvesShape = (shadow: Shadow, thing: Thing): void =>
  curvesOf(thing).forEach((edge, k) => shadow.edge(edge, k === 0 ? 'curve' : `curve ${k + 1}`));

/** What each kind of thing shows seen square on; of several together one borrows one by one. */
const SHAPES: { readonly [T in Thing['to']]: (shadow: Shadow, thing: Extract<Thing, { to: T }>) => void } = {
  face: (shadow, thing) => rimsOf(thing).forEach((edge) => shadow.edge(edge, edge.name)),
  edge: curvesShape,
  vertex: (shadow, { vertex }) => shadow.point('point', vertex.at),
  body: () => undefined,
  rule: () => undefined,
  datum: (shadow, { datum }) => DATUM_SHAPES[datum.form](shadow, datum as never),
  drawn: (shadow, thing) => (thing.at ? shadow.point('point', thing.at) : curvesShape(shadow, thing)),
};

/** The line in which a plane crosses that of the sketch. */
function trace(shadow: Shadow, other: Frame): void {
  const normal = shadow.heading(other.z);
  if (length2(normal) < 1e-9) return;
  const unit = scale2(normal, 1 / length2(normal));
  // its places where its own height is 0
  const at = scale2(unit, -heightOver(other, shadow.frame.origin) / length2(normal));
  shadow.endless(at, [-unit[1], unit[0]]);
}

const DATUM_SHAPES: { readonly [F in Datum['form']]: (shadow: Shadow, datum: Extract<Datum, { form: F }>) => void } = {
  plane: (shadow, { frame }) => trace(shadow, frame),
  frame: (shadow, { frame }) => trace(shadow, frame),
  axis: (shadow, { origin, direction }) => {
    const [at, along] = [shadow.seen(origin), shadow.heading(direction)];
    if (length2(along) < 1e-6) shadow.place('point', at);
    else shadow.endless(at, scale2(along, 1 / length2(along)));
  },
  point: (shadow, { at }) => shadow.point('point', at),
  curve: (shadow, { edge }) => shadow.edge(edge, 'curve'),
};

type CurveOf<F extends SpaceCurve['form']> = Extract<SpaceCurve, { form: F }>;
type Drawer<C extends SpaceCurve> = (shadow: Shadow, curve: C, key: string, from: string, to: string) => void;

const roundShadow: Drawer<CurveOf<'circle' | 'ellipse'>> = (shadow, curve, key, from, to) => {
  const arms = armsOf(curve);
  const end = (name: string, place: Vec3): RoundEnd => ({
    ...{ key: name, at: shadow.seen(place), angle: angleOn(curve.centre, arms, place) },
  });
  const ends = curve.from && curve.to ? ([end(from, curve.from), end(to, curve.to)] as const) : undefined;
  shadow.round(key, shadow.seen(curve.centre), [shadow.heading(arms[0]), shadow.heading(arms[1])], ends);
};

const SHADOWS: { readonly [F in SpaceCurve['form']]: Drawer<CurveOf<F>> } = {
  line: (shadow, curve, key, from, to) =>
    shadow.line(key, [from, shadow.seen(curve.from)], [to, shadow.seen(curve.to)]),
  circle: roundShadow,
  ellipse: roundShadow,
  helix: (shadow, curve, key, from, to) => shadow.free(key, helixSpans(curve), from, to),
  free: (shadow, { spans }, key, from, to) => shadow.free(key, spans, from, to),
};
