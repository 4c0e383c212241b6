import type { CoordinateKey } from '../naming/index.ts';
import {
  compose,
  frameToFrame,
  transformPoint,
  IDENTITY,
  transformDirection,
  type RigidTransform,
  type Vec3,
  transformFrame,
  inverse,
} from '../math/index.ts';
import { SPACE, type Direction, type Place } from './equations.ts';
import type { Carried } from './joints.ts';
import {
  MechanismEquations,
  overRelation,
  type Stage,
  type Coordinates,
  type Mechanism,
  type Pose,
} from './mechanism.ts';

/** A mechanism in which what holds together rigidly is one body, and where each body sits on the one that it is part of. */
interface Merged {
  readonly mechanism: Mechanism;
  /** By the places of the bodies: which body of the merged mechanism it is part of. */
  readonly part: readonly number[];
  readonly local: readonly RigidTransform[];
}

/**
 * Bodies are joined to the first of theirs along rigid joints, to one that is grounded where there is one. A rigid joint that
 * closes a ring, or lies between two grounded bodies, stays a joint.
 */
function merged(mechanism: Mechanism): Merged {
  const { bodies, joints } = mechanism;
  const root = bodies.map((_, k) => k);
  const local: RigidTransform[] = bodies.map(() => IDENTITY);
  const kept = joints.filter(({ kind, a, b }) => {
    if (kind !== 'rigid' || a.body === SPACE || b.body === SPACE) return true;
    const [p, q] = [root[a.body]!, root[b.body]!];
    if (p === q || (bodies[p]!.grounded && bodies[q]!.grounded)) return true;
    // the second in the coordinates of the first
    const across = compose(inverse(local[b.body]!), compose(frameToFrame(b.frame, a.frame), local[a.body]!));
    const [stays, goes, moved] = bodies[q]!.grounded ? [q, p, inverse(across)] : [p, q, across];
    root.forEach((other, k) => {
      if (other !== goes) return;
      root[k] = stays;
      local[k] = compose(local[k]!, moved);
    });
    return false;
  });
  const roots = bodies.flatMap((_, k) => (root[k] === k ? [k] : []));
  const part = root.map((k) => roots.indexOf(k));
  const carried = ({ body, frame }: Carried): Carried =>
    body === SPACE ? { body, frame } : { body: part[body]!, frame: transformFrame(frame, local[body]!) };
  const moved = <S extends Place | Direction>(side: S): S => {
    if (side.body === SPACE) return side;
    const [body, by] = [part[side.body]!, local[side.body]!];
    return 'at' in side
      ? { ...side, body, at: transformPoint(by, side.at) }
      : { ...side, body, along: transformDirection(by, side.along) };
  };
  return {
    mechanism: {
      ...mechanism,
      bodies: roots.map((k) => bodies[k]!),
      joints: kept.map((joint) => ({ ...joint, a: carried(joint.a), b: carried(joint.b) })),
      relations: mechanism.relations.map((relation) => overRelation(relation, moved)),
    },
    part,
    local,
  };
}

/**
 * The motion of a mechanism from poses in which it holds together: what is rigid is solved as one body. Told and given are
 * poses of all bodies.
 */
export class MergedEquations {
  private readonly merged: Merged;
  private readonly motion: MechanismEquations;

  /** @param prescribed, grabbed, stage as of `MechanismEquations` */
  constructor(mechanism: Mechanism, prescribed: readonly CoordinateKey[] = [], grabbed?: Place, stage?: Stage) {
    this.merged = merged(mechanism);
    const { part, local } = this.merged;
    const place = grabbed && { body: part[grabbed.body]!, at: transformPoint(local[grabbed.body]!, grabbed.at) };
    this.motion = new MechanismEquations(this.merged.mechanism, prescribed, place, stage);
  }

  /** The equations of the merged mechanism, where a body of the whole is in it, and poses there and back. */
  get reduced() {
    const { part, local } = this.merged;
    return {
      equations: this.motion,
      part,
      local,
      poses: (from: Pose): RigidTransform[] => this.firsts.map((k) => compose(inverse(local[k]!), from.poses[k]!)),
      whole: (poses: readonly RigidTransform[]): RigidTransform[] =>
        part.map((k, body) => compose(local[body]!, poses[k]!)),
    };
  }

  private get firsts(): number[] {
    return this.merged.mechanism.bodies.map((_, k) => this.merged.part.indexOf(k));
  }

  solve(from: Pose, values?: Coordinates, goal?: Vec3): Pose {
    const { poses, whole } = this.reduced;
    const solved = this.motion.solve({ ...from, poses: poses(from) }, values, goal);
    return { ...solved, poses: whole(solved.poses) };
  }
}
