import type { Id } from '../records/index.ts';
import { stepKind } from '../steps/index.ts';
import { namesUsed } from '../expressions/index.ts';
import { LENGTH, type Dimension } from '../units/index.ts';
import type { Project } from './schema.ts';

/** An expression somewhere in a project. */
export interface PlacedExpression {
  readonly path: readonly string[];
  readonly text: string;
  /** The dimension that its field asks for; a named value may have any. */
  readonly asks?: Dimension;
  readonly label: string;
  readonly part?: Id;
  readonly step?: Id;
}

/** All expressions of a project: the named values, then part by part, step by step. */
export function placedExpressions(project: Project): PlacedExpression[] {
  const values = project.valueOrder.map((id): PlacedExpression => {
    const { name, expression } = project.values[id]!;
    return { path: ['values', id, 'expression'], text: expression, label: name };
  });
  const steps = project.partOrder.flatMap((part) => {
    const { name, steps: records, stepOrder, sections = {} } = project.parts[part]!;
    const cuts = Object.entries(sections).map(([id, section]): PlacedExpression => ({
      path: ['parts', part, 'sections', id, 'offset'],
      text: section.offset,
      asks: LENGTH,
      label: `${name} · ${section.name} · offset`,
      part,
    }));
    const built = stepOrder.flatMap((step) => {
      const record = records[step]!;
      return stepKind(record.kind)
        .expressions(record)
        .map((place): PlacedExpression => ({
          ...place,
          path: ['parts', part, 'steps', step, ...place.path],
          label: `${name} · ${place.label}`,
          part,
          step,
        }));
    });
    return [...built, ...cuts];
  });
  return [...values, ...steps];
}

/** The places that read this name. */
export const usersOf = (project: Project, name: string): PlacedExpression[] =>
  placedExpressions(project).filter(({ text }) => namesUsed(text).includes(name));
