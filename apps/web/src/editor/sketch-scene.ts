import {
  formatQuantity,
  type LengthUnit,
  filled,
  findRegions,
  Geometry,
  isBuiltIn,
  isSized,
  layoutDimensions,
  polyline,
  relationKind,
  type Annotation,
  type DimensionText,
  type Id,
  type Piece,
  type Regions,
  type SizedRelation,
  type Vec2,
} from '@helb/core';
import { isPlainNumber } from './typed-number.ts';
import type { PlaneMap } from './plane-map.ts';
import { measureText, type EditorState } from './editor-state.ts';

type EntityState = 'loose' | 'settled' | 'clashing' | 'borrowed';

interface Look {
  readonly id: Id;
  readonly state: EntityState;
  readonly selected: boolean;
  readonly hovered: boolean;
}

interface CurveLook extends Look {
  readonly path: string;
  readonly construction: boolean;
}

interface PointLook extends Look {
  readonly place: Vec2;
  /** Short arrows both ways along which it can slide, as a path; empty where it can go anywhere or nowhere. */
  readonly arrows: string;
}

export interface SizeLook {
  /** Undefined for a dimension that is not made yet. */
  readonly id: Id | undefined;
  readonly relation: SizedRelation;
  readonly annotation: Annotation;
  readonly text: string;
  readonly trouble: boolean;
  readonly selected: boolean;
}

interface TagLook {
  readonly id: Id;
  readonly mark: string;
  readonly x: number;
  readonly y: number;
  readonly state: EntityState;
  readonly selected: boolean;
}

/** Distance of a dimension line from the outline, px. */
const GAP = 30;
const TAG = {
  offset: 13,
  apart: 18,
  directions: [
    [1, -1],
    [-1, -1],
    [1, 1],
    [-1, 1],
  ] as const,
};

/** What fights, with what it holds. */
function clashingIds(state: EditorState): Set<Id> {
  const { clash } = state.solved.solution;
  const ids = new Set<Id>(clash);
  for (const id of clash) {
    const relation = state.relations[id];
    if (relation)
      relationKind(relation.kind)
        .refs(relation)
        .forEach((ref) => ids.add(ref));
  }
  return ids;
}

/** How all curves and points are to be drawn. */
export function entityLooks(state: EditorState, map: PlaneMap): { curves: CurveLook[]; points: PointLook[] } {
  const { geometry } = state;
  const clashing = clashingIds(state);
  const { loose, slides } = state.solved.solution;
  const held = state.borrowed;
  const curves: CurveLook[] = [];
  const points: PointLook[] = [];
  for (const [id, entity] of Object.entries(geometry.entities)) {
    const look: Look = {
      id,
      state: clashing.has(id) ? 'clashing' : held[id] ? 'borrowed' : loose.has(id) ? 'loose' : 'settled',
      selected: state.selection.has(id),
      hovered: state.hovered === id || state.pointed.has(id),
    };
    if (entity.kind === 'point') {
      const slide = slides.get(id);
      const arrows = slide ? slideArrows(map, [entity.x, entity.y], slide) : '';
      points.push({ ...look, place: map.at([entity.x, entity.y]), arrows });
      continue;
    }
    const construction = entity.construction === true;
    if (entity.kind === 'spline') {
      // the handles are tied to the ends that they belong to
      const tie = (end: Id, handle: Id) => map.path([geometry.point(end), geometry.point(handle)]);
      const path = tie(entity.points[0]!, entity.start) + tie(entity.points.at(-1)!, entity.end);
      curves.push({ ...look, id: `${id} handles`, construction: true, path });
    }
    curves.push({
      ...look,
      construction,
      path: geometry
        .pieces(id)
        .map((piece) => map.path(polyline(piece)))
        .join(''),
    });
  }
  const { copiesGeometry: repeated } = state;
  for (const [id, entity] of Object.entries(repeated.entities)) {
    if (entity.kind === 'point') continue;
    const [pattern, , original] = id.split('.') as [Id, string, Id];
    curves.push({
      id: pattern,
      state: loose.has(original) ? 'loose' : 'settled',
      selected: state.selection.has(pattern),
      hovered: state.hovered === pattern,
      construction: entity.construction === true,
      path: repeated
        .pieces(id)
        .map((piece) => map.path(polyline(piece)))
        .join(''),
    });
  }
  return { curves, points };
}

