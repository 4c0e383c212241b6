import type { Id } from '../../records/index.ts';
import { fieldOf, FIELD_NAMES, type FieldName } from './fields.ts';
import { cellKey, blockHeight, TITLE_LIMITS, type Cell, type TitleBlock } from './schema.ts';

const known = (field: FieldName, share: number): Cell => ({ field, share });

/** The title block as usual. */
export const USUAL_BLOCK: TitleBlock = {
  rows: [
    { high: 9, cells: [known('project', 9), known('material', 6), known('mass', 3)] },
    { high: 9, cells: [known('part', 9), known('tolerance', 6), known('units', 3)] },
    {
      high: 9,
      cells: [known('drawn', 5), known('checked', 4), known('date', 4), known('revision', 2), known('sheet', 3)],
    },
    { high: 9, cells: [known('title', 9), known('scale', 3), known('paper', 3), known('projection', 3)] },
  ],
};

/** A place in a block: which row from above, which field of it from the left. */
export interface CellAt {
  readonly row: number;
  readonly cell: number;
}

/** What stands over a field. */
export const labelOf = (cell: Cell): string => cell.label ?? ('field' in cell ? fieldOf(cell.field).label : '');
/** The field at a place of a block. */
export const cellIn = ({ rows }: TitleBlock, { row, cell }: CellAt): Cell | undefined => rows[row]?.cells[cell];

/** The ids of the fields of a block's own. */
export const ownFields = (block: TitleBlock | undefined): Set<Id> =>
  new Set(block?.rows.flatMap(({ cells }) => cells.flatMap((cell) => ('own' in cell ? [cell.own] : []))));

/** The fields that a block does not have yet. */
export function fieldsLeft({ rows }: TitleBlock): FieldName[] {
  const there = new Set(rows.flatMap(({ cells }) => cells.map(cellKey)));
  return FIELD_NAMES.filter((name) => !there.has(name));
}

type Rows = TitleBlock['rows'];
const changed = (block: TitleBlock, change: (rows: Rows) => void): TitleBlock => {
  const rows = block.rows.map(({ high, cells }) => ({ high, cells: [...cells] }));
  change(rows);
  return { rows: rows.filter(({ cells }) => cells.length > 0) };
};

/** A block with a field changed. */
export const withCell = (block: TitleBlock, { row, cell }: CellAt, next: Cell): TitleBlock =>
  changed(block, (rows) => (rows[row]!.cells[cell] = next));

/** A block, and where the field is that it was changed for. */
interface Changed {
  readonly block: TitleBlock;
  readonly at: CellAt;
}

/**
 * A block with a field at the end of a row; where the row is full, or not there, in one of its own. Undefined where there is
 * no room for that.
 */
export function withField(block: TitleBlock, row: number, next: Cell): Changed | undefined {
  const there = block.rows[row];
  const isOpen = there !== undefined && there.cells.length < TITLE_LIMITS.cells;
  if (!isOpen && !hasRoom(block, TITLE_LIMITS.low)) return undefined;
  const at = isOpen ? { row, cell: there.cells.length } : { row: Math.min(row + 1, block.rows.length), cell: 0 };
  const made = changed(block, (rows) => {
    if (isOpen) rows[row]!.cells.push(next);
    else rows.splice(at.row, 0, { high: TITLE_LIMITS.low, cells: [next] });
  });
  return { block: made, at };
}

/** Can a block have one row more? */
const hasRoom = ({ rows }: TitleBlock, high: number): boolean =>
  rows.length < TITLE_LIMITS.rows && blockHeight(rows) + high <= TITLE_LIMITS.whole;

/** A block without a field; a row that is empty then goes too. */
export const withoutCell = (block: TitleBlock, { row, cell }: CellAt): TitleBlock =>
  changed(block, (rows) => rows[row]!.cells.splice(cell, 1));

/** Which way a field goes. */
export const CELL_WAYS = { left: [0, -1], right: [0, 1], up: [-1, 0], down: [1, 0] } as const;
export type CellWay = keyof typeof CELL_WAYS;

/**
 * A block with a field moved one place to a side, or into the row above or below: beyond the first and the last row one of
 * its own begins. Undefined where it can not go on.
 */
export function movedCell(block: TitleBlock, { row, cell }: CellAt, way: CellWay): Changed | undefined {
  const [down, right] = CELL_WAYS[way];
  const own = block.rows[row]!;
  const taken = own.cells[cell]!;
  if (right !== 0) {
    const to = cell + right;
    if (to < 0 || to >= own.cells.length) return undefined;
    const next = changed(block, ({ [row]: line }) => line!.cells.splice(to, 0, ...line!.cells.splice(cell, 1)));
    return { block: next, at: { row, cell: to } };
  }
  const target = block.rows[row + down];
  if (target && target.cells.length >= TITLE_LIMITS.cells) return undefined;
  if (!target && (own.cells.length === 1 || !hasRoom(block, own.high))) return undefined;
  const place = target ? Math.min(cell, target.cells.length) : 0;
  const next = changed(block, (rows) => {
    rows[row]!.cells.splice(cell, 1);
    if (target) rows[row + down]!.cells.splice(place, 0, taken);
    else rows.splice(down < 0 ? 0 : rows.length, 0, { high: own.high, cells: [taken] });
  });
  const key = cellKey(taken);
  const at = next.rows.findIndex(({ cells }) => cells.some((one) => cellKey(one) === key));
  return { block: next, at: { row: at, cell: place } };
}

/** A block with a row as high as given, mm, within what a row, and all together, can be. */
export const withHeight = (block: TitleBlock, row: number, high: number): TitleBlock =>
  changed(block, (rows) => {
    const room = TITLE_LIMITS.whole - (blockHeight(rows) - rows[row]!.high);
    rows[row]!.high = Math.max(Math.min(high, TITLE_LIMITS.high, room), TITLE_LIMITS.low);
  });
