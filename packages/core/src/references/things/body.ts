import type { Topology } from '../../kernel-port/index.ts';
import { fingerprintOfBody } from '../fingerprints.ts';
import { transformTopology } from './facts.ts';
import { ELSEWHERE, type ThingKind } from './kind.ts';

export interface BodyThing {
  readonly to: 'body';
  readonly body: number;
  readonly topology: Topology;
}

export const body: ThingKind<BodyThing> = {
  transform: ({ topology }, by) => ({ to: 'body', body: ELSEWHERE, topology: transformTopology(topology, by) }),
  name: ({ topology }) => topology.name,
  fingerprint: ({ topology }) => fingerprintOfBody(topology),
};
