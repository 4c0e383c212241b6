import type { Vec3 } from '../math/index.ts';
import { explodedBy, explodedPoses, originOf, triple } from './index.ts';
import { assembled, joint, on, placed } from './test-fixture.ts';

test('an exploded view goes away from what is held, each part as far from the one that it is joined to', () => {
  const { mechanism, rest } = assembled({
    placements: {
      frame: placed(undefined, { held: true }),
      a: placed(triple('0', '0', '9')),
      b: placed(triple('0', '0', '20')),
    },
    joints: {
      one: joint('revolute', on('frame', 'at-0'), { placement: 'a' }),
      two: joint('revolute', on('a', 'at-0'), { placement: 'b' }),
    },
  });
  const still: Vec3 = [0, 0, 0];
  expect(explodedBy(mechanism, rest, [still, still, still], 30)).toEqual([
    [0, 0, 0],
    [0, 0, 30],
    [0, 0, 60],
  ]);
  // below its neighbour it goes the other way
  const [, , low] = explodedBy(mechanism, rest, [still, still, [0, 0, -40]], 30);
  expect(low).toEqual([0, 0, 0]);
});

test('drawn apart by a share, what is not joined stays, and by nothing all does', () => {
  const all = assembled({
    placements: { frame: placed(undefined, { held: true }), a: placed(triple('0', '0', '9')), b: placed() },
    joints: { one: joint('revolute', on('frame', 'at-0'), { placement: 'a' }) },
  });
  const boxOf = () => ({ low: [-1, -1, 0], high: [1, 1, 2] }) as const;
  expect(explodedPoses(all, all.rest, boxOf, 0)).toBe(all.rest.poses);
  const heights = (share: number) =>
    explodedPoses(all, all.rest, boxOf, share).map((pose, k) => originOf(pose)[2] - originOf(all.rest.poses[k]!)[2]);
  const body = (id: string) => all.members.find((member) => member.id === id)!.body;
  const [half, full] = [heights(0.5), heights(1)];
  expect(full[body('frame')]).toBe(0);
  expect(full[body('b')]).toBe(0);
  expect(full[body('a')]).toBeGreaterThan(all.mechanism.size);
  expect(full[body('a')]).toBeCloseTo(2 * half[body('a')]!, 9);
});

test('parts that relations hold go apart too, along what these tell', () => {
  const all = assembled({
    placements: {
      frame: placed(undefined, { held: true }),
      plate: placed(triple('0', '0', '12')),
      pin: placed(triple('20', '0', '0')),
    },
    relations: {
      on: { name: 'on', kind: 'distance', a: on('frame', 'up-0'), b: on('plate', 'up-0'), amount: '12 mm' } as never,
    },
  });
  const boxOf = () => ({ low: [-1, -1, 0], high: [1, 1, 2] }) as const;
  const body = (id: string) => all.members.find((member) => member.id === id)!.body;
  const gone = (id: string) => {
    const [pose] = [explodedPoses(all, all.rest, boxOf, 1)[body(id)]!];
    return originOf(pose).map((c, k) => c - originOf(all.rest.poses[body(id)]!)[k]!);
  };
  expect(gone('frame')).toEqual([0, 0, 0]);
  expect(gone('pin')).toEqual([0, 0, 0]);
  const [x, y, z] = gone('plate') as [number, number, number];
  expect(Math.hypot(x, y)).toBeLessThan(1e-9);
  expect(z).toBeGreaterThan(all.mechanism.size);
});
