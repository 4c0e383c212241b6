import { seedSieve } from '../demo/index.ts';
import { namesUsed } from '../expressions/index.ts';
import { explain } from '../wording/index.ts';
import {
  basisOf,
  differences,
  drawnPart,
  emptyProject,
  loadProject,
  broughtFrom,
  perform,
  placedExpressions,
  ProjectScript,
  writeProject,
  type Action,
  type Origin,
  type Project,
} from './index.ts';

const demo = seedSieve();
const named = (name: string, project: Project = demo) =>
  project.partOrder.find((id) => project.parts[id]!.name === name)!;
const origin = (part: string, document = demo, revision = 3, variant?: string) =>
  broughtFrom({ project: 'a0b1c2d3e4f5', revision, document }, named(part, document), variant);
const knob = () => origin('Crank knob');

const did = (project: Project, ...actions: Action[]): Project => {
  const done = perform(project, actions);
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value.project;
};
const refusal = (project: Project, ...actions: Action[]): string => {
  const done = perform(project, actions);
  return done.ok ? 'done' : explain(done.issue);
};
const bring = (from: Origin, id = 'k'): Action => ({ command: 'part.bring', input: { id, from } });
const here = () => did(emptyProject('Here'), bring(knob()));

describe('what of a project a part is built from', () => {
  test.each(demo.partOrder.map((id) => demo.parts[id]!.name))('%s: the values that are read, and no others', (name) => {
    const { design, part } = origin(name);
    expect(design.parts[part]!.steps).toEqual(demo.parts[part]!.steps);
    const read = new Set(placedExpressions(design).flatMap(({ text }) => namesUsed(text)));
    expect(new Set(Object.values(design.values).map((value) => value.name))).toEqual(read);
    // it stands as a project of its own, and within another
    expect(loadProject(JSON.parse(writeProject(design)))).toEqual({ ok: true, value: design });
    const into = did(emptyProject('Here'), bring(origin(name)));
    expect(loadProject(JSON.parse(writeProject(into)))).toEqual({ ok: true, value: into });
  });

  test('a part that looks at others where they stand brings these and how they stand, another stands alone', () => {
    expect(Object.keys(origin('Crank knob').design)).not.toContain('assembly');
    expect(origin('Crank knob').design.partOrder).toHaveLength(1);
    const side = demo.partOrder.find((id) => JSON.stringify(demo.parts[id]).includes('"to":"other"'))!;
    const { design } = origin(demo.parts[side]!.name);
    expect(design.assembly).toEqual(demo.assembly);
    expect(design.partOrder.length).toBeGreaterThan(1);
  });

  test('in a variant: its values stand instead', () => {
    const [variant] = demo.variantOrder!;
    const [value, expression] = Object.entries(demo.variants![variant!]!.values)[0]!;
    const user = demo.partOrder.find((id) => origin(demo.parts[id]!.name).design.values[value])!;
    const from = origin(demo.parts[user]!.name, demo, 3, variant);
    expect(from).toMatchObject({ variant, design: { values: { [value]: { expression } } } });
    expect(from.design.variants).toBeUndefined();
    // it is told as what
    expect(basisOf(from.design)).toBe(demo.variants![variant!]!.name);
  });
});

