import { perform, ProjectScript, type Entities, type Project } from '@helb/core';
import { rectangle } from '@helb/core/samples';
import { Engine } from '@helb/engine';
import { startKernelInNode } from '@helb/kernel/node';
import { median, type Figure } from './measure.ts';
import { plateFigures } from './plate.ts';
import { watched } from './watched.ts';

const FINENESS = { deflection: 0.08, angle: 0.25 };
/** One frame, ms. */
const FRAME = 16;

function withValue(project: Project, name: string, expression: string): Project {
  const id = project.valueOrder.find((candidate) => project.values[candidate]!.name === name)!;
  const done = perform(project, [{ command: 'value.set', input: { id, expression } }]);
  if (!done.ok) throw new Error(done.issue.code);
  return done.value.project;
}

/** A rack of 49 pegs on a bar, sketch and extrusion each, added one after the other: a hundred steps. */
function longPart(): Project {
  const script = new ProjectScript('Rack')
    .do('value.add', { id: 'v1', name: 'height', expression: '12 mm' })
    .do('value.add', { id: 'v2', name: 'last', expression: '12 mm' })
    .do('part.add', { id: 'part', name: 'Rack' });
  const add = (k: number, entities: Entities, distance: string, result: string) => {
    script.do('step.add', {
      part: 'part',
      id: `s${k}`,
      step: { kind: 'sketch', name: `Sketch ${k}`, plane: 'top', entities, relations: {} },
    });
    script.do('step.add', {
      part: 'part',
      id: `e${k}`,
      step: { kind: 'extrude', name: `Peg ${k}`, sketch: `s${k}`, distance, result } as never,
    });
  };
  add(0, rectangle(0, 0, 500, 20), '5 mm', 'new');
  for (let k = 1; k < 50; k++) add(k, rectangle(10 * k - 3, 5, 6, 10), k === 49 ? 'last' : 'height', 'add');
  return script.project;
}

/** Parts that share nothing, each driven by a value of its own. */
function manyParts(count: number): Project {
  const script = new ProjectScript('Twenty');
  for (let k = 0; k < count; k++)
    script
      .do('value.add', { id: `v${k}`, name: `size ${k}`, expression: '20 mm' })
      .do('part.add', { id: `part${k}`, name: `Part ${k}` })
      .do('step.add', {
        part: `part${k}`,
        id: `s${k}`,
        step: { kind: 'sketch', name: 'Outline', plane: 'top', entities: rectangle(0, 0, 30, 20), relations: {} },
      })
      .do('step.add', {
        part: `part${k}`,
        id: `e${k}`,
        step: { kind: 'extrude', name: 'Block', sketch: `s${k}`, distance: `size ${k}` } as never,
      });
  return script.project;
}

/** What a rebuild costs besides the kernel, what an edit reaches, and what stays in memory. */
export async function rebuildFigures(): Promise<Figure[]> {
  const kernel = await startKernelInNode();
  const watch = watched(kernel);
  return [
    ...(await longFigures(watch)),
    await reachFigure(watch),
    await memoryFigure(watch),
    ...(await plateFigures(kernel)),
  ];
}

async function longFigures(watch: ReturnType<typeof watched>): Promise<Figure[]> {
  const project = longPart();
  const engine = new Engine(watch.kernel);
  const timed = async (next: Project): Promise<readonly [number, number]> => {
    watch.reset();
    const start = performance.now();
    await engine.build(next, { mesh: FINENESS });
    return [performance.now() - start, watch.time];
  };
  for (let k = 0; k < 2; k++) await timed(withValue(project, 'height', `${8 + k} mm`));
  const [whole, inKernel] = await timed(project);
  const edits: (readonly [number, number])[] = [];
  for (let k = 0; k < 12; k++) edits.push(await timed(withValue(project, 'last', `${13 + k / 10} mm`)));
  const edit = median(edits.slice(2).map(([all]) => all));
  const floor = median(edits.slice(2).map(([, bare]) => bare));
  return [
    {
      name: 'rebuild: a part of 100 steps from nothing, warm',
      value: whole,
      unit: 'ms',
      floor: inKernel,
      ratio: whole / inKernel,
      aim: 'at most a tenth on top of the time inside the kernel',
      met: whole <= 1.1 * inKernel,
    },
    {
      name: 'rebuild: its last step edited, up to the new mesh',
      value: edit,
      unit: 'ms',
      floor,
      ratio: edit / floor,
      aim: `within 1.3 x the kernel's time for that step plus ${FRAME} ms`,
      met: edit <= 1.3 * floor + FRAME,
    },
  ];
}

async function reachFigure(watch: ReturnType<typeof watched>): Promise<Figure> {
  const project = manyParts(20);
  const engine = new Engine(watch.kernel);
  await engine.build(project);
  watch.reset();
  await engine.build(withValue(project, 'size 7', '21 mm'));
  const changed = watch.calls;
  // the same part alone, never built before: what it costs at least
  const alone = new Engine(watch.kernel);
  watch.reset();
  await alone.build(withValue(project, 'size 7', '21 mm'), { parts: ['part7'] });
  return {
    name: 'rebuild: a value of one of 20 parts, kernel calls',
    value: changed,
    unit: 'calls',
    floor: watch.calls,
    ratio: changed / watch.calls,
    aim: 'those of that part only',
    met: changed <= watch.calls,
  };
}

async function memoryFigure(watch: ReturnType<typeof watched>): Promise<Figure> {
  const engine = new Engine(watch.kernel);
  const project = longPart();
  const short = (k: number) => withValue(project, 'height', `${10 + k / 1000} mm`);
  // until the cache is full
  for (let k = 0; k < 150; k++) await engine.build(short(-k), { mesh: FINENESS, upTo: 'e3' });
  const before = watch.kernel.memory();
  for (let k = 0; k < 1000; k++) await engine.build(short(k), { mesh: FINENESS, upTo: 'e3' });
  const after = watch.kernel.memory();
  return {
    name: 'rebuild: memory of the kernel after 1000 rebuilds',
    value: after / 2 ** 20,
    unit: 'MiB',
    floor: before / 2 ** 20,
    ratio: after / before,
    aim: 'at most a tenth more',
    met: after <= 1.1 * before,
  };
}
