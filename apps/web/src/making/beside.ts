import {
  drawnSources,
  heightOver,
  placesAlong,
  solved,
  stepOfFace,
  valueScope,
  type DrawnShape,
  type Frame,
  type Id,
  type Project,
  type SketchSources,
  type SketchStep,
  type Topology,
} from '@helb/core';

// What a new step can see of the sketch that it is of, and of the bodies beside that.

/** A sketch as it is solved now. @param sources as the engine has told them; where it was drawn if it has not yet */
export function shapeOfSketch(
  step: SketchStep,
  { values, unit }: Project,
  sources: SketchSources = drawnSources(step),
): DrawnShape {
  const { geometry } = solved(step, valueScope(Object.values(values), unit), sources).solution;
  const lines = Object.values(geometry.entities).filter((entity) => entity.kind === 'line' && entity.centreline);
  return { geometry, centrelines: lines.length };
}

/** A body that touches the plane of a sketch lies on one side of it, mm. */
const NEAR = 1e-6;

/**
 * On which side of a sketch bodies lie; undefined where they lie on both, or there are none. A face that is drawn on has its
 * own behind it.
 * @param without a step whose own edges say nothing: what is being made is shown already
 */
export function materialBeside(
  { plane }: SketchStep,
  frame: Frame | undefined,
  bodies: readonly Topology[],
  without: Id,
): 'forwards' | 'backwards' | undefined {
  if (typeof plane !== 'string' && plane.to === 'face') return 'backwards';
  if (!frame) return undefined;
  const heights = bodies
    .flatMap(({ edges }) => edges.filter(({ faces }) => !faces.some((face) => stepOfFace(face) === without)))
    .flatMap(({ curve }) => placesAlong(curve))
    .map((place) => heightOver(frame, place));
  if (heights.length === 0) return undefined;
  if (Math.max(...heights) < NEAR) return 'backwards';
  return Math.min(...heights) > -NEAR ? 'forwards' : undefined;
}
