import { coordinateKey, explain, type Project } from '@helb/core';
import { contactsOf, drive, type Pose } from '@helb/core/assembly';
import { rectangle } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import { poseOf } from './command-line/driving.ts';
import { Engine } from './index.ts';
import { Plates, slottedWheelProject } from './test-touching.ts';

let engine: Engine;
beforeAll(async () => (engine = new Engine(await startKernelInNode())));

const DEGREE = Math.PI / 180;

const turn = (pose: Pose, id: string) => pose.coordinates.get(coordinateKey(`j-${id}`, 'turn'))! / DEGREE;
const toAngle = (id: string, degrees: number) => new Map([[coordinateKey(`j-${id}`, 'turn'), degrees * DEGREE]]);

test('a wheel of real bodies is moved on by its pin alone, within its play, and nothing overlaps on the way', async () => {
  const { project, apart } = slottedWheelProject();
  const { assembled } = await engine.assemble(project);
  expect([...assembled.issues]).toEqual([]);
  const bodies = await engine.touching(project);
  expect(bodies.filter(({ part }) => part === 'driver')).toHaveLength(2);
  const contacts = contactsOf(project.assembly!, assembled, bodies);
  const { mechanism } = assembled;
  let { pose } = drive(mechanism, assembled.rest, new Map([...toAngle('wheel', 30), ...toAngle('driver', 58)]));
  for (const angle of [-50, -45]) {
    const driven = drive(mechanism, pose, toAngle('driver', -angle), () => {}, contacts);
    expect(driven.arrived).toBe(true);
    pose = driven.pose;
    const a = angle * DEGREE;
    const ideal = Math.atan2(36 * Math.sin(a), apart - 36 * Math.cos(a)) / DEGREE;
    const lag = Math.asin(0.15 / Math.hypot(36 * Math.sin(a), apart - 36 * Math.cos(a))) / DEGREE;
    // pushed by one flank of the slot all the way
    expect(turn(pose, 'wheel') - 60).toBeCloseTo(ideal - lag, 4);
    const { interferences } = await engine.interference(project, { poses: pose.poses });
    expect(interferences.filter(({ overlap_mm3 }) => overlap_mm3 > 1e-3)).toEqual([]);
  }
});

test('what is pressed, switched off or told of others passes through', async () => {
  const arm = { entities: rectangle(0, -4, 80, 8), height: '8 mm' };
  const plates = new Plates()
    .part('arm', [arm])
    .part('post', [{ entities: rectangle(30, 30, 20, 20), height: '8 mm' }])
    .turning('arm', '0 mm')
    .turning('post', '0 mm');
  const goes = async (project: Project): Promise<boolean> => {
    const { assembled } = await engine.assemble(project);
    const contacts = contactsOf(project.assembly!, assembled, await engine.touching(project));
    const both = new Map([...toAngle('arm', 90), ...toAngle('post', 0)]);
    return drive(assembled.mechanism, assembled.rest, both, () => {}, contacts).arrived;
  };
  const { script } = plates;
  const project = plates.touching();
  expect(await goes(project)).toBe(false);
  expect(await goes(script.do('contact.set', { id: 'all', contact: { on: false } }).project)).toBe(true);
  expect(await goes(script.do('contact.set', { id: 'pair', contact: { a: 'arm', b: 'base', on: true } }).project)).toBe(
    true,
  );
  expect(await goes(script.do('contact.set', { id: 'pair', contact: { a: 'post', on: true } }).project)).toBe(false);
  expect(await goes(script.do('pair.press', { id: 'x', pair: { a: 'arm', b: 'post' } }).project)).toBe(true);
});

test('a command that drives into something is refused in words, and so is what stands in something at rest', async () => {
  const arm = { entities: rectangle(0, -4, 80, 8), height: '8 mm' };
  const armAndPost = (at: number, post: number, height = '8 mm') =>
    new Plates()
      .part('arm', [arm])
      .part('post', [{ entities: rectangle(at, at, post, post), height, from: '2 mm' }])
      .turning('arm', '0 mm')
      .fixed('post')
      .touching();
  const told = async (project: Project) => {
    const done = await poseOf(engine, project, ['arm turns=90 deg'], false);
    return done.ok ? 'ok' : explain(done.issue);
  };
  expect(await told(armAndPost(30, 20))).toMatch(
    /It stops before arm turns=90 deg: arm stands against post at 50 \/ 30 \//,
  );
  expect(await told(armAndPost(2, 20))).toMatch(/arm and post stand in each other at rest/);
  // all of it inside
  expect(await told(armAndPost(1, 2, '2 mm'))).toMatch(/arm and post stand in each other at rest/);
});
