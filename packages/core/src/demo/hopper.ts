import { faceName } from '../naming/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import { centredRectangle, FigureBuilder, ORIGIN } from '../sketch/index.ts';
import type { SketchPlane } from '../steps/index.ts';
import { addSketch, addStep, endOf, newPart } from './parts.ts';

/** The funnel over the drum: a loft from a wide square to a narrow one, hollow and open at both ends. */
export function hopper(script: ProjectScript): Id {
  const part = newPart(script, 'Hopper', 4, ['Birch plywood', 680]);
  const low = drawSquare(script, part, 'Outlet', 'hopper outlet', 'top');
  const above = addStep(script, part, {
    kind: 'datum-plane',
    name: 'Rim height',
    how: 'offset',
    on: [{ to: 'origin', name: 'top' }],
    by: 'hopper height',
  });
  const high = drawSquare(script, part, 'Inlet', 'hopper inlet', { to: 'datum', step: above });
  const body = addStep(script, part, {
    kind: 'loft',
    name: 'Funnel',
    sections: [low, high],
    course: 'straight',
  });
  addStep(script, part, {
    kind: 'shell',
    name: 'Walls',
    open: [endOf(body), { to: 'face', name: faceName(body, 'start') }],
    wall: 'hopper wall',
  });
  return part;
}

function drawSquare(script: ProjectScript, part: Id, name: string, size: string, plane: SketchPlane): Id {
  const builder = new FigureBuilder(script.newId);
  const half = name === 'Inlet' ? 60 : 18;
  const [p, q, r] = centredRectangle(builder, ORIGIN, [0, 0], [half, half]);
  builder.relate({ kind: 'distance', a: p, b: q, direction: 'horizontal', sense: 1, value: size });
  builder.relate({ kind: 'distance', a: q, b: r, direction: 'vertical', sense: 1, value: size });
  return addSketch(script, part, { kind: 'sketch', name, plane, ...builder.figure });
}
