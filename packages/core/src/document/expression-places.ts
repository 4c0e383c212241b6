import { placedInAssemblies } from './assembly-places.ts';
import type { Id } from '../records/index.ts';
import { stepKind } from '../steps/index.ts';
import { namesUsed, valueScope } from '../expressions/index.ts';
import { LENGTH, NUMBER, type Dimension } from '../units/index.ts';
import type { Limits, Origin, Project } from './schema.ts';
import { valueAt } from './value-at.ts';

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
  const values = project.valueOrder.flatMap((id): PlacedExpression[] => {
    const { name, expression } = project.values[id]!;
    return [{ path: ['values', id, 'expression'], text: expression, label: name }, ...boundsOf(project, id)];
  });
  const varied = Object.entries(project.variants ?? {}).flatMap(([variant, { name, values: others }]) =>
    Object.entries(others).map(([id, text]): PlacedExpression => ({
      path: ['variants', variant, 'values', id],
      text,
      label: `${project.values[id]?.name ?? 'a value that is gone'} · ${name}`,
    })),
  );
  const steps = project.partOrder.flatMap((part) => {
    const { name, steps: records, stepOrder, sections = {}, from } = project.parts[part]!;
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
    const given = from ? givenTo(from, part, name) : [];
    return [...built, ...cuts, ...given];
  });
  return [...values, ...varied, ...steps, ...placedInAssemblies(project), ...limitsOf(project)];
}

/** What the values of a part from another project are given here. */
function givenTo({ design, given = {} }: Origin, part: Id, called: string): PlacedExpression[] {
  const own = valueScope(Object.values(design.values), design.unit);
  return Object.entries(given).map(([id, text]) => {
    const { name = id } = design.values[id] ?? {};
    const result = own.lookup(name);
    const asks = result.ok ? { asks: result.value.dimension } : {};
    return { path: ['parts', part, 'from', 'given', id], text, ...asks, label: `${called} · ${name}`, part };
  });
}

/** What checks take for too little. */
const limitsOf = ({ limits = {} }: Project): PlacedExpression[] => {
  const place = (limit: keyof Limits, asks: Dimension, label: string): PlacedExpression[] => {
    const text = limits[limit];
    return text === undefined ? [] : [{ path: ['limits', limit], text, asks, label }];
  };
  return [...place('wall', LENGTH, 'Checks · thinnest wall'), ...place('web', NUMBER, 'Checks · beside holes')];
};

/** Numbers of parts, and of how they are placed, in which no name stands: nothing ties them to what they depend on. */
export const unnamedNumbers = (project: Project): PlacedExpression[] =>
  placedExpressions(project).filter(
    (place) => isOfGeometry(place) && namesUsed(place.text).length === 0 && isTyped(project, place),
  );

/** Where things are placed at 0 nobody has typed a number. */
const isOfGeometry = ({ part, path, text }: PlacedExpression): boolean =>
  part !== undefined || ((path[0] === 'assembly' || path[0] === 'groups') && !/^0( |$)/.test(text));

/** What a value may come to. */
function boundsOf({ values }: Project, id: Id): PlacedExpression[] {
  const { name, allowed = {} } = values[id]!;
  const path = ['values', id, 'allowed'];
  if ('list' in allowed)
    return allowed.list.map((text, k) => ({ path: [...path, 'list', `${k}`], text, label: `${name} · allowed` }));
  return (['least', 'most'] as const).flatMap((bound) => {
    const text = allowed[bound];
    return text === undefined ? [] : [{ path: [...path, bound], text, label: `${name} · ${bound}` }];
  });
}

/** Does an expression stand in the project as somebody typed it? What is as usual does not. */
export const isTyped = (project: Project, { path }: PlacedExpression): boolean => valueAt(project, path) !== undefined;

/** The places that read this name. */
export const usersOf = (project: Project, name: string): PlacedExpression[] =>
  placedExpressions(project).filter(({ text }) => namesUsed(text).includes(name));
