import {
  explain,
  isSketch,
  perform,
  seedSieve,
  stepKind,
  type Action,
  type Entity,
  type Id,
  relationKind,
  type Project,
  type Reference,
  type Relation,
  type SketchStep,
} from '@helb/core';
import { Engine, type PartModel } from '@helb/engine';
import { startKernelInNode } from '@helb/kernel/node';
import type { Figure } from './measure.ts';

/** By how much every driving value is swept. */
const SWEEP = [0.85, 1.2];

interface Tally {
  references: number;
  exact: number;
  recovered: number;
  failed: string[];
}

/**
 * Change survival: every driving value of the demo is swept, and early sketches are edited (their lines in another order,
 * a line more, a line divided in two, an opening more, an opening less); counted is how many references of all steps are
 * still found by their names. What was taken away is not counted.
 */
export async function survivalFigures(): Promise<Figure[]> {
  const engine = new Engine(await startKernelInNode());
  const project = seedSieve();
  const swept = await tallied(engine, project, sweeps(project));
  const edited = await tallied(engine, project, edits(project));
  const redrawn = await tallied(engine, project, await redrawings(engine, project));
  return [
    figureOf('values swept', swept),
    figureOf('early sketches reordered or with a line more', edited),
    figureOf('lines of early outlines divided, openings added and removed', redrawn),
  ];
}

function figureOf(name: string, { references, exact, recovered, failed }: Tally): Figure {
  for (const line of failed) process.stderr.write(`survival: ${line}\n`);
  const share = references === 0 ? 1 : exact / references;
  return {
    name: `survival: ${name}, ${exact} of ${references} references exact, ${recovered} recovered, ${failed.length} steps failed; share`,
    value: share,
    unit: 'of 1',
    floor: null,
    ratio: null,
    aim: 'all of them where the geometry still exists',
    met: share === 1 && failed.length === 0,
  };
}

/** A changed project, the part that it concerns, and what was changed. */
interface Variation {
  readonly what: string;
  readonly part: Id;
  readonly project: Project;
  /** An entity that is not there any more: what names it can't be found. */
  readonly without?: Id;
}

function changed(project: Project, actions: readonly Action[]): Project | undefined {
  const done = perform(project, actions);
  return done.ok ? done.value.project : undefined;
}

/** Each value that is a plain length, smaller and larger, for each part that reads it through whatever chain. */
function sweeps(project: Project): Variation[] {
  return project.valueOrder.flatMap((id) => {
    const { name, expression } = project.values[id]!;
    const [, number, unit] = /^([\d.]+)( mm)?$/.exec(expression) ?? [];
    if (number === undefined) return [];
    return SWEEP.flatMap((factor) => {
      const next = unit ? `${Number(number) * factor} mm` : `${Math.round(Number(number) * factor)}`;
      const after = changed(project, [{ command: 'value.set', input: { id, expression: next } }]);
      return after ? project.partOrder.map((part) => ({ what: `${name} = ${next}`, part, project: after })) : [];
    });
  });
}

/** Each sketch on its own with its entities in reverse, with a loose line more, with a small hole more where that fits. */
function edits(project: Project): Variation[] {
  return project.partOrder.flatMap((part) =>
    Object.entries(project.parts[part]!.steps).flatMap(([step, record]): Variation[] => {
      if (!isSketch(record)) return [];
      const turned = Object.fromEntries(Object.entries(record.entities).reverse());
      const more: Record<Id, Entity> = {
        'extra-a': { kind: 'point', x: 200, y: 200 },
        'extra-b': { kind: 'point', x: 230, y: 210 },
        'extra-l': { kind: 'line', a: 'extra-a', b: 'extra-b', construction: true },
      };
      const withEntities = (entities: Record<Id, Entity>): Project => ({
        ...project,
        parts: {
          ...project.parts,
          [part]: {
            ...project.parts[part]!,
            steps: { ...project.parts[part]!.steps, [step]: { ...record, entities } },
          },
        },
      });
      return [
        { what: `${record.name}: lines in another order`, part, project: withEntities(turned) },
        { what: `${record.name}: a line more`, part, project: withEntities({ ...more, ...record.entities }) },
      ];
    }),
  );
}

