import { cross2, dot2, inSpan, left2, length2, norm, orthonormal, scale2, sub2, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { entityKind, type Entities } from './entities/index.ts';
import type { FreeGroup } from '../solver/index.ts';
import { Geometry, type Layout } from './geometry.ts';

/** One freedom that is left, as a motion: which way the unknowns go, and what that looks like. */
export interface FreeMotion {
  /** All goes one way; along one line to both sides; one circle grows; all turns about a place; something else. */
  readonly look: 'slide' | 'spread' | 'grow' | 'turn' | 'change';
  /** Curves that move, or points where no curve does. */
  readonly entities: readonly Id[];
  /** The one point that moves, where it is an end of the curves and their other ends stay. */
  readonly end?: Id;
  /** Unit vector of a slide or a spread. */
  readonly direction?: Vec2;
  /** Change of the own unknowns of each entity, the largest being 1 mm. */
  readonly places: Readonly<Record<Id, readonly number[]>>;
}

/** Motions are told for their largest change being 1 mm: what changes by less stands still. */
export const STILL = 1e-6;
/** By so much two changes may differ and count as one, mm: motions are basis vectors, they carry the error of the rank. */
const ALIKE = 1e-4;
/** Two pivots that differ by less are as good: the first is taken, so that a mirror image gives the same motions. */
const AS_GOOD = 1e-9;

/**
 * The freedoms as motions that people see. Figures that can move as a whole do so first: along X, along Y, round, larger;
 * what is left is brought to echelon form with complete pivoting, so that each motion has an unknown that no other moves,
 * and moves few entities.
 */
export function freeMotions(layout: Layout, geometry: Geometry, groups: readonly FreeGroup[]): FreeMotion[] {
  const users = usersOf(layout);
  return groups.flatMap(({ unknowns, vectors }) => {
    const figure = figureOf(layout, unknowns);
    const whole = wholeMotions(figure, layout, geometry, vectors);
    return [...whole, ...echelon(remainder(vectors, whole))].map((vector) =>
      describe(figure, users, layout, geometry, vector),
    );
  });
}

/** The entities of a group, and where in its vectors each of their unknowns stands; -1 for those that are held. */
type Figure = readonly { readonly id: Id; readonly at: readonly number[] }[];

function figureOf(layout: Layout, unknowns: readonly number[]): Figure {
  const place = new Map(unknowns.map((unknown, k) => [unknown, k]));
  return [...new Set(unknowns.map((unknown) => layout.ownerOf(unknown)))]
    .filter((id) => Object.hasOwn(layout.entities, id))
    .map((id) => ({ id, at: layout.unknownsOf(id).map((unknown) => place.get(unknown) ?? -1) }));
}

/** Figures with more freedoms than this share of their unknowns are rough: their parts are told one by one. */
const ROUGH = 0.4;

/** Of slide along X, slide along Y, turn and growth those that the group can do as a whole. */
function wholeMotions(
  figure: Figure,
  layout: Layout,
  geometry: Geometry,
  vectors: readonly Float64Array[],
): Float64Array[] {
  const size = vectors[0]?.length ?? 0;
  if (vectors.length < 2 || vectors.length > ROUGH * size) return [];
  const places = figure.filter(({ id }) => layout.roleOf(id) === 'point').map(({ id }) => geometry.point(id));
  const [cx, cy] = [0, 1].map((k) => places.reduce((sum, place) => sum + place[k]!, 0) / places.length);
  const field = (at: (place: Vec2) => Vec2, growth: number): Float64Array => {
    const vector = new Float64Array(size);
    for (const { id, at: own } of figure) {
      const entity = geometry.entities[id]!;
      const change =
        entity.kind === 'point'
          ? at([entity.x, entity.y])
          : entityKind(entity.kind)
              .unknowns(entity)
              .map((length) => growth * length);
      own.forEach((k, c) => k >= 0 && (vector[k] = change[c]!));
    }
    return vector;
  };
  const candidates = [
    field(() => [1, 0], 0),
    field(() => [0, 1], 0),
    field(([x, y]) => [-(y - cy!), x - cx!], 0),
    field(([x, y]) => [x - cx!, y - cy!], 1),
  ];
  const span = orthonormal(vectors);
  return candidates.filter((vector) => norm(vector) > 0 && inSpan(span, vector)).map(normalised);
}

/** What the group can do besides: its span without what was taken. */
function remainder(group: readonly Float64Array[], taken: readonly Float64Array[]): Float64Array[] {
  if (taken.length === 0) return group.map((vector) => Float64Array.from(vector));
  return orthonormal([...taken, ...group]).slice(taken.length);
}

/** The largest change is 1 mm. */
const normalised = (vector: Float64Array): Float64Array => {
  const largest = vector.reduce((most, entry) => (Math.abs(entry) > Math.abs(most) ? entry : most), 0);
  return vector.map((entry) => entry / (largest || 1));
};

function echelon(rows: Float64Array[]): Float64Array[] {
  const columns = rows[0]?.length ?? 0;
  for (let k = 0; k < rows.length; k++) {
    let [bestRow, bestColumn, size] = [k, 0, 0];
    for (let r = k; r < rows.length; r++) {
      const row = rows[r]!;
      for (let c = 0; c < columns; c++)
        if (Math.abs(row[c]!) > size + AS_GOOD) [bestRow, bestColumn, size] = [r, c, Math.abs(row[c]!)];
    }
    [rows[k], rows[bestRow]] = [rows[bestRow]!, rows[k]!];
    const pivot = rows[k]!;
    for (let r = 0; r < rows.length; r++) {
      const factor = r === k ? 0 : rows[r]![bestColumn]! / pivot[bestColumn]!;
      if (factor !== 0) for (let c = 0; c < columns; c++) rows[r]![c]! -= factor * pivot[c]!;
    }
  }
  return rows.map(normalised);
}

function describe(figure: Figure, users: Users, layout: Layout, geometry: Geometry, vector: Float64Array): FreeMotion {
  const places: Record<Id, number[]> = {};
  for (const { id, at } of figure) {
    const own = at.map((k) => (k < 0 ? 0 : vector[k]!));
    if (own.some((entry) => Math.abs(entry) > STILL)) places[id] = own;
  }
  const entities = movedEntities(users, places);
  const [only, ...others] = Object.keys(places);
  const isEnd = others.length === 0 && entities.every((id) => geometry.ends(id).includes(only!));
  const whose = { entities, places, ...(isEnd ? { end: only! } : {}) };
  const points = Object.keys(places).filter((id) => layout.roleOf(id) === 'point');
  const moves = points.map((id): Vec2 => [places[id]![0]!, places[id]![1]!]);
  const rims = Object.keys(places).length - points.length;
  const [first] = moves;
  if (points.length === 0 && rims === 1) return { look: 'grow', ...whose };
  if (first && rims === 0 && moves.every((move) => Math.abs(cross2(move, first)) < ALIKE * length2(first))) {
    const together = moves.every((move) => length2(sub2(move, first)) < ALIKE);
    return { look: together ? 'slide' : 'spread', direction: scale2(first, 1 / length2(first)), ...whose };
  }
  const at = points.map((id) => geometry.point(id));
  if (rims === 0 && turns(at, moves)) return { look: 'turn', ...whose };
  if (grows(at, moves)) return { look: 'grow', ...whose };
  return { look: 'change', ...whose };
}

/** Curves with a moving part; where there are none, the moving points. */
function movedEntities(users: Users, places: Readonly<Record<Id, unknown>>): Id[] {
  const curves = new Map(
    Object.keys(places).flatMap((id) => (users.get(id) ?? []).map((user) => [user.id, user.order])),
  );
  if (curves.size === 0) return Object.keys(places);
  return [...curves].sort((a, b) => a[1] - b[1]).map(([id]) => id);
}

/** For each entity the curves that move when it moves, itself or those that stand on the point, in the drawn order. */
type Users = ReadonlyMap<Id, readonly { readonly id: Id; readonly order: number }[]>;

function usersOf({ entities }: Layout): Users {
  const users = new Map<Id, { id: Id; order: number }[]>();
  Object.entries(entities).forEach(([id, entity], order) => {
    if (entity.kind === 'point') return;
    for (const used of [id, ...entityKind(entity.kind).uses(entity)]) {
      const list = users.get(used);
      if (list) list.push({ id, order });
      else users.set(used, [{ id, order }]);
    }
  });
  return users;
}

/** Is it a turn about one place: velocities square on the joins, and growing with them? */
function turns(places: readonly Vec2[], moves: readonly Vec2[]): boolean {
  // v = w x (p - c): differences of velocities are differences of places turned left, times w
  const [p, q] = [places[0], places.find((place) => places[0] && length2(sub2(place, places[0])) > STILL)];
  if (!p || !q) return false;
  const join = left2(sub2(q, p));
  const change = sub2(moves[places.indexOf(q)]!, moves[0]!);
  const w = dot2(change, join) / dot2(join, join);
  if (Math.abs(w) < AS_GOOD || Math.abs(cross2(change, join)) > ALIKE * length2(join)) return false;
  return places.every((place, k) => {
    const expected = scale2(left2(sub2(place, p)), w);
    return length2(sub2(sub2(moves[k]!, moves[0]!), expected)) < ALIKE;
  });
}

/** Is it a growth about one place: velocities along the joins, and growing with them? */
function grows(places: readonly Vec2[], moves: readonly Vec2[]): boolean {
  const turned = moves.map((move): Vec2 => [-move[1], move[0]]);
  return turns(places, turned);
}

/** The entities at a moment of playing a motion: moved by `amount` mm along it, to first order. */
export function played(entities: Entities, motion: FreeMotion, amount: number): Entities {
  return Object.fromEntries(
    Object.entries(entities).map(([id, entity]) => {
      const change = motion.places[id];
      if (!change) return [id, entity];
      const kind = entityKind(entity.kind);
      return [
        id,
        kind.moved(
          entity,
          kind.unknowns(entity).map((value, k) => value + amount * change[k]!),
        ),
      ];
    }),
  );
}
