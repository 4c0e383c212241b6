import {
  markReferences,
  perform,
  defaultSheet,
  explain,
  type Action,
  type ComposedSheet,
  type Entities,
  type Mark,
  type Project,
} from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';
import { axis, PartFixture, circle, edge, face, rectangle } from './test-fixture.ts';

// What is told by the sizes on sheets, and what is missing: on parts whose sizes one can count.

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

/** Corners in a row, closed: points p0.. and lines l0... */
function polygon(...corners: (readonly [number, number])[]): Entities {
  const points = corners.map(([x, y], k) => [`p${k}`, { kind: 'point', x, y }] as const);
  const lines = corners.map(
    (_, k) => [`l${k}`, { kind: 'line', a: `p${k}`, b: `p${(k + 1) % corners.length}` }] as const,
  );
  return Object.fromEntries([...points, ...lines]);
}
/** Circles c0.. of one radius. */
const circles = (radius: number, ...places: (readonly [number, number])[]): Entities =>
  Object.fromEntries(
    places.flatMap(([x, y], k) => [
      [`m${k}`, { kind: 'point', x, y }] as const,
      [`c${k}`, { kind: 'circle', centre: `m${k}`, radius }] as const,
    ]),
  );
const through = { distance: '50 mm', ways: 'both', result: 'cut' };
const round = Array.from({ length: 6 }, (_, k): [number, number] => [
  24 * Math.cos((k * Math.PI) / 3),
  24 * Math.sin((k * Math.PI) / 3),
]);

interface Sample {
  readonly name: string;
  readonly part: () => PartFixture;
  /** How many sizes tell it, as one counts by hand. */
  readonly sizes: number;
}
const SAMPLES: readonly Sample[] = [
  { name: 'a block: three lengths', sizes: 3, part: () => new PartFixture().block('e', 40, 30, 8) },
  {
    name: 'a tube: two diameters and a length',
    sizes: 3,
    part: () =>
      new PartFixture()
        .sketch('s', { ...circle(0, 0, 15), i: { kind: 'circle', centre: 'm', radius: 9 } })
        .step('e', 'extrude', { sketch: 's', distance: '25 mm' }),
  },
  {
    name: 'a stepped shaft: two diameters and two lengths',
    sizes: 4,
    part: () =>
      new PartFixture()
        .sketch('s', polygon([0, 0], [12, 0], [12, 20], [7, 20], [7, 50], [0, 50]), 'front')
        .step('e', 'revolve', { sketch: 's', axis: [axis('z')] }),
  },
  {
    name: 'a pin with a bevelled end: diameter, length, bevel',
    sizes: 3,
    part: () =>
      new PartFixture()
        .sketch('s', circle(0, 0, 6))
        .step('e', 'extrude', { sketch: 's', distance: '30 mm' })
        .step('f', 'chamfer', { edges: [edge('e/end', 'e/side/o')], distance: '1 mm' }),
  },
  {
    name: 'a plate with four holes, symmetrical: three lengths, a diameter, two places',
    sizes: 6,
    part: () =>
      new PartFixture()
        .sketch('s', rectangle(-30, -20, 60, 40))
        .step('e', 'extrude', { sketch: 's', distance: '5 mm' })
        .sketch('h', circles(3, [-22, -12], [22, -12], [22, 12], [-22, 12]))
        .step('x', 'extrude', { sketch: 'h', ...through }),
  },
  {
    name: 'a plate with a hole anywhere: three lengths, a diameter, two places',
    sizes: 6,
    part: () =>
      new PartFixture()
        .block('e', 40, 30, 8)
        .sketch('h', circle(11, 9, 4))
        .step('x', 'extrude', { sketch: 'h', ...through }),
  },
  {
    name: 'an angle: two legs, two thicknesses, a length',
    sizes: 5,
    part: () =>
      new PartFixture()
        .sketch('s', polygon([0, 0], [60, 0], [60, 6], [5, 6], [5, 40], [0, 40]), 'front')
        .step('e', 'extrude', { sketch: 's', distance: '30 mm' }),
  },
  {
    name: 'a plate with rounded corners: three lengths and a radius',
    sizes: 4,
    part: () =>
      new PartFixture()
        .sketch('s', rectangle(-30, -20, 60, 40))
        .step('e', 'extrude', { sketch: 's', distance: '5 mm' })
        .step('f', 'fillet', {
          edges: [
            edge('e/side/a', 'e/side/b'),
            edge('e/side/b', 'e/side/c'),
            edge('e/side/c', 'e/side/d'),
            edge('e/side/a', 'e/side/d'),
          ],
          radius: '6 mm',
        }),
  },
  {
    name: 'a wedge: width, height, depth, slope',
    sizes: 4,
    part: () =>
      new PartFixture()
        .sketch('s', polygon([0, 0], [40, 0], [25, 20], [0, 20]), 'front')
        .step('e', 'extrude', { sketch: 's', distance: '10 mm' }),
  },
  {
    name: 'a flange with six holes on a circle: two diameters, a thickness, the holes, their circle',
    sizes: 5,
    part: () =>
      new PartFixture()
        .sketch('s', { ...circle(0, 0, 32), i: { kind: 'circle', centre: 'm', radius: 10 } })
        .step('e', 'extrude', { sketch: 's', distance: '8 mm' })
        .sketch('h', circles(2.75, ...round))
        .step('x', 'extrude', { sketch: 'h', ...through }),
  },
  {
    name: 'a block with a counterbored blind hole: three lengths, one callout, two places',
    sizes: 6,
    part: () =>
      new PartFixture()
        .block('e', 40, 30, 20)
        .sketch('h', { m: { kind: 'point', x: 12, y: 10 } })
        .step('x', 'hole', {
          at: [{ to: 'drawn', step: 'h', entity: 'm' }],
          into: [face('e/end')],
          size: 'own',
          diameter: '6 mm',
          head: 'counterbore',
          wide: '11 mm',
          sunk: '4 mm',
          extent: 'blind',
          depth: '14 mm',
        }),
  },
  {
    name: 'a plate with a slot in its middle: three lengths, the slot by its radius and its length',
    sizes: 5,
    part: () =>
      new PartFixture()
        .sketch('s', rectangle(-30, -20, 60, 40))
        .step('e', 'extrude', { sketch: 's', distance: '5 mm' })
        .sketch('h', {
          a: { kind: 'point', x: -10, y: 0 },
          b: { kind: 'point', x: 10, y: 0 },
          p: { kind: 'point', x: -10, y: 4 },
          q: { kind: 'point', x: -10, y: -4 },
          r: { kind: 'point', x: 10, y: -4 },
          t: { kind: 'point', x: 10, y: 4 },
          u: { kind: 'arc', centre: 'a', a: 'p', b: 'q', radius: 4 },
          v: { kind: 'line', a: 'q', b: 'r' },
          w: { kind: 'arc', centre: 'b', a: 'r', b: 't', radius: 4 },
          x: { kind: 'line', a: 't', b: 'p' },
        })
        .step('x', 'extrude', { sketch: 'h', ...through }),
  },
];

