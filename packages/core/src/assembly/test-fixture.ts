import { valueScope } from '../expressions/index.ts';
import { frameOn, type Vec3 } from '../math/index.ts';
import { ORIGIN_DATUMS, type Reference, type Thing } from '../references/index.ts';
import { fail, ok, type Result } from '../result/index.ts';
import {
  assemble,
  emptyAssembly,
  placementOf,
  restPose,
  triple,
  type Assembled,
  type Assembly,
  type Group,
  type JointRecord,
  type Placement,
  type Side,
} from './index.ts';

// What tests of assemblies are put together from.

/** Datum frames of every part by name: "at 30" lies there on x, "up" at the origin with z along x. */
function find(_: string, reference: Reference): Result<Thing> {
  if (reference.to === 'origin') return ok({ to: 'datum', datum: ORIGIN_DATUMS[reference.name] });
  if (reference.to !== 'datum') return fail('reference.gone', { to: reference.to });
  const [way, x] = reference.step.split('-') as [string, string];
  const normal: Vec3 = way === 'along' ? [1, 0, 0] : [0, 0, 1];
  const along: Vec3 = way === 'along' ? [0, 1, 0] : [1, 0, 0];
  return ok({ to: 'datum', datum: { form: 'frame', frame: frameOn([Number(x), 0, 0], normal, along) } });
}

const scope = valueScope([{ name: 'crank', expression: '30 mm' }], 'mm');
export const assembled = (assembly: Partial<Assembly>, groups: Record<string, Group> = {}): Assembled =>
  assemble({ ...emptyAssembly(), ...assembly }, { scope, groups, find, sizeOf: () => 100, restPose });

export const on = (placement: string, step: string): Side => ({ placement, on: { to: 'datum', step }, spot: 'middle' });
export const joint = (
  kind: JointRecord['kind'],
  a: Side,
  b: JointRecord['b'],
  more: Partial<JointRecord> = {},
): JointRecord => ({
  name: kind,
  kind,
  a,
  b,
  flip: false,
  offset: '0 mm',
  angle: '0 deg',
  ...more,
});
export const placed = (at: Placement['at'] = triple('0', '0', '0'), more: Partial<Placement> = {}): Placement => ({
  ...placementOf('P', { part: 'part' }),
  at,
  ...more,
});
