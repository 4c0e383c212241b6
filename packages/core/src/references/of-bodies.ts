import type { Topology } from '../kernel-port/index.ts';
import type { BodyReference } from './reference.ts';
import type { Thing } from './things/index.ts';

// What a body consists of, by its lasting names: faces, edges, vertices, and the body itself, in one form.

interface Named {
  readonly name: string;
}
interface OfBody<N extends Named> {
  among(topology: Topology): readonly N[];
  thing(one: N, body: number, topology: Topology): Thing;
}

const ofBody = <N extends Named>(kind: OfBody<N>): OfBody<N> => kind;

/** The register: what a reference to something of a body can point to. */
const OF_BODIES = {
  face: ofBody({
    among: ({ faces }) => faces,
    thing: (face, body, topology) => ({ to: 'face', face, body, topology }),
  }),
  edge: ofBody({ among: ({ edges }) => edges, thing: (edge, body) => ({ to: 'edge', edge, body }) }),
  vertex: ofBody({ among: ({ vertices }) => vertices, thing: (vertex, body) => ({ to: 'vertex', vertex, body }) }),
  body: ofBody({ among: (topology) => [topology], thing: (topology, body) => ({ to: 'body', body, topology }) }),
};
const kindOf = (to: BodyReference['to']): OfBody<Named> => OF_BODIES[to];

/** Something of a body with a name that fits. */
export function namedThing(
  to: BodyReference['to'],
  fits: (name: string) => boolean,
  topology: Topology,
  body: number,
): Thing | undefined {
  const { among, thing } = kindOf(to);
  const one = among(topology).find(({ name }) => fits(name));
  return one && thing(one, body, topology);
}

/** All of one kind that bodies have, each with its name. */
export const allOf = (to: BodyReference['to'], bodies: readonly Topology[]): { name: string; thing: Thing }[] => {
  const { among, thing } = kindOf(to);
  return bodies.flatMap((topology, body) =>
    among(topology).map((one) => ({ name: one.name, thing: thing(one, body, topology) })),
  );
};
