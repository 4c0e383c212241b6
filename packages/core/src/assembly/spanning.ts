import { SPACE } from './equations.ts';
import type { Carried } from './joints.ts';
import type { Joint, Mechanism } from './mechanism.ts';

/** A joint by which a body hangs on another that is nearer to what is grounded. */
interface Branch {
  readonly joint: Joint;
  readonly fixed: Carried;
  readonly moved: Carried;
}

/**
 * The joints along which all bodies hang together, outwards from what is grounded: what is fewest joints away comes first.
 * Where nothing of a part of the mechanism is grounded its first body stands for that.
 */
export function spanning({ bodies, joints }: Pick<Mechanism, 'bodies' | 'joints'>): Branch[] {
  /** By how many joints each is away from what is grounded. */
  const depth = new Map<number, number>([[SPACE, 0]]);
  bodies.forEach(({ grounded }, k) => grounded && depth.set(k, 0));
  const near = ({ a, b }: Joint): number => depth.get(a.body) ?? depth.get(b.body)!;
  const branches: Branch[] = [];
  for (;;) {
    const open = joints.filter(({ a, b }) => depth.has(a.body) !== depth.has(b.body));
    if (open.length === 0) {
      const next = bodies.findIndex((_, k) => !depth.has(k));
      if (next < 0) return branches;
      depth.set(next, 0);
      continue;
    }
    const joint = open.reduce((best, other) => (near(other) < near(best) ? other : best));
    const [fixed, moved] = depth.has(joint.a.body) ? [joint.a, joint.b] : [joint.b, joint.a];
    depth.set(moved.body, depth.get(fixed.body)! + 1);
    branches.push({ joint, fixed, moved });
  }
}
