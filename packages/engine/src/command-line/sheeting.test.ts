import { execFileSync } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  explain,
  issuedNow,
  ProjectScript,
  defaultSheet,
  writeProject,
  type Kernel,
  type Reference,
  type View,
} from '@helb/core';
import { circle, rectangle } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from '../engine.ts';
import { run } from './run.ts';

let folder: string;
let kernel: Kernel;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'helb-'));
  kernel = await startKernelInNode();
});
afterAll(() => rm(folder, { recursive: true }));

async function helb(...args: string[]) {
  const said: string[] = [];
  const printed: string[] = [];
  const code = await run(args, {
    print: (text) => printed.push(text),
    complain: (text) => said.push(text),
    startEngine: (files) => Promise.resolve(new Engine(kernel, { files })),
  });
  return { code, said: said.join('\n'), printed };
}
/** Programs of other people, which read what was written. */
const read = (program: string, ...args: string[]) => execFileSync(program, args, { encoding: 'utf8' });

/** A plate of `wide` x 30 x 8 mm with a bore of 10 mm in its middle, and a section through that. */
function plate(): ProjectScript {
  const script = new ProjectScript('Box').do('value.add', { id: 'v', name: 'thick', expression: '8 mm' });
  script.do('part.add', { id: 'p', name: 'Plate' });
  script.do('part.material', { id: 'p', material: { name: 'Beech', density_kg_m3: 720 } });
  const sketch = { kind: 'sketch', name: 'S', plane: 'top', relations: {} } as const;
  const entities = { ...rectangle(0, 0, 40, 30), ...circle(20, 15, 5) };
  script.do('step.add', { part: 'p', id: 's', step: { ...sketch, entities } });
  script.do('step.add', { part: 'p', id: 'e', step: { kind: 'extrude', name: 'E', sketch: 's', distance: 'thick' } });
  const plane = { to: 'origin', name: 'front' } as const;
  const section = { name: 'Middle', plane, offset: '-15 mm', turned: false };
  script.do('section.add', { part: 'p', id: 'c', section });
  const views: Record<string, View> = {
    top: { kind: 'base', from: 'top' },
    cut: { kind: 'section', section: 'c' },
  };
  const usual = defaultSheet({ id: 'p', name: 'Plate' }, { paper: 'A3', projection: 'third' });
  return script.do('sheet.add', { id: 'd', record: { ...usual, views, viewOrder: ['top', 'cut'], scale: '1:1' } });
}
async function kept(script: ProjectScript): Promise<string> {
  const file = join(folder, 'plate.json');
  await writeFile(file, writeProject(script.project));
  return file;
}

test('a sheet as PDF: of its real size, its letters as text in fonts that come along', async () => {
  const [file, to] = [await kept(plate()), join(folder, 'plate.pdf')];
  const { code, said } = await helb('sheet', file, '--to', to);
  expect(code).toBe(0);
  expect(said).toContain('second person');
  const info = read('pdfinfo', to);
  const [, width, height] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(info)!;
  expect(Number(width)).toBeCloseTo((420 * 72) / 25.4, 1);
  expect(Number(height)).toBeCloseTo((297 * 72) / 25.4, 1);
  const fonts = read('pdffonts', to).trim().split('\n').slice(2);
  expect(fonts.length).toBe(2);
  for (const font of fonts) expect(font).toMatch(/SourceSans3.* yes (yes|no) +yes/);
  const text = read('pdftotext', to, '-');
  // 40 x 30 x 8 mm without the bore, of beech
  const mass = ((40 * 30 - Math.PI * 25) * 8 * 0.72) / 1000;
  for (const words of ['Plate', 'Beech', `${mass.toFixed(1)} g`, 'A–A', '1:1', '1 of 1']) expect(text).toContain(words);
});

test('letters of other languages come from other fonts; what none has is told by a question mark', async () => {
  const script = plate().do('sheet.title', { sheet: 'd', fields: { drawn: 'Łucja Ωμέγα Юрий 木', date: '5 °C ±1' } });
  const to = join(folder, 'letters.pdf');
  expect((await helb('sheet', await kept(script), '--to', to)).code).toBe(0);
  const text = read('pdftotext', to, '-');
  expect(text).toContain('Łucja Ωμέγα Юрий ?');
  expect(text).toContain('5 °C ±1');
});

test('a sheet as DXF: without an error for an independent reader', async () => {
  const [file, to] = [await kept(plate()), join(folder, 'plate.dxf')];
  expect((await helb('sheet', file, '--sheet', 'Plate', '--to', to)).code).toBe(0);
  expect(read('ezdxf', 'audit', to)).toMatch(/No errors found/);
});

test('a sheet as SVG; the views follow the part, a section shows what is cut', async () => {
  const [file, to] = [await kept(plate()), join(folder, 'plate.svg')];
  expect((await helb('sheet', file, '--sheet', 'Plate', '--to', to, '--set', 'thick=12 mm')).code).toBe(0);
  expect(await readFile(to, 'utf8')).toContain('class="hatch"');
  const engine = new Engine(kernel);
  const heights = await Promise.all(
    ['8 mm', '12 mm'].map(async (thick) => {
      const { project } = plate().do('value.set', { id: 'v', expression: thick });
      const drawn = await engine.sheet(project, 'd');
      if (!drawn.ok) throw new Error(drawn.issue.code);
      const { low, high } = drawn.value.views['cut']!.box;
      expect(high[0] - low[0]).toBeCloseTo(40, 6);
      return high[1] - low[1];
    }),
  );
  expect(heights.map((height) => Math.round(height * 1e6) / 1e6)).toEqual([8, 12]);
});

