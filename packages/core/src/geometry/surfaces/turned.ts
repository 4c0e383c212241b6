import { transformDirection, transformPoint, type RigidTransform, type Vec3 } from '../../math/index.ts';

/** What goes round an axis. */
export interface Turned {
  readonly origin: Vec3;
  readonly axis: Vec3;
}

/** It elsewhere. */
export const transformTurned = <S extends Turned>(surface: S, by: RigidTransform): S => ({
  ...surface,
  origin: transformPoint(by, surface.origin),
  axis: transformDirection(by, surface.axis),
});

/** Its axis as a line. */
export const axisOfTurned = ({ origin, axis }: Turned) => ({ origin, direction: axis });
