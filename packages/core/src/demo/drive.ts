import type { ProjectScript } from '../document/index.ts';
import type { Id } from '../records/index.ts';
import { FigureBuilder, ORIGIN, X_AXIS } from '../sketch/index.ts';
import { addSketch, drawCircle, endOf, extruded, newPart } from './parts.ts';

// What turns and what is turned into a way: the shaft, the throw wheel, studs and the pin of the crank.

export interface Shaft {
  readonly part: Id;
  readonly end: Id;
}

/** A plain rod along z from the origin. */
export function shaft(script: ProjectScript): Shaft {
  const part = newPart(script, 'Shaft', 8, ['Steel S235', 7850]);
  const round = drawCircle(script, part, 'Round', 'shaft', [10, 8]);
  return { part, end: extruded(script, part, 'Rod', round, 'shaft length', 'new') };
}

export interface ThrowWheel {
  readonly part: Id;
  readonly sketch: Id;
  /** The place beside the shaft that the stud stands on. */
  readonly seat: Id;
}

/** A disc on the shaft that carries a stud beside its middle. */
export function throwWheel(script: ProjectScript): ThrowWheel {
  const part = newPart(script, 'Throw wheel', 1, ['Aluminium 6082', 2700]);
  const builder = new FigureBuilder(script.newId);
  const centre = builder.place([0, 0]);
  const seat = builder.place([15, 0]);
  const [rim, bore] = [builder.circle(centre, 26), builder.circle(centre, 6)];
  const seatRound = builder.circle(seat, 4, true);
  builder.relate({ kind: 'coincident', a: centre, b: ORIGIN });
  builder.relate({ kind: 'coincident', a: seat, b: X_AXIS });
  builder.relate({ kind: 'distance', a: centre, b: seat, direction: 'horizontal', sense: 1, value: 'throw' });
  builder.relate({ kind: 'diameter', circle: rim, value: '2 * throw + stud flange + 8 mm' });
  builder.relate({ kind: 'diameter', circle: bore, value: 'shaft' });
  builder.relate({ kind: 'diameter', circle: seatRound, value: 'knob pin' });
  const sketch = addSketch(script, part, { kind: 'sketch', name: 'Wheel outline', plane: 'top', ...builder.figure });
  extruded(script, part, 'Wheel', sketch, 'wheel thickness', 'new');
  return { part, sketch, seat };
}

/** A flange with a pin on it, for the ends of the rod. */
export function stud(script: ProjectScript): Id {
  const part = newPart(script, 'Stud', 6, ['Steel S235', 7850]);
  const flange = drawCircle(script, part, 'Flange', 'stud flange', [9, 7]);
  const disc = extruded(script, part, 'Flange body', flange, 'stud height', 'new');
  const pin = drawCircle(script, part, 'Pin', 'knob pin', [6, 5], endOf(disc));
  extruded(script, part, 'Pin body', pin, 'rod sheet + 2 mm', 'add');
  return part;
}

/** What the knob turns on. */
export function crankPin(script: ProjectScript): Id {
  const part = newPart(script, 'Crank pin', 8, ['Steel S235', 7850]);
  const round = drawCircle(script, part, 'Round', 'knob pin', [6, 5]);
  extruded(script, part, 'Pin', round, 'crank thickness + knob height', 'new');
  return part;
}
