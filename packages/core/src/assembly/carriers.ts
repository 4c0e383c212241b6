import type { Member } from './member.ts';
import type { Mechanism } from './mechanism.ts';
import { MergedEquations } from './merged.ts';

type Riding = Pick<Member, 'id' | 'body' | 'again'>;

/** Which members of a mechanism are rigidly one, stand still, or are held by one joint. */
export class Carriers {
  private readonly part: readonly number[];
  private readonly merged: Mechanism;
  private readonly joined: ReadonlySet<string>;

  constructor(mechanism: Mechanism) {
    const { part, equations } = new MergedEquations(mechanism).reduced;
    [this.part, this.merged] = [part, equations.mechanism];
    this.joined = new Set(this.merged.joints.flatMap(({ a, b }) => [`${a.body} ${b.body}`, `${b.body} ${a.body}`]));
  }

  /** The body of the merged mechanism that a member rides on; undefined of a repeat that goes its own way. */
  private of = ({ body, again }: Riding): number | undefined =>
    again.every(({ on }) => this.part[on] === this.part[body]) ? this.part[body] : undefined;

  isOne(a: Riding, b: Riding): boolean {
    const carrier = this.of(a);
    return a.id === b.id || (carrier !== undefined && carrier === this.of(b));
  }

  isStill(member: Riding): boolean {
    const carrier = this.of(member);
    return carrier !== undefined && this.merged.bodies[carrier]!.grounded;
  }

  /** Does a joint hold what both ride on? A repeat is held as the first of its kind. */
  areJoined = (a: Riding, b: Riding): boolean => this.joined.has(`${this.part[a.body]} ${this.part[b.body]}`);
}
