import {
  drawnSources,
  heightOver,
  solved,
  valueScope,
  type DrawnShape,
  type Frame,
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
 */
export function materialBeside(
  { plane }: SketchStep,
  frame: Frame | undefined,
  bodies: readonly Topology[],
): 'forwards' | 'backwards' | undefined {
  if (typeof plane !== 'string' && plane.to === 'face') return 'backwards';
  if (!frame) return undefined;
  const heights = bodies
    .flatMap(({ vertices, edges }) => [...vertices.map(({ at }) => at), ...edges.map(({ middle }) => middle)])
    .map((place) => heightOver(frame, place));
  if (heights.length === 0) return undefined;
  if (Math.max(...heights) < NEAR) return 'backwards';
  return Math.min(...heights) > -NEAR ? 'forwards' : undefined;
}
