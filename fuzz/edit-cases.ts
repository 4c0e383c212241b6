import { applyChange, explain, loadProject, perform, seedSieve, type Action, type Project } from '@helb/core';
import { Engine, type PartModel } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { alike, Broken, brokenBy, same, type Outcome } from './case.ts';
import { Chance } from './chance.ts';
import { MESH, volumeOf, witnessed } from './laws.ts';
import { begin, more, projectOf, type Grown } from './parts.ts';

// Random edits: each that is possible can be undone and done again, and what is built after many edits is what is built anew.

type Sample = (chance: Chance, project: Project) => Action | undefined;

const keys = (records: object | undefined): string[] => Object.keys(records ?? {});
const texts = ['12 mm', '0', '-3 mm', '2-1/8"', '1e3', 'wall + 1 mm', '30 deg', 'nothing like this', '1/0', '', '12,5'];

const step: (chance: Chance, project: Project) => { part: string; step: string } | undefined = (chance, { parts }) => {
  const part = chance.one(keys(parts));
  const [id] = chance.some(keys(parts[part]!.steps), 1);
  return id === undefined ? undefined : { part, step: id };
};
const onStep =
  (make: (chance: Chance, where: { part: string; step: string }, project: Project) => Action): Sample =>
  (chance, project) => {
    const where = step(chance, project);
    return where && make(chance, where, project);
  };
const placement = (chance: Chance, { assembly }: Project) => chance.some(keys(assembly?.placements), 1)[0];

/** What people do, some of it wrongly; inputs are checked by the commands themselves. */
const SAMPLES: readonly Sample[] = [
  (chance, { values }) => {
    const [id] = chance.some(keys(values), 1);
    return id === undefined ? undefined : { command: 'value.set', input: { id, expression: chance.one(texts) } };
  },
  (chance, { values }) => {
    const [id] = chance.some(keys(values), 1);
    return (
      id && {
        command: 'value.rename',
        input: { id, name: chance.one(['width', 'a b', 'sin', '7up', `v${chance.whole(0, 9)}`]) },
      }
    );
  },
  (chance, { values }) => {
    const [id] = chance.some(keys(values), 1);
    return id && { command: 'value.remove', input: { id } };
  },
  (chance) => ({
    command: 'value.add',
    input: { id: `v${chance.whole(0, 99)}`, name: `n${chance.whole(0, 20)}`, expression: chance.one(texts) },
  }),
  onStep((chance, where) => ({ command: 'step.suppress', input: { ...where, on: chance.happens(0.5) } })),
  onStep((chance, where) => ({ command: 'step.move', input: { ...where, to: chance.whole(0, 12) } })),
  onStep((_, { part, step: id }) => ({ command: 'step.remove', input: { part, steps: [id] } })),
  onStep((chance, where) => ({ command: 'step.rename', input: { ...where, name: `Step ${chance.whole(1, 99)}` } })),
  onStep((chance, where) => ({
    command: 'step.set',
    input: { ...where, fields: { [chance.one(['distance', 'radius', 'wall', 'count', 'angle'])]: chance.one(texts) } },
  })),
  onStep((chance, where, { parts }) => {
    const sketch = parts[where.part]!.steps[where.step]!;
    const all = sketch.kind === 'sketch' ? [...keys(sketch.entities), ...keys(sketch.relations)] : [];
    return { command: 'sketch.erase', input: { ...where, ids: all.length > 0 ? chance.some(all, 2) : ['x'] } };
  }),
  (chance, project) => {
    const id = placement(chance, project);
    const turn = { x: chance.one(texts), y: '0 deg', z: `${chance.whole(-400, 400)} deg` };
    return id && { command: 'placement.set', input: { id, fields: chance.happens(0.5) ? { turn } : { held: true } } };
  },
  (chance, project) => {
    const id = placement(chance, project);
    return id && { command: 'placement.remove', input: { ids: [id] } };
  },
  (chance, project) => {
    const of = chance.some(keys(project.assembly?.placements), chance.whole(1, 3));
    const n = chance.whole(0, 99);
    return { command: 'group.gather', input: { id: `g${n}`, name: 'Gathered', placement: `gp${n}`, of } };
  },
  (chance, project) => {
    const id = placement(chance, project);
    return id && { command: 'group.dissolve', input: { placement: id } };
  },
  (chance, { assembly }) => {
    const [id] = chance.some(keys(assembly?.joints), 1);
    return id && { command: 'joint.set', input: { id, fields: { rest: { turn: chance.one(texts) } } } };
  },
  (chance, { parts }) => ({ command: 'part.remove', input: { id: chance.one(keys(parts)) } }),
  (chance) => ({ command: 'variant.add', input: { id: `x${chance.whole(0, 20)}`, name: `V${chance.whole(0, 9)}` } }),
  (chance) => ({ command: 'project.unit', input: { unit: chance.one(['mm', 'cm', 'm', 'in']) } }),
] as readonly Sample[];

