import {
  explain,
  fail,
  transformPoint,
  perform,
  placedParts,
  ProjectScript,
  seedSieve,
  type Id,
  type Project,
  type Vec3,
  coordinateKey,
} from '@helb/core';
import {
  drive,
  Grab,
  jointsReversed,
  memberPose,
  placementOf,
  triple,
  type Assembled,
  type Pose,
} from '@helb/core/assembly';
import { rectangle } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import { assemblyFindings, Engine, billOfMaterials, seenFrom, totalsOf, assemblyTotals } from './index.ts';

let engine: Engine;
beforeAll(async () => (engine = new Engine(await startKernelInNode())));

const sieve = seedSieve();
const withValue = (project: Project, name: string, expression: string): Project => {
  const id = project.valueOrder.find((one) => project.values[one]!.name === name)!;
  const done = perform(project, [{ command: 'value.set', input: { id, expression } }]);
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value.project;
};
/** A count by one, a length by a twenty-fifth. */
const enlarged = (expression: string): string => {
  const [number, unit] = expression.split(' ');
  return unit ? `${Number(number) * 1.04} ${unit}` : `${Number(number) + 1}`;
};
const where = ({ members }: Assembled, pose: Pose, id: string, local: Vec3 = [0, 0, 0]): Vec3 =>
  transformPoint(
    memberPose(
      members.find((member) => member.id === id)!,
      pose,
    ),
    local,
  );
const jointNamed = (name: string): Id =>
  Object.entries(sieve.assembly!.joints).find(([, joint]) => joint.name === name)![0];