describe('a part from another project', () => {
  test('is called and made of what it is there, and drawn as it is there', () => {
    const source = demo.parts[named('Crank knob')]!;
    const project = here();
    const part = project.parts['k']!;
    expect(part).toMatchObject({ name: source.name, colour: source.colour, material: source.material, steps: {} });
    const renamed = did(project, { command: 'part.rename', input: { id: 'k', name: 'Grip' } });
    expect(drawnPart(renamed, 'k')).toMatchObject({ name: 'Grip', stepOrder: source.stepOrder, steps: source.steps });
    // through two projects
    const twice = did(emptyProject('Further'), bring(broughtFrom({ revision: 1, document: renamed }, 'k'), 'far'));
    expect(drawnPart(twice, 'far')).toMatchObject({ name: 'Grip', stepOrder: source.stepOrder });
  });

  test('is changed where it is drawn only', () => {
    const [step] = demo.parts[named('Crank knob')]!.stepOrder;
    const words = '"Crank knob" is drawn in the project "Seed sieve": change its steps there.';
    expect(refusal(here(), { command: 'step.suppress', input: { part: 'k', step: step!, on: true } })).toBe(words);
    const sketch = { kind: 'sketch', name: 'S', plane: 'top', entities: {}, relations: {} } as const;
    expect(refusal(here(), { command: 'step.add', input: { part: 'k', id: 's', step: sketch } })).toBe(words);
  });

  test('goes on in another revision: what was given here and made of it here stays', () => {
    const [value] = Object.keys(knob().design.values);
    const wood = { name: 'Beech', density_kg_m3: 710 };
    const project = did(
      here(),
      { command: 'value.add', input: { id: 'v', name: 'grip', expression: '30 mm' } },
      { command: 'part.give', input: { id: 'k', value: value!, expression: 'grip * 2' } },
      { command: 'part.material', input: { id: 'k', material: wood } },
      { command: 'part.update', input: { id: 'k', from: origin('Crank knob', demo, 7) } },
    );
    expect(project.parts['k']).toMatchObject({
      material: wood,
      from: { revision: 7, given: { [value!]: 'grip * 2' } },
    });
    // a name that is changed here is changed in what is given
    const renamed = did(project, { command: 'value.rename', input: { id: 'v', name: 'handle' } });
    expect(renamed.parts['k']!.from!.given).toEqual({ [value!]: 'handle * 2' });
    expect(refusal(renamed, { command: 'value.remove', input: { id: 'v' } })).toContain('is used by Crank knob · ');
    // where the value is not used there any more, what was given for it is let go, and that is told
    const { [value!]: unused, ...values } = knob().design.values;
    const without = { ...knob(), design: { ...knob().design, values, valueOrder: Object.keys(values) } };
    const done = perform(renamed, [{ command: 'part.update', input: { id: 'k', from: without } }]);
    expect(done.ok && done.value.change.label).toContain(`, without what was given for ${unused!.name}`);
    expect(done.ok && done.value.project.parts['k']!.from!.given).toBeUndefined();
    // left as it is there
    const left = did(renamed, { command: 'part.give', input: { id: 'k', value: value! } });
    expect(left.parts['k']!.from!.given).toBeUndefined();
    // a material that nobody has changed here follows
    const steel = did(demo, { command: 'part.material', input: { id: named('Crank knob'), material: wood } });
    const follows = did(here(), { command: 'part.update', input: { id: 'k', from: origin('Crank knob', steel) } });
    expect(follows.parts['k']!.material).toEqual(wood);
  });

  test('what can not be is refused in words', () => {
    const from = knob();
    const lost = { ...from, part: 'nobody' };
    expect(refusal(here(), { command: 'part.update', input: { id: 'k', from: lost } })).toBe(
      'The project "Seed sieve" has no such part as "Crank knob" was.',
    );
    expect(refusal(emptyProject('H'), bring({ ...from, given: { nothing: '1 mm' } }))).toBe(
      '"Crank knob" is given a value that the project "Seed sieve" does not use for it.',
    );
    expect(refusal(demo, { command: 'part.update', input: { id: named('Tray'), from } })).toBe(
      '"Tray" is drawn here: it comes from no other project.',
    );
    const broken = { ...from, design: { ...from.design, partOrder: [] } };
    expect(refusal(emptyProject('H'), bring(broken))).toBe('The list of parts does not match what is there.');
    let deep = here();
    for (const id of ['l', 'm'])
      deep = did(emptyProject('D'), bring(broughtFrom({ revision: 1, document: deep }, deep.partOrder[0]!), id));
    expect(refusal(emptyProject('D'), bring(broughtFrom({ revision: 1, document: deep }, 'm'), 'n'))).toContain(
      'comes through more than 3 projects',
    );
  });
});

describe('what is otherwise in another revision', () => {
  const changed = (...actions: Action[]) => differences(knob(), origin('Crank knob', did(demo, ...actions), 4));
  const part = named('Crank knob');
  const { steps, stepOrder } = demo.parts[part]!;

  test('nothing where it is built alike, whatever else has changed', () => {
    expect(changed()).toEqual([]);
    expect(changed({ command: 'part.rename', input: { id: named('Tray'), name: 'Pan' } })).toEqual([]);
    // in the order of the keys nothing is said
    const shuffled = JSON.parse(JSON.stringify(demo)) as Project;
    for (const other of Object.values(shuffled.parts))
      other.steps = Object.fromEntries(Object.entries(other.steps).reverse());
    expect(differences(knob(), origin('Crank knob', shuffled))).toEqual([]);
  });

  test('values, steps, material, in words', () => {
    const [value, { name, expression }] = Object.entries(knob().design.values)[0]!;
    expect(changed({ command: 'value.set', input: { id: value, expression: '77 mm' } })).toEqual([
      `${name}: 77 mm instead of ${expression}`,
    ]);
    const last = stepOrder.at(-1)!;
    expect(changed({ command: 'step.suppress', input: { part, step: last, on: true } })).toEqual([
      `“${steps[last]!.name}” is changed`,
    ]);
    const more = { kind: 'sketch', name: 'More', plane: 'top', entities: {}, relations: {} } as const;
    expect(changed({ command: 'step.add', input: { part, id: 'more', step: more } })).toEqual(['“More” is new']);
    expect(changed({ command: 'part.material', input: { id: part } })).toEqual([
      `of no material instead of ${demo.parts[part]!.material!.name}`,
    ]);
  });
});

test('a script may bring a part as the page does', () => {
  const script = new ProjectScript('By script').do('part.bring', { id: 'k', name: 'Grip', from: knob() });
  expect(script.project.parts['k']!.name).toBe('Grip');
});
