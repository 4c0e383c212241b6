import {
  EditBuilder,
  offsetOf,
  fingerprintOfEdge,
  renewal,
  type Entities,
  type SketchStep,
  type Id,
  type Reference,
  type Step,
  perform,
} from '@helb/core';
import type { OpenCascadeKernel } from '@helb/kernel';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine, inspect, type PartModel } from './index.ts';
import { changed, MESH, Plate } from './test-plate.ts';

let kernel: OpenCascadeKernel;
beforeAll(async () => (kernel = await startKernelInNode()));

const volume = ({ bodies }: PartModel) => bodies.reduce((sum, body) => sum + body.measures.volume_mm3, 0);
const disc = (d: number) => (Math.PI * d * d) / 4;

describe('a sketch on a face that borrows its outline', () => {
  async function raised(): Promise<Plate> {
    const plate = new Plate(kernel);
    const { reference } = await plate.face(`${plate.ids['plate']}/end`);
    plate.add('rim', { kind: 'sketch', name: 'Rim', plane: reference, entities: {}, relations: {} });
    await plate.borrow('rim', `${plate.ids['plate']}/end`);
    plate.extrude('raise', 'rim', '4 mm', 'add');
    return plate;
  }

  test('follows every value of its source: plane, size, bore', async () => {
    const plate = await raised();
    const at = async (wide: number, thick: number, bore: number) => {
      const project = [
        ['wide', `${wide} mm`],
        ['thick', `${thick} mm`],
        ['bore', `${bore} mm`],
      ].reduce((now, [name, expression]) => {
        const id = Object.keys(now.values).find((key) => now.values[key]!.name === name)!;
        return changed(now, { command: 'value.set', input: { id, expression: expression! } });
      }, plate.script.project);
      const model = await plate.model(project);
      expect(model.steps.map(({ state, references }) => [state, references])).toEqual(
        Array(4).fill(['built', undefined]),
      );
      expect(model.sketches.get(plate.ids['rim']!)!.solution).toMatchObject({ state: 'settled', freedoms: 0 });
      expect(volume(model)).toBeCloseTo((wide * 30 - disc(bore)) * (thick + 4), 6);
    };
    await at(40, 6, 8);
    await at(95, 6, 8);
    await at(26, 13, 3);
    await at(150, 1, 25);
  });

  test('a source that goes is told and stays where it was; the rest follows on', async () => {
    const plate = await raised();
    const { part, ids } = plate;
    const without = changed(plate.set('wide', '60 mm'), {
      command: 'sketch.erase',
      input: { part, step: ids['sketch']!, ids: [ids['bore']!] },
    });
    const model = await plate.model(without);
    const rim = model.steps.find(({ id }) => id === ids['rim'])!;
    expect(rim).toMatchObject({ state: 'failed', issue: { code: 'borrow.lost', facts: { gone: 2, of: 10 } } });
    // the plate has no bore any more, what is raised on it still has
    expect(volume(model)).toBeCloseTo(60 * 30 * 6 + (60 * 30 - disc(8)) * 4, 6);
    expect(inspect(without, { parts: [model], values: [] }).findings.map(({ code }) => code)).toContain('borrow.lost');
  });

  test('an outline that gets another curve says so', async () => {
    const plate = await raised();
    const { part, ids } = plate;
    const more = changed(plate.script.project, {
      command: 'sketch.draw',
      input: {
        part,
        step: ids['sketch']!,
        what: 'circle',
        entities: { z1: { kind: 'point', x: 30, y: 20 }, z2: { kind: 'circle', centre: 'z1', radius: 2 } },
        relations: {},
      },
    });
    const model = await plate.model(more);
    expect(Object.values(model.sketches.get(ids['rim']!)!.sources.more)).toEqual([1]);
    expect(inspect(more, { parts: [model], values: [] }).findings.map(({ message }) => message)).toContain(
      'A borrowed outline has one curve more than was borrowed.',
    );
  });

  test('an outline that got rounded corners is taken as it is now, and what lies beside it follows', async () => {
    const plate = await raised();
    const { part, ids } = plate;
    const step = ids['rim']!;
    const sketch = () => plate.script.project.parts[part]!.steps[step] as SketchStep;
    // a wall 3 wide along the rim: everything inside of it is cut away
    const before = await plate.model();
    const drawn = before.sketches.get(step)!.solution.geometry;
    const lines = Object.keys(drawn.entities).filter((id) => drawn.entities[id]!.kind === 'line');
    const builder = new EditBuilder({ geometry: drawn, relations: {} }, plate.script.newId);
    const beside = offsetOf(builder, lines, [20, 15], { text: '3 mm', size: 3 });
    if (!beside.ok) throw new Error(beside.issue.code);
    plate.script.do('sketch.revise', { part, step, what: 'offset', ...beside.value, remove: [] });
    expect(volume(await plate.model())).toBeCloseTo((40 * 30 - disc(8)) * 6 + (40 * 30 - 34 * 24 + disc(8)) * 4, 6);
    // the upright edges get rounded before all that
    const { topology } = (await plate.model(plate.script.project)).bodies[0]!;
    const bodyBefore = await new Engine(kernel).build(
      changed(plate.script.project, { command: 'step.remove', input: { part, steps: [ids['raise']!, step] } }),
      { mesh: MESH },
    );
    const upright = bodyBefore.parts[0]!.bodies[0]!.topology!.edges.filter(
      ({ name, curve }) => curve.form === 'line' && name.split('/side').length === 3,
    );
    expect([upright.length, topology!.edges.length > 0]).toEqual([4, true]);
    const edges = upright.map((edge): Reference => ({ to: 'edge', name: edge.name, print: fingerprintOfEdge(edge) }));
    plate.script.do('step.add', {
      part,
      id: 'round',
      at: 2,
      step: { kind: 'fillet', name: 'Round', edges, radius: '5 mm' },
    });
    const changedModel = await plate.model();
    const { sources, solution } = changedModel.sketches.get(step)!;
    const [[loan, now]] = Object.entries(sources.now) as [[string, Entities]];
    expect(changedModel.steps.find(({ id }) => id === step)!.state).not.toBe('built');
    const next = renewal(sketch(), loan, now, solution.geometry, plate.script.newId);
    plate.script.do('sketch.renew', { part, step, loan, ...next, remove: [...next.remove] });
    const model = await plate.model();
    expect(model.steps.map(({ state }) => state)).toEqual(Array(model.steps.length).fill('built'));
    expect(model.sketches.get(step)!.solution).toMatchObject({ state: 'settled', freedoms: 0 });
    expect(model.sketches.get(step)!.sources).toMatchObject({ more: {}, lost: {}, now: {} });
    const rounded = (w: number, h: number, r: number) => w * h - (4 - Math.PI) * r * r;
    const wall = rounded(40, 30, 5) - rounded(34, 24, 2) + disc(8);
    expect(volume(model)).toBeCloseTo((rounded(40, 30, 5) - disc(8)) * 6 + wall * 4, 6);
    // the sides that were there before are still the same lines, and so are those beside them
    for (const id of [...lines, ...Object.keys(beside.value.entities).filter((k) => k.startsWith('l'))])
      expect(Object.keys(sketch().entities)).toContain(id);
    // and the radius goes on being followed
    plate.script.do('step.set', { part, step: 'round', fields: { radius: '4 mm' } });
    const other = rounded(40, 30, 4) - rounded(34, 24, 1) + disc(8);
    expect(volume(await plate.model())).toBeCloseTo((rounded(40, 30, 4) - disc(8)) * 6 + other * 4, 6);
  });

  test('what was borrowed can be let go: it stays, and is free', async () => {
    const plate = await raised();
    const { part, ids } = plate;
    const { loans } = plate.script.project.parts[part]!.steps[ids['rim']!] as Extract<Step, { kind: 'sketch' }>;
    const [loan] = Object.keys(loans!) as [Id];
    const free = changed(plate.script.project, {
      command: 'sketch.let-go',
      input: { part, step: ids['rim']!, loan },
    });
    const model = await plate.model(free);
    expect(model.sketches.get(ids['rim']!)!.solution.freedoms).toBe(11);
    expect(volume(model)).toBeCloseTo((40 * 30 - disc(8)) * 10, 6);
  });

  test('an edit may not reshape what is borrowed; erasing it takes it out of the loan', async () => {
    const plate = await raised();
    const { part, ids, script } = plate;
    const rim = () => script.project.parts[part]!.steps[ids['rim']!] as Extract<Step, { kind: 'sketch' }>;
    const [circle] = Object.entries(rim().entities).find(([, { kind }]) => kind === 'circle')!;
    const [line, record] = Object.entries(rim().entities).find(([, { kind }]) => kind === 'line')!;
    const other = Object.keys(rim().entities).find(
      (id) => rim().entities[id]!.kind === 'point' && !('a' in record && [record.a, record.b].includes(id)),
    )!;
    const refused = perform(script.project, [
      {
        command: 'sketch.revise',
        input: {
          part,
          step: ids['rim']!,
          what: 'extend',
          entities: { [line]: { ...record, b: other } as never },
          relations: {},
          remove: [],
        },
      },
    ]);
    expect(refused).toMatchObject({ ok: false, issue: { code: 'borrow.held' } });
    script.do('sketch.erase', { part, step: ids['rim']!, ids: [circle] });
    expect(Object.values(Object.values(rim().loans!)[0]!.makes)).not.toContain(circle);
    expect((await plate.model()).steps.every(({ state }) => state === 'built')).toBe(true);
  });

  test('the sketch can not stand before the step that made its face, nor be built once that is gone', async () => {
    const plate = await raised();
    const { part, ids, script } = plate;
    expect(
      perform(script.project, [{ command: 'step.move', input: { part, step: ids['rim']!, to: 0 } }]),
    ).toMatchObject({
      ok: false,
      issue: { code: 'step.needs' },
    });
    const model = await plate.model(
      changed(script.project, { command: 'step.suppress', input: { part, step: ids['plate']!, on: true } }),
    );
    expect(model.steps.map(({ state }) => state)).toEqual(['built', 'suppressed', 'failed', 'failed']);
    expect(model.steps[2]!.references!.map(({ fate }) => fate)).toEqual(['gone', 'gone']);
  });
});