function withSheet(bench: PartFixture): Project {
  const record = defaultSheet({ id: 'part', name: 'Part' }, { paper: 'A3', projection: 'first' });
  bench.script.do('part.material', { id: 'part', material: { name: 'Steel', density_kg_m3: 7850 } });
  return bench.script.do('sheet.add', { id: 'd', record }).project;
}
async function drawn(project: Project): Promise<ComposedSheet> {
  const sheet = await PartFixture.engine.sheet(project, 'd');
  if (!sheet.ok) throw new Error(explain(sheet.issue));
  return sheet.value;
}
function changed(project: Project, ...actions: Action[]): Project {
  const done = perform(project, actions);
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value.project;
}
const missing = ({ findings }: ComposedSheet): Mark[] => findings.flatMap(({ place }) => place ?? []);
const codes = ({ findings }: ComposedSheet) => findings.map(({ issue }) => issue.code);
const told = (project: Project, marks: readonly Mark[], prefix = 'm'): Project =>
  changed(
    project,
    ...marks.map((mark, k): Action => ({ command: 'mark.add', input: { sheet: 'd', id: `${prefix}${k}`, mark } })),
  );

describe.each(SAMPLES)('$name', ({ part, sizes }) => {
  let project: Project;
  let marks: readonly Mark[];
  beforeAll(async () => {
    project = withSheet(part());
    marks = missing(await drawn(project));
    project = told(project, marks);
  });

  test('as many sizes are missing as one counts', () => {
    expect(marks.map(({ kind }) => kind)).toHaveLength(sizes);
  });

  test('with all of them nothing is missing and nothing is said twice', async () => {
    expect(codes(await drawn(project)).filter((code) => code !== 'sheet.idle' && code !== 'sheet.hidden')).toEqual([]);
  });

  test('each that is taken away is missed, and nothing else; put back, all is told', async () => {
    for (const k of marks.keys()) {
      const without = changed(project, { command: 'mark.remove', input: { sheet: 'd', id: `m${k}` } });
      const again = missing(await drawn(without));
      expect([k, again.length]).toEqual([k, 1]);
      expect(missing(await drawn(told(without, again, 'n')))).toEqual([]);
    }
  });

  test('each that is said once more is said twice; in brackets it is not', async () => {
    for (const [k, mark] of marks.entries()) {
      const twice = told(project, [mark], 'n');
      const doubled = (await drawn(twice)).findings.filter(({ issue }) => issue.code === 'sheet.double');
      expect(doubled.map((finding) => finding.mark).sort()).toEqual([`m${k}`, 'n0']);
      const extra = told(project, [{ ...mark, extra: true } as Mark], 'n');
      expect(codes(await drawn(extra))).not.toContain('sheet.double');
    }
  });

  test('texts lie apart, in the frame', async () => {
    const { marks: drawnMarks, picture } = await drawn(project);
    const boxes = Object.values(drawnMarks).map(({ box }) => box);
    expect(boxes).toHaveLength(sizes);
    for (const [k, { low, high }] of boxes.entries()) {
      expect(low[0]).toBeGreaterThan(20);
      expect(low[1]).toBeGreaterThan(10);
      expect(high[0]).toBeLessThan(picture.size[0] - 10);
      expect(high[1]).toBeLessThan(picture.size[1] - 10);
      for (const other of boxes.slice(k + 1)) {
        const apart = [0, 1].some((i) => low[i]! >= other.high[i]! || other.low[i]! >= high[i]!);
        expect(apart).toBe(true);
      }
    }
  });
});

