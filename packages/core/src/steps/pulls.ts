import { add3, direction3, dot3, scale3, sub3, type Frame, type Vec3 } from '../math/index.ts';
import {
  axisOf,
  curvesOf,
  middleOf,
  planeOf,
  rimsOf,
  tangentNear,
  type Reference,
  type Thing,
} from '../references/index.ts';
import type { Id } from '../records/index.ts';

/** A length of a step as it is seen in space: an arrow by which it is pulled. */
export interface Pull {
  /** The field that holds it. */
  readonly field: string;
  /** Where it counts from, mm. */
  readonly from: Vec3;
  /** The unit vector along which it grows. */
  readonly along: Vec3;
  /** Millimetres in space for one of the number; 1 where absent. */
  readonly scale?: number;
}

/** What is known in the view of what a step builds on. */
export interface SeenAround {
  /** Of a sketch its plane, and a place in the middle of these areas. */
  sketch(step: Id, areas: 'outline' | readonly string[]): { readonly frame: Frame; readonly middle: Vec3 } | undefined;
  /** What is referred to, where it is shown. */
  find(reference: Reference): Thing | undefined;
  /** What a number of the step comes to, mm or rad; 0 where it can not be read. */
  number(field: string): number;
  /** The middle of the bodies; undefined without any. */
  readonly middle: Vec3 | undefined;
}

type Picked = readonly Reference[];
const first = (picked: unknown, { find }: SeenAround): Thing | undefined => {
  const [reference] = picked as Picked;
  return reference && find(reference);
};

/** Out of the body at the middle of the first picked edge: for what is done to edges. */
export function pullOutOfEdge(field: string, picked: unknown, seen: SeenAround): Pull[] {
  const edge = first(picked, seen);
  const at = edge && middleOf(edge);
  if (!edge || !at || !seen.middle) return [];
  const out = sub3(at, seen.middle);
  const way = tangentNear(curvesOf(edge), at)?.along ?? [0, 0, 0];
  const along = direction3(sub3(out, scale3(way, dot3(out, way))));
  return along ? [{ field, from: at, along }] : [];
}

/** Square off the first picked flat face: for what is done to faces. @param sign -1 into the body */
export function pullOffFace(field: string, picked: unknown, seen: SeenAround, sign: 1 | -1): Pull[] {
  const face = first(picked, seen);
  const [plane, at] = [face && planeOf(face), face && middleOf(face)];
  return plane && at ? [{ field, from: at, along: scale3(plane.z, sign) }] : [];
}

/** From a rim of the first picked face towards its middle: for walls. @param sign -1 away from it */
export function pullOverFace(field: string, picked: unknown, seen: SeenAround, sign: 1 | -1): Pull[] {
  const face = first(picked, seen);
  if (face?.to !== 'face') return [];
  const [rim] = rimsOf(face).toSorted((a, b) => b.length - a.length);
  const along = rim && direction3(sub3(face.face.centre, rim.middle));
  return along ? [{ field, from: rim.middle, along: scale3(along, sign) }] : [];
}

/** Along the first picked axis, from the middle of the bodies. */
export function pullAlongAxis(field: string, picked: unknown, seen: SeenAround): Pull[] {
  const thing = first(picked, seen);
  const axis = thing && axisOf(thing);
  return axis ? [{ field, from: seen.middle ?? axis.origin, along: axis.direction }] : [];
}

/** Along the normal of a plane, from a place so far off it. */
export const pullOffPlane = (field: string, { z }: Frame, at: Vec3, start = 0): Pull => ({
  field,
  from: add3(at, scale3(z, start)),
  along: z,
});
