import {
  dot2,
  fingerprintOf,
  nameOfThing,
  type EdgeFacts,
  type FaceFacts,
  type NamedRange,
  type Reference,
  type Thing,
  type Topology,
  type Vec2,
  type Vec3,
  type VertexFacts,
} from '@helb/core';

/** Something in the view that can be picked: of a body, or a guide. */
export interface Pick {
  readonly kind: 'face' | 'edge' | 'corner' | 'body' | 'guide';
  /** The key of its body; empty for guides. */
  readonly body: string;
  readonly name: string;
  /** Of guides what they are called. */
  readonly called?: string;
  readonly reference: Reference;
  readonly thing: Thing;
  /** Distance from the eye, for the order front to back. */
  readonly depth: number;
  /** Of edges the way to them on the screen, px. */
  readonly off?: Vec2;
  /** Of things of other parts: what the placement is called. */
  readonly within?: string;
  /** Of these what it is in its own part. */
  readonly origin?: Pick & { readonly member: string };
}

/** Something that is no body: a datum, a drawn curve. Shown as lines, picked on these. */
export interface Guide {
  readonly name: string;
  readonly words: string;
  readonly reference: Reference;
  readonly thing: Thing;
  /** Points of segments, two each. */
  readonly lines: readonly Vec3[];
  readonly look: 'datum' | 'drawn';
  /** Where a name is written, for datums. */
  readonly label?: Vec3;
}

/** Things of bodies, which can be picked on these. */
type BodyThing = Extract<Thing, { readonly body: number }>;

/** What kind of pick each kind of thing is. */
const KINDS: { readonly [T in BodyThing['to']]: Pick['kind'] } = {
  face: 'face',
  edge: 'edge',
  vertex: 'corner',
  body: 'body',
};

/** A thing of a body as a pick. @param body the key of the body */
export function pickOf(body: string, thing: BodyThing): Pick {
  const name = nameOfThing(thing);
  const print = fingerprintOf(thing);
  return {
    ...{ kind: KINDS[thing.to], body, name, thing, depth: 0 },
    reference: { to: thing.to, name, ...(print ? { print } : {}) },
  };
}
/** The kind of pick that a thing is: of all else than bodies a guide. */
export const pickKindOf = ({ to }: Thing): Pick['kind'] => (to in KINDS ? KINDS[to as BodyThing['to']] : 'guide');

export const facePick = (body: string, index: number, topology: Topology, face: FaceFacts): Pick =>
  pickOf(body, { to: 'face', face, body: index, topology });
export const edgePick = (body: string, index: number, edge: EdgeFacts): Pick =>
  pickOf(body, { to: 'edge', edge, body: index });
export const cornerPick = (body: string, index: number, vertex: VertexFacts): Pick =>
  pickOf(body, { to: 'vertex', vertex, body: index });
export const bodyPick = (body: string, index: number, topology: Topology): Pick =>
  pickOf(body, { to: 'body', body: index, topology });
/** Everything of a body that can be picked. */
export const picksOf = (body: string, index: number, topology: Topology): Pick[] => [
  bodyPick(body, index, topology),
  ...topology.faces.map((face) => facePick(body, index, topology, face)),
  ...topology.edges.map((edge) => edgePick(body, index, edge)),
  ...topology.vertices.map((vertex) => cornerPick(body, index, vertex)),
];
export const guidePick = ({ name, words, reference, thing }: Guide, depth: number): Pick => ({
  kind: 'guide',
  body: '',
  name,
  called: words,
  reference,
  thing,
  depth,
});

/** So near, px, an edge is meant also where its face is thin. */
const ON_EDGE = 2.5;

/**
 * What lies under the pointer, front to back. Edges come before the faces that they bound, of several on a face that which is
 * nearest on the screen; but for a face that is so thin that there were nothing of it left: in its middle it is meant itself.
 */
export function frontToBack<P extends Pick>(picks: readonly P[]): P[] {
  const sorted = picks.toSorted((a, b) => a.depth - b.depth);
  const face = sorted.find(({ thing }) => thing.to === 'face');
  if (!face) return sorted;
  const before = sorted.slice(0, sorted.indexOf(face));
  const name = face.thing.to === 'face' ? face.thing.face.name : '';
  const offs = before.flatMap(({ thing, body, off }) => {
    const isRim = thing.to === 'edge' && body === face.body && thing.edge.faces.includes(name);
    return isRim && off ? [off] : [];
  });
  const isThin = offs.some((one) => offs.some((other) => dot2(one, other) < 0));
  const isClear = before.every(({ kind, off }) => kind !== 'corner' && !(off && Math.hypot(...off) <= ON_EDGE));
  if (isThin && isClear) return [face, ...sorted.filter((pick) => pick !== face)];
  const nearest = before.filter(({ off }) => off).sort((a, b) => Math.hypot(...a.off!) - Math.hypot(...b.off!));
  return sorted.map((pick, k) => (k < before.length && pick.off ? nearest.shift()! : pick));
}

/** The range that an entry lies in. */
export function rangeAt(ranges: readonly NamedRange[], index: number): NamedRange | undefined {
  return ranges.find(({ start, count }) => index >= start && index < start + count);
}

/** How far a screen place is from a segment, and where on it that is. */
export function toSegment([x, y]: Vec2, [ax, ay]: Vec2, [bx, by]: Vec2): { distance: number; t: number } {
  const [dx, dy] = [bx - ax, by - ay];
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / Math.max(dx * dx + dy * dy, 1e-12)));
  return { distance: Math.hypot(x - ax - t * dx, y - ay - t * dy), t };
}
