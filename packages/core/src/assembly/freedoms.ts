import { direction3, norm, orthonormal, type Vec3 } from '../math/index.ts';
import { formatAmount } from '../units/index.ts';
import type { MechanismEquations, Pose } from './mechanism.ts';

/** In how many ways a body can move. */
interface BodyFreedoms {
  readonly count: number;
  /** In how many of them it turns; in the others it is only shifted. */
  readonly turns: number;
  /** About or along which direction of space, where only one is left. */
  readonly along?: Vec3;
}

export interface AssemblyFreedoms {
  readonly count: number;
  /** By the places of the bodies. */
  readonly bodies: readonly BodyFreedoms[];
  /** Sets of joints and relations that together tell something twice. */
  readonly redundant: readonly (readonly string[])[];
  /** Sets of joints and relations that leave more free in just this pose than beside it: a dead point, where ways part. */
  readonly parting: readonly (readonly string[])[];
}

/** What can still move in a pose: all together, and seen from each body. */
export function assemblyFreedoms(motion: MechanismEquations, pose: Pose): AssemblyFreedoms {
  const { count, groups, redundant, parting } = motion.freedoms(pose);
  const bodies = motion.at.map((first): BodyFreedoms => {
    if (first < 0) return { count: 0, turns: 0 };
    const own = groups.flatMap(({ unknowns, vectors }) => {
      const places = Array.from({ length: 6 }, (_, k) => unknowns.indexOf(first + k));
      return vectors.map((vector) => Float64Array.from(places, (at) => (at < 0 ? 0 : vector[at]!)));
    });
    const moves = basis(own);
    const turns = basis(own.map((move) => move.subarray(3)));
    const [only] = moves.length === 1 ? moves : [];
    const along = only && direction3([...only.subarray(turns.length > 0 ? 3 : 0).subarray(0, 3)] as unknown as Vec3);
    return { count: moves.length, turns: turns.length, ...(along ? { along } : {}) };
  });
  return { count, bodies, redundant, parting };
}

/** Below this a share of a motion, or of a direction along an axis, is rounding. */
const NOTHING = 1e-6;

const basis = (vectors: readonly Float64Array[]): Float64Array[] =>
  orthonormal(vectors.filter((vector) => norm(vector) > NOTHING));

/** "turns about z", "slides along x", "3 freedoms: turns in 1 way, slides in 2". */
export function freedomWords({ count, turns, along }: BodyFreedoms): string {
  if (count === 0) return 'stands still';
  if (count === 6) return 'free to go anywhere';
  if (count === 1 && along) return `${turns > 0 ? 'turns about' : 'slides along'} ${axisWords(along)}`;
  const ways = (n: number) => (n === 1 ? '1 way' : `${n} ways`);
  const parts = [
    ...(turns > 0 ? [`turns in ${ways(turns)}`] : []),
    ...(count > turns ? [`slides in ${ways(count - turns)}`] : []),
  ];
  return `${count} freedoms: ${parts.join(', ')}`;
}

/** A direction by the axis of space that it lies along, else by its numbers; which way round does not count. */
function axisWords(along: Vec3): string {
  const axis = along.findIndex((c) => Math.abs(c) > 1 - NOTHING);
  if (axis >= 0) return 'xyz'[axis]!;
  const first = along.find((c) => Math.abs(c) > NOTHING)!;
  return along.map((c) => formatAmount(c * Math.sign(first), 2)).join(' / ');
}