describe('the sieve', () => {
  test('stands in the pose of the design: every joint holds and nothing is missing', async () => {
    const { assembled } = await engine.assemble(sieve);
    expect([...assembled.issues]).toEqual([]);
    expect(assembled.rest.fulfilled).toBe(true);
    expect(assembled.conflict).toEqual([]);
    expect(assembled.members).toHaveLength(20);
    // the crank turns and the knob spins on its pin
    expect(assembled.freedoms.count).toBe(2);
  });

  test('what is rigid stands at rest as it stands once it is driven: not turned half round', async () => {
    const { assembled } = await engine.assemble(sieve);
    const { mechanism, rest } = assembled;
    expect(jointsReversed(mechanism, rest)).toEqual([]);
    const shaft = coordinateKey(jointNamed('Shaft'), 'turn');
    const little = drive(mechanism, rest, new Map([[shaft, rest.coordinates.get(shaft)! + 1e-6]])).pose;
    for (const { id } of assembled.members)
      where(assembled, little, id, [10, 20, 30]).forEach((c, k) =>
        expect(c).toBeCloseTo(where(assembled, rest, id, [10, 20, 30])[k]!, 3),
      );
  });

  test('the tray is where the formula of an offset slider-crank puts it, all round', async () => {
    const { assembled } = await engine.assemble(sieve);
    const [r, l, h] = [15, 110, 82];
    const shaft = coordinateKey(jointNamed('Shaft'), 'turn');
    let pose = assembled.rest;
    for (let k = 1; k <= 12; k++) {
      const angle = (40 + 30 * k) * (Math.PI / 180);
      const driven = drive(assembled.mechanism, pose, new Map([[shaft, angle]]));
      expect(driven.arrived).toBe(true);
      pose = driven.pose;
      const [x, z] = [r * Math.cos(angle), r * Math.sin(angle)];
      expect(where(assembled, pose, 'tray')[0]).toBeCloseTo(x - Math.sqrt(l * l - (h + z) ** 2), 7);
      expect(where(assembled, pose, 'tray').slice(1)).toEqual([expect.closeTo(0, 8), expect.closeTo(10, 8)]);
      // the pin of the crank goes round with the shaft
      expect(where(assembled, pose, 'pin')[2]).toBeCloseTo(104 + 64 * Math.sin(angle), 7);
    }
  });

  test('pulled by the hand the pin of the crank goes round, and the tray follows', async () => {
    const { assembled } = await engine.assemble(sieve);
    const { body } = assembled.members.find(({ id }) => id === 'pin')!;
    const at = transformPoint(assembled.rest.poses[body]!, [0, 0, 10]);
    const grab = new Grab(assembled.mechanism, { body, at: [0, 0, 10] });
    // along the circle on which it goes, and twice as far out
    const pull = (degrees: number): Vec3 => {
      const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
      return [128 * c, at[1], 104 + 128 * s];
    };
    let pose = assembled.rest;
    for (let degrees = 50; degrees <= 130; degrees += 10) pose = grab.pull(pose, pull(degrees));
    expect(pose.coordinates.get(coordinateKey(jointNamed('Shaft'), 'turn'))).toBeCloseTo((130 * Math.PI) / 180, 3);
    expect(pose.residual).toBeLessThan(1e-9);
  });

  test('no two parts overlap, in the rest pose of any variant or on the way round', async () => {
    const { assembled } = await engine.assemble(sieve);
    const turned = drive(
      assembled.mechanism,
      assembled.rest,
      new Map([[coordinateKey(jointNamed('Shaft'), 'turn'), 4]]),
    );
    for (const poses of [undefined, turned.pose.poses]) {
      const { interferences } = await engine.interference(sieve, poses ? { poses } : {});
      expect(interferences).toEqual([]);
    }
  });

  test('a shaft that went on past the wheel would meet the rod, and is told', async () => {
    const { interferences } = await engine.interference(withValue(sieve, 'shaft length', '190 mm'));
    expect(interferences).toEqual([]);
    const long = perform(sieve, [
      {
        command: 'placement.set',
        input: { id: 'shaft', fields: { at: triple('0 mm', 'tray width / 2 + 12 mm', 'shaft height') } },
      },
    ]);
    const found = (await engine.interference(long.ok ? long.value.project : sieve)).interferences;
    const crossed = found.find(({ a, b }) => `${a} ${b}` === 'shaft rod')!;
    expect(crossed.overlap_mm3).toBeGreaterThan(100);
    // the rod is 5 mm thick, and begins 4 mm beyond the wheel
    expect(crossed.from[1]).toBeGreaterThan(54);
    expect(crossed.from[1]).toBeLessThan(59);
  });

  test('the bolts of both bearings go through the side that takes its holes from one, whatever moves them', async () => {
    for (const project of [sieve, withValue(withValue(sieve, 'plate length', '80 mm'), 'shaft height', '130 mm')]) {
      const { model, assembled } = await engine.assemble(project, { mesh: { deflection: 1, angle: 1 } });
      const bores = (id: string, radius: number): string[] => {
        const member = assembled.members.find((one) => one.id === id)!;
        const pose = memberPose(member, assembled.rest);
        const { faces } = model.parts.find((part) => part.id === member.part)!.bodies[0]!.topology!;
        return faces
          .flatMap(({ surface }) =>
            surface.form === 'cylinder' && Math.abs(surface.radius - radius) < 1e-9
              ? [transformPoint(pose, surface.origin)]
              : [],
          )
          .map(([x, , z]) => `${(x + 0).toFixed(6)} ${z.toFixed(6)}`.replace('-0.000000', '0.000000'))
          .sort();
      };
      expect(bores('side-r', 2.75)).toHaveLength(4);
      expect(bores('side-r', 2.75)).toEqual(bores('outer', 2.75));
      expect(bores('side-r', 2.75)).toEqual(bores('inner', 2.75));
    }
  });

  // change survival: whatever drives the sieve, its joints find what they hold on; one by one in the bench
  const driving = Object.values(sieve.values).filter(({ expression }) => /^[\d.]+( mm)?$/.test(expression));
  test.each([...new Set(driving.map(({ group }) => group!))])(
    'the driving values of %s all a little larger: every joint, and all that parts take from each other, is exact',
    async (group) => {
      const larger = driving
        .filter((value) => value.group === group)
        .reduce((project, { name, expression }) => withValue(project, name, enlarged(expression)), sieve);
      const { model, assembled } = await engine.assemble(larger);
      const steps = model.parts.flatMap((part) => part.steps);
      expect(steps.filter(({ issue, references }) => issue ?? references)).toEqual([]);
      expect([...assembled.issues].map(([owner, issue]) => `${owner} ${issue.code}`)).toEqual([]);
      expect(assembled.rest.fulfilled).toBe(true);
    },
  );

  test('a value that reaches three parts costs those three', async () => {
    await engine.assemble(sieve);
    const touched = new Set<string>();
    const thicker = withValue(sieve, 'crank thickness', '8 mm');
    for (const part of placedParts(sieve)) {
      const built = await engine.build(sieve, { parts: [part] });
      const again = await engine.build(thicker, { parts: [part] });
      if (built.parts[0]!.bodies.some(({ key }, k) => again.parts[0]!.bodies[k]?.key !== key))
        touched.add(sieve.parts[part]!.name);
    }
    expect([...touched]).toEqual(['Crank arm', 'Shaft', 'Crank pin']);
    let computed = 0;
    await engine.assemble(withValue(sieve, 'crank thickness', '9 mm'), { progress: () => computed++ });
    expect(computed).toBe(3);
  });
});

