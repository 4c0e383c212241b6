import {
  borrowingOf,
  buildOrder,
  explain,
  locate,
  transformThing,
  perform,
  fingerprintOf,
  projected,
  ProjectScript,
  IDENTITY,
  takeable,
  type Action,
  type Entities,
  type Id,
  type OtherReference,
  type Project,
  type SketchStep,
  type Vec3,
} from '@helb/core';
import { placementOf, triple, type Placement } from '@helb/core/assembly';
import { rectangle, rectangleSizes } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine, type PartModel } from './index.ts';
import { axis, plane, total } from './test-fixture.ts';

let engine: Engine;
beforeAll(async () => (engine = new Engine(await startKernelInNode())));

/** A face of the block that the first extrusion makes, by its part in that. */
const TOP = 'e/end';

const at = (part: Id, x: string, y: string, z: string, turn = triple('0 deg', '0 deg', '0 deg')): Placement => ({
  ...placementOf(part, { part }),
  at: triple(x, y, z),
  turn,
});

/** A plate `wide` x 40 x `sheet` that lies turned by a quarter at (100, 20, 5), and a cover at the origin. */
function plateAndCover(): ProjectScript {
  const script = new ProjectScript('Box');
  script.do('value.add', { id: 'v1', name: 'wide', expression: '60 mm' });
  script.do('value.add', { id: 'v2', name: 'sheet', expression: '6 mm' });
  for (const id of ['plate', 'cover']) script.do('part.add', { id, name: id });
  const entities = rectangle(0, 0, 60, 40);
  const relations = rectangleSizes('wide', '40 mm');
  script.do('step.add', {
    part: 'plate',
    id: 's',
    step: { kind: 'sketch', name: 'S', plane: 'top', entities, relations },
  });
  script.do('step.add', {
    part: 'plate',
    id: 'e',
    step: { kind: 'extrude', name: 'E', sketch: 's', distance: 'sheet' },
  });
  const turned = triple('0 deg', '0 deg', '90 deg');
  script.do('placement.add', { id: 'p', record: at('plate', '100 mm', '20 mm', '5 mm', turned) });
  return script.do('placement.add', { id: 'c', record: at('cover', '0 mm', '0 mm', '0 mm') });
}

const toTop = (more: Partial<OtherReference> = {}): OtherReference => ({
  to: 'other',
  at: 'p',
  from: 'c',
  on: { to: 'face', name: TOP },
  ...more,
});

const build = async (project: Project) => {
  const { parts } = await engine.build(project);
  return Object.fromEntries(parts.map((part) => [part.id, part])) as Record<string, PartModel>;
};
const box = ({ bodies }: PartModel) => bodies[0]!.measures.box_mm;
const near = (place: Vec3, expected: Vec3) => place.forEach((c, k) => expect(c).toBeCloseTo(expected[k]!, 6));
const told = ({ steps }: PartModel): string[] => steps.flatMap(({ issue }) => (issue ? [explain(issue)] : []));
const performed = (project: Project, ...actions: Action[]): Project => {
  const done = perform(project, actions);
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value.project;
};

/** A cover on the plate, of its outline and 2 mm thick, drawn as the page does it. */
async function covered(script = plateAndCover(), source = toTop()): Promise<Project> {
  const where = { part: 'cover', step: 't' };
  const empty = { kind: 'sketch', name: 'T', plane: source, entities: {}, relations: {} } as const;
  script.do('step.add', { part: 'cover', id: 't', step: empty });
  const { assembled, model } = await engine.assemble(script.project, { mesh: { deflection: 1, angle: 1 } });
  expect(assembled.issues.size).toBe(0);
  const plate = model.parts.find(({ id }) => id === 'plate')!.bodies[0]!.topology!;
  const found = locate(source.on, 'plane', { bodies: [plate], datum: () => undefined, drawn: () => undefined });
  if (!found.ok) throw new Error(explain(found.issue));
  const { frame, sources } = model.parts.find(({ id }) => id === 'cover')!.sketches.get('t')!;
  expect(sources.lost).toEqual({});
  // seen from the assembly: only the shape counts here, the engine finds the place
  const seen = projected(transformThing(found.value.thing, IDENTITY), 'shape', frame, () => []);
  if (!seen.ok) throw new Error(explain(seen.issue));
  const borrowed = borrowingOf(seen.value, source, 'shape', { loans: {}, construction: false, newId: script.newId });
  script.do('sketch.borrow', { ...where, id: 'o', ...borrowed });
  script.do('step.add', {
    part: 'cover',
    id: 'x',
    step: { kind: 'extrude', name: 'X', sketch: 't', distance: '2 mm' },
  });
  return script.project;
}

