import { distance2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { GROUND, type Block } from '../../solver/index.ts';
import { entityKind, ORIGIN, X_AXIS, Y_AXIS } from '../entities/index.ts';
import { Geometry, Layout } from '../geometry.ts';
import { lengthOf } from '../pieces/index.ts';
import type { FreeMotion } from '../motions.ts';
import { directionAt, isSized, relationKind, type Relation, type RelationName } from '../relations/index.ts';

/** Relations that may be proposed where they nearly hold already, those that say most first. */
const LIKELY: readonly RelationName[] = [
  'coincident',
  'horizontal',
  'vertical',
  'tangent',
  'concentric',
  'midpoint',
  'perpendicular',
  'parallel',
  'equal',
];

/** A relation counts as nearly held within this share of the sketch's size: less than what two hands draw by chance. */
const NEAR = 3e-3;
/** Of a motion or a sketch with more entities only so many are looked at. */
const MOST_MOVING = 10;
const MOST_OTHERS = 60;

/** Writes a measure as an expression: mm or rad to the text that a person would have typed. */
export type WriteSize = (relation: Relation, measure: number) => string;

/**
 * What would stop a motion: relations that nearly hold, nearest first, then dimensions with their present measure. Each
 * of them raises the rank, since its residual changes along the motion; whether a relation that only nearly holds can hold
 * with all others is for a solve to say.
 */
export function curesOf(
  geometry: Geometry,
  relations: readonly Relation[],
  motion: FreeMotion,
  write: WriteSize,
): Relation[] {
  const test = new MotionTest(geometry, motion);
  const size = sizeOf(geometry);
  const known = new Set(relations.map(signature));
  const near = nearlyHeld(geometry, motion)
    .filter((relation) => !known.has(signature(relation)) && test.stops(relation))
    .map((relation) => ({ relation, gap: test.gap(relation) / size + LIKELY.indexOf(relation.kind) * NEAR * 1e-2 }))
    .filter(({ gap }) => gap <= NEAR)
    .toSorted((a, b) => a.gap - b.gap);
  const sizes = dimensionsFor(geometry, motion)
    .filter((relation) => !known.has(signature(relation)) && test.stops(relation))
    .map((relation) => sized(relation, geometry, write));
  return [...near.map(({ relation }) => relation), ...sizes];
}

/** Shorter, mm, nothing is offered as a size. */
const LEAST = 1e-3;
/** What is left of a curve that has collapsed, at most: a share of its length. */
const COLLAPSED = 0.05;

/** Did a curve all but vanish between two states of a sketch? Nothing that does that is offered. */
export const hasCollapsed = (before: Geometry, after: Geometry): boolean =>
  Object.keys(before.entities).some((id) => {
    const was = extentOf(before, id);
    return was > LEAST && extentOf(after, id) < COLLAPSED * was;
  });
const extentOf = (geometry: Geometry, id: Id): number =>
  geometry.pieces(id).reduce((sum, piece) => sum + lengthOf(piece), 0);

/** The relation with its present measure as the number. */
function sized(relation: Relation, geometry: Geometry, write: WriteSize): Relation {
  if (!isSized(relation)) return relation;
  const measure = relationKind(relation.kind).dimension!.measure(relation, geometry);
  return { ...relation, value: write(relation, measure) };
}

const signature = (relation: Relation): string =>
  `${relation.kind} ${[...relationKind(relation.kind).refs(relation)].sort().join(' ')} ${'direction' in relation ? relation.direction : ''}`;

const sizeOf = (geometry: Geometry): number => {
  const box = geometry.box();
  return box ? Math.max(distance2(box.low, box.high), 1e-3) : 1;
};

/** A candidate that changes by less than this share of a motion, mm per mm, leaves it as it is. */
const UNCHANGED = 1e-4;

/** Asks a candidate whether it changes along the motion, to first order. */
class MotionTest {
  private readonly layout: Layout;
  private readonly velocity: Float64Array;

  constructor(
    private readonly geometry: Geometry,
    motion: FreeMotion,
  ) {
    this.layout = new Layout(geometry.entities);
    this.velocity = new Float64Array(this.layout.initial.length);
    for (const [id, change] of Object.entries(motion.places))
      this.layout.unknownsOf(id).forEach((at, k) => (this.velocity[at] = change[k]!));
  }

  stops(relation: Relation): boolean {
    const { blocks = [], substitutions = [] } = this.equations(relation);
    const moves = (at: number) => (at === GROUND ? 0 : this.velocity[at]!);
    if (substitutions.some(({ a, b }) => Math.abs(moves(a) - moves(b)) > UNCHANGED)) return true;
    return blocks.some((block) => {
      const { j, r } = evaluated(block, this.layout);
      return Array.from(r).some((_, row) => {
        const rate = block.unknowns.reduce((sum, at, k) => sum + j[row * block.unknowns.length + k]! * moves(at), 0);
        return Math.abs(rate) > UNCHANGED;
      });
    });
  }

  /** How far the relation is from holding, mm. */
  gap(relation: Relation): number {
    const { blocks = [], substitutions = [] } = this.equations(relation);
    const place = (at: number) => (at === GROUND ? 0 : this.layout.initial[at]!);
    return Math.max(
      0,
      ...substitutions.map(({ a, b, offset }) => Math.abs(place(a) - place(b) - offset)),
      ...blocks.flatMap((block) => Array.from(evaluated(block, this.layout).r, Math.abs)),
    );
  }

  private equations(relation: Relation) {
    const kind = relationKind(relation.kind);
    const value = kind.dimension?.measure(relation, this.geometry) ?? 0;
    return kind.equations(relation, { id: 'asked', layout: this.layout, start: this.geometry, value });
  }
}

function evaluated(block: Block, { initial }: Layout) {
  const r = new Float64Array(block.residuals);
  const j = new Float64Array(block.residuals * block.unknowns.length);
  block.evaluate(
    Float64Array.from(block.unknowns, (at) => initial[at]!),
    r,
    j,
  );
  return { r, j };
}

/** All relations that the entities of a motion could have with each other and with the rest. */
function nearlyHeld(geometry: Geometry, motion: FreeMotion): Relation[] {
  const moving = movingIds(geometry, motion);
  const others = [ORIGIN, X_AXIS, Y_AXIS, ...Object.keys(geometry.entities)].slice(0, MOST_OTHERS);
  const found: Relation[] = [];
  const offer = (picks: readonly Id[]) => {
    for (const kind of LIKELY) {
      const relation = relationKind(kind).fit(picks, geometry);
      if (relation) found.push(relation);
    }
  };
  for (const id of moving) {
    offer([id]);
    for (const other of others) if (other !== id && !joined(geometry, id, other)) offer([id, other]);
  }
  return found;
}

/** Does one stand on the other? Then a coincidence says nothing, or would make the curve vanish. */
function joined(geometry: Geometry, id: Id, other: Id): boolean {
  const uses = (of: Id): readonly Id[] => {
    const entity = geometry.entities[of];
    return entity ? entityKind(entity.kind).uses(entity) : [];
  };
  if (uses(id).includes(other) || uses(other).includes(id)) return true;
  // two points of one curve
  return Object.keys(geometry.entities).some((curve) => uses(curve).includes(id) && uses(curve).includes(other));
}

/** Points and curves that a motion moves, curves first. */
function movingIds(geometry: Geometry, motion: FreeMotion): Id[] {
  const curves = motion.entities.filter((id) => geometry.roleOf(id) !== 'point');
  const points = Object.keys(motion.places).filter((id) => geometry.roleOf(id) === 'point');
  return [...curves.slice(0, MOST_MOVING), ...points.slice(0, MOST_MOVING)];
}

/** Dimensions that fit what a motion looks like, the most natural first. */
function dimensionsFor(geometry: Geometry, motion: FreeMotion): Relation[] {
  const found: (Relation | undefined)[] = [];
  const curves = motion.entities.filter((id) => geometry.roleOf(id) !== 'point').slice(0, MOST_MOVING);
  const points = Object.keys(motion.places).filter((id) => geometry.roleOf(id) === 'point');
  const rims = Object.keys(motion.places).filter((id) => geometry.roleOf(id) === 'circle');
  for (const id of Object.keys(motion.places).filter((own) => geometry.roleOf(own) === 'ellipse'))
    found.push(relationKind('radius-across').fit([id], geometry));
  // full circles have a diameter, arcs a radius
  for (const id of rims) {
    const round = geometry.entities[id]!.kind === 'circle' ? 'diameter' : 'radius';
    found.push(relationKind(round).fit([id], geometry));
  }
  const lines = curves.filter((id) => geometry.roleOf(id) === 'line');
  const angles = lines.map((id) => relationKind('angle').fit([X_AXIS, id], geometry));
  if (motion.look !== 'slide')
    lines.forEach((id, k) => found.push(between(geometry, geometry.ends(id) as [Id, Id]), angles[k]));
  // from what stands still, else from the origin
  const still = Object.keys(geometry.entities).filter(
    (id) => geometry.roleOf(id) === 'point' && !Object.hasOwn(motion.places, id),
  );
  for (const point of points.slice(0, MOST_MOVING)) {
    const near = nearestOf(geometry, point, still);
    // of half a profile what is square to its axis is a diameter
    found.push(relationKind('across').fit([point], geometry));
    for (const from of near === undefined ? [ORIGIN] : [ORIGIN, near])
      for (const direction of ['horizontal', 'vertical'] as const)
        found.push(inDirection(geometry, from, point, direction));
  }
  if (motion.look === 'slide') found.push(...angles);
  return found.filter((relation) => relation !== undefined);
}

function nearestOf(geometry: Geometry, point: Id, candidates: readonly Id[]): Id | undefined {
  const far = (id: Id) => distance2(geometry.point(id), geometry.point(point));
  return candidates.length === 0 ? undefined : candidates.reduce((best, id) => (far(id) < far(best) ? id : best));
}

/** The size of a line: level and upright ones by their extent, so that the text reads well. */
function between(geometry: Geometry, [a, b]: readonly [Id, Id]): Relation | undefined {
  const [p, q] = [geometry.point(a), geometry.point(b)];
  if (distance2(p, q) < LEAST) return undefined;
  const middle: Vec2 = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  return { kind: 'distance', a, b, ...directionAt(geometry, a, b, middle), value: '1' };
}

function inDirection(
  geometry: Geometry,
  from: Id,
  point: Id,
  direction: 'horizontal' | 'vertical',
): Relation | undefined {
  const k = direction === 'horizontal' ? 0 : 1;
  const reach = geometry.point(point)[k] - geometry.point(from)[k];
  // a distance is never 0: there a coincidence or a level says it
  if (Math.abs(reach) < LEAST) return undefined;
  return { kind: 'distance', a: from, b: point, direction, sense: reach > 0 ? 1 : -1, value: '1' };
}
