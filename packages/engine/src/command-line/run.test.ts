import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { boxOfOutline, readOutline } from '@helb/core/outlines';
import { ProjectScript, writeProject, type Kernel } from '@helb/core';
import { placementOf } from '@helb/core/assembly';
import { rectangle, stlVolume } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import type { Inspection } from '../inspect.ts';
import { BodyCache } from '../body-cache.ts';
import { Engine } from '../engine.ts';
import { run } from './run.ts';

let folder: string;
let kernel: Kernel;
/** One for all: what one command has built of the demo the next need not build again. */
let cache: BodyCache;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'helb-'));
  kernel = await startKernelInNode();
  cache = new BodyCache(kernel);
  await helb('write-demo', demo());
});
afterAll(() => rm(folder, { recursive: true }));

const demo = () => join(folder, 'demo.json');

async function helb(...args: string[]) {
  const out: string[] = [];
  const err: string[] = [];
  const code = await run(args, {
    print: (text) => out.push(text),
    complain: (text) => err.push(text),
    startEngine: (files) => Promise.resolve(new Engine(kernel, { cache, files })),
  });
  return { code, out: out.join('\n'), err: err.join('\n') };
}

test('bodies from STEP files beside the project, or in a folder that is named; found by their content', async () => {
  const elsewhere = await mkdtemp(join(folder, 'elsewhere-'));
  const volumes = async (...args: string[]) => {
    const { parts } = JSON.parse((await helb('inspect', ...args, '--json')).out) as Inspection;
    return Object.fromEntries(parts.map(({ name, volume_mm3 }) => [name, volume_mm3]));
  };
  /** A project whose only part is one of the demo, brought in from a file in a folder. */
  const bought = async (part: string, where: string) => {
    const path = join(where, 'bought.step');
    await helb('export', demo(), '--part', part, '--to', path);
    const bytes = await readFile(path);
    const hash = createHash('sha256').update(bytes).digest('hex');
    const step = { kind: 'bring-in', name: 'Bought', file: { hash, name: 'bought.step', size: bytes.length } } as const;
    const script = new ProjectScript('Bought').do('part.add', { id: 'p', name: part });
    script.do('step.add', { part: 'p', id: 'b', step });
    const project = join(folder, `${part}.json`);
    await writeFile(project, writeProject(script.project));
    return project;
  };
  const exact = await volumes(demo());
  const arm = await bought('Crank arm', elsewhere);
  const missing = await helb('inspect', arm);
  expect(missing.code).toBe(3);
  expect(missing.out).toContain('bought.step is not here: no file of this name with the same content lies in');
  expect((await volumes(arm, '--files', elsewhere))['Crank arm']! / exact['Crank arm']!).toBeCloseTo(1, 9);
  const knob = await bought('Crank knob', folder);
  expect((await volumes(knob))['Crank knob']! / exact['Crank knob']!).toBeCloseTo(1, 6);
});

describe('bring', () => {
  const block = (high: string) =>
    new ProjectScript('Blocks')
      .do('value.add', { id: 'h', name: 'high', expression: high })
      .do('part.add', { id: 'b', name: 'Block' })
      .do('step.add', { part: 'b', id: 's', step: { ...SKETCH, entities: rectangle(0, 0, 10, 20) } })
      .do('step.add', { part: 'b', id: 'e', step: { kind: 'extrude', name: 'E', sketch: 's', distance: 'high' } });
  const SKETCH = { kind: 'sketch', name: 'S', plane: 'top', relations: {} } as const;
  const into = () => join(folder, 'into.json');
  const from = () => join(folder, 'blocks.json');
  const volume = async () => {
    const { parts } = JSON.parse((await helb('inspect', into(), '--json')).out) as Inspection;
    return parts.map(({ name, from: origin, volume_mm3 }) => [name, origin?.project, Math.round(volume_mm3)]);
  };

  test('a part of another file comes in; brought again it is taken as it is now, and what is otherwise is told', async () => {
    await writeFile(into(), writeProject(new ProjectScript('Into').project));
    await writeFile(from(), writeProject(block('3 mm').project));
    const bring = () => helb('bring', into(), '--from', from(), '--part', 'Block');
    expect(await bring()).toMatchObject({ code: 0, out: '' });
    expect(await volume()).toEqual([['Block', 'Blocks', 600]]);
    expect(await bring()).toMatchObject({ code: 0, out: 'Nothing is otherwise.' });
    await writeFile(from(), writeProject(block('5 mm').project));
    expect(await bring()).toMatchObject({ code: 0, out: 'high: 5 mm instead of 3 mm' });
    expect(await volume()).toEqual([['Block', 'Blocks', 1000]]);
    expect((await helb('inspect', into())).out).toContain('from "Blocks", revision 0');
  });

  test('in a variant, from a file that is there, of a part that it has; else the file stays as it was', async () => {
    await writeFile(into(), writeProject(new ProjectScript('Into').project));
    await helb('bring', into(), '--from', demo(), '--part', 'Tray', '--variant', 'school');
    const before = await readFile(into(), 'utf8');
    const refused = async (...args: string[]) => (await helb('bring', into(), ...args)).err;
    expect(await refused('--part', 'Tray')).toContain('--from OTHER');
    expect(await refused('--from', demo(), '--part', 'Nothing')).toContain('The parts are: Bearing bracket');
    expect(await refused('--from', demo(), '--part', 'Tray', '--variant', 'x')).toContain('bench, table, school');
    expect(await refused('--from', join(folder, 'no.json'), '--part', 'Tray')).toContain("can't be read");
    expect(await readFile(into(), 'utf8')).toBe(before);
  });
});

