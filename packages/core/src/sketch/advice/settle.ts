import type { Id } from '../../records/index.ts';
import type { NewId } from '../figures/index.ts';
import { isSized, type Relation, type Relations } from '../relations/index.ts';
import { solveSketch, type Sizes, type SketchSolution } from '../solve-sketch.ts';
import type { Entities } from '../entities/index.ts';
import { curesOf, hasCollapsed, type WriteSize } from './cures.ts';

/** What the reader of sizes has to offer: the number of a dimension, mm or rad, from its text. */
type ReadSize = (relation: Relation) => number | undefined;

const MOST_ROUNDS = 40;
/** A proposal is to be looked through: of a rough sketch this many are settled at a time. */
const MOST_ADDED = 60;
/** So many cures are tried for a freedom before it is left for the next round. */
const MOST_TRIALS = 12;

/**
 * A full set of relations and dimensions that leaves nothing free: for each freedom the first cure that holds, several in
 * a round where they move different things. Present measures become the numbers, so that nothing moves.
 */
export function settleAll(
  entities: Entities,
  relations: Relations,
  sizes: Sizes,
  tools: { readonly write: WriteSize; readonly read: ReadSize; readonly newId: NewId; readonly borrowed?: Entities },
): Record<Id, Relation> {
  const added: Record<Id, Relation> = {};
  const known = new Map(sizes);
  let solution = solveSketch(entities, relations, known, tools.borrowed);
  for (
    let round = 0;
    round < MOST_ROUNDS && solution.state === 'loose' && Object.keys(added).length < MOST_ADDED;
    round++
  ) {
    const before = solution.freedoms;
    const touched = new Set<Id>();
    for (const motion of solution.motions) {
      const moving = Object.keys(motion.places);
      if (moving.some((id) => touched.has(id)) || Object.keys(added).length >= MOST_ADDED) continue;
      moving.forEach((id) => touched.add(id));
      for (const relation of curesOf(
        solution.geometry,
        Object.values({ ...relations, ...added }),
        motion,
        tools.write,
      ).slice(0, MOST_TRIALS)) {
        const number = isSized(relation) ? tools.read(relation) : undefined;
        if (isSized(relation) && number === undefined) continue;
        const id = tools.newId(isSized(relation) ? 'd' : 'r');
        const trial: SketchSolution = solveSketch(
          solution.geometry.entities,
          { ...relations, ...added, [id]: relation },
          number === undefined ? known : new Map(known).set(id, number),
          tools.borrowed,
        );
        if (trial.state === 'clashing' || trial.freedoms >= solution.freedoms) continue;
        if (hasCollapsed(solution.geometry, trial.geometry)) continue;
        added[id] = relation;
        if (number !== undefined) known.set(id, number);
        solution = trial;
        break;
      }
    }
    if (solution.freedoms >= before) break;
  }
  return added;
}