describe('a cover drawn on a plate that is placed elsewhere', () => {
  test('lies where the plate is, seen from its own placement', async () => {
    const { plate, cover } = await build(await covered());
    expect(told(cover!)).toEqual([]);
    expect(total(plate!)).toBeCloseTo(60 * 40 * 6, 6);
    expect(total(cover!)).toBeCloseTo(60 * 40 * 2, 6);
    // the plate goes from (0, 0) to (60, 40); turned by a quarter and shifted from (60, 20) to (100, 80)
    near(box(cover!).low, [60, 20, 11]);
    near(box(cover!).high, [100, 80, 13]);
  });

  test('follows the values of the plate and the numbers of both placements', async () => {
    const project = await covered();
    const wider = performed(
      project,
      { command: 'value.set', input: { id: 'v1', expression: '75 mm' } },
      { command: 'value.set', input: { id: 'v2', expression: '9 mm' } },
      { command: 'placement.set', input: { id: 'c', fields: { at: triple('10 mm', '0 mm', '1 mm') } } },
    );
    const { cover } = await build(wider);
    expect(told(cover!)).toEqual([]);
    expect(total(cover!)).toBeCloseTo(75 * 40 * 2, 6);
    near(box(cover!).low, [50, 20, 13]);
    near(box(cover!).high, [90, 95, 15]);
  });

  test('built alone it brings what it takes from; what it does not reach is not built again', async () => {
    const project = await covered();
    const alone = await engine.build(project, { parts: ['cover'] });
    expect(alone.parts.map(({ id }) => id)).toEqual(['cover']);
    expect(total(alone.parts[0]!)).toBeCloseTo(60 * 40 * 2, 6);
    const computed: string[] = [];
    const thicker = performed(project, {
      command: 'step.set',
      input: { part: 'cover', step: 'x', fields: { distance: '4 mm' } },
    });
    await engine.build(thicker, { progress: (_, __, name) => computed.push(name) });
    expect(computed).toEqual(['X']);
  });

  test('where its sketch crosses the plate: found round it, borrowed, and it follows', async () => {
    // the sketch of the cover stands upright at x = 70 of the assembly, where the plate is 60 long and 6 high
    const script = plateAndCover().do('placement.set', {
      id: 'c',
      fields: { at: triple('70 mm', '0 mm', '0 mm') },
    });
    const where = { part: 'cover', step: 't' };
    const empty = { kind: 'sketch', name: 'T', plane: 'right', entities: {}, relations: {} } as const;
    script.do('step.add', { part: 'cover', id: 't', step: empty });
    const around = await engine.crossingsAround(script.project, 'cover', 't');
    expect([...around.keys()]).toEqual(['p']);
    const edges = around.get('p')!;
    expect(edges).toHaveLength(4);
    expect(edges.reduce((sum, { length }) => sum + length, 0)).toBeCloseTo(2 * (60 + 6), 6);
    const model = (await engine.assemble(script.project, { mesh: { deflection: 1, angle: 1 } })).model;
    const topology = model.parts.find(({ id }) => id === 'plate')!.bodies[0]!.topology!;
    const { frame } = model.parts.find(({ id }) => id === 'cover')!.sketches.get('t')!;
    // the four sides of the section, each from its face, as the page takes them
    for (const face of topology.faces) {
      const source: OtherReference = { to: 'other', at: 'p', from: 'c', on: { to: 'face', name: face.name } };
      const thing = transformThing({ to: 'face', face, body: 0, topology }, IDENTITY);
      const seen = projected(thing, 'crossing', frame, () => edges);
      if (!seen.ok) continue;
      const loans = (script.project.parts['cover']!.steps['t'] as SketchStep).loans ?? {};
      const made = borrowingOf(seen.value, source, 'crossing', { loans, construction: false, newId: script.newId });
      script.do('sketch.borrow', { ...where, id: script.newId('o'), ...made });
    }
    script.do('step.add', {
      part: 'cover',
      id: 'x',
      step: { kind: 'extrude', name: 'X', sketch: 't', distance: '2 mm' },
    });
    const { cover } = await build(script.project);
    expect(told(cover!)).toEqual([]);
    expect(total(cover!)).toBeCloseTo(60 * 6 * 2, 6);
    near(box(cover!).low, [0, 20, 5]);
    const taller = performed(script.project, { command: 'value.set', input: { id: 'v2', expression: '11 mm' } });
    expect(total((await build(taller)).cover!)).toBeCloseTo(60 * 11 * 2, 6);
    // past the plate nothing is crossed: what was borrowed stays where it was, and that is told
    const past = performed(script.project, {
      command: 'placement.set',
      input: { id: 'c', fields: { at: triple('200 mm', '0 mm', '0 mm') } },
    });
    expect((await engine.crossingsAround(past, 'cover', 't')).get('p')).toEqual([]);
    expect(told((await build(past)).cover!)).toEqual(['The sketch plane does not cross this face any more.']);
  });

  test('a joint between the two counts as well, where it holds by what comes before', async () => {
    const joint = {
      name: 'Lid',
      kind: 'rigid',
      a: { placement: 'p', on: { to: 'face', name: TOP }, spot: 'middle' },
      b: { placement: 'c', on: plane('top'), spot: 'middle' },
      flip: false,
      offset: '1 mm',
      angle: '0 deg',
    } as const;
    const script = plateAndCover().do('joint.add', { id: 'j', record: joint });
    const { cover } = await build(await covered(script));
    expect(told(cover!)).toEqual([]);
    // the origin of the cover sits 1 mm above the middle of the plate, the cover's sketch on the plate itself
    near(box(cover!).low, [-30, -20, -1]);
    near(box(cover!).high, [30, 20, 1]);
  });

  test('a joint by what the step itself makes puts them elsewhere in the end, and that is told', async () => {
    const project = await covered();
    const side = { placement: 'c', on: { to: 'face', name: 'x/start' }, spot: 'middle' } as const;
    const { parts } = await engine.build(project, { mesh: { deflection: 1, angle: 1 } });
    const start = parts[1]!.bodies[0]!.topology!.faces.find(({ name }) => name.startsWith('x/start'))!;
    const joint = {
      name: 'Lid',
      kind: 'rigid',
      a: { placement: 'p', on: { to: 'face', name: TOP }, spot: 'middle' },
      b: { ...side, on: { to: 'face', name: start.name } },
      flip: true,
      offset: '30 mm',
      angle: '0 deg',
    } as const;
    const joined = performed(project, { command: 'joint.add', input: { id: 'j', record: joint } });
    const { cover } = await build(joined);
    expect(cover!.steps.map(({ state }) => state)).toEqual(['failed', 'built']);
    expect(told(cover!)).toEqual([expect.stringMatching(/"plate" stands elsewhere in the end/)]);
  });
});