/** The areas of what is shown: those of the solved sketch, found anew only while something is dragged. */
function regionsOf(state: EditorState): Regions {
  const { solved, geometry } = state;
  return geometry === solved.solution.geometry ? solved.regions : findRegions(geometry);
}

/** One path with openings for each filled area. */
export function areaPaths(state: EditorState, map: PlaneMap): string[] {
  const loop = (pieces: readonly Piece[]) => map.closed(pieces.flatMap((piece) => polyline(piece).slice(0, -1)));
  return filled(regionsOf(state)).map((region) => [region.outer, ...region.holes].map(loop).join(''));
}

/** Width of a digit and height of the text, px. */
const TEXT = { digit: 8, margin: 6, height: 17 };

/**
 * All dimensions as drawn, shorter ones nearer to the outline, the proposed one last.
 * @param moving a dimension whose text is being dragged, and where it is now
 */
export function sizeLooks(state: EditorState, map: PlaneMap, moving?: { id: Id; at: Vec2 }): SizeLook[] {
  const { geometry } = state;
  const measure = (relation: SizedRelation) => relationKind(relation.kind).dimension!.measure(relation, geometry);
  const all: [Id | undefined, SizedRelation][] = Object.entries(state.relations).flatMap(([id, relation]) => {
    if (!isSized(relation)) return [];
    const placed = moving?.id === id ? { ...relation, at: [...moving.at] as [number, number] } : relation;
    return [[id, placed] as [Id, SizedRelation]];
  });
  all.sort((a, b) => measure(a[1]) - measure(b[1]));
  if (state.proposed) all.push([undefined, state.proposed]);
  const clashing = clashingIds(state);
  const texts = all.map(([id, relation]) => {
    const { prefix = '' } = relationKind(relation.kind).dimension!;
    if (relation.measuring) return `(${prefix}${measureText(relation, state)})`;
    if (id === undefined) return prefix + measureText(relation, state);
    return prefix + sizeText(relation, state.solved.sizes.get(id), state.unit);
  });
  const annotations = laidOut(
    state,
    all.map(([id, relation], k) => ({
      relation,
      amount: id === undefined ? undefined : state.solved.sizes.get(id),
      width: (texts[k]!.length * TEXT.digit + TEXT.margin) * map.pixel,
    })),
    map.pixel,
  );
  return all.map(([id, relation], k) => ({
    id,
    relation,
    annotation: annotations[k]!,
    text: texts[k]!,
    selected: id !== undefined && state.selection.has(id),
    trouble: id !== undefined && (clashing.has(id) || state.solved.unread.has(id)),
  }));
}

/**
 * A dimension as it was typed, and where that is a name or a sum, what it comes to: "edge distance = 8.25". A long sum only
 * begins: the list of sizes has all of it.
 */
function sizeText({ kind, value }: SizedRelation, amount: number | undefined, unit: LengthUnit): string {
  if (isPlainNumber(value) || amount === undefined) return value;
  const comesTo = formatQuantity({ amount, dimension: relationKind(kind).dimension!.asks }, unit, 2);
  // lengths stand on a drawing in the unit of the project, without saying so
  return `${begunSum(value)} = ${comesTo.replace(` ${unit}`, '')}`;
}

