import {
  cross3,
  dot3,
  evaluate,
  explain,
  footOnLine3,
  issue,
  NUMBER,
  placesOfFace,
  sub3,
  USUAL_LIMITS,
  valueScope,
  type FaceFacts,
  type Topology,
  type Vec3,
  stepOfFace,
} from '@helb/core';
import type { Check, CheckFinding } from './kind.ts';

/** Holes that leave too little beside them: to the rim of the part, or to the next hole. */
export const ofHoles: Check = {
  title: 'holes',
  look({ project, model }) {
    const scope = valueScope(Object.values(project.values), project.unit);
    const limit = evaluate(project.limits?.web ?? USUAL_LIMITS.web, NUMBER, scope);
    if (!limit.ok) return [{ code: limit.issue.code, blocks: 'shop', words: explain(limit.issue) }];
    return model.parts.flatMap(({ id, bodies }): CheckFinding[] => {
      const near = bodies.flatMap(({ topology }) => (topology ? tooNear(topology, limit.value) : []));
      if (near.length === 0) return [];
      const worst = near.reduce((a, b) => (b.web / b.diameter < a.web / a.diameter ? b : a));
      const wrong = issue('hole.near', {
        count: near.length,
        diameter: worst.diameter,
        web: worst.web,
        least: worst.diameter * limit.value,
      });
      const step = stepOfFace(worst.name);
      const isStep = project.parts[id]!.steps[step] !== undefined;
      return [
        {
          code: wrong.code,
          blocks: 'shop',
          words: explain(wrong, project.unit),
          part: id,
          ...(isStep ? { step } : {}),
        },
      ];
    });
  },
};

interface Near {
  readonly name: string;
  readonly diameter: number;
  /** What is left beside it, mm. */
  readonly web: number;
}

interface Bore {
  readonly face: FaceFacts;
  readonly origin: Vec3;
  readonly axis: Vec3;
  readonly radius: number;
  readonly places: readonly Vec3[];
}

/** The holes of a body beside which less is left than so much of their diameter. */
function tooNear(topology: Topology, share: number): Near[] {
  const all = bores(topology);
  return all.flatMap((bore): Near[] => {
    const beside = Math.min(
      ...topology.faces.map((face) => webTo(face, bore, topology)),
      ...all.map((other) => webBetween(bore, other)),
    );
    const near = { name: bore.face.name, diameter: 2 * bore.radius, web: beside };
    return beside < share * near.diameter - 1e-6 ? [near] : [];
  });
}

/** Round holes that go all round. */
function bores(topology: Topology): Bore[] {
  return topology.faces.flatMap((face): Bore[] => {
    const { surface, name } = face;
    if (surface.form !== 'cylinder' || !surface.hollow) return [];
    const isWhole = topology.edges.some(
      ({ faces, curve }) => faces.includes(name) && curve.form === 'circle' && !curve.from,
    );
    const { origin, axis, radius } = surface;
    return isWhole ? [{ face, origin, axis, radius, places: placesOfFace(topology, face) }] : [];
  });
}

/** How much is left to a flat face along a hole that it stands beside. */
function webTo({ name, surface }: FaceFacts, { face, origin, axis, radius, places }: Bore, topology: Topology): number {
  if (name === face.name || surface.form !== 'plane' || Math.abs(dot3(surface.normal, axis)) > 1e-6) return Infinity;
  const height = -dot3(sub3(origin, surface.origin), surface.normal);
  if (height <= 0) return Infinity;
  const rim = placesOfFace(topology, { name });
  const across = cross3(surface.normal, axis);
  // beside it, and at some height of it
  const isBeside = overlaps(rim, [origin], across, radius) && overlaps(rim, places, axis, 0);
  return isBeside ? height - radius : Infinity;
}

/** How much is left between two holes that run alike. */
function webBetween(a: Bore, b: Bore): number {
  if (a.face === b.face || Math.abs(dot3(a.axis, b.axis)) < 1 - 1e-9) return Infinity;
  const apart = Math.hypot(...sub3(footOnLine3(b.origin, a.origin, a.axis), b.origin));
  if (apart < 1e-6 || !overlaps(a.places, b.places, a.axis, 0)) return Infinity;
  return apart - a.radius - b.radius;
}

/** Do things overlap along a direction, with so much added at the ends of the second? */
function overlaps(a: readonly Vec3[], b: readonly Vec3[], along: Vec3, more: number): boolean {
  const ends = (places: readonly Vec3[]) => {
    const heights = places.map((place) => dot3(place, along));
    return [Math.min(...heights), Math.max(...heights)] as const;
  };
  const [[low, high], [from, to]] = [ends(a), ends(b)];
  return low < to + more - 1e-6 && from - more < high - 1e-6;
}