test('other things of a part can be taken: its axes as axes, its corners as places; not its faces as faces to change', async () => {
  const project = await covered();
  const other = (on: OtherReference['on']): OtherReference => toTop({ on });
  const built = async (id: Id, step: object) => {
    const next = performed(project, { command: 'step.add', input: { part: 'cover', id, step: step as never } });
    return (await build(next))['cover']!;
  };
  const mirrored = await built('m', { kind: 'datum-axis', name: 'A', how: 'along', on: [other(axis('x') as never)] });
  expect(told(mirrored)).toEqual([]);
  const datum = mirrored.datums.get('m');
  expect(datum?.form).toBe('axis');
  if (datum?.form === 'axis') {
    near(datum.origin, [100, 20, 5]);
    near(datum.direction, [0, 1, 0]);
  }
  const shelled = await built('h', { kind: 'shell', name: 'H', open: [toTop()] });
  expect(told(shelled)).toEqual([expect.stringMatching(/needs a face/)]);
});

test('a loop of parts is refused by their names, also from one part to itself', async () => {
  const project = await covered();
  const from = (part: Id, at: string): Action => ({
    command: 'step.add',
    input: {
      part,
      id: 'z',
      step: {
        kind: 'sketch',
        name: 'Z',
        plane: { to: 'other', at, on: plane('top') } as never,
        entities: {},
        relations: {},
      },
    },
  });
  const loop = perform(project, [from('plate', 'c')]);
  expect(!loop.ok && explain(loop.issue)).toBe(
    'Parts can not take from each other in a loop: "plate" from "cover", and that from "plate".',
  );
  const self = perform(project, [from('cover', 'c')]);
  expect(!self.ok && explain(self.issue)).toMatch(/"cover" can not take from itself/);
});