test('what is seen of a part is seen once: only what has changed is seen anew', async () => {
  const engine = new Engine(kernel);
  const seen: number[] = [];
  const draw = (script: ProjectScript) => engine.sheet(script.project, 'd', (k) => Promise.resolve(void seen.push(k)));
  await draw(plate());
  expect(seen.splice(0)).toEqual([0, 1]);
  await draw(plate().do('sheet.set', { sheet: 'd', fields: { paper: 'A4', scale: '2:1' } }));
  expect(seen.splice(0)).toEqual([]);
  const offset = { part: 'p', section: 'c', fields: { offset: '-8 mm' } };
  await draw(plate().do('section.set', offset));
  expect(seen.splice(0)).toEqual([1]);
  await draw(plate().do('value.set', { id: 'v', expression: '9 mm' }));
  expect(seen).toEqual([0, 1]);
});

test('what can not be drawn is told', async () => {
  const file = await kept(plate());
  const to = join(folder, 'x.pdf');
  expect(await helb('sheet', file, '--sheet', 'Lid', '--to', to)).toMatchObject({
    code: 1,
    said: 'There is no sheet "Lid". The sheets are: Plate.',
  });
  expect((await helb('sheet', file, '--to', join(folder, 'x.dxf'))).said).toMatch(/--sheet NAME/);
  const empty = await kept(plate().do('step.suppress', { part: 'p', step: 'e', on: true }));
  expect(await helb('sheet', empty, '--to', to)).toMatchObject({
    code: 3,
    said: 'Plate: "Plate" has no body to export yet.',
  });
  const bare = await kept(plate().do('sheet.remove', { sheet: 'd' }));
  expect((await helb('sheet', bare, '--to', to)).said).toBe('There is no sheet. The project has none yet.');
});

test('what is missing on a sheet is told, and written into the project', async () => {
  const file = await kept(plate());
  const before = await helb('sheet', file, '--check');
  expect(before.code).toBe(3);
  // width, depth and thickness, the bore; its place follows from the middle lines
  expect(before.printed.map((line) => /Missing: (\S+),/.exec(line)?.[1]).sort()).toEqual(['30', '40', '8', '⌀10']);
  const told = await helb('sheet', file, '--tell');
  expect([told.code, told.printed]).toEqual([0, ['Plate: 4 told that were missing.']]);
  const after = await helb('sheet', file, '--check');
  expect([after.code, after.printed]).toEqual([0, ['Plate: All sizes are told, each once.']]);
  const to = join(folder, 'told.pdf');
  expect((await helb('sheet', file, '--to', to)).code).toBe(0);
  const words = read('pdftotext', to, '-');
  for (const size of ['40', '30', '10', '8']) expect(words.split(/\s+/)).toContain(size);
  const dxf = join(folder, 'told.dxf');
  expect((await helb('sheet', file, '--sheet', 'Plate', '--to', dxf)).code).toBe(0);
  expect(read('ezdxf', 'audit', dxf)).toContain('No errors found');
  expect(await readFile(dxf, 'utf8')).toContain('\nSIZE\n');
  expect((await helb('sheet', file, '--tell', '--to', to)).said).toMatch(/one of --to, --check and --tell/);
  expect((await helb('sheet', file, '--tell', '--set', 'thick=9 mm')).said).toMatch(/leave out --variant and --set/);
  expect((await helb('export', file, '--part', 'Plate', '--width', '1', '--to', 'x.step')).code).toBe(1);
  const flat = join(folder, 'flat.dxf');
  const cut = ['export', file, '--part', 'Plate', '--outline', '--width'];
  expect((await helb(...cut, 'wide', '--to', flat)).said).toMatch(/numbers of mm/);
  expect((await helb(...cut, '0.2', '--to', flat)).code).toBe(0);
  expect(read('ezdxf', 'audit', flat)).toContain('No errors found');
  expect((await helb('sheet', file, '--sheet', 'No', '--tell')).said).toContain('The sheets are: Plate.');
});

test('what has changed since a sheet went out is told', async () => {
  const of = ['e/start', 'e/end'].map((name): Reference => ({ to: 'face', name }));
  const script = plate().do('mark.add', { sheet: 'd', id: 'm', mark: { kind: 'distance', view: 'cut', of } });
  const drawn = await new Engine(kernel).sheet(script.project, 'd');
  if (!drawn.ok) throw new Error(explain(drawn.issue));
  const issued = issuedNow(drawn.value, { revision: 'B', date: '2026-11-26', words: 'for the shop' });
  const file = await kept(script.do('sheet.issue', { sheet: 'd', issued }));
  const since = async (...set: string[]) =>
    (await helb('sheet', file, '--check', ...set)).printed.filter((line) => line.startsWith('Plate, since B'));
  expect(await since()).toEqual([]);
  expect(await since('--set', 'thick=9 mm')).toEqual([
    'Plate, since B: 8 is 9 now.',
    'Plate, since B: The view cut: Middle looks otherwise.',
  ]);
});
