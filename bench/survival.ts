import {
  explain,
  isSketch,
  perform,
  seedSieve,
  stepKind,
  type Action,
  type Entity,
  type Id,
  type Project,
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
 * a line more, a hole more); counted is how many references of all steps are still found by their names.
 */
export async function survivalFigures(): Promise<Figure[]> {
  const engine = new Engine(await startKernelInNode());
  const project = seedSieve();
  const swept = await tallied(engine, project, sweeps(project));
  const edited = await tallied(engine, project, edits(project));
  return [figureOf('values swept', swept), figureOf('early sketches edited', edited)];
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

async function tallied(engine: Engine, project: Project, variations: readonly Variation[]): Promise<Tally> {
  const tally: Tally = { references: 0, exact: 0, recovered: 0, failed: [] };
  for (const { what, part, project: next } of variations) {
    const [model] = (await engine.build(next, { parts: [part] })).parts as [PartModel];
    for (const result of model.steps) {
      const step = project.parts[part]!.steps[result.id]!;
      const all = stepKind(step.kind).references?.(step).length ?? 0;
      const unsure = result.references ?? [];
      tally.references += all;
      tally.exact += all - unsure.length;
      tally.recovered += unsure.filter(({ fate }) => fate === 'recovered').length;
      if (result.issue) tally.failed.push(`${what}: ${step.name}: ${explain(result.issue)}`);
    }
  }
  return tally;
}
