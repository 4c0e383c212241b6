import Papa from 'papaparse';
import type { BillRow } from './bill-of-materials.ts';

// What is bought and cut: lists for people, and for spreadsheets (CSV, RFC 4180).

/** What raw stock pieces are cut from: a board, a length of bar, or a block. */
type Stock = 'panel' | 'bar' | 'block';

/** Pieces of one stock: of a material, and as thick. */
interface CutGroup {
  readonly stock: Stock;
  readonly material: string | null;
  /** Of a panel its thickness, of a bar both sides of its section; nothing of a block. mm */
  readonly section_mm: readonly number[];
  readonly pieces: readonly CutPiece[];
}
interface CutPiece {
  readonly name: string;
  readonly count: number;
  /** What is left to cut: of a panel length and width, of a bar its length, of a block all three. mm */
  readonly size_mm: readonly number[];
}

/**
 * A panel is at most a quarter as thick as it is wide; a bar at least three times as long as it is wide. What fills less of
 * its box, as something hollow or bent, is cut from neither.
 */
const [THIN, LONG, FULL] = [4, 3, 0.6];
/** Sizes that differ by less, mm, are of one stock. */
const ALIKE = 0.01;

/** The parts that are placed, by what they are cut from. Their sizes are those along the axes in which they are drawn. */
export function cutList(rows: readonly BillRow[]): CutGroup[] {
  const groups: (CutGroup & { readonly pieces: CutPiece[] })[] = [];
  for (const { name, count, material, size_mm, fill } of rows) {
    if (!size_mm) continue;
    const [a, b, c] = size_mm.toSorted((p, q) => q - p) as [number, number, number];
    const [stock, section, size] = stockOf(a, b, c, fill ?? 0);
    const isSame = (group: CutGroup) =>
      group.stock === stock &&
      group.material === material &&
      group.section_mm.every((side, k) => Math.abs(side - section[k]!) < ALIKE);
    const piece = { name, count, size_mm: size };
    const known = groups.find(isSame);
    if (known) known.pieces.push(piece);
    else groups.push({ stock, material, section_mm: section, pieces: [piece] });
  }
  const order: readonly Stock[] = ['panel', 'bar', 'block'];
  const place = ({ stock, material, section_mm }: CutGroup) =>
    [order.indexOf(stock), material ?? '~', (section_mm[0] ?? 0).toFixed(3).padStart(12)].join(' ');
  return groups.sort((p, q) => (place(p) < place(q) ? -1 : 1));
}

function stockOf(a: number, b: number, c: number, fill: number): [Stock, readonly number[], readonly number[]] {
  if (fill < FULL) return ['block', [], [a, b, c]];
  if (c * THIN <= b) return ['panel', [c], [a, b]];
  return b * LONG <= a ? ['bar', [b, c], [a]] : ['block', [], [a, b, c]];
}

const mm = (n: number): string => `${Number(n.toFixed(3)) + 0}`;
const written = (rows: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse(rows as (string | number)[][], { escapeFormulae: true })}\r\n`;

/** The make-up list as a table: a line for each part that is placed. */
export function writeBillOfMaterials(rows: readonly BillRow[]): string {
  const head = ['part', 'count', 'material', 'mass of one, g', 'mass of all, g', 'x, mm', 'y, mm', 'z, mm'];
  const lines = rows.map(({ name, count, material, mass_g, size_mm }) => [
    ...[name, count, material ?? '', mass_g === null ? '' : mm(mass_g), mass_g === null ? '' : mm(mass_g * count)],
    ...(size_mm?.map(mm) ?? ['', '', '']),
  ]);
  return written([head, ...lines]);
}

/** The cut list as a table: a line for each piece, those of one stock together. */
export function writeCutList(groups: readonly CutGroup[]): string {
  const head = ['stock', 'material', 'section, mm', 'part', 'count', 'length, mm', 'width, mm', 'height, mm'];
  const lines = groups.flatMap(({ stock, material, section_mm, pieces }) =>
    pieces.map(({ name, count, size_mm }) => [
      ...[stock, material ?? '', section_mm.map(mm).join(' x '), name, count],
      ...[0, 1, 2].map((k) => (size_mm[k] === undefined ? '' : mm(size_mm[k]))),
    ]),
  );
  return written([head, ...lines]);
}
