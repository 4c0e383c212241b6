import {
  curveWords,
  formatAmount,
  fingerprintOfBody,
  fingerprintOfEdge,
  fingerprintOfFace,
  fingerprintOfVertex,
  surfaceWords,
  type NamedRange,
  type Reference,
  type Thing,
  type Topology,
  type Vec2,
  type Vec3,
} from '@helb/core';

/** Something in the view that can be picked: of a body, or a guide. */
export interface Pick {
  readonly kind: 'face' | 'edge' | 'corner' | 'body' | 'guide';
  /** The key of its body; empty for guides. */
  readonly body: string;
  readonly name: string;
  readonly words: string;
  readonly reference: Reference;
  readonly thing: Thing;
  /** Distance from the eye, for the order front to back. */
  readonly depth: number;
  /** Of things of other parts: what the placement is called. */
  readonly within?: string;
  /** Of these what it is in its own part. */
  readonly origin?: Pick & { readonly member: string };
}

/** What a pick is called where it stands in a list. */
export const pickWords = ({ kind, words, within }: Pick): string =>
  `${kind === 'guide' ? words : `${kind} · ${words}`}${within === undefined ? '' : ` in ${within}`}`;

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

type Of<K extends Thing['to']> = Extract<Thing, { to: K }>;

export const facePick = (body: string, index: number, topology: Topology, face: Of<'face'>['face']): Pick => ({
  kind: 'face',
  body,
  name: face.name,
  words: surfaceWords(face),
  reference: { to: 'face', name: face.name, print: fingerprintOfFace(face) },
  thing: { to: 'face', face, body: index, topology },
  depth: 0,
});
export const edgePick = (body: string, index: number, edge: Of<'edge'>['edge']): Pick => ({
  kind: 'edge',
  body,
  name: edge.name,
  words: curveWords(edge),
  reference: { to: 'edge', name: edge.name, print: fingerprintOfEdge(edge) },
  thing: { to: 'edge', edge, body: index },
  depth: 0,
});
export const cornerPick = (body: string, index: number, vertex: Of<'vertex'>['vertex']): Pick => ({
  kind: 'corner',
  body,
  name: vertex.name,
  words: vertex.at.map((c) => formatAmount(c, 2)).join('  '),
  reference: { to: 'vertex', name: vertex.name, print: fingerprintOfVertex(vertex) },
  thing: { to: 'vertex', vertex, body: index },
  depth: 0,
});
export const bodyPick = (body: string, index: number, topology: Topology): Pick => ({
  kind: 'body',
  body,
  name: topology.name,
  words: `with ${topology.faces.length} faces`,
  reference: { to: 'body', name: topology.name, print: fingerprintOfBody(topology) },
  thing: { to: 'body', body: index, topology },
  depth: 0,
});
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
  words,
  reference,
  thing,
  depth,
});

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
