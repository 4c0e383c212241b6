import type { Frame, Vec3 } from '../math/index.ts';
import { alongSurface, axisOfCurve, lookOfCurve, lookOfSurface } from '../geometry/index.ts';
import type { EdgeFacts, FaceFacts, Topology, VertexFacts } from '../kernel-port/index.ts';
import type { Fingerprint } from './reference.ts';

// What things look like, kept beside their names.

const rounded = (value: number): number => Number(value.toPrecision(10));
const roundedPlace = (place: Vec3): [number, number, number] => [
  rounded(place[0]),
  rounded(place[1]),
  rounded(place[2]),
];
const lying = (along: Vec3 | undefined) => (along ? { along: roundedPlace(along) } : {});

/** What a face looks like: its form, its area, mm^2, and its centre. */
export const fingerprintOfFace = ({ surface, area, centre }: FaceFacts): Fingerprint => ({
  form: lookOfSurface(surface),
  size: rounded(area),
  at: roundedPlace(centre),
  ...lying(alongSurface(surface)),
});

/** What an edge looks like: its form, its length, mm, its middle, and its direction if it is straight. */
export const fingerprintOfEdge = ({ curve, length, middle }: EdgeFacts): Fingerprint => ({
  form: lookOfCurve(curve),
  size: rounded(length),
  at: roundedPlace(middle),
  ...lying(axisOfCurve(curve)?.direction),
});

/** What a datum plane or frame looks like. */
export const fingerprintOfPlane = ({ origin, z }: Frame): Fingerprint => ({
  form: 'plane',
  size: 0,
  at: roundedPlace(origin),
  along: roundedPlace(z),
});

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