describe('blocks', () => {
  /** Blocks of 20 x 30 x 10, two of one part and one of another; steel is 7850 kg/m^3. */
  function blocks(at: string): ProjectScript {
    const script = new ProjectScript('Blocks');
    for (const [part, density] of [
      ['a', 1000],
      ['b', 7850],
    ] as const)
      script
        .do('part.add', { id: part, name: part })
        .do('part.material', { id: part, material: { name: 'M', density_kg_m3: density } })
        .do('step.add', {
          part,
          id: 's',
          step: { kind: 'sketch', name: 's', plane: 'top', entities: rectangle(0, 0, 20, 30), relations: {} },
        })
        .do('step.add', { part, id: 'e', step: { kind: 'extrude', name: 'e', sketch: 's', distance: '10 mm' } });
    return script
      .do('placement.add', { id: 'one', record: placementOf('One', { part: 'a' }, true) })
      .do('placement.add', {
        id: 'two',
        record: { ...placementOf('Two', { part: 'a' }), at: triple('0', '50 mm', '0') },
      })
      .do('placement.add', {
        id: 'three',
        record: { ...placementOf('Three', { part: 'b' }), at: triple(at, '0', '0'), turn: triple('0', '0', '90 deg') },
      });
  }

  test('overlaps by volume and middle, gaps by their distance; pairs that are meant to press are marked', async () => {
    // turned a quarter the third covers x - 30 .. x, y 0 .. 20: it goes 6 into the first
    const script = blocks('44 mm');
    const { interferences } = await engine.interference(script.project, { within: 25 });
    expect(interferences.map(({ a, b }) => `${a} ${b}`)).toEqual(['one three', 'one two']);
    expect(interferences[0]!.overlap_mm3).toBeCloseTo(6 * 20 * 10, 6);
    expect(interferences[0]!.from.map((c) => Math.round(c * 1e6) / 1e6)).toEqual([17, 10, 5]);
    expect(interferences[1]!.distance_mm).toBeCloseTo(20, 9);
    expect(interferences[0]!.pressed).toBe(false);
    script.do('pair.press', { id: 'x', pair: { a: 'three', b: 'one' } });
    expect((await engine.interference(script.project)).interferences[0]!.pressed).toBe(true);
  });

  test('a pair that the kernel can not compare is told, not passed over', async () => {
    const kernel = await startKernelInNode();
    const clearance = () => fail('kernel.failed', { reason: 'for the test' });
    const stubborn = new Engine(Object.assign(Object.create(kernel) as typeof kernel, { clearance }));
    const { project } = blocks('44 mm');
    const { assembled, interferences } = await stubborn.interference(project);
    expect(interferences).toMatchObject([{ a: 'one', b: 'three', compared: false, overlap_mm3: 0 }]);
    expect(assemblyFindings(project, assembled, interferences)).toMatchObject([
      { code: 'assembly.uncompared', message: expect.stringContaining('One and Three overlap') as string },
    ]);
  });

  test('touching is no overlap', async () => {
    expect((await engine.interference(blocks('50 mm').project)).interferences).toEqual([]);
  });

  test('make-up, mass, centre and inertia of the whole against hand sums', async () => {
    const { project } = blocks('80 mm');
    const { model, assembled } = await engine.assemble(project);
    expect(billOfMaterials(project, model, assembled.members)).toEqual([
      {
        part: 'a',
        name: 'a',
        count: 2,
        material: 'M',
        mass_g: expect.closeTo(6, 9),
        size_mm: [20, 30, 10].map((c) => expect.closeTo(c, 6)),
        fill: expect.closeTo(1, 9) as number,
      },
      {
        part: 'b',
        name: 'b',
        count: 1,
        material: 'M',
        mass_g: expect.closeTo(47.1, 9),
        size_mm: [20, 30, 10].map((c) => expect.closeTo(c, 6)),
        fill: expect.closeTo(1, 9) as number,
      },
    ]);
    const whole = assemblyTotals(project, model, assembled.members, assembled.rest);
    const [m, n] = [6, 47.1];
    expect(whole.mass_g).toBeCloseTo(2 * m + n, 9);
    expect(whole.volume_mm3).toBeCloseTo(3 * 20 * 30 * 10, 6);
    const centre = [(m * 10 + m * 10 + n * 65) / (2 * m + n), (m * 15 + m * 65 + n * 10) / (2 * m + n), 5];
    whole.centre_mm!.forEach((c, k) => expect(c).toBeCloseTo(centre[k]!, 8));
    // about z by hand: m (a^2 + b^2) / 12 and the way of each centre
    const own = (mass: number, x: number, y: number) =>
      (mass * (20 ** 2 + 30 ** 2)) / 12 + mass * ((x - centre[0]!) ** 2 + (y - centre[1]!) ** 2);
    expect(whole.inertia_g_mm2[2]).toBeCloseTo(own(m, 10, 15) + own(m, 10, 65) + own(n, 65, 10), 5);
    // the third lies on its side: about x it is as wide as it was long
    const thin = (mass: number, wide: number, y: number) =>
      (mass * (wide ** 2 + 10 ** 2)) / 12 + mass * (y - centre[1]!) ** 2;
    expect(whole.inertia_g_mm2[0]).toBeCloseTo(thin(m, 30, 15) + thin(m, 30, 65) + thin(n, 20, 10), 5);
    const box = await engine.extents(project);
    expect(box!.high.map((c) => Math.round(c * 1e4) / 1e4)).toEqual([80, 80, 10]);
    const alone = totalsOf(
      model.parts[0]!.bodies.map(({ measures }) => measures),
      project.parts['a']!.material,
    );
    expect(seenFrom(alone, { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }).centre_mm).toEqual(
      alone.centre_mm,
    );
  });

  test('what stands twice in one place leaves as two, and is read back as two', async () => {
    const { project } = blocks('80 mm').do('placement.add', { id: 'four', record: placementOf('Four', { part: 'a' }) });
    const step = await engine.assemblyFile(project, 'step');
    expect(step.ok && new TextDecoder().decode(step.value)).toMatch(/Four/);
  });

  test('placed parts of groups are built too', () => {
    const { project } = blocks('80 mm').do('group.gather', {
      id: 'g',
      name: 'G',
      placement: 'pg',
      of: ['two', 'three'],
    });
    expect(placedParts(project)).toEqual(['a', 'b']);
  });
});