describe('inspect', () => {
  test('--json prints one object and nothing else, with the documented keys', async () => {
    const { code, out } = await helb('inspect', demo(), '--json');
    const result = JSON.parse(out) as Inspection;
    expect(code).toBe(0);
    expect(Object.keys(result)).toEqual(['variant', 'variants', 'parts', 'assembly', 'values', 'findings']);
    expect(Object.keys(result.parts[0]!).sort()).toEqual([
      'area_mm2',
      'bodies',
      'box_mm',
      'centre_mm',
      'datums',
      'faces',
      'frames',
      'from',
      'inertia_g_mm2',
      'mass_g',
      'meshes',
      'name',
      'off',
      'sections',
      'sketches',
      'steps',
      'takes_from',
      'thinnest',
      'threads',
      'trouble',
      'volume_mm3',
    ]);
    expect(result.parts[0]!.sketches.every(({ freedoms, residual_mm }) => freedoms === 0 && residual_mm < 1e-9)).toBe(
      true,
    );
    expect(result.values.find(({ name }) => name === 'plate width')).toEqual({
      name: 'plate width',
      expression: 'plate length * 2 / 3',
      result: expect.closeTo(48, 9),
      unit: 'mm',
    });
  });

  test('--set changes a value for this run', async () => {
    const volume = async (...set: string[]) =>
      (JSON.parse((await helb('inspect', demo(), '--json', ...set)).out) as Inspection).parts[0]!.volume_mm3;
    const thicker = await volume('--set', 'plate thickness=10 mm', '--set', 'boss height = 18 mm');
    const plain = await volume();
    const disc = (d: number) => (Math.PI * d * d) / 4;
    expect(thicker - plain).toBeCloseTo(2 * (72 * 48 - 4 * disc(5.5) - disc(24)), 6);
  });

  test('--variant tells the project as that variant; an unknown one is told with what there is', async () => {
    const { out, code } = await helb('inspect', demo(), '--variant', 'table', '--json');
    const { variant, variants, parts } = JSON.parse(out) as Inspection;
    expect([code, variant, variants]).toEqual([0, 'table', ['bench', 'table', 'school']]);
    expect(parts[0]!.box_mm!.high[0]).toBeCloseTo(33, 9);
    const unknown = await helb('inspect', demo(), '--variant', 'shed');
    expect(unknown.code).toBe(1);
    expect(unknown.err).toContain('There is no variant "shed". There are: bench, table, school.');
  });

  test('exit code 3 where a step failed, the reason in its message', async () => {
    const { code, out } = await helb('inspect', demo(), '--set', 'boss height=0 mm - 30 mm', '--json');
    expect(code).toBe(3);
    expect((JSON.parse(out) as Inspection).parts[0]!.steps[3]!.message).toMatch(/not a distance/);
  });

  test('the text report names everything', async () => {
    const { out } = await helb('inspect', demo());
    expect(out).toMatch(/Bearing bracket[\s\S]*settled, 0 freedoms left[\s\S]*mass .* g[\s\S]*No findings/);
  });

  test.each([
    ['a missing file', 'nowhere.json', null],
    ['no JSON', 'bad.json', '{"format":'],
    ['another format', 'other.json', '{"a": 1}'],
  ])('exit code 2 for %s, nothing on standard output', async (_, name, content) => {
    const file = join(folder, name);
    if (content !== null) await writeFile(file, content);
    const { code, out, err } = await helb('inspect', file);
    expect({ code, out }).toEqual({ code: 2, out: '' });
    expect(err).not.toBe('');
  });

  test('an unknown value and wrong usage are told', async () => {
    expect(await helb('inspect', demo(), '--set', 'nobody=1')).toMatchObject({
      code: 1,
      err: expect.stringContaining('nobody'),
    });
    expect(await helb('inspect')).toMatchObject({ code: 1 });
    expect(await helb('frobnicate')).toMatchObject({ code: 1 });
    expect(await helb('inspect', demo(), '--what')).toMatchObject({ code: 1 });
  });
});