test('a placement that is gone is told, what was drawn stays; gathered into a group all goes on', async () => {
  const project = await covered();
  const gone = await build(performed(project, { command: 'placement.remove', input: { ids: ['p'] } }));
  expect(told(gone['cover']!)).toEqual([
    expect.stringMatching(/placement that this builds on is not there any more/),
    expect.stringMatching(/"T" before it has to be mended first/),
  ]);
  // what was drawn stays where it was
  expect(gone['cover']!.sketches.get('t')!.regions.regions).toHaveLength(1);
  for (const gathered of [['p'], ['p', 'c'], ['c']]) {
    const gather = { id: 'g', name: 'Group', placement: 'pg', of: gathered };
    const grouped = await build(performed(project, { command: 'group.gather', input: gather }));
    expect(told(grouped['cover']!)).toEqual([]);
    near(box(grouped['cover']!).low, [60, 20, 11]);
  }
});

test('a face that is renamed is recovered or offered, as in one part', async () => {
  const project = await covered();
  const print = fingerprintOf({
    to: 'face',
    body: 0,
    topology: undefined as never,
    face: {
      name: '',
      surface: { form: 'plane', origin: [0, 0, 6], normal: [0, 0, 1] },
      area: 2400,
      centre: [30, 20, 6],
    },
  });
  const lost = toTop({ on: { to: 'face', name: 'q/end', print: print! } });
  const again = performed(project, {
    command: 'step.set',
    input: { part: 'cover', step: 't', fields: { plane: lost } },
  });
  const { cover } = await build(again);
  expect(cover!.steps[0]!.references).toMatchObject([
    { fate: 'recovered', offers: [{ to: 'other', at: 'p', from: 'c', on: { name: TOP } }] },
  ]);
});

