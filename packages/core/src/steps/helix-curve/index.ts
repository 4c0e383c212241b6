import { add3, cross3, frameOn, scale3 } from '../../math/index.ts';
import { helixAt, helixLength, type Helix } from '../../geometry/index.ts';
import { axisOf, type Datum } from '../../references/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { ANGLE, LENGTH } from '../../units/index.ts';
import { placing } from '../define.ts';
import { number, picks } from '../fields/index.ts';
import { WINDING, windingFields, windingOf, windsAlong } from '../winding.ts';

const fields = {
  axis: picks('axis', 'axis'),
  radius: number('radius', { asks: LENGTH, min: 1e-3, max: 1e5, initial: '10 mm' }),
  ...windingFields,
  /** Counter-clockwise about the axis. */
  start: number('start angle', { asks: ANGLE, min: -4 * Math.PI, max: 4 * Math.PI, initial: '0 deg' }),
  from: number('beginning on the axis', { asks: LENGTH, min: -1e5, max: 1e5, initial: '0 mm' }),
};

export const helixCurve = placing('helix-curve', {
  title: 'Helix curve',
  verb: { key: '', says: 'A curve that winds about an axis, for sweeps and patterns to follow.' },
  fields,
  sentence: `Draw a helix about {axis} of radius {radius}, ${WINDING}[?, starting at {start}][?, from {from} on]`,
  inputs(values): Result<Datum> {
    const winding = windingOf(values);
    if (!winding.ok) return winding;
    const { pitch, turns, taper } = winding.value;
    if (values.radius - pitch * turns * Math.tan(taper) < 1e-3) return fail('helix-curve.closed');
    const { origin, direction, side } = axisOf(values.axis[0]!)!;
    const { x } = frameOn(origin, direction, side);
    const y = cross3(direction, x);
    const helix: Helix = {
      form: 'helix',
      origin: add3(origin, scale3(direction, values.from)),
      axis: windsAlong(direction, values),
      x: add3(scale3(x, Math.cos(values.start)), scale3(y, Math.sin(values.start))),
      radius: values.radius,
      ...winding.value,
    };
    return ok({
      form: 'curve',
      edge: { name: 'curve', faces: [], curve: helix, length: helixLength(helix), middle: helixAt(helix, 0.5) },
    });
  },
  words: {
    'helix-curve.closed': () => 'The helix closes in to its axis before its end: lessen the taper or the height.',
  },
});
