import { faceName } from '../naming/index.ts';
import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import type { Reference } from '../references/index.ts';
import { FigureBuilder, ORIGIN, straightSlot, X_AXIS } from '../sketch/index.ts';
import { addSketch, addStep, newPart } from './parts.ts';

/** The rod between the crank and the tray: a bar with round ends, drilled for the pins, its rims softened. */
export function connectingRod(script: ProjectScript): { part: Id; sketch: Id; near: Id; far: Id } {
  const part = newPart(script, 'Connecting rod', 6, ['Steel S235', 7850]);
  const builder = new FigureBuilder(script.newId);
  const [near, far] = [builder.place([0, 0]), builder.place([110, 0])];
  straightSlot(builder, [near, [0, 0]], [far, [110, 0]], 9);
  const [round] = Object.keys(builder.entities).filter((id) => builder.entities[id]!.kind === 'arc');
  builder.relate({ kind: 'coincident', a: near, b: ORIGIN });
  builder.relate({ kind: 'coincident', a: far, b: X_AXIS });
  builder.relate({ kind: 'distance', a: near, b: far, direction: 'horizontal', sense: 1, value: 'rod length' });
  builder.relate({ kind: 'radius', circle: round!, value: 'rod width / 2' });
  const outline = addSketch(script, part, { kind: 'sketch', name: 'Bar outline', plane: 'top', ...builder.figure });
  const bar = addStep(script, part, { kind: 'extrude', name: 'Bar', sketch: outline, distance: 'rod sheet' });
  const end: Reference = { to: 'face', name: faceName(bar, 'end') };
  addStep(script, part, { kind: 'fillet', name: 'Soft rim', edges: [end], radius: 'rod sheet / 5' });
  addStep(script, part, {
    kind: 'hole',
    name: 'Pin holes',
    at: [near, far].map((entity): Reference => ({ to: 'drawn', step: outline, entity })),
    into: [end],
    size: 'own',
    diameter: 'knob pin',
  });
  return { part, sketch: outline, near, far };
}