describe('the opposite hand of a part', () => {
  /** An angle with a bore off its middle: no turn makes it its own mirror image. */
  function angle(plane: string): ProjectScript {
    const script = new ProjectScript('Angle').do('value.add', { id: 'v', name: 'leg', expression: '30 mm' });
    for (const id of ['left', 'right']) script.do('part.add', { id, name: id });
    const sketch = (id: Id, entities: Entities, at: string) =>
      script.do('step.add', {
        part: 'left',
        id,
        step: { kind: 'sketch', name: id, plane: at, entities, relations: {} } as never,
      });
    sketch('a', rectangle(0, 0, 20, 4), 'top');
    const extruded = (id: Id, of: Id, distance: string, result: string) =>
      script.do('step.add', {
        part: 'left',
        id,
        step: { kind: 'extrude', name: id, sketch: of, distance, result } as never,
      });
    extruded('b', 'a', 'leg', 'new');
    sketch('c', rectangle(0, 0, 3, 11), 'top');
    extruded('d', 'c', '10 mm', 'add');
    const step = { kind: 'opposite-hand', name: 'Hand', of: 'left', plane } as never;
    return script.do('step.add', { part: 'right', id: 'h', step });
  }

  test.each([
    ['right', 0],
    ['front', 1],
    ['top', 2],
  ])('is its image in %s, and follows it', async (plane, across) => {
    const { project } = angle(plane);
    for (const [leg, changed] of [
      [30, project],
      [42, performed(project, { command: 'value.set', input: { id: 'v', expression: '42 mm' } })],
    ] as const) {
      const { left, right } = await build(changed);
      expect(told(right!)).toEqual([]);
      expect(total(right!)).toBeCloseTo(20 * 4 * leg + 3 * 7 * 10, 6);
      const image = (place: Vec3) => place.map((c, k) => (k === across ? -c : c)) as unknown as Vec3;
      near(right!.bodies[0]!.measures.centre_mm, image(left!.bodies[0]!.measures.centre_mm));
    }
  });

  test('its faces have lasting names of their own; a step works on them', async () => {
    const { project } = angle('right');
    const { parts } = await engine.build(project, { mesh: { deflection: 1, angle: 1 } });
    const names = parts[1]!.bodies[0]!.topology!.faces.map(({ name }) => name);
    expect(names.every((name) => name.startsWith('h/m1/'))).toBe(true);
    const shell = { kind: 'shell', name: 'S', open: [{ to: 'face', name: 'h/m1/b/end' }], wall: '1 mm' } as never;
    const { right } = await build(
      performed(project, { command: 'step.add', input: { part: 'right', id: 'k', step: shell } }),
    );
    expect(told(right!)).toEqual([]);
  });

  test('a part that it is taken from is not removed, and takes nothing from it', async () => {
    const { project } = angle('right');
    const removed = perform(project, [{ command: 'part.remove', input: { id: 'left' } }]);
    expect(!removed.ok && explain(removed.issue)).toBe('"left" is taken from by right. Remove or change these first.');
    const back = { kind: 'opposite-hand', name: 'Back', of: 'right' } as never;
    const loop = perform(project, [{ command: 'step.add', input: { part: 'left', id: 'z', step: back } }]);
    expect(!loop.ok && explain(loop.issue)).toMatch(/in a loop: "left" from "right"/);
    const lost = perform(project, [
      { command: 'step.set', input: { part: 'right', step: 'h', fields: { of: 'gone' } } },
    ]);
    expect(!lost.ok && explain(lost.issue)).toMatch(/a part that is not there/);
    const unset = performed(project, {
      command: 'step.add',
      input: { part: 'right', id: 'u', step: { kind: 'opposite-hand', name: 'U' } },
    });
    expect(told((await build(unset))['right']!)).toEqual(['Choose another part.']);
    const empty = performed(
      project,
      { command: 'part.add', input: { id: 'none', name: 'None' } },
      { command: 'step.set', input: { part: 'right', step: 'h', fields: { of: 'none' } } },
    );
    expect(told((await build(empty))['right']!)).toEqual(['"None" has no body: there is nothing to take.']);
  });

  test('the parts that can be taken from are those that do not take from it', () => {
    const { project } = angle('right');
    expect(takeable(project, 'left')).toEqual([]);
    expect(takeable(project, 'right')).toEqual(['left']);
    expect(buildOrder({ ...project, partOrder: ['right', 'left'] }, ['right'])).toEqual(['left', 'right']);
  });
});
