import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import { FigureBuilder, ORIGIN, X_AXIS, Y_AXIS } from '../sketch/index.ts';
import { addSketch, addStep, newPart } from './parts.ts';

/** The knob of the crank: turned, with grips all round and a bore for its pin. */
export function crankKnob(script: ProjectScript): Id {
  const part = newPart(script, 'Crank knob', 3, ['Beech', 720]);
  const outline = drawHalf(script, part);
  addStep(script, part, { kind: 'revolve', name: 'Knob body', sketch: outline });
  const grip = drawGrip(script, part);
  const cut = addStep(script, part, {
    kind: 'extrude',
    name: 'Grip',
    sketch: grip,
    extent: 'through',
    ways: 'forwards',
    result: 'cut',
  });
  addStep(script, part, {
    kind: 'pattern-round',
    name: 'Grips all round',
    steps: [cut],
    about: [{ to: 'origin', name: 'z' }],
    count: 'grips',
  });
  return part;
}

/** Half the profile beside its centre line: the bore inside, the head wider than the neck. */
function drawHalf(script: ProjectScript, part: Id): Id {
  const builder = new FigureBuilder(script.newId);
  const places = [
    [3, 0],
    [7, 0],
    [7, 8],
    [14, 14],
    [14, 26],
    [3, 26],
  ] as const;
  const points = places.map((place) => builder.place(place));
  const lines = points.map((point, k) => builder.line(point, points[(k + 1) % points.length]!));
  const [foot, neck, , head, top, bore] = lines as [Id, Id, Id, Id, Id, Id];
  const [low, high] = [builder.place([0, -6]), builder.place([0, 34])];
  const axis = builder.line(low, high);
  builder.entities[axis] = { kind: 'line', a: low, b: high, construction: true, centreline: true };
  for (const line of [neck, head, bore, axis]) builder.relate({ kind: 'vertical', a: line });
  for (const line of [foot, top]) builder.relate({ kind: 'horizontal', a: line });
  builder.relate({ kind: 'coincident', a: low, b: Y_AXIS });
  builder.relate({ kind: 'coincident', a: points[0]!, b: X_AXIS });
  const height = (a: Id, b: Id, value: string) =>
    builder.relate({ kind: 'distance', a, b, direction: 'vertical', sense: 1, value });
  const across = (point: Id, value: string) => builder.relate({ kind: 'across', point, axis, sense: 1, value });
  across(points[0]!, 'knob pin');
  across(points[1]!, 'knob * 0.5');
  across(points[3]!, 'knob');
  height(points[1]!, points[2]!, 'knob height * 0.3');
  height(points[1]!, points[3]!, 'knob height * 0.5');
  height(points[1]!, points[4]!, 'knob height');
  height(low, ORIGIN, '6 mm');
  height(ORIGIN, high, 'knob height + 8 mm');
  return addSketch(script, part, { kind: 'sketch', name: 'Half profile', plane: 'front', ...builder.figure });
}

/** One of the grooves round the head. */
function drawGrip(script: ProjectScript, part: Id): Id {
  const builder = new FigureBuilder(script.newId);
  const centre = builder.place([15, 0]);
  const groove = builder.circle(centre, 3);
  builder.relate({ kind: 'coincident', a: centre, b: X_AXIS });
  builder.relate({
    kind: 'distance',
    a: ORIGIN,
    b: centre,
    direction: 'horizontal',
    sense: 1,
    value: 'knob / 2 + 1 mm',
  });
  builder.relate({ kind: 'diameter', circle: groove, value: 'knob / 5' });
  return addSketch(script, part, { kind: 'sketch', name: 'Groove', plane: 'top', ...builder.figure });
}
