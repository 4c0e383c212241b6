import { direction3, sub3, type Vec3 } from '../math/index.ts';
import type { EdgeFacts, FaceFacts, Topology, VertexFacts } from '../kernel-port/index.ts';
import type { Fingerprint } from './reference.ts';
import type { Thing } from './things.ts';

// What things look like, kept beside their names.

/** Undefined for what is drawn, for axes and curves, and for several together. */
export function fingerprintOf(thing: Thing): Fingerprint | undefined {
  if (thing.to === 'face') return fingerprintOfFace(thing.face);
  if (thing.to === 'edge') return fingerprintOfEdge(thing.edge);
  if (thing.to === 'vertex') return fingerprintOfVertex(thing.vertex);
  if (thing.to === 'body') return fingerprintOfBody(thing.topology);
  if (thing.to !== 'datum' || !('frame' in thing.datum)) return undefined;
  const { origin, z } = thing.datum.frame;
  return { form: 'plane', size: 0, at: roundedPlace(origin), along: roundedPlace(z) };
}

const rounded = (value: number): number => Number(value.toPrecision(10));
const roundedPlace = (place: Vec3): [number, number, number] => [
  rounded(place[0]),
  rounded(place[1]),
  rounded(place[2]),
];

/** What a face looks like: its form, its area, mm^2, and its centre. */
export function fingerprintOfFace({ surface, area, centre }: FaceFacts): Fingerprint {
  const form = surface.form === 'free' || surface.form === 'torus' ? 'surface' : surface.form;
  const along = surface.form === 'plane' ? surface.normal : 'axis' in surface ? surface.axis : undefined;
  return { form, size: rounded(area), at: roundedPlace(centre), ...(along ? { along: roundedPlace(along) } : {}) };
}

/** What an edge looks like: its form, its length, mm, its middle, and its direction if it is straight. */
export function fingerprintOfEdge({ curve, length, middle }: EdgeFacts): Fingerprint {
  const along =
    curve.form === 'line' ? direction3(sub3(curve.to, curve.from)) : curve.form === 'circle' ? curve.axis : undefined;
  return {
    form: curve.form === 'free' ? 'curve' : curve.form,
    size: rounded(length),
    at: roundedPlace(middle),
    ...(along ? { along: roundedPlace(along) } : {}),
  };
}

/** A body by all of its faces: their area and its middle. */
export function fingerprintOfBody({ faces }: Topology): Fingerprint {
  const area = faces.reduce((sum, face) => sum + face.area, 0);
  const at = [0, 1, 2].map((k) => faces.reduce((sum, face) => sum + (face.centre[k]! * face.area) / area, 0));
  return { form: 'surface', size: rounded(area), at: roundedPlace(at as unknown as Vec3) };
}

/** What a vertex looks like: where it is. */
export const fingerprintOfVertex = ({ at }: VertexFacts): Fingerprint => ({
  form: 'point',
  size: 0,
  at: roundedPlace(at),
});
