import type { ProjectScript } from '../document/index.ts';
import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { centredRectangle, FigureBuilder, ORIGIN, X_AXIS, Y_AXIS } from '../sketch/index.ts';
import type { Bracket } from './bearing-bracket.ts';
import { addSketch, addStep, extruded, newPart } from './parts.ts';

// The frame of plates: its sheet drives the slots, the tabs and where everything stands.

/** The plate that all stands on, with a slot for each tab of the sides. */
export function basePlate(script: ProjectScript): Id {
  const part = newPart(script, 'Base plate', 9, ['Birch plywood', 680]);
  const builder = new FigureBuilder(script.newId);
  const [p, q, r] = centredRectangle(builder, ORIGIN, [0, 0], [150, 90]);
  builder.relate({ kind: 'distance', a: p, b: q, direction: 'horizontal', sense: 1, value: 'frame length + 20 mm' });
  builder.relate({
    kind: 'distance',
    a: q,
    b: r,
    direction: 'vertical',
    sense: 1,
    value: 'frame width + 4 * frame sheet',
  });
  const outline = addSketch(script, part, { kind: 'sketch', name: 'Base outline', plane: 'top', ...builder.figure });
  addStep(script, part, { kind: 'extrude', name: 'Base', sketch: outline, distance: 'frame sheet', ways: 'backwards' });
  const slot = slotSketch(script, part);
  const cut = addStep(script, part, {
    kind: 'extrude',
    name: 'Slot',
    sketch: slot,
    distance: 'frame sheet',
    ways: 'backwards',
    result: 'cut',
  });
  addStep(script, part, {
    kind: 'pattern-line',
    name: 'Slots',
    steps: [cut],
    along: [{ to: 'origin', name: 'x' }],
    count: '2',
    spacing: 'tab spacing',
    directions: 'two',
    across: [{ to: 'origin', name: 'y' }],
    rows: '2',
    apart: 'frame width + frame sheet',
  });
  return part;
}

/** One slot, its middle where the first tab comes. */
function slotSketch(script: ProjectScript, part: Id): Id {
  const builder = new FigureBuilder(script.newId);
  const at: Vec2 = [-80, -75];
  const centre = builder.place(at);
  const [p, q, r] = centredRectangle(builder, centre, at, [at[0] + 15, at[1] + 3]);
  const far = (a: Id, b: Id, direction: 'horizontal' | 'vertical', value: string) =>
    builder.relate({ kind: 'distance', a, b, direction, sense: 1, value });
  far(p, q, 'horizontal', 'tab width + 2 * tab play');
  far(q, r, 'vertical', 'frame sheet + 2 * tab play');
  far(centre, ORIGIN, 'horizontal', 'tab spacing / 2');
  far(centre, ORIGIN, 'vertical', '(frame width + frame sheet) / 2');
  return addSketch(script, part, { kind: 'sketch', name: 'Slot outline', plane: 'top', ...builder.figure });
}

/** A side with two tabs below and the window for the shaft; the other side is the same plate again. */
export function sidePlate(script: ProjectScript): Id {
  const part = newPart(script, 'Side plate', 10, ['Birch plywood', 680]);
  const builder = new FigureBuilder(script.newId);
  const places: readonly Vec2[] = [
    [-140, 0],
    [-95, 0],
    [-95, -6],
    [-65, -6],
    [-65, 0],
    [65, 0],
    [65, -6],
    [95, -6],
    [95, 0],
    [140, 0],
    [140, 200],
    [-140, 200],
  ];
  const points = places.map((place) => builder.place(place));
  const at = (k: number): Id => points[k]!;
  points.forEach((point, k) => {
    const next = points[(k + 1) % points.length]!;
    const line = builder.line(point, next);
    const level = places[k]![1] === places[(k + 1) % places.length]![1];
    builder.relate({ kind: level ? 'horizontal' : 'vertical', a: line });
  });
  // the shoulders stand on the base
  for (const k of [0, 4, 8]) builder.relate({ kind: 'coincident', a: at(k), b: X_AXIS });
  for (const [a, b] of [
    [0, 9],
    [1, 8],
    [4, 5],
  ] as const)
    builder.relate({ kind: 'symmetric', a: at(a), b: at(b), axis: Y_AXIS });
  const far = (a: number, b: number, direction: 'horizontal' | 'vertical', value: string) =>
    builder.relate({ kind: 'distance', a: at(a), b: at(b), direction, sense: 1, value });
  far(0, 9, 'horizontal', 'frame length');
  far(9, 10, 'vertical', 'frame height');
  far(1, 4, 'horizontal', 'tab width');
  far(2, 1, 'vertical', 'frame sheet');
  far(6, 7, 'horizontal', 'tab width');
  far(7, 8, 'vertical', 'frame sheet');
  far(4, 5, 'horizontal', 'tab spacing - tab width');
  const centre = builder.place([0, 120]);
  const window = builder.circle(centre, 9);
  builder.relate({ kind: 'coincident', a: centre, b: Y_AXIS });
  builder.relate({ kind: 'distance', a: ORIGIN, b: centre, direction: 'vertical', sense: 1, value: 'shaft height' });
  builder.relate({ kind: 'diameter', circle: window, value: 'shaft + 6 mm' });
  const outline = addSketch(script, part, { kind: 'sketch', name: 'Side outline', plane: 'front', ...builder.figure });
  extruded(script, part, 'Side', outline, 'frame sheet', 'new');
  return part;
}

/** The holes for the bolts of the bearings, taken from the outer one where that stands. */
export function boltHoles(script: ProjectScript, side: Id, { rims }: Pick<Bracket, 'rims'>): void {
  const empty = { kind: 'sketch', name: 'Bolt holes', plane: 'front', entities: {}, relations: {} } as const;
  const sketch = addSketch(script, side, empty);
  for (const { name, at } of rims) {
    const [centre, circle] = [script.newId('b'), script.newId('b')];
    script.do('sketch.borrow', {
      part: side,
      step: sketch,
      id: script.newId('o'),
      entities: {
        [centre]: { kind: 'point', x: at[0], y: at[1] + 120 },
        [circle]: { kind: 'circle', centre, radius: 2.75 },
      },
      loan: {
        source: { to: 'other', at: 'outer', from: 'side-r', on: { to: 'edge', name } },
        how: 'shape',
        makes: { curve: circle, 'curve centre': centre },
      },
    });
  }
  extruded(script, side, 'Bolts through', sketch, 'frame sheet', 'cut');
}

/** What the tray slides on. */
export function rail(script: ProjectScript): Id {
  const part = newPart(script, 'Rail', 11, ['Beech', 720]);
  const builder = new FigureBuilder(script.newId);
  const [p, q, r] = centredRectangle(builder, ORIGIN, [0, 0], [120, 5]);
  builder.relate({ kind: 'distance', a: p, b: q, direction: 'horizontal', sense: 1, value: 'frame length' });
  builder.relate({ kind: 'distance', a: q, b: r, direction: 'vertical', sense: 1, value: '10 mm' });
  const outline = addSketch(script, part, { kind: 'sketch', name: 'Rail outline', plane: 'top', ...builder.figure });
  extruded(script, part, 'Bar', outline, 'rail height', 'new');
  return part;
}
