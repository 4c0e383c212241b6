import {
  filled,
  perform,
  seedSieve,
  solved,
  valueScope,
  type BodyHandle,
  type Kernel,
  type Project,
  type Result,
  type SketchStep,
} from '@helb/core';
import { Engine } from '@helb/engine';
import { startKernelInNode } from '@helb/kernel/node';
import { timedByTurns, type Figure } from './measure.ts';

const FINENESS = { deflection: 0.08, angle: 0.25 };
/** What may come on top of the bare kernel calls, ms: one frame. */
const FRAME = 16;

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(result.issue.code);
  return result.value;
};

const withHeight = (project: Project, height: number): Project => {
  const id = project.valueOrder.find((candidate) => project.values[candidate]!.name === 'plate thickness')!;
  return value(perform(project, [{ command: 'value.set', input: { id, expression: `${height} mm` } }])).project;
};

/** The kernel calls of the demo part and nothing else: no document, no expressions, no solver, no cache. */
function bareCalls(kernel: Kernel, project: Project): (height: number) => void {
  const part = project.parts[project.partOrder[0]!]!;
  const scope = valueScope(Object.values(project.values), project.unit);
  const profiles = Object.values(part.steps)
    .filter((step): step is SketchStep => step.kind === 'sketch')
    .map((step) => solved(step, scope))
    .map(({ frame, regions }) => ({ frame, regions: filled(regions) }));
  const [plate, boss, bore] = profiles as [
    (typeof profiles)[number],
    (typeof profiles)[number],
    (typeof profiles)[number],
  ];
  return (height) => {
    const made: BodyHandle[][] = [];
    const extrude = (profile: typeof plate, to: number, step: string) => {
      made.push(value(kernel.extrude({ profile, from: 0, to, step })));
      return made.at(-1)!;
    };
    const base = extrude(plate, height, 'a');
    const added = value(kernel.combine('add', base, extrude(boss, height + 20, 'b'))).bodies;
    const cut = value(kernel.combine('cut', added, extrude(bore, height + 20, 'c'))).bodies;
    made.push(added, cut);
    cut.forEach((body) => kernel.mesh(body, FINENESS));
    made.flat().forEach((body) => kernel.release(body));
  };
}

export async function stepFigures(): Promise<Figure[]> {
  const kernel = await startKernelInNode();
  const project = seedSieve();
  const bare = bareCalls(kernel, project);
  const engine = new Engine(kernel);
  // by turns, each time with a thickness that was not built before
  const [floor, full, again] = (await timedByTurns(20, [
    (k) => bare(8 + (k + 1) / 100),
    (k) => engine.build(withHeight(project, 8 + (k + 1) / 100), { mesh: FINENESS }),
    () => engine.build(project, { mesh: FINENESS }),
  ])) as [number, number, number];
  return [
    {
      name: 'steps: from an edited chip to the new mesh, demo part, warm',
      value: full,
      unit: 'ms',
      floor,
      ratio: full / floor,
      aim: `within 1.5 x the bare kernel calls plus ${FRAME} ms`,
      met: full <= 1.5 * floor + FRAME,
    },
    {
      name: 'steps: build again without a change',
      value: again,
      unit: 'ms',
      floor,
      ratio: again / floor,
      aim: 'at most a twentieth of the bare kernel calls',
      met: again <= floor / 20,
    },
  ];
}
