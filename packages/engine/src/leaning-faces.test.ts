import {
  add3,
  distance3,
  FigureBuilder,
  fingerprintOfFace,
  ORIGIN,
  perform,
  ProjectScript,
  rectangle,
  scale3,
  toPlane,
  type Id,
  type Project,
  type Vec2,
  type Vec3,
} from '@helb/core';
import type { OpenCascadeKernel } from '@helb/kernel';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';

// What is drawn on a face that leans turns with it, also past upright and flat.

let kernel: OpenCascadeKernel;
beforeAll(async () => (kernel = await startKernelInNode()));

const script = new ProjectScript('Wedge');
const part = script.newId('part');
const [lean, outline, wedge, drawn, block] = ['v', 's', 's', 's', 's'].map((prefix) => script.newId(prefix)) as [
  Id,
  Id,
  Id,
  Id,
  Id,
];

/** A triangle over Front: 60 along x, and 50 long leaning by `lean`; 30 deep. */
function makeWedge(): Id {
  script.do('value.add', { id: lean, name: 'lean', expression: '50 deg' }).do('part.add', { id: part, name: 'Wedge' });
  const b = new FigureBuilder(script.newId);
  const [o, foot, top] = [b.place([0, 0]), b.place([60, 0]), b.place([32, 38])];
  const [base, slope] = [b.line(o, foot), b.line(o, top)];
  b.line(foot, top);
  b.relate({ kind: 'coincident', a: o, b: ORIGIN });
  b.relate({ kind: 'horizontal', a: base });
  for (const [to, value] of [
    [foot, '60 mm'],
    [top, '50 mm'],
  ] as const)
    b.relate({ kind: 'distance', a: o, b: to, direction: 'aligned', sense: 1, value });
  b.relate({ kind: 'angle', a: base, b: slope, alongA: 1, alongB: 1, sense: 1, value: 'lean' });
  add(outline, { kind: 'sketch', name: 'Outline', plane: 'front', ...b.figure });
  extrude(wedge, outline, '30 mm', 'backwards');
  return slope;
}

const add = (id: Id, step: object) => script.do('step.add', { part, id, step } as never);
const extrude = (id: Id, sketch: Id, distance: string, ways: string) =>
  add(id, { kind: 'extrude', name: id, sketch, areas: 'outline', distance, ways, result: 'new' });

const built = async (project: Project) =>
  (await new Engine(kernel).build(project, { mesh: { deflection: 0.5, angle: 0.5 } })).parts[0]!;

function leaningBy(deg: number): Project {
  const done = perform(script.project, [{ command: 'value.set', input: { id: lean, expression: `${deg} deg` } }]);
  if (!done.ok) throw new Error(done.issue.code);
  return done.value.project;
}

/** A place 25 up the slope, 7 deep, and 2.5 over it. */
function middleAt(deg: number): Vec3 {
  const [cos, sin] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  return add3(scale3([cos, 0, sin], 25), add3([0, 7, 0], scale3([-sin, 0, cos], 2.5)));
}

test('a block on a face that leans stays where it was on it, from nearly flat to hanging over', async () => {
  const slope = makeWedge();
  const { topology } = (await built(script.project)).bodies[0]!;
  const face = topology!.faces.find(({ name }) => name.includes(slope))!;
  const plane = { to: 'face', name: face.name, print: fingerprintOfFace(face) } as const;
  add(drawn, { kind: 'sketch', name: 'Block', plane, entities: {}, relations: {} });
  const { frame } = (await built(script.project)).sketches.get(drawn)!;
  // 10 up and down the slope, 6 deep: long one way, so that a quarter of a turn would show
  const at = (up: number, deep: number): Vec2 => {
    const angle = (50 * Math.PI) / 180;
    return toPlane(frame, [up * Math.cos(angle), deep, up * Math.sin(angle)]);
  };
  const b = new FigureBuilder(script.newId);
  const corners = rectangle(b, at(20, 4), at(30, 10));
  for (const corner of corners.slice(0, 1).concat(corners.slice(2, 3)))
    for (const [k, direction] of (['horizontal', 'vertical'] as const).entries()) {
      const point = b.entities[corner] as { x: number; y: number };
      const reach = k === 0 ? point.x : point.y;
      const value = `${Math.abs(reach)} mm`;
      b.relate({ kind: 'distance', a: ORIGIN, b: corner, direction, sense: reach > 0 ? 1 : -1, value });
    }
  script.do('sketch.draw', { part, step: drawn, what: 'draw', ...b.figure });
  extrude(block, drawn, '5 mm', 'forwards');
  for (const deg of [50, 20, 3, 64, 65, 89, 91, 115, 170]) {
    const { steps, bodies } = await built(leaningBy(deg));
    expect([deg, steps.map(({ state }) => state)]).toEqual([deg, steps.map(() => 'built')]);
    const [, { measures }] = bodies as [unknown, (typeof bodies)[number]];
    expect([deg, measures.volume_mm3]).toEqual([deg, expect.closeTo(300, 6)]);
    expect([deg, distance3(measures.centre_mm, middleAt(deg))]).toEqual([deg, expect.closeTo(0, 6)]);
    // long up the slope, not across it
    const [low, high] = [measures.box_mm.low[1], measures.box_mm.high[1]];
    expect([deg, low, high]).toEqual([deg, expect.closeTo(4, 4), expect.closeTo(10, 4)]);
  }
});

test('so does a plane at a distance from it, and what is drawn on that', async () => {
  const { plane } = script.project.parts[part]!.steps[drawn] as { plane: { to: 'face' } };
  const [raised, above, peg] = ['s', 's', 's'].map((prefix) => script.newId(prefix)) as [Id, Id, Id];
  add(raised, { kind: 'datum-plane', name: 'Raised', how: 'offset', on: [plane], by: '8 mm' });
  const sketch = script.project.parts[part]!.steps[drawn]! as { entities: object; relations: object };
  const { entities, relations } = sketch;
  add(above, { kind: 'sketch', name: 'Above', plane: { to: 'datum', step: raised }, entities, relations });
  extrude(peg, above, '5 mm', 'forwards');
  for (const deg of [50, 20, 65, 91]) {
    const { steps, bodies } = await built(leaningBy(deg));
    expect([deg, steps.map(({ state }) => state)]).toEqual([deg, steps.map(() => 'built')]);
    const normal: Vec3 = [-Math.sin((deg * Math.PI) / 180), 0, Math.cos((deg * Math.PI) / 180)];
    const place = add3(middleAt(deg), scale3(normal, 8));
    expect([deg, distance3(bodies[2]!.measures.centre_mm, place)]).toEqual([deg, expect.closeTo(0, 6)]);
  }
});
