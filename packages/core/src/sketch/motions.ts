import { cross2, dot2, length2, left2, scale2, sub2, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { entityKind, type Entities } from './entities/index.ts';
import { Geometry, type Layout } from './geometry.ts';

/** One freedom that is left, as a motion: which way the unknowns go, and what that looks like. */
export interface Motion {
  /** All goes one way; along one line to both sides; one circle grows; all turns about a place; something else. */
  readonly look: 'slide' | 'spread' | 'grow' | 'turn' | 'change';
  /** Curves that move, or points where no curve does. */
  readonly entities: readonly Id[];
  /** Unit vector of a slide or a spread. */
  readonly direction?: Vec2;
  /** Change of the own unknowns of each entity, the largest being 1 mm. */
  readonly places: Readonly<Record<Id, readonly number[]>>;
}

const STILL = 1e-6;

/**
 * The freedoms as motions of as few entities as possible: the basis is brought to echelon form with complete pivoting,
 * so that each motion has an unknown that no other motion moves.
 */
export function motionsOf(layout: Layout, geometry: Geometry, basis: readonly Float64Array[]): Motion[] {
  return echelon(basis.map((vector) => Float64Array.from(vector))).map((vector) => describe(layout, geometry, vector));
}

function echelon(rows: Float64Array[]): Float64Array[] {
  const columns = rows[0]?.length ?? 0;
  for (let k = 0; k < rows.length; k++) {
    let [bestRow, bestColumn, size] = [k, 0, 0];
    for (let r = k; r < rows.length; r++) {
      const row = rows[r]!;
      for (let c = 0; c < columns; c++)
        if (Math.abs(row[c]!) > size + 1e-9) [bestRow, bestColumn, size] = [r, c, Math.abs(row[c]!)];
    }
    [rows[k], rows[bestRow]] = [rows[bestRow]!, rows[k]!];
    const pivot = rows[k]!;
    for (let r = 0; r < rows.length; r++) {
      const factor = r === k ? 0 : rows[r]![bestColumn]! / pivot[bestColumn]!;
      if (factor !== 0) for (let c = 0; c < columns; c++) rows[r]![c]! -= factor * pivot[c]!;
    }
  }
  return rows.map((row) => {
    const largest = row.reduce((most, entry) => (Math.abs(entry) > Math.abs(most) ? entry : most), 0);
    return row.map((entry) => entry / (largest || 1));
  });
}

function describe(layout: Layout, geometry: Geometry, vector: Float64Array): Motion {
  const places: Record<Id, number[]> = {};
  for (const id of Object.keys(layout.entities)) {
    const own = layout.unknownsOf(id).map((at) => vector[at]!);
    if (own.some((entry) => Math.abs(entry) > STILL)) places[id] = own;
  }
  const entities = movedEntities(layout.entities, places);
  const points = Object.keys(places).filter((id) => layout.roleOf(id) === 'point');
  const moves = points.map((id): Vec2 => [places[id]![0]!, places[id]![1]!]);
  const rims = Object.keys(places).length - points.length;
  const [first] = moves;
  if (points.length === 0 && rims === 1) return { look: 'grow', entities, places };
  if (first && rims === 0 && moves.every((move) => Math.abs(cross2(move, first)) < 1e-4 * length2(first))) {
    const together = moves.every((move) => length2(sub2(move, first)) < 1e-4);
    return { look: together ? 'slide' : 'spread', entities, direction: scale2(first, 1 / length2(first)), places };
  }
  if (
    rims === 0 &&
    turns(
      points.map((id) => geometry.point(id)),
      moves,
    )
  )
    return { look: 'turn', entities, places };
  return { look: 'change', entities, places };
}

/** Curves with a moving part; where there are none, the moving points. */
function movedEntities(entities: Entities, places: Readonly<Record<Id, unknown>>): Id[] {
  const moving = (id: Id) => Object.hasOwn(places, id);
  const curves = Object.entries(entities).flatMap(([id, entity]) =>
    entity.kind !== 'point' && (moving(id) || entityKind(entity.kind).uses(entity).some(moving)) ? [id] : [],
  );
  return curves.length > 0 ? curves : Object.keys(places);
}

/** Is it a turn about one place: velocities square on the joins, and growing with them? */
function turns(places: readonly Vec2[], moves: readonly Vec2[]): boolean {
  // v = w x (p - c): differences of velocities are differences of places turned left, times w
  const [p, q] = [places[0], places.find((place) => places[0] && length2(sub2(place, places[0])) > 1e-6)];
  if (!p || !q) return false;
  const join = left2(sub2(q, p));
  const change = sub2(moves[places.indexOf(q)]!, moves[0]!);
  const w = dot2(change, join) / dot2(join, join);
  if (Math.abs(w) < 1e-9 || Math.abs(cross2(change, join)) > 1e-4 * length2(join)) return false;
  return places.every((place, k) => {
    const expected = scale2(left2(sub2(place, p)), w);
    return length2(sub2(sub2(moves[k]!, moves[0]!), expected)) < 1e-4;
  });
}

/** The entities at a moment of playing a motion: moved by `amount` mm along it, to first order. */
export function played(entities: Entities, motion: Motion, amount: number): Entities {
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
