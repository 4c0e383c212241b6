import type { Vec2 } from '../../math/index.ts';
import { once, type Id } from '../../records/index.ts';
import type { Geometry } from '../geometry.ts';
import { arrange, faces, type HalfEdge } from './arrangement.ts';
import { areaShare, crossings, type Piece } from '../pieces/index.ts';

/** A closed area: its outer loop runs counter-clockwise, the loops of its openings clockwise. */
export interface Region {
  /**
   * The name by which steps refer to it: the entities on its outer boundary, each with the side it lies on
   * ("+" left of the entity's own direction), never an index.
   */
  readonly key: string;
  readonly outer: readonly Piece[];
  readonly holes: readonly (readonly Piece[])[];
  /** Area without the openings, mm^2. */
  readonly area: number;
  /** In how many other outlines it lies: 0 outermost. */
  readonly depth: number;
}

export interface Regions {
  readonly regions: readonly Region[];
  readonly openEnds: readonly { readonly at: Vec2; readonly entity: Id }[];
}

/** Ends nearer than this count as one (mm): well below what can be drawn, well above what the solver leaves. */
const TOLERANCE = 1e-6;

/** Finds all closed areas of a sketch, once for each geometry; construction geometry bounds nothing. */
export const findRegions = once((geometry: Geometry): Regions => {
  const curves = Object.entries(geometry.entities).flatMap(([id, entity]) =>
    'construction' in entity && entity.construction ? [] : geometry.pieces(id),
  );
  const arrangement = arrange(curves, TOLERANCE);
  return { regions: nested(faces(arrangement)), openEnds: arrangement.openEnds };
});

/** What is filled where nothing was picked: outlines less what lies in them, islands inside again. */
export const filled = ({ regions }: Regions): Region[] => regions.filter((region) => region.depth % 2 === 0);

function nested(loops: readonly HalfEdge[][]): Region[] {
  const measured = loops.map((loop) => {
    const pieces = loop.map((edge) => edge.piece);
    return { pieces, figure: loop[0]!.figure, area: pieces.reduce((sum, piece) => sum + areaShare(piece), 0) };
  });
  const outlines = measured.filter(({ area }) => area > TOLERANCE ** 2);
  // round each connected figure runs one loop the other way: the rim of the opening that it makes in what lies around
  const rims = measured.filter(({ area }) => area < -(TOLERANCE ** 2));
  const holesOf = new Map<(typeof outlines)[number], (readonly Piece[])[]>();
  for (const rim of rims) {
    const around = outlines.filter((outline) => outline.figure !== rim.figure && contains(outline.pieces, rim.pieces));
    const [smallest] = around.sort((a, b) => a.area - b.area);
    if (smallest) holesOf.set(smallest, [...(holesOf.get(smallest) ?? []), rim.pieces]);
  }
  const regions = outlines.map((outline) => {
    const { pieces: outer, figure } = outline;
    const holes = holesOf.get(outline) ?? [];
    const area = holes.flat().reduce((sum, piece) => sum + areaShare(piece), outline.area);
    const depth = rims.filter((rim) => rim.figure !== figure && contains(rim.pieces, outer)).length;
    return { key: keyOf(outer), outer, holes, area, depth };
  });
  return distinct(regions);
}

/** Does the loop go round the other one, given that they do not meet? */
const contains = (loop: readonly Piece[], other: readonly Piece[]): boolean =>
  loop.reduce((sum, piece) => sum + crossings(piece, other[0]!.from), 0) !== 0;

function keyOf(loop: readonly Piece[]): string {
  const sides = loop.map(({ entity, turned }) => entity + (turned ? '-' : '+'));
  return [...new Set(sides)].sort().join(' ');
}

/** Areas with one and the same boundary set get a number, by their first place from left to right, bottom to top. */
function distinct(regions: readonly Region[]): Region[] {
  return regions.map((region) => {
    const group = regions.filter((other) => other.key === region.key);
    if (group.length === 1) return region;
    const corner = ({ outer }: Region) => outer.map((p) => p.from).sort((a, b) => a[0] - b[0] || a[1] - b[1])[0]!;
    const ordered = [...group].sort((a, b) => corner(a)[0] - corner(b)[0] || corner(a)[1] - corner(b)[1]);
    return { ...region, key: `${region.key} #${ordered.indexOf(region) + 1}` };
  });
}

/** The regions that keys refer to: exactly, or else the one whose boundary shares the most; none if nothing is shared. */
export function resolveRegions(found: Regions, keys: readonly string[]): { regions: Region[]; gone: string[] } {
  const regions: Region[] = [];
  const gone: string[] = [];
  for (const key of keys) {
    const exact = found.regions.find((region) => region.key === key);
    const match = exact ?? nearestKey(found.regions, key);
    if (match && !regions.includes(match)) regions.push(match);
    if (!match) gone.push(key);
  }
  return { regions, gone };
}

function nearestKey(regions: readonly Region[], key: string): Region | undefined {
  const wanted = new Set(key.split(' '));
  const share = (region: Region) => {
    const sides = region.key.split(' ');
    const common = sides.filter((side) => wanted.has(side)).length;
    return common / (sides.length + wanted.size - common);
  };
  const [best] = [...regions].sort((a, b) => share(b) - share(a));
  return best && share(best) >= 0.5 ? best : undefined;
}
