import { transformPoint, perform, seedSieve, type Project, type Vec3, coordinateKey } from '@helb/core';
import { drive, Grab, MechanismEquations, assemblyFreedoms } from '@helb/core/assembly';
import { Engine } from '@helb/engine';
import { startKernelInNode } from '@helb/kernel/node';
import { median, percentile, timed, type Figure } from './measure.ts';

const FRAMES = 120;

/** The sieve, 20 placements, moved; and a changed value against building everything anew. */
export async function motionFigures(): Promise<Figure[]> {
  const engine = new Engine(await startKernelInNode());
  const project = seedSieve();
  const whole = await timedOnce(() => engine.assemble(project));
  const { assembled } = whole.value;
  const { mechanism, rest } = assembled;
  const [shaft] = Object.entries(project.assembly!.joints).find(([, { name }]) => name === 'Shaft')!;
  const { body } = assembled.members.find(({ id }) => id === 'pin')!;
  const local: Vec3 = [0, 0, 10];
  const at = transformPoint(rest.poses[body]!, local);

  const grab = new Grab(mechanism, { body, at: local });
  let pose = rest;
  const dragged = timed(FRAMES, (k) => {
    const angle = ((40 + 3 * k) * Math.PI) / 180;
    pose = grab.pull(pose, [64 * Math.cos(angle), at[1], 104 + 64 * Math.sin(angle)]);
  });
  const driven = timed(FRAMES, (k) => {
    pose = drive(mechanism, pose, new Map([[coordinateKey(shaft, 'turn'), ((400 + 3 * k) * Math.PI) / 180]])).pose;
  });
  const ways = timed(15, () => assemblyFreedoms(new MechanismEquations(mechanism), rest));

  let computed = 0;
  const changed = await timedOnce(() =>
    engine.assemble(withValue(project, 'crank thickness', '8 mm'), { progress: () => computed++ }),
  );
  // without the kernel: what is left when nothing was to be built
  const again = await timedOnce(() => engine.assemble(withValue(project, 'crank thickness', '8 mm')));
  const ms = (name: string, value: number, most: number | null, floor: number | null = null): Figure => ({
    name: `motion: the sieve, 20 placements, ${name}`,
    value,
    unit: 'ms',
    floor,
    ratio: floor === null ? null : value / floor,
    aim: most === null ? '' : `at most ${most} ms`,
    met: most === null ? null : value <= most,
  });
  return [
    ms('median frame of a drag', median(dragged), null),
    ms('95th of 100 frames of a drag', percentile(dragged, 0.95), 16),
    ms('95th of 100 frames of a drive', percentile(driven, 0.95), 16),
    ms('freedoms', median(ways), 100),
    ms('a changed value that reaches 3 parts, against the first build', changed.took, null, whole.took),
    ms('an unchanged project brought together again', again.took, null),
    {
      name: 'motion: steps computed for a value that reaches 3 of 15 parts',
      value: computed,
      unit: 'steps',
      floor: null,
      ratio: null,
      aim: 'those of the three',
      met: computed === 3,
    },
  ];
}

function withValue(project: Project, name: string, expression: string): Project {
  const id = project.valueOrder.find((one) => project.values[one]!.name === name)!;
  const done = perform(project, [{ command: 'value.set', input: { id, expression } }]);
  if (!done.ok) throw new Error(done.issue.code);
  return done.value.project;
}

async function timedOnce<T>(work: () => Promise<T>): Promise<{ value: T; took: number }> {
  const start = performance.now();
  const value = await work();
  return { value, took: performance.now() - start };
}
