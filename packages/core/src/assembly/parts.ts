import { jointOf } from '../naming/index.ts';
import { bodiesOf, SPACE } from './equations.ts';
import { type Mechanism } from './mechanism.ts';

/**
 * The mechanisms that a mechanism falls into: none of them moves what is of another. Each has all bodies, those of the
 * others grounded, so that their places stay the same. Bodies that nothing holds are in none of them.
 */
export function partsOf(mechanism: Mechanism): Mechanism[] {
  const { bodies, joints, relations, ratios } = mechanism;
  const root = bodies.map((_, k) => k);
  const find = (k: number): number => (root[k] === k ? k : (root[k] = find(root[k]!)));
  const free = (all: readonly number[]) => all.filter((body) => body !== SPACE && !bodies[body]!.grounded);
  const joined = new Map(joints.map(({ id, a, b }) => [id, free([a.body, b.body])]));
  const related = new Map(relations.map(({ id, equations }) => [id, free(equations.flatMap(bodiesOf))]));
  const tied = new Map(
    ratios.map(({ id, first, second }) => [id, [first, second].flatMap((key) => joined.get(jointOf(key)) ?? [])]),
  );
  const all = [...joined.values(), ...related.values(), ...tied.values()];
  for (const [first, ...others] of all) for (const other of others) root[find(other)] = find(first!);
  /** What moves nothing at all is a part of its own: it holds or it does not. */
  const partOf = (own: readonly number[]) => (own.length === 0 ? NONE : find(own[0]!));
  return [...new Set(all.map(partOf))].map((part) => ({
    ...mechanism,
    bodies: bodies.map((body, k) => ({ ...body, grounded: body.grounded || find(k) !== part })),
    joints: joints.filter(({ id }) => partOf(joined.get(id)!) === part),
    relations: relations.filter(({ id }) => partOf(related.get(id)!) === part),
    ratios: ratios.filter(({ id }) => partOf(tied.get(id)!) === part),
  }));
}
const NONE = -1;