describe('export', () => {
  test('binary STL with the volume within the quality, STEP with the part name', async () => {
    const [stl, step] = [join(folder, 'b.stl'), join(folder, 'b.step')];
    expect(await helb('export', demo(), '--part', 'Bearing bracket', '--to', stl)).toMatchObject({
      code: 0,
      out: '',
      err: expect.stringContaining('manual'),
    });
    const exact = (JSON.parse((await helb('inspect', demo(), '--json')).out) as Inspection).parts[0]!.volume_mm3;
    expect(Math.abs(stlVolume(await readFile(stl))! / exact - 1)).toBeLessThan(2e-3);
    expect(await helb('export', demo(), '--part', 'Bearing bracket', '--to', step)).toMatchObject({ code: 0 });
    expect(await readFile(step, 'utf8')).toContain("PRODUCT('Bearing bracket'");
  });

  test('a sketch as DXF and SVG, read again the same outline', async () => {
    const foot = ['export', demo(), '--part', 'Bearing bracket', '--sketch', 'Foot outline', '--to'];
    for (const [name, ending] of [
      ['dxf', '.dxf'],
      ['svg', '.svg'],
    ]) {
      const to = join(folder, `foot${ending}`);
      expect(await helb(...foot, to)).toMatchObject({ code: 0, err: expect.stringContaining('manual') });
      const read = readOutline(`foot.${name}`, await readFile(to, 'utf8'));
      expect(read.ok && read.value.unit).toBeCloseTo(1, 9);
      const { low, high } = boxOfOutline(read.ok ? read.value.curves : []);
      expect([high[0] - low[0], high[1] - low[1]]).toEqual([expect.closeTo(72, 6), expect.closeTo(48, 6)]);
    }
    expect(await helb(...foot, join(folder, 'foot.stl'))).toMatchObject({ code: 1 });
    expect(await helb(...foot.slice(0, 5), 'Lid', '--to', 'x.dxf')).toMatchObject({
      code: 1,
      err: expect.stringContaining('no sketch "Lid"'),
    });
  });

  test('all that is placed, as STEP read again: as many bodies, as large, where they stand, by their names', async () => {
    const [step, stl, obj] = ['step', 'stl', 'obj'].map((ending) => join(folder, `whole.${ending}`)) as [
      string,
      string,
      string,
    ];
    for (const to of [step, stl, obj]) expect(await helb('export', demo(), '--to', to)).toMatchObject({ code: 0 });
    const { parts, assembly: whole } = JSON.parse((await helb('inspect', demo(), '--json')).out) as Inspection;
    const volumeOf = (name: string) => parts.find((part) => part.name === name)!.volume_mm3;
    const volume = whole!.placements.reduce((sum, { part }) => sum + volumeOf(part), 0);
    expect(stlVolume(await readFile(stl))! / volume).toBeCloseTo(1, 2);

    const bytes = await readFile(step);
    const text = bytes.toString('latin1');
    for (const { name } of whole!.placements) expect(text).toContain(`'${name}'`);
    const script = new ProjectScript('Read').do('part.add', { id: 'p', name: 'All' });
    const hash = createHash('sha256').update(bytes).digest('hex');
    const file = { hash, name: 'whole.step', size: bytes.length };
    script.do('step.add', { part: 'p', id: 'b', step: { kind: 'bring-in', name: 'B', file } });
    const project = join(folder, 'read.json');
    await writeFile(project, writeProject(script.project));
    const [all] = (JSON.parse((await helb('inspect', project, '--json')).out) as Inspection).parts;
    expect(all!.bodies).toBe(whole!.placements.length);
    expect(all!.volume_mm3 / volume).toBeCloseTo(1, 6);
    for (const end of ['low', 'high'] as const)
      all!.box_mm![end].forEach((c, k) => expect(c).toBeCloseTo(whole!.box_mm![end][k]!, 3));

    const objects = (await readFile(obj, 'utf8')).split('\no ').slice(1);
    expect(objects).toHaveLength(whole!.placements.length);
    // watertight: over each edge of a triangle lies another, which goes along it the other way
    const open = objects.filter((object) => {
      const faces = object.split('\n').flatMap((line) => (line.startsWith('f ') ? [line.slice(2).split(' ')] : []));
      const edges = faces.flatMap(([a, b, c]) => [`${a} ${b}`, `${b} ${c}`, `${c} ${a}`]);
      const known = new Set(edges);
      return known.size < edges.length || edges.some((edge) => !known.has(edge.split(' ').reverse().join(' ')));
    });
    expect(open.map((object) => object.slice(0, object.indexOf('\n')))).toEqual([]);
  }, 60_000);

  test('the make-up list and the cut list as tables', async () => {
    const [makeUp, cut] = [join(folder, 'make-up.csv'), join(folder, 'cut.csv')];
    expect(await helb('export', demo(), '--list', 'make-up', '--to', makeUp)).toMatchObject({ code: 0 });
    expect(await helb('export', demo(), '--list', 'cut', '--to', cut)).toMatchObject({ code: 0 });
    expect(await readFile(makeUp, 'utf8')).toMatch(/^Rail,2,/m);
    expect(await readFile(cut, 'utf8')).toMatch(/^panel,.*,6,Side plate,2,/m);
    expect(await helb('export', demo(), '--list', 'cut', '--to', join(folder, 'cut.txt'))).toMatchObject({ code: 1 });
  });

  test('a place that can not be written is told', async () => {
    const to = join(folder, 'no such folder', 'b.stl');
    expect(await helb('export', demo(), '--part', 'Bearing bracket', '--to', to)).toMatchObject({
      code: 1,
      err: expect.stringContaining('written'),
    });
  });

  test('an unknown part or format is told with what there is', async () => {
    expect(await helb('export', demo(), '--part', 'Lid', '--to', 'x.stl')).toMatchObject({
      code: 1,
      err: expect.stringContaining('Bearing bracket'),
    });
    expect(await helb('export', demo(), '--part', 'Bearing bracket', '--to', 'x.doc')).toMatchObject({ code: 1 });
  });
});