test('a thread that is shown by a sign wants a word at its face', async () => {
  const pin = new PartFixture()
    .sketch('s', circle(0, 0, 4))
    .step('e', 'extrude', { sketch: 's', distance: '30 mm' })
    .step('t', 'thread', { faces: [face('e/side/o')], size: 'm8', extent: 'part', length: '12 mm' });
  const project = withSheet(pin);
  const marks = missing(await drawn(project));
  expect(marks.map(({ kind }) => kind).sort()).toEqual(['diameter', 'distance', 'note']);
  expect(marks.find(({ kind }) => kind === 'note')).toMatchObject({ text: expect.stringContaining('M8') as string });
  expect(missing(await drawn(told(project, marks)))).toEqual([]);
});

describe('a plate with a bore', () => {
  const plate = () => {
    const bench = new PartFixture().block('e', 40, 30, 8).sketch('h', circle(20, 15, 5));
    return withSheet(bench.step('x', 'extrude', { sketch: 'h', ...through }));
  };
  const bore: Mark = { kind: 'diameter', view: 'top', of: [face('x/side/o')] };

  test('the figures are those of the model, with their limits', async () => {
    const words = async (mark: Mark) => {
      const sheet = await drawn(told(plate(), [mark]));
      return sheet.marks['m0']?.words ?? explain(sheet.findings.find(({ mark: id }) => id === 'm0')!.issue);
    };
    expect(await words(bore)).toBe('⌀10');
    // ISO 286-2: H7 over 6 to 10 mm is 0 to 15 micrometres
    expect(await words({ ...bore, tolerance: { kind: 'fit', class: 'H7' } })).toBe('⌀10 H7 +0.015/0');
    expect(await words({ ...bore, tolerance: { kind: 'even', by: 0.05 } })).toBe('⌀10 ±0.05');
    expect(await words({ ...bore, tolerance: { kind: 'limits', upper: 0.1, lower: -0.2 } })).toBe('⌀10 +0.1/−0.2');
    expect(await words({ ...bore, extra: true })).toBe('(⌀10)');
    const [left, bottom] = [face('e/side/d'), face('e/side/a')];
    expect(await words({ kind: 'distance', view: 'top', of: [left, face('x/side/o')] })).toBe('20');
    expect(
      await words({ kind: 'distance', view: 'top', of: [left, face('x/side/o'), face('e/side/b')], lay: 'chain' }),
    ).toBe('20 + 20');
    expect(
      await words({ kind: 'distance', view: 'top', of: [left, face('x/side/o'), face('e/side/b')], lay: 'base' }),
    ).toBe('20, 40');
    expect(await words({ kind: 'angle', view: 'top', of: [left, bottom] })).toBe('90°');
    expect(await words({ kind: 'distance', view: 'top', of: [left, bottom] })).toMatch(/not parallel/);
    expect(await words({ kind: 'radius', view: 'top', of: [left] })).toMatch(/not round/);
    expect(await words({ kind: 'distance', view: 'top', of: [face('e/start'), face('e/end')] })).toMatch(/seen square/);
    expect(await words({ kind: 'chamfer', view: 'top', of: [left] })).toMatch(/no bevel/);
    expect(await words({ ...bore, of: [face('gone/side/a')] })).toMatch(/is gone/);
  });

  test('a mark tells in which other views it could stand', async () => {
    const others = async (mark: Mark) => (await drawn(told(plate(), [mark]))).marks['m0']!.elsewhere;
    const thick: Mark = { kind: 'distance', view: 'front', of: [face('e/start'), face('e/end')] };
    expect(await others(thick)).toEqual(['side']);
    const wide: Mark = { kind: 'distance', view: 'top', of: [face('e/side/d'), face('e/side/b')] };
    expect(await others(wide)).toEqual(['front']);
    expect((await others(bore)).toSorted()).toEqual(['front', 'side']);
  });

  test('what is picked offers what can be told of it', async () => {
    const offers = async (
      ...picked: Mark['kind'] extends never ? never : Parameters<Engine['fittingMarks']>[3][number][]
    ) =>
      (await PartFixture.engine.fittingMarks(plate(), 'd', 'top', picked)).map(
        ({ mark, words }) => `${mark.kind} ${words}`,
      );
    expect(await offers(face('x/side/o'))).toEqual(['diameter ⌀10', 'radius R5', 'hole ⌀10 through']);
    expect(await offers(face('e/side/a'), face('e/side/c'))).toEqual(['distance 30']);
    expect(await offers(face('e/side/a'), face('e/side/b'))).toEqual(['angle 90°']);
    expect(await offers(face('e/side/a'))).toEqual([]);
    expect(await offers(edge('e/side/a', 'e/end'))).toEqual(['distance 40']);
  });

  test('a size told at hidden edges, a view in which nothing is told, no material', async () => {
    let project = plate();
    project = changed(project, { command: 'part.material', input: { id: 'part' } });
    const depth: Mark = { kind: 'diameter', view: 'front', of: [face('x/side/o')] };
    const sheet = await drawn(told(project, [depth]));
    expect(codes(sheet)).toEqual(expect.arrayContaining(['sheet.hidden', 'sheet.idle', 'sheet.material']));
    expect(codes(await drawn(told(project, [bore])))).not.toContain('sheet.hidden');
  });

  test('the sheet follows the model, and what another sheet tells is told', async () => {
    const project = told(plate(), [bore]);
    const wider = changed(project, {
      command: 'step.set',
      input: { part: 'part', step: 'e', fields: { distance: '12 mm' } },
    });
    const thick: Mark = { kind: 'distance', view: 'front', of: [face('e/start'), face('e/end')] };
    const both = told(wider, [thick], 'n');
    expect((await drawn(both)).marks['n0']!.words).toBe('12');
    const record = both.sheets!['d']!;
    const second = changed(both, { command: 'sheet.add', input: { id: 'd2', record: { ...record, name: 'Second' } } });
    // on the second sheet the same is said once more
    const doubled = (await drawn(second)).findings.filter(({ issue }) => issue.code === 'sheet.double');
    expect(doubled.map(({ mark }) => mark).sort()).toEqual(['m0', 'n0']);
  });

  test('a mark that was dragged stays there; what it is attached to is kept by name and look', async () => {
    const project = told(plate(), [{ ...bore, at: [60, 40] }]);
    const { at } = (await drawn(project)).marks['m0']!;
    expect(at[0]).toBeCloseTo(60, 6);
    expect(at[1]).toBeCloseTo(40, 6);
    const [proposed] = missing(await drawn(plate()));
    expect(markReferences(proposed!)[0]).toMatchObject({ to: 'face', print: { form: 'plane' } });
  });
});
