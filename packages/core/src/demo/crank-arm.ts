import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import { FigureBuilder, ORIGIN, straightSlot, X_AXIS, type Relation } from '../sketch/index.ts';
import { addSketch, extruded, newPart } from './parts.ts';

/** The arm between the shaft and the knob: two rounds of different size, joined by tangents, with a hole in each. */
export function crankArm(script: ProjectScript): { part: Id; sketch: Id; pinHole: Id } {
  const part = newPart(script, 'Crank arm', 1, ['Steel S235', 7850]);
  const builder = new FigureBuilder(script.newId);
  const [hub, end] = [builder.place([0, 0]), builder.place([64, 0])];
  straightSlot(builder, [hub, [0, 0]], [end, [64, 0]], 10);
  const rounds = Object.keys(builder.entities).filter((id) => builder.entities[id]!.kind === 'arc') as [Id, Id];
  // a slot has equal ends, the arm has not
  for (const [id, { kind }] of Object.entries(builder.relations)) if (kind === 'equal') delete builder.relations[id];
  const [shaftHole, pinHole] = [builder.circle(hub, 6), builder.circle(end, 3)];
  const relate = (...relations: Relation[]) => relations.forEach((relation) => builder.relate(relation));
  relate(
    { kind: 'coincident', a: hub, b: ORIGIN },
    { kind: 'coincident', a: end, b: X_AXIS },
    { kind: 'distance', a: hub, b: end, direction: 'horizontal', sense: 1, value: 'crank length' },
    { kind: 'radius', circle: rounds[0], value: 'shaft / 2 + crank wall' },
    { kind: 'radius', circle: rounds[1], value: 'knob pin / 2 + crank wall' },
    { kind: 'diameter', circle: shaftHole, value: 'shaft' },
    { kind: 'diameter', circle: pinHole, value: 'knob pin' },
  );
  const sketch = addSketch(script, part, { kind: 'sketch', name: 'Arm outline', plane: 'top', ...builder.figure });
  extruded(script, part, 'Arm', sketch, 'crank thickness', 'new');
  return { part, sketch, pinHole };
}
