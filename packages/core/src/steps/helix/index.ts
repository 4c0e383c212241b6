import type { z } from 'zod';
import type { SpiralRequest } from '../../kernel-port/index.ts';
import { axisOf } from '../../references/index.ts';
import { fail, ok, type Result, type Words } from '../../result/index.ts';
import { ANGLE, LENGTH, NUMBER } from '../../units/index.ts';
import { centreLineOf, profileOf } from '../areas.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { areasField, choice, number, picks, schemaOf, sketchField } from '../fields.ts';

const fields = {
  sketch: sketchField,
  areas: areasField,
  axis: picks('axis', 'axis', { least: 0, many: 'centre line' }),
  pitch: number('pitch', { asks: LENGTH, least: 0.01, most: 1e4, usual: '3 mm' }),
  turns: number('turns', { asks: NUMBER, least: 0.01, most: 200, usual: '4' }),
  hand: choice('hand', { right: 'right-handed', left: 'left-handed' }, 'right'),
  taper: number('taper', { asks: ANGLE, least: -1, most: 1, usual: '0 deg' }),
  result: resultField,
  only: touchedField,
};

export const helixSchema = schemaOf('helix', fields);
export type HelixStep = z.infer<typeof helixSchema>;

interface Inputs extends ToolInputs, SpiralRequest {}

export const helix = making('helix', {
  title: 'Helix',
  fields,
  sentence:
    'Wind {sketch}{areas} about {axis}, {turns} turns of {pitch}, {hand}[?, closing in by {taper}] → {result}[? {only}]',
  inputs(values, context): Result<Inputs> {
    const area = profileOf(values.sketch, values.areas, context);
    if (!area.ok) return area;
    const axis = values.axis[0] ? axisOf(values.axis[0]) : centreLineOf(area.value.drawn);
    if (!axis) return fail('revolve.axis');
    return ok({
      profile: area.value.profile,
      origin: axis.origin,
      axis: axis.direction,
      pitch: values.pitch,
      turns: values.turns,
      left: values.hand === 'left',
      taper: values.taper,
      ...onBodies(values, context),
    });
  },
  solids: (inputs, _, kernel) => kernel.spiral(inputs),
});

export const helixWords: Words = {
  'spiral.axis': () => 'The area lies on the axis: draw it beside the axis, so that it can go round.',
};
