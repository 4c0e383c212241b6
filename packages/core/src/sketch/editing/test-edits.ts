import { perform, ProjectScript } from '../../document/index.ts';
import { valueScope } from '../../expressions/index.ts';
import type { Result } from '../../result/index.ts';
import { readSizes, type SketchStep } from '../../steps/index.ts';
import { explain } from '../../wording/index.ts';
import {
  EditBuilder,
  FigureBuilder,
  filled,
  findRegions,
  rectangle,
  solveSketch,
  type Entities,
  type Relations,
  type SketchEdit,
} from '../index.ts';

// What tests of edits are put together from.

/** What is drawn. */
export interface Drawn {
  readonly entities: Entities;
  readonly relations: Relations;
}

let ids = 0;
/** Ids of what is drawn. */
export const newId = (prefix: string) => `${prefix}x${++ids}`;

const sizesOf = (relations: Relations) => readSizes(relations, valueScope([], 'mm')).sizes;

/** It solved. */
export const solvedOf = ({ entities, relations }: Drawn) => solveSketch(entities, relations, sizesOf(relations));

/** The sketch after an edit, as the command leaves it: checked and cleaned. */
export function revised(sketch: Drawn, edit: (builder: EditBuilder) => Result<SketchEdit>): SketchStep {
  const { geometry } = solvedOf(sketch);
  const made = edit(new EditBuilder({ geometry, relations: sketch.relations }, newId));
  if (!made.ok) throw new Error(explain(made.issue));
  const step: SketchStep = {
    kind: 'sketch',
    name: 'S',
    plane: 'top',
    entities: { ...geometry.entities },
    relations: { ...sketch.relations },
  };
  const script = new ProjectScript('T').do('part.add', { id: 'p', name: 'P' });
  script.do('step.add', { part: 'p', id: 's', step });
  const { entities, relations, remove } = made.value;
  const done = perform(script.project, [
    {
      command: 'sketch.revise',
      input: {
        part: 'p',
        step: 's',
        what: 'edit',
        entities: { ...entities },
        relations: { ...relations },
        remove: [...remove],
      },
    },
  ]);
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value.project.parts['p']!.steps['s'] as SketchStep;
}

/** All that is filled, mm². */
export const areaOf = (sketch: Drawn) =>
  filled(findRegions(solvedOf(sketch).geometry)).reduce((sum, region) => sum + region.area, 0);

/** A rectangle from the origin. */
export const box = (w: number, h: number) => {
  const b = new FigureBuilder(newId);
  const corners = rectangle(b, [0, 0], [w, h]);
  const sides = Object.keys(b.entities).filter((id) => b.entities[id]!.kind === 'line');
  return { entities: b.entities, relations: b.relations, corners, sides };
};
