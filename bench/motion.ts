import { transformPoint, perform, seedSieve, type Project, type Vec3, coordinateKey } from '@helb/core';
import { contactsOf, drive, Grab, MechanismEquations, assemblyFreedoms } from '@helb/core/assembly';
import { StudyOutcome, type Study } from '@helb/core/study';
import { Engine, preparedStudy } from '@helb/engine';
import { slottedWheelProject } from '@helb/engine/test-touching';
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
    ...(await touchingFigures(engine)),
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

/** Steps of a full turn. */
const TURN = 360;

/** A slotted wheel that a pin moves on by shape alone: a turn, what comes nearest in it, and the angle of the formula. */
async function touchingFigures(engine: Engine): Promise<Figure[]> {
  const drives = [{ joint: 'j-driver', coordinate: 'turn' as const, from: '180 deg', to: '540 deg' }];
  const study: Study = {
    ...{ name: 'Turn', drives, law: 'even', seconds: '4', steps: `${TURN}`, touching: true, charts: {} },
    approaches: { n: {} },
  };
  const { project, apart, arm, play } = slottedWheelProject();
  const { input, assembled } = await preparedStudy(engine, project, study);
  if (!input.ok) throw new Error(input.issue.code);
  const outcome = new StudyOutcome(input.value);
  const ran = await timedOnce(() => Promise.resolve([...outcome.run()].length));
  const near = await timedOnce(() => Promise.resolve([...outcome.nearest({})].length));

  const [wheel, driver] = [coordinateKey('j-wheel', 'turn'), coordinateKey('j-driver', 'turn')];
  const contacts = contactsOf(project.assembly!, assembled, input.value.bodies);
  const begin = outcome.frames[0]!.pose;
  let pose = begin;
  const frames = timed(FRAMES, (k) => {
    const to = Math.PI + ((k + 1) * 2 * Math.PI) / FRAMES;
    pose = drive(assembled.mechanism, pose, new Map([[driver, to]]), () => {}, contacts).pose;
  });
  // while the pin pushes one flank of its slot all the way
  const worked = outcome.frames.flatMap(({ pose: { coordinates } }) => {
    const b = coordinates.get(driver)! - 2 * Math.PI;
    if (b < -0.9 || b > -0.3) return [];
    const [x, y] = [apart - arm * Math.cos(b), arm * Math.sin(b)];
    const turned = -Math.PI / 3 - Math.atan2(y, x) + Math.asin(play / Math.hypot(x, y));
    return [Math.abs(coordinates.get(wheel)! - turned)];
  });
  const off = (Math.max(...worked) * 180) / Math.PI;
  const figure = (name: string, value: number, unit: string, most: number): Figure => ({
    ...{ name: `motion: a wheel of 6 slots by contact, ${name}`, value, unit, floor: null, ratio: null },
    ...{ aim: `at most ${most} ${unit}`, met: value <= most },
  });
  return [
    figure(`${TURN} steps of a turn`, ran.took, 'ms', 5000),
    figure('95th of 100 frames of 3 deg', percentile(frames, 0.95), 'ms', 16),
    { ...figure('off the angle of the formula', off, 'deg', 0.02), met: worked.length > 20 && off <= 0.02 },
    {
      ...{ name: 'motion: how near any two come over it, against the study', value: near.took, unit: 'ms' },
      ...{ floor: ran.took, ratio: near.took / ran.took, aim: 'at most 2', met: near.took <= 2 * ran.took },
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
