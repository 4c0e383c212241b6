import type { HelixRequest } from '../../kernel-port/index.ts';
import { axisOf } from '../../references/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { axisAsked, axisField, isAxisKnown } from '../about.ts';
import { centreLineOf, profileOf } from '../areas.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { areasField, sketchField } from '../fields/index.ts';
import { WINDING, windingFields, windingOf, windsAlong } from '../winding.ts';

const fields = {
  sketch: sketchField,
  areas: areasField,
  axis: axisField,
  ...windingFields,
  result: resultField,
  only: touchedField,
};

interface Inputs extends ToolInputs, HelixRequest {}

export const helix = making('helix', {
  title: 'Helix',
  verb: { key: 'Z', says: 'Winds the areas of a sketch about an axis: a spring, a screw, an auger.' },
  fields,
  sentence: `Wind {sketch}{areas} about {axis}, ${WINDING} → {result}[? {only}]`,
  inputs(values, context): Result<Inputs> {
    const area = profileOf(values.sketch, values.areas, context);
    if (!area.ok) return area;
    const axis = values.axis[0] ? axisOf(values.axis[0]) : centreLineOf(area.value.drawn);
    if (!axis) return fail('revolve.axis');
    const winding = windingOf(values);
    if (!winding.ok) return winding;
    return ok({
      profile: area.value.profile,
      origin: axis.origin,
      axis: windsAlong(axis.direction, values),
      ...winding.value,
      ...onBodies(values, context),
    });
  },
  // what is wound goes round what is there; no side of an area is its axis
  begun: (step, shape) => (shape.axis && !isAxisKnown(step, shape) ? { axis: [shape.axis] } : {}),
  asked: axisAsked,
  solids: (inputs, _, kernel) => kernel.helix(inputs),
  words: {
    'helix.axis': () => 'The area lies on the axis: draw it beside the axis, so that it can go round.',
  },
});
