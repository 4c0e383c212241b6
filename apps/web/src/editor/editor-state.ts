import {
  entityKind,
  formatQuantity,
  relationKind,
  relationsBetween,
  RELATION_NAMES,
  type Entities,
  type FreeMotion,
  type Geometry,
  type Id,
  type LengthUnit,
  type RelationName,
  type SizedRelation,
  type SketchStep,
  type SolvedSketch,
  type Vec2,
} from '@helb/core';
import type { Asking } from './asking.ts';
import type { DrawnSize } from './drawn-sizes.ts';
import type { LentWords } from './lending.ts';
import type { SizeEntry } from './size-typing.ts';
import type { Tool } from './tool.ts';

/** The tool in hand, as it shows itself. */
type ToolLook = Pick<Tool, 'name' | 'hint' | 'preview' | 'offered' | 'pointed'> & {
  readonly sizes: readonly DrawnSize[];
  readonly isBusy: boolean;
};

/** One moment of a sketch that is edited: all that is shown of it. */
export interface EditorState {
  readonly step: Id;
  readonly sketch: SketchStep;
  readonly relations: SketchStep['relations'];
  readonly solved: SolvedSketch;
  /** Entities that follow something outside. */
  readonly borrowed: Entities;
  /** What of the model would be borrowed now, in words. */
  readonly lends: readonly LentWords[];
  /** The shape that is shown: while something is dragged or played, that. */
  readonly geometry: Geometry;
  /** The repetitions of patterns with what they stand on. */
  readonly copiesGeometry: Geometry;
  readonly selection: ReadonlySet<Id>;
  readonly hovered: Id | undefined;
  readonly pointed: ReadonlySet<Id>;
  readonly proposed: SizedRelation | undefined;
  readonly asking: Asking | undefined;
  readonly entry: SizeEntry | undefined;
  /** Where the pointer is, mm. */
  readonly at: Vec2 | undefined;
  readonly lastGuesses: readonly Id[];
  readonly playing: FreeMotion | undefined;
  readonly tool: ToolLook;
  readonly unit: LengthUnit;
}

/** What a dimension measures in a shape, in the unit of its project. */
export function measureText(
  relation: SizedRelation,
  { geometry, unit }: Pick<EditorState, 'geometry' | 'unit'>,
): string {
  const { asks, measure } = relationKind(relation.kind).dimension!;
  return formatQuantity({ amount: measure(relation, geometry), dimension: asks }, unit, 2);
}

/** Kinds of relation that make sense for the selection: first those between all of it, then those that take it one by one. */
export function fittingRelations({ selection, relations, geometry }: EditorState): RelationName[] {
  const picks = [...selection].filter((id) => !relations[id]);
  if (picks.length === 0) return [];
  const counted = RELATION_NAMES.map((kind) => ({ kind, count: relationsBetween(kind, picks, geometry).length }));
  const fitting = counted.filter(({ count }) => count > 0);
  return fitting.toSorted((one, other) => Math.min(one.count, 2) - Math.min(other.count, 2)).map(({ kind }) => kind);
}

/** Unknowns of the entities that are not where they are drawn. */
export function movedPlaces(entities: Entities, drawn: Entities): Record<Id, number[]> {
  const places: Record<Id, number[]> = {};
  for (const [id, entity] of Object.entries(entities)) {
    const now = entityKind(entity.kind).unknowns(entity);
    const before = entityKind(drawn[id]!.kind).unknowns(drawn[id]!);
    if (now.some((value, k) => Math.abs(value - before[k]!) > 1e-9)) places[id] = [...now];
  }
  return places;
}
