import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import { FigureBuilder, ORIGIN } from '../sketch/index.ts';
import { addSketch, addStep, drawCircle, endOf, newPart } from './parts.ts';

/** The spout under the hopper: a flange, a neck with a bore, and a coarse thread wound round the neck. */
export function spout(script: ProjectScript): Id {
  const part = newPart(script, 'Spout', 7, ['POM', 1410]);
  const flange = drawCircle(script, part, 'Flange', 'spout flange', [30, 24]);
  const disc = addStep(script, part, { kind: 'extrude', name: 'Flange body', sketch: flange, distance: '4 mm' });
  const neck = drawCircle(script, part, 'Neck', 'spout neck', [22, 18], endOf(disc));
  addStep(script, part, {
    kind: 'extrude',
    name: 'Neck body',
    sketch: neck,
    distance: 'spout pitch * 6',
    result: 'add',
  });
  const bore = drawCircle(script, part, 'Bore', 'spout neck - 8 mm', [12, 10]);
  addStep(script, part, { kind: 'extrude', name: 'Bore body', sketch: bore, extent: 'through', result: 'cut' });
  // wound last: every cut through a thread takes its time
  const ridge = drawRidge(script, part);
  addStep(script, part, {
    kind: 'helix',
    name: 'Thread',
    sketch: ridge,
    axis: [{ to: 'origin', name: 'z' }],
    pitch: 'spout pitch',
    turns: '3',
    result: 'add',
  });
  return part;
}

/** The section of the thread, sunk a little into the neck so that it holds. */
function drawRidge(script: ProjectScript, part: Id): Id {
  const builder = new FigureBuilder(script.newId);
  const places = [
    [13.5, 8],
    [16, 9],
    [16, 10],
    [13.5, 11],
  ] as const;
  const points = places.map((place) => builder.place(place));
  points.forEach((point, k) => builder.line(point, points[(k + 1) % 4]!));
  const far = (a: Id, b: Id, direction: 'horizontal' | 'vertical', value: string) =>
    builder.relate({ kind: 'distance', a, b, direction, sense: 1, value });
  far(ORIGIN, points[0]!, 'horizontal', 'spout neck / 2 - 0.5 mm');
  far(ORIGIN, points[0]!, 'vertical', '4 mm + spout pitch');
  far(points[0]!, points[3]!, 'vertical', 'spout pitch * 0.75');
  builder.relate({ kind: 'vertical', a: points[0]!, b: points[3]! });
  builder.relate({ kind: 'vertical', a: points[1]!, b: points[2]! });
  far(points[0]!, points[1]!, 'horizontal', 'spout pitch * 0.6');
  far(points[0]!, points[1]!, 'vertical', 'spout pitch * 0.25');
  far(points[1]!, points[2]!, 'vertical', 'spout pitch * 0.25');
  return addSketch(script, part, { kind: 'sketch', name: 'Ridge', plane: 'front', ...builder.figure });
}
