import type { Vec2 } from '../math/index.ts';
import { boxOf, onEllipse, type Piece } from '../sketch/pieces/index.ts';

const TURN = 2 * Math.PI;
const isWhole = (sweep: number): boolean => Math.abs(sweep) > TURN - 1e-9;
const degrees = (angle: number): number => ((((angle * 180) / Math.PI) % 360) + 360) % 360;
const text = (n: number): string => `${Number(n.toFixed(9)) + 0}`;

/** Pairs of a code and a value, as DXF files are made of. */
export const pairs = (...list: readonly (readonly [code: number, value: string | number])[]): string =>
  list.map(([code, value]) => `${code}\n${typeof value === 'number' ? text(value) : value}`).join('\n');

/** Curves as entities of a DXF file on a layer: lines, arcs, circles, ellipses and cubic splines. */
export function dxfEntities(pieces: readonly Piece[], layer: string): string[] {
  const place = (code: number, [x, y]: Vec2) => pairs([code, x], [code + 10, y], [code + 20, 0]);
  const entity = (type: string, marker: string, ...rest: readonly string[]) =>
    [pairs([0, type], [100, 'AcDbEntity'], [8, layer], [100, marker]), ...rest].join('\n');
  return pieces.map((piece) => {
    if (piece.form === 'segment') return entity('LINE', 'AcDbLine', place(10, piece.from), place(11, piece.to));
    if (piece.form === 'bezier') {
      const places = [piece.from, ...piece.inner, piece.to];
      const head = pairs([70, '8'], [71, '3'], [72, '8'], [73, '4'], [74, '0']);
      const knots = [0, 0, 0, 0, 1, 1, 1, 1].map((knot) => pairs([40, knot]));
      return entity('SPLINE', 'AcDbSpline', head, ...knots, ...places.map((at) => place(10, at)));
    }
    // both kinds run counter-clockwise
    const [start, end] =
      piece.sweep > 0 ? [piece.start, piece.start + piece.sweep] : [piece.start + piece.sweep, piece.start];
    if (piece.form === 'ellipse') {
      const ratio = Math.hypot(...piece.minor) / Math.hypot(...piece.major);
      const [from, to] = isWhole(piece.sweep) ? [0, TURN] : [start, end];
      return entity(
        'ELLIPSE',
        'AcDbEllipse',
        place(10, piece.centre),
        place(11, piece.major),
        pairs([40, ratio], [41, from], [42, to]),
      );
    }
    const circle = [place(10, piece.centre), pairs([40, piece.radius])];
    if (isWhole(piece.sweep)) return entity('CIRCLE', 'AcDbCircle', ...circle);
    return entity('ARC', 'AcDbCircle', ...circle, pairs([100, 'AcDbArc'], [50, degrees(start)], [51, degrees(end)]));
  });
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

function written(piece: Piece, place: (at: Vec2) => string): string {
  if (piece.form === 'segment') return `L${place(piece.to)}`;
  if (piece.form === 'bezier') return `C${place(piece.inner[0])} ${place(piece.inner[1])} ${place(piece.to)}`;
  const [major, minor, at] =
    piece.form === 'arc'
      ? ([
          [piece.radius, 0],
          [0, piece.radius],
          (q: number): Vec2 => [
            piece.centre[0] + piece.radius * Math.cos(q),
            piece.centre[1] + piece.radius * Math.sin(q),
          ],
        ] as const)
      : ([piece.major, piece.minor, (q: number) => onEllipse(piece, q)] as const);
  const radii = `${text(Math.hypot(...major))} ${text(Math.hypot(...minor))} ${text((-Math.atan2(major[1], major[0]) * 180) / Math.PI)}`;
  const sense = piece.sweep > 0 ? 0 : 1;
  // a whole turn has no ends to tell it by: it is drawn in two halves
  if (isWhole(piece.sweep)) {
    const middle = at(piece.start + piece.sweep / 2);
    return `A${radii} 1 ${sense} ${place(middle)}A${radii} 1 ${sense} ${place(piece.to)}Z`;
  }
  return `A${radii} ${Math.abs(piece.sweep) > Math.PI ? 1 : 0} ${sense} ${place(piece.to)}`;
}
