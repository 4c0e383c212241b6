import type { Profile, RevolveRequest } from '../../kernel-port/index.ts';
import { axisOf } from '../../references/index.ts';
import { fail, ok, type Issue, type Result } from '../../result/index.ts';
import { filled, likelyAxis } from '../../sketch/index.ts';
import { ANGLE } from '../../units/index.ts';
import { axisAsked, axisField, isAxisKnown } from '../about.ts';
import { centreLineOf, profileOf, thinFields } from '../areas.ts';
import { onBodies, resultField, touchedField } from '../bodies.ts';
import { making, type ToolInputs } from '../define.ts';
import { areasField, choice, number, sketchField, turnedIn } from '../fields/index.ts';
import type { SolvedSketch } from '../kind.ts';
import { closedAlong } from './closed-along.ts';

const fields = {
  sketch: sketchField,
  areas: areasField,
  ...thinFields,
  axis: axisField,
  angle: number('angle', { asks: ANGLE, min: 1e-4, max: 2 * Math.PI + 1e-9, initial: '360 deg' }),
  ways: choice('direction', { forwards: 'forwards', backwards: 'backwards', both: 'both ways' }, 'forwards'),
  result: resultField,
  only: touchedField,
};

type Axis = ReturnType<typeof centreLineOf>;

interface Inputs extends ToolInputs, RevolveRequest {}

/** An outline that is open along the axis is closed there; else what was wrong with it. */
function closed(wrong: Issue, axis: Axis | undefined, drawn: Result<SolvedSketch>): Result<Profile> {
  if (wrong.code !== 'area.open' || !axis || !drawn.ok) return { ok: false, issue: wrong };
  const { frame, solution, regions } = drawn.value;
  const found = closedAlong(axis, frame, solution.geometry, regions);
  return found && found.regions.length > 0 ? ok({ frame, regions: filled(found) }) : { ok: false, issue: wrong };
}

export const revolve = making('revolve', {
  title: 'Revolve',
  noun: 'Revolution',
  verb: { key: 'V', says: 'Turns the areas of a sketch about an axis: fully or by an angle.' },
  fields,
  sentence:
    'Revolve {sketch}{areas}[? {body}][ of {wall}][ {lies}] about {axis} by {angle}, {ways} → {result}[? {only}]',
  inputs(values, context): Result<Inputs> {
    const area = profileOf(values.sketch, values.areas, context, values);
    const drawn = context.sketch(values.sketch);
    const chosen = values.axis[0] && axisOf(values.axis[0]);
    const axis = chosen ?? (drawn.ok ? centreLineOf(drawn.value) : undefined);
    const profile = area.ok ? ok(area.value.profile) : closed(area.issue, axis, drawn);
    if (!profile.ok) return profile;
    if (!axis) return fail('revolve.axis');
    const { angle, ways } = values;
    const from = ways === 'forwards' ? 0 : ways === 'backwards' ? -angle : -angle / 2;
    return ok({
      profile: profile.value,
      origin: axis.origin,
      axis: axis.direction,
      from,
      to: from + angle,
      ...onBodies(values, context),
    });
  },
  // all the way round there is no other way
  turned: (step) => (step['angle'] === fields.angle.initial ? undefined : turnedIn(fields, step)),
  begun(step, shape) {
    if (isAxisKnown(step, shape)) return {};
    const drawn = likelyAxis(shape.geometry);
    const axis = drawn === undefined ? shape.axis : { to: 'drawn', step: step['sketch'] as string, entity: drawn };
    return axis ? { axis: [axis] } : {};
  },
  asked: axisAsked,
  solids: (inputs, _, kernel) => kernel.revolve(inputs),
  words: {
    'revolve.axis': () => 'Choose an axis: a straight edge, a line, or make one line of the sketch its centre line.',
  },
});
