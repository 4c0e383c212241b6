import type { RevolveRequest } from '../../kernel-port/index.ts';
import { axisOf } from '../../references/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { ANGLE } from '../../units/index.ts';
import { centreLineOf, profileOf, thinFields } from '../areas.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { areasField, choice, number, picks, sketchField } from '../fields/index.ts';

const fields = {
  sketch: sketchField,
  areas: areasField,
  ...thinFields,
  /** The only centre line of the sketch where nothing is chosen. */
  axis: picks('axis', 'axis', { min: 0, many: 'centre line' }),
  angle: number('angle', { asks: ANGLE, min: 1e-4, max: 2 * Math.PI + 1e-9, initial: '360 deg' }),
  ways: choice('direction', { forwards: 'forwards', backwards: 'backwards', both: 'both ways' }, 'forwards'),
  result: resultField,
  only: touchedField,
};

interface Inputs extends ToolInputs, RevolveRequest {}

export const revolve = making('revolve', {
  title: 'Revolve',
  noun: 'Revolution',
  verb: { key: 'V' },
  fields,
  sentence:
    'Revolve {sketch}{areas}[? {body}][ of {wall}][ {lies}] about {axis} by {angle}, {ways} → {result}[? {only}]',
  inputs(values, context): Result<Inputs> {
    const area = profileOf(values.sketch, values.areas, context, values);
    if (!area.ok) return area;
    const axis = values.axis[0] ? axisOf(values.axis[0]) : centreLineOf(area.value.drawn);
    if (!axis) return fail('revolve.axis');
    const { angle, ways } = values;
    const from = ways === 'forwards' ? 0 : ways === 'backwards' ? -angle : -angle / 2;
    return ok({
      profile: area.value.profile,
      origin: axis.origin,
      axis: axis.direction,
      from,
      to: from + angle,
      ...onBodies(values, context),
    });
  },
  solids: (inputs, _, kernel) => kernel.revolve(inputs),
  words: {
    'revolve.axis': () => 'Choose an axis: a straight edge, a line, or make one line of the sketch its centre line.',
  },
});
