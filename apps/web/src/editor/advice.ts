import {
  curesOf,
  findFlaws,
  formatQuantity,
  hasCollapsed,
  isSized,
  mend,
  readSize,
  relationKind,
  settleAll,
  solveSketch,
  type Flaw,
  type Id,
  type FreeMotion,
  type Relation,
  type Result,
  type SolvedSketch,
} from '@helb/core';
import type { SketchEditor } from './sketch-editor.ts';

/** The id of a relation that is only tried. */
const TRIAL = 'trial';

/** What can be done about a sketch as it is now: cures of its freedoms, mends of its flaws. Worked out when asked. */
class Advice {
  private found: Flaw[] | undefined;
  private readonly cures = new Map<FreeMotion, Relation | undefined>();

  constructor(private readonly editor: SketchEditor) {}

  /** The first thing that would stop a motion, and is not offered for another one. */
  cureOf(motion: FreeMotion): Relation | undefined {
    if (!this.cures.has(motion)) {
      const { geometry } = this.editor.solved.solution;
      const offered = curesOf(geometry, Object.values(this.editor.relations), motion, this.write);
      const others = new Set([...this.cures.values()].map((cure) => JSON.stringify(cure)));
      // a present measure holds; what only nearly holds has to be tried
      const holding = (cure: Relation) => isSized(cure) || this.holds(cure);
      this.cures.set(
        motion,
        offered.find((cure) => !others.has(JSON.stringify(cure)) && holding(cure)) ?? offered.find(holding),
      );
    }
    return this.cures.get(motion);
  }

  private holds(relation: Relation): boolean {
    const { relations, sizes, solved, borrowed } = this.editor;
    const trial = { ...relations, [TRIAL]: relation };
    const { geometry } = solved.solution;
    const after = solveSketch(geometry.entities, trial, sizes, borrowed);
    return after.state !== 'clashing' && !hasCollapsed(geometry, after.geometry);
  }

  add(cure: Relation): Result<void> {
    const id = this.editor.newId(isSized(cure) ? 'd' : 'r');
    return this.editor.addRelations(relationKind(cure.kind).title.toLowerCase(), { [id]: cure });
  }

  /** A full set that leaves nothing free, for review. */
  settle(): Record<Id, Relation> {
    const { editor } = this;
    return settleAll(editor.solved.solution.geometry.entities, editor.relations, editor.sizes, {
      write: this.write,
      read: (relation) => {
        const size = isSized(relation) ? readSize(relation, relation.value, editor.scope) : undefined;
        return size?.ok ? size.value : undefined;
      },
      newId: editor.newId,
      borrowed: editor.borrowed,
    });
  }

  flaws(): Flaw[] {
    const { solution, regions } = this.editor.solved;
    return (this.found ??= findFlaws(solution.geometry, regions));
  }

  mend(flaw: Flaw): Result<void> {
    return this.editor.revise('mend', (builder) => mend(builder, flaw));
  }

  private readonly write = (relation: Relation, measure: number): string => {
    const { asks } = relationKind(relation.kind).dimension!;
    return formatQuantity({ amount: measure, dimension: asks }, this.editor.scope.unit, 2);
  };
}

const known = new WeakMap<SolvedSketch, Advice>();

/** The advice on a sketch as it is solved now: the same as long as nothing changes, however much the pointer moves. */
export function adviceOn(editor: SketchEditor, solved: SolvedSketch): Advice {
  let advice = known.get(solved);
  if (!advice) known.set(solved, (advice = new Advice(editor)));
  return advice;
}
