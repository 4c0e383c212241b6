import type { Vec2 } from '../../math/index.ts';
import { linearAnnotation, linearPlaces } from '../annotation.ts';
import type { Geometry } from '../geometry.ts';
import type { DimensionKind } from './kind.ts';

/** How a dimension is drawn that measures from one place to another, in the direction between them. */
export const drawnAlong = <R>(
  spanOf: (relation: R, geometry: Geometry) => readonly [from: Vec2, to: Vec2, along: Vec2],
): Pick<DimensionKind<R>, 'places' | 'annotate'> => ({
  places: (relation, geometry, space) => linearPlaces(...spanOf(relation, geometry), space),
  annotate(relation, geometry, space, at) {
    const [p, q, along] = spanOf(relation, geometry);
    return linearAnnotation(p, q, along, at, space);
  },
});