/** A sum as far as a drawing has room for it, up to where one of its names ends. */
function begunSum(value: string): string {
  if (value.length <= LONGEST) return value;
  const [cut, next] = [value.slice(0, LONGEST - 3), value[LONGEST - 3]!];
  const whole = /[\p{L}\p{N}_]/u.test(next) ? cut.replace(/[^-+*/(^]*$/, '') : cut;
  return `${(whole || cut).replace(/[-\s+*/(^]+$/, '')}…`;
}
/** Characters of a sum that a drawing has room for. */
const LONGEST = 16;

interface Laid {
  readonly items: readonly DimensionText[];
  readonly pixel: number;
  readonly annotations: readonly Annotation[];
}
const layouts = new WeakMap<Geometry, Laid>();

/** The layout of the dimensions, kept while shape, sizes and zoom stay: it is looked at on every move of the pointer. */
function laidOut(state: EditorState, items: readonly DimensionText[], pixel: number): readonly Annotation[] {
  const { geometry } = state;
  const last = layouts.get(geometry);
  const same =
    last?.pixel === pixel &&
    last.items.length === items.length &&
    last.items.every(({ relation, width }, k) => relation === items[k]!.relation && width === items[k]!.width);
  if (same) return last.annotations;
  // repetitions are in the way like everything else that is drawn
  const whole = new Geometry({ ...geometry.entities, ...state.solved.copies });
  const annotations = layoutDimensions(items, whole, { gap: GAP * pixel, height: TEXT.height * pixel });
  layouts.set(geometry, { items, pixel, annotations });
  return annotations;
}

/** Tags of relations, those of one place side by side; all of them, or those of what is hovered, selected or fights. */
export function tagLooks(state: EditorState, map: PlaneMap, all: boolean, texts: readonly PixelBox[] = []): TagLook[] {
  const clashing = clashingIds(state);
  const taken: Vec2[] = [];
  return Object.entries(state.relations).flatMap(([id, relation]) => {
    const kind = relationKind(relation.kind);
    const { mark } = kind;
    const selected = state.selection.has(id);
    const { hovered } = state;
    const touched = hovered !== undefined && !isBuiltIn(hovered) && kind.refs(relation).includes(hovered);
    if (!mark || !(all || selected || touched || clashing.has(id))) return [];
    return kind.anchors(relation, state.geometry).map((anchor): TagLook => {
      const [x, y] = freeTagPlace(map.at(anchor), taken, texts);
      taken.push([x, y]);
      return { id, mark, x, y, state: clashing.has(id) ? 'clashing' : 'settled', selected };
    });
  });
}

/** Beside the place in one of four directions, where no number stands; of tags in one place each goes on to the right. */
function freeTagPlace([px, py]: Vec2, taken: readonly Vec2[], texts: readonly PixelBox[]): Vec2 {
  const onText = ([x, y]: Vec2) =>
    texts.some(([left, top, right, bottom]) => x > left - 9 && x < right + 9 && y > top - 9 && y < bottom + 9);
  const places = TAG.directions.map(([dx, dy]): Vec2 => {
    let x = px + dx * TAG.offset;
    const y = py + dy * TAG.offset;
    while (taken.some((other) => Math.hypot(other[0] - x, other[1] - y) < TAG.apart - 1)) x += TAG.apart;
    return [x, y];
  });
  return places.find((place) => !onText(place)) ?? places[0]!;
}

/** Left, top, right, bottom. */
type PixelBox = readonly [number, number, number, number];

/** Where the numbers of dimensions stand, px. */
export const textBoxes = (sizes: readonly SizeLook[], map: PlaneMap): PixelBox[] =>
  sizes.map(({ text, annotation }) => {
    const [x, y] = map.at(annotation.text);
    const [long, high] = [(text.length * TEXT.digit + TEXT.margin) / 2, TEXT.height / 2];
    const [w, h] = annotation.upright ? [high, long] : [long, high];
    return [x - w, y - h, x + w, y + h];
  });

/** Two short arrows away from a place, px: from 7 to 20, heads of 5. */
function slideArrows(map: PlaneMap, place: Vec2, along: Vec2): string {
  const [x, y] = map.at(place);
  const [tx, ty] = map.at([place[0] + along[0], place[1] + along[1]]);
  const length = Math.hypot(tx - x, ty - y) || 1;
  return [1, -1]
    .map((way) => {
      const [ux, uy] = [(way * (tx - x)) / length, (way * (ty - y)) / length];
      const at = (out: number, side: number) => `${x + out * ux - side * uy} ${y + out * uy + side * ux}`;
      return `M${at(7, 0)}L${at(20, 0)}M${at(15, 3)}L${at(20, 0)}L${at(15, -3)}`;
    })
    .join('');
}

/** The head of an arrow as a path: 9 px long, with its tip on the measured place. */
export function arrowPath(map: PlaneMap, { tip, pointing }: Annotation['arrows'][number]): string {
  const [x, y] = map.at(tip);
  const [px, py] = map.at([tip[0] + pointing[0], tip[1] + pointing[1]]);
  const length = Math.hypot(px - x, py - y) || 1;
  const [ux, uy] = [(px - x) / length, (py - y) / length];
  const [bx, by] = [x - 9 * ux, y - 9 * uy];
  return `M${x} ${y}L${bx - 2.6 * uy} ${by + 2.6 * ux}L${bx + 2.6 * uy} ${by - 2.6 * ux}Z`;
}