describe('planes that follow', () => {
  test('a datum plane over a face, a sketch on it, and the crossing of a bore', async () => {
    const plate = new Plate(kernel);
    const { reference } = await plate.face(`${plate.ids['plate']}/end`);
    plate.add('above', { kind: 'datum-plane', name: 'Above', how: 'offset', on: [reference], by: 'thick' });
    const on: Reference = { to: 'datum', step: plate.ids['above']! };
    plate.add('lid', { kind: 'sketch', name: 'Lid', plane: on, entities: {}, relations: {} });
    await plate.borrow('lid', `${plate.ids['plate']}/end`);
    plate.extrude('cover', 'lid', '2 mm', 'new');
    const thick = await plate.model(plate.set('thick', '9 mm'));
    expect(thick.datums.get(plate.ids['above']!)).toMatchObject({ frame: { origin: [0, 0, 18] } });
    expect(thick.bodies.map(({ measures }) => measures.box_mm.low[2])).toEqual([
      expect.closeTo(0, 9),
      expect.closeTo(18, 9),
    ]);
    expect(inspect(plate.script.project, { parts: [thick], values: [] }).parts[0]!.datums).toEqual([
      { name: 'Above', form: 'plane', at_mm: [0, 0, 18], along: [0, 0, 1] },
    ]);
  });

  test('where the plane crosses a bore are two lines as far apart as it is wide, whatever its size', async () => {
    const plate = new Plate(kernel);
    const side = await plate.face(`${plate.ids['plate']}/side/${plate.ids['bore']}`);
    plate.add('mid', { kind: 'datum-plane', name: 'Mid', how: 'parallel', on: [{ to: 'origin', name: 'front' }] });
    const { project } = plate.script;
    const rimEdge: Reference = {
      to: 'edge',
      name: `${plate.ids['plate']}/end | ${side.reference.to === 'face' ? side.reference.name : ''}`,
    };
    plate.script.do('step.set', {
      part: plate.part,
      step: plate.ids['mid']!,
      fields: { on: [{ to: 'origin', name: 'front' }, rimEdge] },
    });
    expect(project).not.toBe(plate.script.project);
    plate.add('cut', {
      kind: 'sketch',
      name: 'Cut',
      plane: { to: 'datum', step: plate.ids['mid']! },
      entities: {},
      relations: {},
    });
    await plate.borrow('cut', side.reference.to === 'face' ? side.reference.name : '', 'crossing');
    const xs = async (bore: string) => {
      const sketch = (await plate.model(plate.set('bore', bore))).sketches.get(plate.ids['cut']!)!;
      expect(sketch.sources.lost).toEqual({});
      const { geometry } = sketch.solution;
      return Object.keys(geometry.entities)
        .filter((id) => geometry.roleOf(id) === 'line')
        .map((id) => geometry.line(id).a[0])
        .toSorted((a, b) => a - b);
    };
    expect(await xs('8 mm')).toEqual([expect.closeTo(11, 9), expect.closeTo(19, 9)]);
    expect(await xs('14 mm')).toEqual([expect.closeTo(8, 9), expect.closeTo(22, 9)]);
  });

  test('sketch curves are borrowed from other sketches, and follow them', async () => {
    const plate = new Plate(kernel);
    const { part, script, ids } = plate;
    script.do('step.add', {
      part,
      id: 'pin',
      step: {
        kind: 'sketch',
        name: 'Pin',
        plane: 'top',
        entities: { m: { kind: 'point', x: 0, y: 0 }, c: { kind: 'circle', centre: 'm', radius: 1 } },
        relations: {},
        loans: {
          o: {
            source: { to: 'drawn', step: ids['sketch']!, entity: ids['bore']! },
            how: 'shape',
            makes: { curve: 'c', 'curve centre': 'm' },
          },
        },
      },
    });
    const sketch = (await plate.model(plate.set('bore', '11 mm'))).sketches.get('pin')!;
    expect(sketch.solution.geometry.circle('c')).toEqual({
      centre: [expect.closeTo(15, 9), expect.closeTo(15, 9)],
      radius: expect.closeTo(5.5, 9),
    });
    expect(
      perform(script.project, [{ command: 'step.remove', input: { part, steps: [ids['sketch']!] } }]),
    ).toMatchObject({
      ok: false,
      issue: { code: 'step.used' },
    });
  });
});
