import { transformPoint, transformFrame, transformDirection, type RigidTransform, type Vec3 } from '../math/index.ts';
import type { EdgeFacts, FaceFacts, SpaceCurve, Surface, Topology } from '../kernel-port/index.ts';
import type { Datum, Thing } from './things.ts';

// Things of other parts, as they lie in the space of this one.

/** In the place of a body, for things of another part: they are of none of the bodies before a step. */
export const ELSEWHERE = -1;

/** Is it of a body of this part, so that a step can change it? */
export const isOwn = (thing: Thing): boolean => 'body' in thing && thing.body !== ELSEWHERE;

/**
 * A thing of another part in the space of this one. It knows no body, and of the body's topology only what bounds it.
 * @param by a motion without mirroring
 */
export function transformThing(thing: Thing, by: RigidTransform): Thing {
  if (thing.to === 'datum') return { to: 'datum', datum: movedDatum(thing.datum, by) };
  if (thing.to === 'drawn') {
    const curves = thing.curves.map((edge) => transformEdge(edge, by));
    return { to: 'drawn', curves, ...(thing.at ? { at: transformPoint(by, thing.at) } : {}) };
  }
  if (thing.to === 'rule') return { to: 'rule', things: thing.things.map((one) => transformThing(one, by)) };
  const body = ELSEWHERE;
  if (thing.to === 'edge') return { to: 'edge', edge: transformEdge(thing.edge, by), body };
  if (thing.to === 'vertex')
    return { to: 'vertex', vertex: { ...thing.vertex, at: transformPoint(by, thing.vertex.at) }, body };
  if (thing.to === 'body') return { to: 'body', body, topology: transformTopology(thing.topology, by) };
  const { name, edges } = thing.topology;
  const face = movedFace(thing.face, by);
  const rims = edges.filter((edge) => edge.faces.includes(face.name)).map((edge) => transformEdge(edge, by));
  return { to: 'face', face, body, topology: { name, faces: [face], edges: rims, vertices: [] } };
}

/** A body in the space of another part. @param by a motion without mirroring */
export const transformTopology = ({ name, faces, edges, vertices }: Topology, by: RigidTransform): Topology => ({
  name,
  faces: faces.map((face) => movedFace(face, by)),
  edges: edges.map((edge) => transformEdge(edge, by)),
  vertices: vertices.map((vertex) => ({ ...vertex, at: transformPoint(by, vertex.at) })),
});

function movedDatum(datum: Datum, by: RigidTransform): Datum {
  if (datum.form === 'point') return { form: 'point', at: transformPoint(by, datum.at) };
  if (datum.form === 'curve') return { form: 'curve', edge: transformEdge(datum.edge, by) };
  if (datum.form === 'axis')
    return {
      form: 'axis',
      origin: transformPoint(by, datum.origin),
      direction: transformDirection(by, datum.direction),
    };
  return { form: datum.form, frame: transformFrame(datum.frame, by) };
}

const movedFace = (face: FaceFacts, by: RigidTransform): FaceFacts => ({
  ...face,
  surface: movedSurface(face.surface, by),
  centre: transformPoint(by, face.centre),
});

/** An edge elsewhere, under its own name. */
export const transformEdge = (edge: EdgeFacts, by: RigidTransform): EdgeFacts => ({
  ...edge,
  curve: transformCurve(edge.curve, by),
  middle: transformPoint(by, edge.middle),
});

function movedSurface(surface: Surface, by: RigidTransform): Surface {
  if (surface.form === 'free') return surface;
  if (surface.form === 'sphere') return { ...surface, centre: transformPoint(by, surface.centre) };
  const origin = transformPoint(by, surface.origin);
  return surface.form === 'plane'
    ? { ...surface, origin, normal: transformDirection(by, surface.normal) }
    : { ...surface, origin, axis: transformDirection(by, surface.axis) };
}

/** A curve elsewhere. */
export function transformCurve(curve: SpaceCurve, by: RigidTransform): SpaceCurve {
  const at = (place: Vec3) => transformPoint(by, place);
  const along = (direction: Vec3) => transformDirection(by, direction);
  if (curve.form === 'line') return { form: 'line', from: at(curve.from), to: at(curve.to) };
  if (curve.form === 'helix') return { ...curve, origin: at(curve.origin), axis: along(curve.axis), x: along(curve.x) };
  if (curve.form === 'free')
    return { form: 'free', spans: curve.spans.map(([a, b, c, d]) => [at(a), at(b), at(c), at(d)] as const) };
  const ends = curve.from && curve.to ? { from: at(curve.from), to: at(curve.to) } : {};
  const centre = at(curve.centre);
  return curve.form === 'circle'
    ? { ...curve, centre, axis: along(curve.axis), ...ends }
    : { ...curve, centre, major: along(curve.major), minor: along(curve.minor), ...ends };
}