/** Edits of the demo, each undone and done again. */
function undone(chance: Chance, refused: { kind: string; code: string }[], tried: string[]): void {
  let project = seedSieve();
  for (let k = 0; k < 12; k++) {
    const action = chance.one(SAMPLES)(chance, project);
    if (!action) continue;
    tried.push(action.command);
    const before = structuredClone(project);
    const done = perform(project, [action]);
    if (!alike(project, before)) throw new Broken('what is asked changes nothing', action.command);
    if (!done.ok) {
      if (explain(done.issue).startsWith('Something is wrong'))
        throw new Broken('a refusal has words', done.issue.code);
      refused.push({ kind: action.command, code: done.issue.code });
      continue;
    }
    const { project: next, change } = done.value;
    const back = applyChange(next, change.backward);
    if (!back.ok || !alike(back.value, before)) throw new Broken('undone it is as before', action.command);
    const again = applyChange(before, change.forward);
    if (!again.ok || !alike(again.value, next)) throw new Broken('done again it is the same', action.command);
    const read = loadProject(JSON.parse(JSON.stringify(next)));
    if (!read.ok || !alike(read.value, next)) throw new Broken('what is kept can be read', action.command);
    project = next;
  }
}

/** A small part whose early steps are changed: what a warm engine makes of it is what a fresh one does. */
async function warmAndCold(kernel: OpenCascadeKernel, engine: Engine, chance: Chance): Promise<void> {
  const groups: (readonly Grown[])[] = [];
  let model: PartModel | undefined;
  const built = async (project: Project, by: Engine) => (await by.build(project, { mesh: MESH })).parts[0]!;
  for (let n = 0; n < 3; n++) {
    const bodies = model?.bodies.map(({ topology, mesh }) => ({ topology: topology!, mesh: mesh! })) ?? [];
    const next = (n === 0 ? begin : more)(chance, `s${n}`, bodies);
    const tried = await built(projectOf([...groups, next].flat()), engine);
    if (tried.steps.some(({ state }) => state === 'failed')) continue;
    groups.push(next);
    model = tried;
  }
  let project = projectOf(groups.flat());
  const edited: string[] = [];
  for (let k = 0; k < 4; k++) {
    const where = step(chance, project);
    if (!where) return;
    const kind = project.parts['part']!.steps[where.step]!.kind;
    const action: Action = chance.happens(0.4)
      ? { command: 'step.suppress', input: { ...where, on: chance.happens(0.6) } }
      : { command: 'step.set', input: { ...where, fields: sized(kind, chance) } };
    const done = perform(project, [action]);
    if (!done.ok) continue;
    edited.push(action.command);
    project = done.value.project;
    await built(project, engine);
  }
  const [warm, cold] = [await built(project, engine), await built(project, new Engine(kernel))];
  const told = ({ steps }: PartModel) =>
    steps.map(({ id, state, issue }) => `${id} ${state} ${issue?.code ?? ''}`).join();
  if (told(warm) !== told(cold)) throw new Broken('edited it is what it is anew', `${told(warm)} | ${told(cold)}`);
  same('edited it is as large as anew', volumeOf(warm), volumeOf(cold), 1e-12);
  witnessed(cold);
}

/** Another number for what a kind of step is told by. */
function sized(kind: string, chance: Chance): Record<string, unknown> {
  const field = { fillet: 'radius', chamfer: 'distance', shell: 'wall', 'pattern-round': 'count' }[kind] ?? 'distance';
  return { [field]: field === 'count' ? `${chance.whole(1, 7)}` : `${chance.number(0.2, 12)} mm` };
}

export async function editCase(kernel: OpenCascadeKernel, engine: Engine, seed: number): Promise<Outcome> {
  const chance = new Chance(seed);
  const refused: { kind: string; code: string }[] = [];
  const tried: string[] = [];
  try {
    undone(chance, refused, tried);
    if (seed % 4 === 0) await warmAndCold(kernel, engine, chance);
    return { seed, refused, tried };
  } catch (error) {
    return { seed, refused, tried, broken: brokenBy(error) };
  }
}