/** How far inside an outline an opening more lies, as a share of the line beside it; and its radius, mm. */
const INSIDE = 0.3;
const SMALL = 0.15;

/** Changes that split or take away faces: each straight line of an outline divided, an opening more, each circle less. */
async function redrawings(engine: Engine, project: Project): Promise<Variation[]> {
  const { parts } = await engine.build(project);
  return parts.flatMap(({ id: part, sketches }) =>
    [...sketches].flatMap(([step, { regions, solution }]): Variation[] => {
      const record = project.parts[part]!.steps[step]!;
      if (!isSketch(record)) return [];
      const redrawn = (what: string, fields: Partial<SketchStep>, without?: Id): Variation => ({
        what: `${record.name}: ${what}`,
        part,
        project: {
          ...project,
          parts: {
            ...project.parts,
            [part]: {
              ...project.parts[part]!,
              steps: { ...project.parts[part]!.steps, [step]: { ...record, ...fields } },
            },
          },
        },
        ...(without === undefined ? {} : { without }),
      });
      const borrowed = new Set(Object.values(record.loans ?? {}).flatMap(({ makes }) => Object.values(makes)));
      const found: Variation[] = [];
      for (const [id, entity] of Object.entries(record.entities)) {
        if (('construction' in entity && entity.construction) || borrowed.has(id)) continue;
        if (entity.kind === 'line') {
          const { a, b } = solution.geometry.line(id);
          const middle: Entity = { kind: 'point', x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2 };
          const [first, second]: Entity[] = [
            { ...entity, b: 'extra-m' },
            { kind: 'line', a: 'extra-m', b: entity.b },
          ];
          const entities = { ...record.entities, 'extra-m': middle, [id]: first!, 'extra-l': second! };
          // the new piece goes on straight, as the tool that divides lines sees to
          const straight: Relation = { kind: 'parallel', a: id, b: 'extra-l' };
          found.push(redrawn(`${id} divided`, { entities, relations: { ...record.relations, 'extra-r': straight } }));
        } else if (entity.kind === 'circle' && regions.regions.length > 1 && !record.patterns) {
          const { [id]: _, ...entities } = record.entities;
          const relations = Object.fromEntries(
            Object.entries(record.relations).filter(
              ([, relation]) => !relationKind(relation.kind).refs(relation).includes(id),
            ),
          );
          found.push(redrawn(`${id} removed`, { entities, relations }, id));
        }
      }
      const outer = regions.regions[0]?.outer.find(({ form }) => form === 'segment');
      if (outer) {
        const [dx, dy] = [outer.to[0] - outer.from[0], outer.to[1] - outer.from[1]];
        // left of an outer loop is inside
        const at = [outer.from[0] + dx / 2 - dy * INSIDE, outer.from[1] + dy / 2 + dx * INSIDE] as const;
        const entities: Record<Id, Entity> = {
          ...record.entities,
          'extra-m': { kind: 'point', x: at[0], y: at[1] },
          'extra-o': { kind: 'circle', centre: 'extra-m', radius: SMALL },
        };
        found.push(redrawn('an opening more', { entities }));
      }
      return found;
    }),
  );
}

async function tallied(engine: Engine, project: Project, variations: readonly Variation[]): Promise<Tally> {
  const tally: Tally = { references: 0, exact: 0, recovered: 0, failed: [] };
  for (const { what, part, project: next, without } of variations) {
    const [model] = (await engine.build(next, { parts: [part] })).parts as [PartModel];
    for (const result of model.steps) {
      const step = project.parts[part]!.steps[result.id]!;
      const lost = (reference: Reference) =>
        without !== undefined && 'name' in reference && new RegExp(`/${without}\\b`).test(reference.name);
      const places = (stepKind(step.kind).references?.(step) ?? []).filter(({ reference }) => !lost(reference));
      const all = places.length;
      const unsure = (result.references ?? []).filter(({ reference }) => !lost(reference));
      tally.references += all;
      tally.exact += all - unsure.length;
      tally.recovered += unsure.filter(({ fate }) => fate === 'recovered').length;
      if (result.issue && (without === undefined || unsure.length > 0))
        tally.failed.push(`${what}: ${step.name}: ${explain(result.issue)}`);
    }
  }
  return tally;
}
