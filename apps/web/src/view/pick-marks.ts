import type { BufferGeometry, Object3D, Plane } from 'three';
import type { BodyMesh, NamedRange } from '@helb/core';
import { cornerMark, faceMark, lineMark } from './marks.ts';
import type { Pick } from './picks.ts';

/** A body as it is drawn. */
interface DrawnBody {
  readonly mesh: MarkedMesh;
  readonly geometry: BufferGeometry;
  /** What cuts it open. */
  readonly cuts?: Plane[] | null;
}
type MarkedMesh = { readonly [K in 'faces' | 'edges' | 'edgePoints']: BodyMesh[K] };

/** How marks are drawn: mm that a pixel is worth there, and the colour. */
export interface MarkLook {
  readonly pixel: number;
  readonly colour: string;
}

/** Half the size of the cross at a corner, pixels. */
const ARM = 6;

type Marker = (pick: Pick, body: DrawnBody, look: MarkLook) => Object3D | undefined;

const veil = (range: Omit<NamedRange, 'name'> | undefined, { geometry, cuts = null }: DrawnBody, look: MarkLook) =>
  range && faceMark(geometry, range, look.colour, cuts);
const named = (ranges: readonly NamedRange[], { name }: Pick) => ranges.find((other) => other.name === name);

/** What lights up for each kind of pick of a body. */
const MARKERS: { readonly [K in Pick['kind']]: Marker } = {
  body: (_, body, look) => veil({ start: 0, count: Infinity }, body, look),
  face: (pick, body, look) => veil(named(body.mesh.faces, pick), body, look),
  edge: (pick, { mesh }, { colour }) => {
    const range = named(mesh.edges, pick);
    return range && lineMark(mesh.edgePoints.slice(3 * range.start, 3 * (range.start + range.count)), colour);
  },
  corner: ({ thing }, _, { pixel, colour }) =>
    'vertex' in thing ? cornerMark(thing.vertex.at, ARM * pixel, colour) : undefined,
  // guides are of no body
  guide: () => undefined,
};

/** What lights up for something of a body, in the coordinates of its part. */
export const bodyMark: Marker = (pick, body, look) => MARKERS[pick.kind](pick, body, look);
