import { offLine2, type Vec2 } from '../math/index.ts';
import { once, type Id } from '../records/index.ts';
import { entityKind, X_AXIS, Y_AXIS, type Entity } from './entities/index.ts';
import type { Geometry } from './geometry.ts';
import { findRegions } from './regions/index.ts';

// Half a profile is drawn beside the line about which it is turned or mirrored.

/** Nearer to a line than this (mm) a place lies on it. */
export const ON_LINE = 1e-6;

/** The axes of a sketch, with the coordinate that is 0 on each. */
const AXES = [
  [X_AXIS, 1],
  [Y_AXIS, 0],
] as const;

/**
 * The line of a sketch about which somebody most likely wants to turn what is drawn: the only construction line; else the
 * axis of the sketch on which an open outline ends; else the only line; else the only side that lies on an axis of the
 * sketch with all the rest of the outline on one side of it.
 */
export const likelyAxis = once((geometry: Geometry): Id | undefined => {
  const all = Object.entries(geometry.entities).filter(([, { kind }]) => kind === 'line');
  const construction = all.filter(([, line]) => isConstruction(line));
  if (construction.length === 1) return construction[0]![0];
  const ends = findRegions(geometry).openEnds;
  const open = AXES.filter(([, across]) => ends.length === 2 && ends.every(({ at }) => Math.abs(at[across]) < ON_LINE));
  if (open.length === 1) return open[0]![0];
  const lines = (construction.length > 0 ? construction : all).map(([id]) => id);
  if (lines.length === 1) return lines[0];
  const sides = lines.filter((id) => isSideOnAxis(geometry, id));
  return sides.length === 1 ? sides[0] : undefined;
});

/** The axis or construction line on which both ends of an open outline lie, with all of the outline on one side of it. */
export const halfAxis = once((geometry: Geometry): Id | undefined => {
  const ends = findRegions(geometry).openEnds;
  if (ends.length !== 2) return undefined;
  const construction = Object.keys(geometry.entities).filter((id) => isAxisLike(geometry, id));
  const axis = [X_AXIS, Y_AXIS, ...construction].find((id) => {
    const { a, b } = geometry.line(id);
    return ends.every(({ at }) => Math.abs(offLine2(at, a, b)) < ON_LINE);
  });
  if (axis === undefined) return undefined;
  const heights = heightsOver(geometry, axis);
  return areBeside(heights) && heights.some((height) => Math.abs(height) > ON_LINE) ? axis : undefined;
});

/** May diameters be measured across it: is it an axis of the sketch, a centre line or another construction line? */
export function isAxisLike(geometry: Geometry, id: Id): boolean {
  const entity = geometry.entities[id];
  return entity ? entity.kind === 'line' && isConstruction(entity) : id === X_AXIS || id === Y_AXIS;
}

/** Does a line lie on an axis of the sketch, and all that is drawn on one side of it? */
function isSideOnAxis(geometry: Geometry, id: Id): boolean {
  const { a, b } = geometry.line(id);
  return AXES.some(([, across]) => isOn(a, across) && isOn(b, across)) && areBeside(heightsOver(geometry, id));
}

const isOn = (at: Vec2, across: 0 | 1): boolean => Math.abs(at[across]) < ON_LINE;

/** How far the points of the outline lie left of a line, mm; what is construction only helps to draw it. */
function heightsOver(geometry: Geometry, line: Id): number[] {
  const { a, b } = geometry.line(line);
  const outline = Object.values(geometry.entities).filter(
    (entity) => entity.kind !== 'point' && !isConstruction(entity),
  );
  const points = outline.flatMap((entity) => entityKind(entity.kind).uses(entity));
  return points.filter((id) => geometry.roleOf(id) === 'point').map((id) => offLine2(geometry.point(id), a, b));
}

const areBeside = (heights: readonly number[]): boolean =>
  heights.every((height) => height > -ON_LINE) || heights.every((height) => height < ON_LINE);

const isConstruction = (entity: Entity): boolean => 'construction' in entity && entity.construction === true;
