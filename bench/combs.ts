import {
  FigureBuilder,
  ORIGIN,
  randomFrom,
  X_AXIS,
  type Entities,
  type Id,
  type Relations,
  type Vec2,
} from '@helb/core';

export interface Scene {
  /** Lines and arcs in it. */
  readonly count: number;
  readonly entities: Entities;
  readonly relations: Relations;
  readonly sizes: Map<Id, number>;
  /** The size of the last width, whose loss leaves one freedom, and a point that then moves. */
  readonly lastWidth: Id;
  readonly last: Id;
}

const HEIGHT = 12;
const RADIUS = 2;
/** Lines and arcs of a tooth with the gap after it, and of the way back below. */
const TOOTH = 6;
const BACK = 3;

/**
 * A comb as it is milled: one closed outline, each tooth with two rounded corners, every width and height dimensioned,
 * all radii equal; drawn a little off. One connected sketch of about `count` lines and arcs. Upright it is held by level
 * and upright lines, which can be eliminated; turned by parallels, right angles and points on a line, all to be solved.
 */
export function combOf(count: number, turned: boolean): Scene {
  const comb = new Comb(turned);
  const teeth = Math.max(1, Math.round((count - BACK) / TOOTH));
  for (let k = 0; k < teeth; k++) comb.tooth(k * 16);
  comb.back(teeth * 16);
  const { entities, relations } = comb.builder;
  const lines = Object.values(entities).filter(({ kind }) => kind !== 'point').length;
  return { count: lines, entities, relations, sizes: comb.sizes, lastWidth: comb.lastWidth, last: comb.foot };
}

const TURN = 0.3;

class Comb {
  readonly builder: FigureBuilder;
  readonly sizes = new Map<Id, number>();
  lastWidth!: Id;
  /** Where the next tooth begins. */
  foot: Id;
  private readonly random = randomFrom(7);
  private readonly first: Id;
  private readonly base: Id;
  private round: Id | undefined;

  constructor(private readonly turned: boolean) {
    let ids = 0;
    this.builder = new FigureBuilder((prefix) => `${prefix}${++ids}`);
    this.first = this.foot = this.put(0, 0);
    this.builder.relate({ kind: 'coincident', a: this.first, b: ORIGIN });
    // all feet stand on the base
    const end = this.put(-5, 0);
    this.base = this.builder.line(end, this.first, true);
    if (turned) {
      const angle = { alongA: 1, alongB: 1, sense: 1, value: '1' } as const;
      this.sizes.set(this.builder.relate({ kind: 'angle', a: X_AXIS, b: this.base, ...angle }), TURN);
    } else this.builder.relate({ kind: 'horizontal', a: this.base });
    this.distance(end, this.first, 5);
  }

  tooth(x: number): void {
    const { builder } = this;
    const [p, q] = [this.put(x, HEIGHT - RADIUS), this.put(x + RADIUS, HEIGHT)];
    const [r, s] = [this.put(x + 10 - RADIUS, HEIGHT), this.put(x + 10, HEIGHT - RADIUS)];
    const [next, gap] = [this.put(x + 10, 0), this.put(x + 16, 0)];
    const [left, top, right] = [this.up(this.foot, p), this.along(q, r), this.up(next, s)];
    const first = builder.arc(this.put(x + RADIUS, HEIGHT - RADIUS), q, p, RADIUS);
    const second = builder.arc(this.put(x + 10 - RADIUS, HEIGHT - RADIUS), s, r, RADIUS);
    for (const [arc, side] of [
      [first, left],
      [first, top],
      [second, right],
      [second, top],
    ] as const)
      builder.relate({ kind: 'tangent', circle: arc, to: side, side: 1 });
    for (const arc of [first, second]) this.rounded(arc);
    this.distance(this.foot, p, HEIGHT - RADIUS);
    this.onBase(next);
    this.distance(this.foot, next, 10);
    builder.line(next, gap);
    this.onBase(gap);
    this.lastWidth = this.distance(next, gap, 6);
    this.foot = gap;
  }

  /** The way back below the teeth. */
  back(x: number): void {
    const [low, end] = [this.put(x, -8), this.put(0, -8)];
    this.up(low, this.foot);
    this.along(end, low);
    this.up(end, this.first);
    this.distance(low, this.foot, 8);
  }

  private put(x: number, y: number): Id {
    const [c, s] = this.turned ? [Math.cos(TURN), Math.sin(TURN)] : [1, 0];
    const off = () => 0.2 * (this.random() - 0.5);
    return this.builder.place([c * x - s * y + off(), s * x + c * y + off()] satisfies Vec2);
  }

  private up(a: Id, b: Id): Id {
    const line = this.builder.line(a, b);
    this.builder.relate(this.turned ? { kind: 'perpendicular', a: this.base, b: line } : { kind: 'vertical', a: line });
    return line;
  }

  private along(a: Id, b: Id): Id {
    const line = this.builder.line(a, b);
    this.builder.relate(this.turned ? { kind: 'parallel', a: this.base, b: line } : { kind: 'horizontal', a: line });
    return line;
  }

  private onBase(point: Id): void {
    this.builder.relate(
      this.turned ? { kind: 'coincident', a: point, b: this.base } : { kind: 'horizontal', a: point, b: this.first },
    );
  }

  private rounded(arc: Id): void {
    if (this.round) this.builder.relate({ kind: 'equal', a: this.round, b: arc });
    else this.sizes.set(this.builder.relate({ kind: 'radius', circle: arc, value: '1' }), RADIUS);
    this.round ??= arc;
  }

  private distance(a: Id, b: Id, value: number): Id {
    const size = this.builder.relate({ kind: 'distance', a, b, direction: 'aligned', sense: 1, value: '1' });
    this.sizes.set(size, value);
    return size;
  }
}
