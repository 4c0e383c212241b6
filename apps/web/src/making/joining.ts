import { referenceSchema, type Action, type Id, type Reference, type Thing } from '@helb/core';
import {
  ASSEMBLY_RELATIONS,
  JOINTS,
  type AssemblyRelationName,
  type FacingName,
  type JointName,
  type Spot,
} from '@helb/core/assembly';

/** One of the two things that are joined. */
export interface JoinedSide {
  readonly placement: string;
  readonly reference: Reference;
  readonly thing: Thing;
  readonly words: string;
  readonly spot: Spot;
}

/** A joint or a relation in the making, shown in the view but not in the document yet. */
export interface Joining {
  readonly sort: 'joint' | 'relation';
  readonly id: Id;
  readonly kind: JointName | AssemblyRelationName;
  readonly sides: readonly [JoinedSide | undefined, JoinedSide | undefined];
  /** Keeps both where they are: the second is held by the frame of the first. */
  readonly keep: boolean;
  readonly flip: boolean;
  readonly offset: string;
  /** Along x and y of the first. */
  readonly aside: readonly [string, string];
  readonly angle: string;
  /** Of a relation that takes a number. */
  readonly amount: string;
  /** Of a relation of two flat faces: how they look, where that is not as usual. */
  readonly facing?: FacingName;
  /** How both stood when they were chosen: what is shown of it since has moved them. */
  readonly stood?: Stood | undefined;
}

export interface Stood {
  /** What puts both where they were, driven or pulled there: for when they are to be kept. */
  readonly put: readonly Action[];
  /** What stands still no more with it. */
  readonly loosens: Id | undefined;
  /** In the order in which a distance between them counts forwards. */
  readonly forwards: Joining['sides'];
  /** Whether they were to look against each other, with the least turn. */
  readonly flip: boolean;
}

/** How the second side of a joint may stand about the axis of the first, where the joint holds that. */
const QUARTERS = ['0 deg', '90 deg', '180 deg', '270 deg'];

/** The next way in which the second side of a joint may stand: looking the other way, and after both a quarter further. */
export function nextWay({ kind, flip, angle, stood }: Joining): Partial<Joining> {
  const usual = stood?.flip ?? flip;
  const holds: readonly string[] = JOINTS[kind as JointName].holds;
  const quarter = QUARTERS.indexOf(angle);
  if (flip === usual || quarter < 0 || !holds.includes('turn')) return { flip: !flip };
  return { flip: usual, angle: QUARTERS[(quarter + 1) % QUARTERS.length]! };
}

/** What was kept; what is none any more (another version of the page wrote it) is left out. */
export function readStanding(text: string | null): readonly Joining[] {
  try {
    const kept: unknown = JSON.parse(text ?? '[]');
    return Array.isArray(kept) ? (kept as (Joining | null)[]).filter(isJoining) : [];
  } catch {
    return [];
  }
}
const isJoining = (one: Joining | null): one is Joining =>
  typeof one?.id === 'string' &&
  one.kind in (one.sort === 'joint' ? JOINTS : ASSEMBLY_RELATIONS) &&
  Array.isArray(one.aside) &&
  one.aside.length === 2 &&
  [one.offset, ...one.aside, one.angle, one.amount].every((number) => typeof number === 'string') &&
  Array.isArray(one.sides) &&
  one.sides.length === 2 &&
  one.sides.every(
    (side) =>
      !side ||
      (typeof side.placement === 'string' &&
        typeof side.thing?.to === 'string' &&
        referenceSchema.safeParse(side.reference).success),
  );
