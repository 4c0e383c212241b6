import {
  axisOfSurface,
  cross3,
  distance2,
  dot3,
  drawnSources,
  fingerprintOfFace,
  heightOver,
  placesAlong,
  solved,
  stepOfFace,
  sub3,
  valueScope,
  type DrawnShape,
  type Frame,
  type Geometry,
  type Id,
  type Project,
  type Reference,
  type SketchSources,
  type SketchStep,
  type Topology,
  type Vec3,
  X_AXIS,
  Y_AXIS,
} from '@helb/core';

// What a new step can see of the sketch that it is of, and of the bodies beside that.

/** What is nearer lies in one place; a body so near to the plane of a sketch lies on one side of it, mm. */
const NEAR = 1e-6;

/** A sketch as it is solved now. @param sources as the engine has told them; where it was drawn if it has not yet */
export function shapeOfSketch(
  step: SketchStep,
  { values, unit }: Project,
  sources: SketchSources = drawnSources(step),
): DrawnShape {
  const { solution, regions } = solved(step, valueScope(Object.values(values), unit), sources);
  const { geometry } = solution;
  const lines = Object.values(geometry.entities).filter((entity) => entity.kind === 'line' && entity.centreline);
  return { geometry, centrelines: lines.length, isPath: regions.regions.length === 0 && isOpenWide(geometry) };
}

/** Ends nearer to each other than this share of the drawing are taken for a gap. */
const GAP = 0.02;
/** Do outlines end somewhere, and no end near another one? */
function isOpenWide(geometry: Geometry): boolean {
  const curves = Object.entries(geometry.entities).filter(
    ([, entity]) => entity.kind !== 'point' && entity.kind !== 'text' && !entity.construction,
  );
  const ends = curves.flatMap(([id]) => geometry.ends(id)).map((end) => geometry.point(end));
  const loose = ends.filter((end, k) => ends.every((other, n) => n === k || distance2(end, other) > NEAR));
  const box = geometry.box();
  if (!box || loose.length === 0) return false;
  const least = GAP * distance2(box.low, box.high);
  return loose.every((a, k) => loose.slice(k + 1).every((b) => distance2(a, b) > least));
}

/**
 * What the bodies are turned about, where that is one line in the plane of a sketch: an axis of the sketch where it lies
 * there, else by a face about it; undefined where there is none, or several.
 */
export function axisBeside(sketch: Id, frame: Frame, bodies: readonly Topology[]): Reference | undefined {
  const axes = bodies.flatMap(({ faces }) =>
    faces.flatMap((face) => {
      const axis = axisOfSurface(face.surface);
      const isInPlane = axis && isOn(axis.origin, frame.origin, frame.z) && isAcross(axis.direction, frame.z);
      return isInPlane ? [{ ...axis, face }] : [];
    }),
  );
  const [first, ...rest] = axes;
  const isSame = (at: Vec3, along: Vec3) => isAlong(along, first!.direction) && isAlong(sub3(at, first!.origin), along);
  if (!first || !rest.every(({ origin, direction }) => isSame(origin, direction))) return undefined;
  for (const [entity, along] of [
    [X_AXIS, frame.x],
    [Y_AXIS, frame.y],
  ] as const)
    if (isSame(frame.origin, along)) return { to: 'drawn', step: sketch, entity };
  return { to: 'face', name: first.face.name, print: fingerprintOfFace(first.face) };
}

const isOn = (place: Vec3, origin: Vec3, normal: Vec3): boolean => Math.abs(dot3(sub3(place, origin), normal)) < NEAR;
const isAcross = (along: Vec3, normal: Vec3): boolean => Math.abs(dot3(along, normal)) < NEAR;
/** Does a vector point along a direction, either way, or nowhere? */
const isAlong = (vector: Vec3, direction: Vec3): boolean => Math.hypot(...cross3(vector, direction)) < NEAR;

/**
 * On which side of a sketch bodies lie; undefined where there are none. A face that is drawn on has its own behind it.
 * @param without a step whose own edges say nothing: what is being made is shown already
 */
export function materialBeside(
  { plane }: SketchStep,
  frame: Frame | undefined,
  bodies: readonly Topology[],
  without: Id,
): Side | undefined {
  if (typeof plane !== 'string' && plane.to === 'face') return 'backwards';
  if (!frame) return undefined;
  const heights = bodies
    .flatMap(({ edges }) => edges.filter(({ faces }) => !faces.some((face) => stepOfFace(face) === without)))
    .flatMap(({ curve }) => placesAlong(curve))
    .map((place) => heightOver(frame, place));
  if (heights.length === 0) return undefined;
  if (Math.max(...heights) < NEAR) return 'backwards';
  return Math.min(...heights) > -NEAR ? 'forwards' : 'both';
}
export type Side = 'forwards' | 'backwards' | 'both';
