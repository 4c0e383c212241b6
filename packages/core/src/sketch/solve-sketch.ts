import { cross2, length2, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import {
  freedoms,
  minimalConflict,
  solve,
  Solver,
  type Block,
  type Freedoms,
  type Problem,
  type Solution,
} from '../solver/index.ts';
import { entityKind, type Entities, type Entity } from './entities/index.ts';
import { Geometry, Layout } from './geometry.ts';
import { freeMotions, STILL, type FreeMotion } from './motions.ts';
import { lengthOf } from './pieces/index.ts';
import { isSized, relationKind, type Relations, type SizedRelation } from './relations/index.ts';

/** What a drag pulls: points and a radius that shall come as near as they can to these places. */
export interface Drag {
  readonly points?: readonly { readonly id: Id; readonly to: Vec2 }[];
  readonly radius?: { readonly id: Id; readonly to: number };
}

export interface SketchSolution {
  readonly state: 'loose' | 'settled' | 'clashing';
  /** The places of all entities; where clashing, the last good ones. */
  readonly geometry: Geometry;
  readonly freedoms: number;
  /** Ids of entities that can still move. */
  readonly loose: ReadonlySet<Id>;
  /** For points that can move in one direction only: that direction, a unit vector. */
  readonly slides: ReadonlyMap<Id, Vec2>;
  /** Each freedom as a motion. */
  readonly motions: readonly FreeMotion[];
  /** Sets of relations that tell something twice but agree: of each set one may go. */
  readonly redundant: readonly (readonly Id[])[];
  /** Relations that can't hold together: a minimal set. */
  readonly clash: readonly Id[];
  /** Largest residual, mm. */
  readonly residual: number;
}

/** Results of the dimensions' expressions by relation id, in mm or rad; relations without an entry do not hold. */
export type Sizes = ReadonlyMap<Id, number>;

const DRAGGED_WEIGHT = 1e4;
/** A dimension may change by this share of itself (or of the sketch) in one solve; larger changes walk there. */
const STRIDE = 0.35;
/** An angle by no more than this, rad: what is far out goes on a circle. */
const TURNING_STRIDE = 0.15;
/** Nothing that is sized counts as smaller, mm: else a stride from nothing would be endless. */
const SMALLEST_mm = 1e-3;
/** A curve shorter than this, mm, is lost. */
const LOST_mm = 1e-6;
/** The sine of a corner that is so flat says nothing about its hand. */
const FLAT = 1e-3;
const MOST_STRIDES = 24;
/** Where strides were too long they may become so many. */
const MOST_SHORT_STRIDES = 200;

/**
 * Solves a sketch from the places that are drawn. Large changes of a dimension are walked in strides from the measure of
 * the drawing to the new number, so that the shape stays on the branch that people see; where no solution exists the
 * drawing stays as it is and the state is `clashing`.
 * @param borrowed entities that follow something outside the sketch: as they have to be
 */
export function solveSketch(
  entities: Entities,
  relations: Relations,
  sizes: Sizes,
  borrowed: Entities = {},
): SketchSolution {
  const layout = new Layout(entities, borrowed);
  const holding = holdingOf(relations, sizes);
  const solution = walk(layout, holding, sizes);
  if (!solution.fulfilled)
    return {
      state: 'clashing',
      geometry: new Geometry(layout.entities),
      freedoms: 0,
      loose: new Set(),
      slides: new Map(),
      motions: [],
      redundant: [],
      clash: conflictOf(layout, holding, sizes, solution.suspects),
      residual: solution.residual,
    };
  return explained(layout, relations, solution, freedoms(solution));
}

/**
 * A drag: in each frame everything moves as little as possible while the dragged places follow the pointer. The relations
 * are analysed once; each frame starts from the one before, and so stays on its branch.
 */
export class SketchDrag {
  private readonly layout: Layout;
  private readonly solver: Solver;
  private readonly x: Float64Array;

  constructor(entities: Entities, relations: Relations, sizes: Sizes, borrowed: Entities = {}) {
    this.layout = new Layout(entities, borrowed);
    this.x = Float64Array.from(this.layout.initial);
    this.solver = new Solver({ initial: this.x, ...equations(this.layout, holdingOf(relations, sizes), sizes) });
  }

  /** The entities in the next frame; undefined where the relations would not hold there: the last frame stays. */
  frame(drag: Drag): Entities | undefined {
    const initial = Float64Array.from(this.x);
    const weights = new Float64Array(initial.length).fill(1);
    const pull = (at: number, to: number) => {
      initial[at] = to;
      weights[at] = DRAGGED_WEIGHT;
    };
    for (const { id, to } of drag.points ?? []) this.layout.point(id).forEach((at, k) => pull(at, to[k]!));
    if (drag.radius) pull(this.layout.circle(drag.radius.id)[2], drag.radius.to);
    const solution = this.solver.solve(initial, weights);
    const moved = solution.fulfilled ? this.layout.moved(solution.x) : undefined;
    if (!moved || !sound(new Geometry(moved))) return undefined;
    this.x.set(solution.x);
    return moved;
  }
}

/** The sketch as a problem for the generic solver, from the places that are drawn. */
export function sketchProblem(entities: Entities, relations: Relations, sizes: Sizes): Problem {
  const layout = new Layout(entities);
  return { initial: layout.initial, ...equations(layout, holdingOf(relations, sizes), sizes) };
}

/** The relations that hold: a dimension only if its number is known. */
const holdingOf = (relations: Relations, sizes: Sizes): Holding =>
  Object.entries(relations).filter(([id, relation]) => !isSized(relation) || sizes.has(id));

type Holding = readonly (readonly [Id, Relations[string]])[];

function equations(layout: Layout, holding: Holding, sizes: Sizes, t = 1) {
  const start = new Geometry(layout.entities);
  const blocks: Block[] = [];
  const substitutions = layout.groundAt(t);
  for (const [id, entity] of Object.entries(layout.entities))
    blocks.push(...(entityKind(entity.kind).equations?.(id, entity, layout) ?? []));
  for (const [id, relation] of holding) {
    const asked = relationKind(relation.kind).equations(relation, { id, layout, start, value: sizes.get(id) ?? 0 });
    if (asked.blocks) blocks.push(...asked.blocks);
    if (asked.substitutions) substitutions.push(...asked.substitutions);
  }
  return { blocks, substitutions };
}

function solveFrom(layout: Layout, x: Float64Array, holding: Holding, sizes: Sizes, t = 1): Solution {
  const initial = Float64Array.from(x);
  for (const [, relation] of holding) relationKind(relation.kind).aim?.(relation, layout, initial);
  return solve({ initial, ...equations(layout, holding, sizes, t) });
}

/** Walks the dimensions from what the drawing measures to what is asked; a stride that flips a corner is halved. */
function walk(layout: Layout, holding: Holding, sizes: Sizes): Solution {
  const start = new Geometry(layout.entities);
  const from = new Map<Id, number>();
  for (const [id, relation] of holding) if (isSized(relation)) from.set(id, nearest(relation, sizes.get(id)!, start));
  const turning = new Set(holding.filter(([, relation]) => periodOf(relation) !== undefined).map(([id]) => id));
  let strides = Math.max(stridesFor(from, sizes, turning), pinStrides(layout, start));
  const most = turning.size > 0 ? MOST_SHORT_STRIDES : MOST_STRIDES;
  for (;;) {
    const found = strideAlong(layout, holding, from, sizes, strides);
    if (found.good || strides >= most) return found.solution;
    strides = Math.min(most, strides * 3);
  }
}

const periodOf = (relation: Relations[string]): number | undefined => relationKind(relation.kind).dimension?.period;

/** What a dimension measures in the drawing; of an angle by as many turns that it is nearest to what is asked. */
function nearest(relation: SizedRelation, asked: number, start: Geometry): number {
  const measured = relationKind(relation.kind).dimension!.measure(relation, start);
  const period = periodOf(relation);
  return period === undefined ? measured : measured + Math.round((asked - measured) / period) * period;
}

/** @param turning angles: nothing about one near 0 is small */
function stridesFor(from: Sizes, to: Sizes, turning: ReadonlySet<Id>): number {
  let most = 0;
  for (const [id, before] of from) {
    const after = to.get(id)!;
    if (turning.has(id)) most = Math.max(most, (Math.abs(after - before) * STRIDE) / TURNING_STRIDE);
    else
      most = Math.max(most, Math.abs(after - before) / Math.max(Math.abs(before), Math.abs(after) * 0.1, SMALLEST_mm));
  }
  return Math.min(MOST_STRIDES, Math.max(1, Math.ceil(most / STRIDE)));
}

/** Borrowed entities may go by a share of the sketch in one solve, like dimensions. */
function pinStrides(layout: Layout, start: Geometry): number {
  const far = layout.farthestPin;
  if (far === 0) return 1;
  const box = start.box();
  const size = box ? Math.max(box.high[0] - box.low[0], box.high[1] - box.low[1], SMALLEST_mm) : 1;
  return Math.min(MOST_STRIDES, Math.ceil(far / (STRIDE * size)));
}

function strideAlong(layout: Layout, holding: Holding, from: Sizes, to: Sizes, strides: number) {
  let x: Float64Array = layout.initial;
  let good = true;
  let solution!: Solution;
  for (let k = 1; k <= strides; k++) {
    const t = k / strides;
    const sizes = k === strides ? to : new Map([...from].map(([id, a]) => [id, a + t * (to.get(id)! - a)]));
    const before = x;
    solution = solveFrom(layout, x, holding, sizes, t);
    // a place between that can't be is passed over: only the last stride has to hold
    if (!solution.fulfilled) {
      good = false;
      continue;
    }
    x = solution.x;
    if (flipped(layout, holding, before, x)) good = false;
  }
  const ended = new Geometry(layout.moved(solution.x));
  if (solution.fulfilled && !sound(ended)) solution = { ...solution, fulfilled: false };
  return { solution, good: good && solution.fulfilled };
}

/** No radius is zero or negative and no line has lost its length. */
function sound(geometry: Geometry): boolean {
  return Object.keys(geometry.entities).every((id) => geometry.pieces(id).every((piece) => lengthOf(piece) > LOST_mm));
}

/**
 * Has a corner changed its hand? Lines and distances from one place to others make corners; on which side of one of them
 * the other lies nothing tells, so it has to stay as it is drawn.
 */
function flipped(layout: Layout, holding: Holding, before: Float64Array, after: Float64Array): boolean {
  // where an angle is told, what turns with it passes through 0 and through 180 degrees, but it does not leap
  const isTurning = holding.some(([, relation]) => periodOf(relation) !== undefined);
  const at = corners(layout, holding, before);
  const linked = new Set([...at].flatMap(([from, arms]) => arms.map(({ far }) => `${from} ${far}`)));
  for (const arms of at.values())
    for (let k = 1; k < Math.min(arms.length, MOST_ARMS); k++)
      for (let n = 0; n < k; n++) {
        const [a, b] = [arms[n]!, arms[k]!];
        const [was, is] = [before, after].map((x) => turn(a, b, x)) as [number, number];
        if (was * is >= 0 || Math.min(Math.abs(was), Math.abs(is)) <= FLAT) continue;
        // three places that are told from each other can only be turned over
        const isTriangle = linked.has(`${a.far} ${b.far}`);
        if (!isTurning || isTriangle || Math.abs(was - is) > LEAP) return true;
      }
  return Object.values(layout.entities).some((entity) => turnedOver(layout, entity, before, after));
}
/** Of a place at which more come together enough is known by these. */
const MOST_ARMS = 8;
/** By so much the sine of an angle does not change in one stride. */
const LEAP = 3 * TURNING_STRIDE;

type Place = readonly [x: number, y: number];
/** A line, or a distance that is told, from one place to another. */
interface Arm {
  readonly from: Place;
  readonly to: Place;
  /** Where it ends, as a key of `corners`. */
  readonly far: string;
}

/** What goes out from each place: points that lie in one place are one. */
function corners(layout: Layout, holding: Holding, x: Float64Array): Map<string, Arm[]> {
  const at = new Map<string, Arm[]>();
  const keyOf = (place: Place) => place.map((unknown) => x[unknown]!.toFixed(6)).join();
  const add = (from: Place, to: Place) => {
    const [key, far] = [keyOf(from), keyOf(to)];
    if (key !== far) at.set(key, [...(at.get(key) ?? []).filter((arm) => arm.far !== far), { from, to, far }]);
  };
  for (const entity of Object.values(layout.entities)) {
    if (entity.kind !== 'line') continue;
    const [a, b] = [layout.point(entity.a), layout.point(entity.b)];
    add(a, b);
    add(b, a);
  }
  for (const [, relation] of holding) {
    const span = relationKind(relation.kind).spans?.(relation, layout);
    if (!span) continue;
    add(span[0], span[1]);
    add(span[1], span[0]);
  }
  return at;
}

/** Does a line run against itself, or has an end of an arc gone to the other side of its centre? */
function turnedOver(layout: Layout, entity: Entity, before: Float64Array, after: Float64Array): boolean {
  if (!('a' in entity)) return false;
  const joins = 'centre' in entity ? [entity.a, entity.b].map((end) => [entity.centre, end]) : [[entity.a, entity.b]];
  return joins.some(([from, to]) => {
    const [was, is] = [before, after].map((x): Vec2 => {
      const [p, q] = [layout.point(from!), layout.point(to!)];
      return [x[q[0]]! - x[p[0]]!, x[q[1]]! - x[p[1]]!];
    }) as [Vec2, Vec2];
    return was[0] * is[0] + was[1] * is[1] < 0;
  });
}

/** Sine of the angle from one arm of a corner to another. */
function turn(first: Arm, second: Arm, x: Float64Array): number {
  const [u, v] = [first, second].map(({ from, to }): Vec2 => [x[to[0]]! - x[from[0]]!, x[to[1]]! - x[from[1]]!]) as [
    Vec2,
    Vec2,
  ];
  const scale = length2(u) * length2(v);
  return scale > 0 ? cross2(u, v) / scale : 0;
}

/** A minimal set of relations that can't hold together; a shape that loses a line or a circle counts as a clash too. */
function conflictOf(layout: Layout, holding: Holding, sizes: Sizes, suspects: readonly Id[]): Id[] {
  const clashes = (rest: Holding): boolean => {
    const solution = solveFrom(layout, layout.initial, rest, sizes);
    return !solution.fulfilled || !sound(new Geometry(layout.moved(solution.x)));
  };
  const suspected = holding.filter(([id]) => suspects.includes(id));
  return minimalConflict(holding, suspected, clashes).map(([id]) => id);
}

function explained(layout: Layout, relations: Relations, solution: Solution, left: Freedoms): SketchSolution {
  const geometry = new Geometry(layout.moved(solution.x));
  const loose = new Set<Id>();
  const moves = (id: Id): boolean => layout.unknownsOf(id).some((at) => left.loose[at] === 1);
  for (const [id, entity] of Object.entries(layout.entities)) {
    if (moves(id) || entityKind(entity.kind).uses(entity).some(moves)) loose.add(id);
  }
  // told only when asked for: with a hundred freedoms it takes longer than the solve
  let motions: readonly FreeMotion[] | undefined;
  return {
    state: left.count > 0 ? 'loose' : 'settled',
    geometry,
    freedoms: left.count,
    loose,
    slides: slidesOf(layout, left),
    get motions() {
      return (motions ??= freeMotions(layout, geometry, left.groups));
    },
    redundant: toldTwice(relations, left),
    clash: [],
    residual: solution.residual,
  };
}

/** The redundant sets by their relations; what entities ask for by themselves can't go. */
const toldTwice = (relations: Relations, { redundant }: Freedoms): Id[][] =>
  redundant.map((owners) => owners.filter((id) => Object.hasOwn(relations, id))).filter((ids) => ids.length > 0);

/** Directions of the points whose motions are all along one line. */
function slidesOf(layout: Layout, { groups }: Freedoms): Map<Id, Vec2> {
  const whereIs = new Map<number, { readonly vectors: readonly Float64Array[]; readonly k: number }>();
  for (const { unknowns, vectors } of groups) unknowns.forEach((unknown, k) => whereIs.set(unknown, { vectors, k }));
  const slides = new Map<Id, Vec2>();
  for (const [id, entity] of Object.entries(layout.entities)) {
    if (entity.kind !== 'point') continue;
    const [x, y] = layout.point(id).map((unknown) => whereIs.get(unknown));
    // the two coordinates may belong to different groups
    const moves = [...new Set([x?.vectors, y?.vectors])].flatMap((vectors) =>
      (vectors ?? []).map((vector): Vec2 => [
        x?.vectors === vectors ? vector[x!.k]! : 0,
        y?.vectors === vectors ? vector[y!.k]! : 0,
      ]),
    );
    const slide = commonDirection(moves);
    if (slide) slides.set(id, slide);
  }
  return slides;
}

function commonDirection(all: readonly Vec2[]): Vec2 | undefined {
  const moves = all.filter((move) => length2(move) > STILL);
  const [longest] = moves.toSorted((a, b) => length2(b) - length2(a));
  if (!longest) return undefined;
  const unit: Vec2 = [longest[0] / length2(longest), longest[1] / length2(longest)];
  return moves.every((move) => Math.abs(cross2(unit, move)) < STILL * length2(move)) ? unit : undefined;
}
