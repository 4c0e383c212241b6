import { dot3, type Frame, type Vec3 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { EdgeFacts, FaceFacts, Topology } from '../../kernel-port/index.ts';
import { fingerprintOfEdge, fingerprintOfFace, type Reference, type Thing } from '../../references/index.ts';
import type { SolvedSketch, Step } from '../../steps/index.ts';
import type { Mark } from '../marks/index.ts';

/** A part as it was built, for what is told of it on sheets. */
export interface BuiltPart {
  readonly topologies: readonly Topology[];
  readonly steps: Readonly<Record<Id, Step>>;
  readonly stepOrder: readonly Id[];
  readonly sketches: ReadonlyMap<Id, SolvedSketch>;
  /** Threads by the step that makes them: "M8". */
  readonly threads: readonly { readonly step: Id; readonly name: string }[];
}

/** Something of a part with a reference to it. */
export interface Item {
  readonly thing: Thing;
  readonly reference: Reference;
}

/** A mark that could be made: on these things, as it would be in a view. */
export interface Candidate {
  readonly items: readonly Item[];
  mark(view: Id, eye: Frame): Mark;
}

/** A face with the reference that means it. */
const faceItem = (topology: Topology, body: number, face: FaceFacts): Item => ({
  thing: { to: 'face', face, body, topology },
  reference: { to: 'face', name: face.name, print: fingerprintOfFace(face) },
});
/** An edge with the reference that means it. */
export const edgeItem = (body: number, edge: EdgeFacts): Item => ({
  thing: { to: 'edge', edge, body },
  reference: { to: 'edge', name: edge.name, print: fingerprintOfEdge(edge) },
});

/** Every face of a part. */
export const allFaces = ({ topologies }: BuiltPart): Item[] =>
  topologies.flatMap((topology, body) => topology.faces.map((face) => faceItem(topology, body, face)));

/** The face that an item is. */
export const faceOf = ({ thing }: Item): FaceFacts => (thing as Extract<Thing, { to: 'face' }>).face;
/** The place of the body that the face is of. */
export const bodyOf = ({ thing }: Item): number => (thing as Extract<Thing, { to: 'face' }>).body;

/** The direction in which a view measures between places so that it is along a direction in space. */
export const alongIn = (eye: Frame, way: Vec3): 'level' | 'upright' | 'straight' => {
  if (Math.abs(dot3(way, eye.x)) > 1 - 1e-9) return 'level';
  return Math.abs(dot3(way, eye.y)) > 1 - 1e-9 ? 'upright' : 'straight';
};