const assembly = async (...args: string[]) =>
  (JSON.parse((await helb('inspect', ...args, '--json')).out) as Inspection).assembly!;

test('a joint of the demo is driven beyond a full turn, and nothing meets anything there', async () => {
  const whole = await assembly(demo(), '--drive', 'Shaft=400 deg', '--interference');
  expect(whole.joints.find(({ name }) => name === 'Shaft')!.coordinates[0]).toMatchObject({
    name: 'turn',
    unit: 'deg',
    value: expect.closeTo(400, 6) as number,
  });
  expect(whole.interference).toEqual([]);
  expect(whole.placements.find(({ name }) => name === 'Tray')).toMatchObject({ moves: 'slides along x', freedoms: 1 });
});

describe('driving a wheel', () => {
  const wheel = () => join(folder, 'wheel.json');

  beforeAll(async () => {
    const script = new ProjectScript('Wheel').do('part.add', { id: 'p', name: 'Part' });
    for (const id of ['a', 'b']) script.do('placement.add', { id, record: placementOf(id, { part: 'p' }, id === 'a') });
    const z = { to: 'origin', name: 'z' } as const;
    const a = { placement: 'a', on: z, spot: 'middle' } as const;
    const shaft = { name: 'Shaft', kind: 'revolute', a, b: { placement: 'b' }, flip: false } as const;
    const limits = { turn: { least: '-90 deg', most: '90 deg' } };
    script.do('joint.add', { id: 'j', record: { ...shaft, offset: '0 mm', angle: '0 deg', limits } });
    await writeFile(wheel(), writeProject(script.project));
  });

  test('turns what is joined', async () => {
    const [turned] = (await assembly(wheel(), '--drive', 'Shaft=30 deg')).joints;
    expect(turned!.coordinates[0]!.value).toBeCloseTo(30, 9);
    expect((await helb('inspect', wheel())).out).toContain('Assembly, 1 freedom left');
  });

  test.each([
    ['Shaft=1 m', /angle/, 1],
    ['Axle=1 deg', /no joint "Axle".*Shaft/, 1],
    ['Shaft=120 deg', /limits do not let it/, 3],
  ])('what can not be is said with what could be: %s', async (drive, says, exit) => {
    const said = await helb('inspect', wheel(), '--drive', drive);
    expect(said.err).toMatch(says);
    expect(said.code).toBe(exit);
  });
});
