import { ORIGIN_PLANES, type BodyHandle, type Entities, type Result, type ShellRequest } from '@helb/core';
import { insetHollow, movedHollow, type Corners } from './inset-hollow.ts';
import { guarded, type DisposalScope } from './library.ts';
import { partsOf } from './parts.ts';
import type { NamedSolid } from './names.ts';
import { all, box, circle, combine, kernel, one, profile, rectangle, volume, withKernel } from './test-fixture.ts';

withKernel();

/** What is left of a body by one of the ways, mm³; undefined where it is refused. */
function leftBy(
  body: BodyHandle,
  request: Omit<ShellRequest, 'body' | 'step'>,
  way: (scope: DisposalScope, solid: NamedSolid, request: ShellRequest) => Result<NamedSolid>,
): number | undefined {
  const solid = kernel['body'](body);
  const made = guarded(kernel['library'], (scope) => way(scope, solid, { body, step: 'h', ...request }));
  if (!made.ok) return undefined;
  const left = kernel['adopt'](made.value);
  const mm3 = volume(left);
  kernel.release(left);
  return mm3;
}
const straight = (body: BodyHandle, request: Omit<ShellRequest, 'body' | 'step'>) =>
  leftBy(body, request, (scope, solid, asked) => insetHollow(kernel['library'], scope, solid, asked));
const moved = (body: BodyHandle, request: Omit<ShellRequest, 'body' | 'step'>, corners: Corners = 'GeomAbs_Arc') =>
  leftBy(body, request, (scope, solid, asked) => movedHollow(kernel['library'], scope, solid, asked, corners));
const plain = (body: BodyHandle, request: Omit<ShellRequest, 'body' | 'step'>) =>
  volume(one(kernel.shell({ body, step: 'h', ...request })));

test('where the library finds walls as well they are the same', () => {
  const tub = { open: ['s/end'], wall: 2 };
  const block = box(40, 30, 20);
  const leaning = one(
    kernel.draft({ body: block, faces: ['s/side/b'], neutral: ORIGIN_PLANES.top, angle: 0.2, step: 'd' }),
  );
  const walls = 40 * 30 * 20 - 36 * 26 * 18;
  expect(straight(block, tub)).toBeCloseTo(walls, 8);
  expect(moved(block, tub)).toBeCloseTo(walls, 8);
  // beside a face that leans straight out is not as thick as it
  expect(straight(leaning, tub)).toBeUndefined();
  expect(moved(leaning, tub)).toBeCloseTo(plain(leaning, tub), 8);
  const two = { open: ['s/end', 's/side/a'], wall: 2 };
  expect(straight(block, two)).toBeUndefined();
  expect(moved(block, two)).toBeCloseTo(40 * 30 * 20 - 36 * 28 * 18, 8);
});

test('an open face that others rise from needs sharp corners', () => {
  const tool = all(kernel.extrude({ profile: profile(rectangle(10, 10, 20, 10)), from: 12, to: 20, step: 'p' }))[0]!;
  const pocketed = combine('cut', [box(40, 30, 20)], [tool]);
  const bottom = partsOf(kernel['library'], kernel['body'](pocketed)).faces.find(({ name }) =>
    name.includes('p/start'),
  )!.name;
  const request = { open: [bottom], wall: 1 };
  expect(moved(pocketed, request)).toBeUndefined();
  // about the pocket walls of 1 down to its bottom, which is open
  const hollow = 38 * 28 * 18 - 22 * 12 * (19 - 12);
  expect(moved(pocketed, request, 'GeomAbs_Intersection')).toBeCloseTo(40 * 30 * 20 - 20 * 10 * 8 - hollow, 8);
});

test('beside a face that is bent and leans neither way is gone; a bore through an open face gets its wall', () => {
  const corners: Entities = {
    ...{ p: { kind: 'point', x: 0, y: 0 }, q: { kind: 'point', x: 20, y: 0 } },
    ...{ r: { kind: 'point', x: 12, y: 15 }, s: { kind: 'point', x: 0, y: 15 } },
    ...{ a: { kind: 'line', a: 'p', b: 'q' }, b: { kind: 'line', a: 'q', b: 'r' } },
    ...{ c: { kind: 'line', a: 'r', b: 's' }, d: { kind: 'line', a: 's', b: 'p' } },
  };
  const turned = { origin: [0, 0, 0], axis: [0, 0, 1], from: 0, to: 2 * Math.PI, step: 'k' } as const;
  const [cone] = all(kernel.revolve({ profile: profile(corners, ORIGIN_PLANES.front), ...turned })) as [BodyHandle];
  const opened = { open: ['k/side/c'], wall: 2 };
  expect([straight(cone, opened), moved(cone, opened)]).toEqual([undefined, undefined]);

  const bore = all(kernel.extrude({ profile: profile(circle(20, 15, 5)), from: 0, to: 20, step: 'o' }))[0]!;
  const bored = combine('cut', [box(40, 30, 20)], [bore]);
  const tub = { open: ['s/end'], wall: 2 };
  const walls = (40 * 30 - 25 * Math.PI) * 20 - (36 * 26 - 49 * Math.PI) * 18;
  expect(straight(bored, tub)).toBeCloseTo(walls, 7);
  expect(moved(bored, tub)).toBeCloseTo(walls, 7);
});
