import type { Vec2 } from '../math/index.ts';
import { boxOf, onEllipse, type Piece } from '../sketch/pieces/index.ts';

const TURN = 2 * Math.PI;
const isWhole = (sweep: number): boolean => Math.abs(sweep) > TURN - 1e-9;
const degrees = (angle: number): number => ((((angle * 180) / Math.PI) % 360) + 360) % 360;
const text = (n: number): string => `${Number(n.toFixed(9)) + 0}`;

/** Pairs of a code and a value, as DXF files are made of. */
export const pairs = (...list: readonly (readonly [code: number, value: string | number])[]): string =>
  list.map(([code, value]) => `${code}\n${typeof value === 'number' ? text(value) : value}`).join('\n');

type Of<F extends Piece['form']> = Extract<Piece, { form: F }>;
/** What each kind of piece comes to in a format. */
type Table<A extends readonly unknown[]> = { readonly [F in Piece['form']]: (piece: Of<F>, ...more: A) => string };

/** Writes an entity of a DXF file: its type, its marker, what it consists of. */
type EntityWriter = (type: string, marker: string, ...rest: readonly string[]) => string;
const placePairs = (code: number, [x, y]: Vec2) => pairs([code, x], [code + 10, y], [code + 20, 0]);
/** Where what is round begins and ends, rad: DXF has it run counter-clockwise. */
const rangeOf = ({ start, sweep }: { readonly start: number; readonly sweep: number }): readonly [number, number] =>
  sweep > 0 ? [start, start + sweep] : [start + sweep, start];

const DXF: Table<[EntityWriter]> = {
  segment: ({ from, to }, entity) => entity('LINE', 'AcDbLine', placePairs(10, from), placePairs(11, to)),
  bezier({ from, inner, to }, entity) {
    const head = pairs([70, '8'], [71, '3'], [72, '8'], [73, '4'], [74, '0']);
    const knots = [0, 0, 0, 0, 1, 1, 1, 1].map((knot) => pairs([40, knot]));
    return entity('SPLINE', 'AcDbSpline', head, ...knots, ...[from, ...inner, to].map((at) => placePairs(10, at)));
  },
  ellipse(piece, entity) {
    const ratio = Math.hypot(...piece.minor) / Math.hypot(...piece.major);
    const [from, to] = isWhole(piece.sweep) ? [0, TURN] : rangeOf(piece);
    const axes = [placePairs(10, piece.centre), placePairs(11, piece.major)];
    return entity('ELLIPSE', 'AcDbEllipse', ...axes, pairs([40, ratio], [41, from], [42, to]));
  },
  arc(piece, entity) {
    const circle = [placePairs(10, piece.centre), pairs([40, piece.radius])];
    if (isWhole(piece.sweep)) return entity('CIRCLE', 'AcDbCircle', ...circle);
    const [start, end] = rangeOf(piece);
    return entity('ARC', 'AcDbCircle', ...circle, pairs([100, 'AcDbArc'], [50, degrees(start)], [51, degrees(end)]));
  },
};

/** Curves as entities of a DXF file on a layer: lines, arcs, circles, ellipses and cubic splines. */
export function dxfEntities(pieces: readonly Piece[], layer: string): string[] {
  const entity: EntityWriter = (type, marker, ...rest) =>
    [pairs([0, type], [100, 'AcDbEntity'], [8, layer], [100, marker]), ...rest].join('\n');
  return pieces.map((piece) => DXF[piece.form](piece as never, entity));
}

/** Curves as a DXF file (version AC1015 of the format, ASCII) on layer 0, in millimetres. */
export const writeDxf = (pieces: readonly Piece[]): string => dxfFile(dxfEntities(pieces, '0'));

/** A DXF file in millimetres of entities, with tables of what they use. */
export function dxfFile(entities: readonly string[], tables: readonly string[] = []): string {
  const header = pairs(
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$ACADVER'],
    [1, 'AC1015'],
    [9, '$INSUNITS'],
    [70, '4'],
    [0, 'ENDSEC'],
  );
  const section = (name: string, content: readonly string[]) => [
    pairs([0, 'SECTION'], [2, name]),
    ...content,
    pairs([0, 'ENDSEC']),
  ];
  const body = [...(tables.length > 0 ? section('TABLES', tables) : []), ...section('ENTITIES', entities)];
  return `${[header, ...body, pairs([0, 'EOF'])].join('\n')}\n`;
}

/** Curves as an SVG file in real millimetres, y upwards turned downwards, one path for each run of joined curves. */
export function writeSvg(pieces: readonly Piece[]): string {
  const boxes = pieces.map(boxOf);
  const low = [0, 1].map((k) => Math.min(...boxes.map((box) => box.low[k]!))) as [number, number];
  const high = [0, 1].map((k) => Math.max(...boxes.map((box) => box.high[k]!))) as [number, number];
  const [w, h] = [high[0] - low[0], high[1] - low[1]];
  const place = ([x, y]: Vec2) => `${text(x - low[0])} ${text(high[1] - y)}`;
  const paths = pathRuns(pieces, place)
    .map((d) => `  <path d="${d}"/>`)
    .join('\n');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${text(w)}mm" height="${text(h)}mm" viewBox="0 0 ${text(w)} ${text(h)}" fill="none" stroke="#000" stroke-width="0.1">\n${paths}\n</svg>\n`;
}

/**
 * Curves as path data of SVG, one for each run of joined curves.
 * @param place writes a place down; y is turned downwards there
 */
export function pathRuns(pieces: readonly Piece[], place: (at: Vec2) => string): string[] {
  const runs: string[] = [];
  let last: Vec2 | undefined;
  for (const piece of pieces) {
    const joined = last && Math.hypot(last[0] - piece.from[0], last[1] - piece.from[1]) < 1e-6;
    const drawn = (joined ? '' : `M${place(piece.from)}`) + written(piece, place);
    if (joined) runs.push(`${runs.pop()!}${drawn}`);
    else runs.push(drawn);
    last = piece.to;
  }
  return runs;
}

type PlaceWriter = (at: Vec2) => string;

const PATH: Table<[PlaceWriter]> = {
  segment: ({ to }, place) => `L${place(to)}`,
  bezier: ({ inner, to }, place) => `C${place(inner[0])} ${place(inner[1])} ${place(to)}`,
  arc: (piece, place) => {
    const { centre, radius } = piece;
    const at = (q: number): Vec2 => [centre[0] + radius * Math.cos(q), centre[1] + radius * Math.sin(q)];
    return roundPath(piece, [radius, 0], [0, radius], at, place);
  },
  ellipse: (piece, place) => roundPath(piece, piece.major, piece.minor, (q) => onEllipse(piece, q), place),
};

const written = (piece: Piece, place: PlaceWriter): string => PATH[piece.form](piece as never, place);

/** @param at the place at an angle of the piece, rad */
function roundPath(
  { start, sweep, to }: Of<'arc' | 'ellipse'>,
  major: Vec2,
  minor: Vec2,
  at: (angle: number) => Vec2,
  place: PlaceWriter,
): string {
  const radii = `${text(Math.hypot(...major))} ${text(Math.hypot(...minor))} ${text((-Math.atan2(major[1], major[0]) * 180) / Math.PI)}`;
  const sense = sweep > 0 ? 0 : 1;
  // a whole turn has no ends to tell it by: it is drawn in two halves
  if (isWhole(sweep)) return `A${radii} 1 ${sense} ${place(at(start + sweep / 2))}A${radii} 1 ${sense} ${place(to)}Z`;
  return `A${radii} ${Math.abs(sweep) > Math.PI ? 1 : 0} ${sense} ${place(to)}`;
}
