import type { VertexFacts } from '../../kernel-port/index.ts';
import { fingerprintOfVertex } from '../fingerprints.ts';
import { transformVertex } from './facts.ts';
import { ELSEWHERE, type ThingKind } from './kind.ts';

export interface VertexThing {
  readonly to: 'vertex';
  readonly vertex: VertexFacts;
  readonly body: number;
}

export const vertex: ThingKind<VertexThing> = {
  transform: (thing, by) => ({ to: 'vertex', vertex: transformVertex(thing.vertex, by), body: ELSEWHERE }),
  name: (thing) => thing.vertex.name,
  fingerprint: (thing) => fingerprintOfVertex(thing.vertex),
  point: (thing) => thing.vertex.at,
  middle: (thing) => thing.vertex.at,
};
