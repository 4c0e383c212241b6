import fc from 'fast-check';
import type { Box } from '../../sketch/pieces/index.ts';
import { boxOf } from '../../sketch/pieces/index.ts';
import { paperSize } from '../papers.ts';
import type { Lettering } from '../picture.ts';
import type { Sheet } from '../schema.ts';
import { defaultSheet } from '../default-sheets.ts';
import {
  cellKey,
  CELL_WAYS,
  fieldsLeft,
  movedCell,
  titleBlock,
  titleBlockSchema,
  titleHeight,
  TITLE_LIMITS,
  TITLE_WIDTH,
  USUAL_BLOCK,
  withCell,
  withField,
  withHeight,
  withoutCell,
  type Cell,
  type CellWay,
  type TitleBlock,
} from './index.ts';
import { onLines, shortened } from './words.ts';

const TEXT = { project: 'Sieve', part: 'Bracket', material: 'Steel', mass: '12 g', scale: '1:2', number: 2, of: 5 };
const sheetWith = (fields: Partial<Sheet> = {}): Sheet => ({
  ...defaultSheet({ id: 'p', name: 'Bracket' }, { paper: 'A3', projection: 'first' }),
  ...fields,
});
const drawn = (block: TitleBlock, sheet = sheetWith()) => titleBlock(block, sheet, TEXT, paperSize('A3', false));
const said = (block: TitleBlock, sheet?: Sheet) => drawn(block, sheet).letters.map(({ text }) => text);
const owner: Cell = { own: 'owner', label: 'Owner', words: 'Village seed library', share: 6 };

/** Blocks as one may lay them out. */
const anyBlock = fc
  .array(fc.array(fc.tuple(fc.nat(1e6), fc.integer({ min: 1, max: 18 })), { minLength: 1, maxLength: 8 }), {
    minLength: 1,
    maxLength: 4,
  })
  .chain((rows) =>
    fc.tuple(fc.constant(rows), fc.array(fc.integer({ min: 9, max: 25 }), { minLength: 4, maxLength: 4 })),
  )
  .map(([rows, heights]): TitleBlock => {
    const left = fieldsLeft({ rows: [] });
    return {
      rows: rows.map((cells, row) => ({
        high: heights[row]!,
        cells: cells.map(([pick, share], k): Cell => {
          const field = pick % 3 > 0 ? left.splice(pick % Math.max(1, left.length), 1)[0] : undefined;
          return field ? { field, share } : { own: `f${row}-${k}`, label: `Field ${k}`, words: 'so\nand so', share };
        }),
      })),
    };
  });

const isWithin = ({ low, high }: Box, outer: Box) =>
  [0, 1].every((i) => low[i]! > outer.low[i]! - 1e-9 && high[i]! < outer.high[i]! + 1e-9);

test('the usual block is a block, 180 mm wide, with every field once', () => {
  expect(titleBlockSchema.parse(USUAL_BLOCK)).toEqual(USUAL_BLOCK);
  const { cells } = drawn(USUAL_BLOCK);
  expect(cells).toHaveLength(15);
  expect(cells[0]!.box).toEqual({ low: [230, 37], high: [320, 46] });
  expect(titleHeight(USUAL_BLOCK, {})).toBe(36);
  expect(said(USUAL_BLOCK)).toEqual(expect.arrayContaining(['Part', 'Bracket', 'Steel', '2 of 5', 'mm', '1:2']));
});

test('fields fill their rows and lie beside each other; what they say stays within them', () => {
  fc.assert(
    fc.property(anyBlock, (block) => {
      expect(titleBlockSchema.safeParse(block).success).toBe(true);
      const { cells, letters, strokes } = drawn(block);
      const area = cells.reduce((sum, { box: { low, high } }) => sum + (high[0] - low[0]) * (high[1] - low[1]), 0);
      expect(area).toBeCloseTo(TITLE_WIDTH * titleHeight(block, {}), 6);
      const holds = ({ at: [x, y], text, height }: Lettering) =>
        cells.some(({ box: { low, high } }) => {
          const right = x + (text.length > 1 ? text.length * height * 0.625 : 0);
          return x > low[0] && right < high[0] + 1e-9 && y > low[1] && y + height < high[1];
        });
      expect(letters.filter((one) => !holds(one))).toEqual([]);
      const sign = strokes.find(({ line }) => line === 'centre');
      const at = cells.find(({ row, cell }) => cellKey(block.rows[row]!.cells[cell]!) === 'projection');
      expect(sign === undefined).toBe(at === undefined);
      for (const piece of sign?.pieces ?? []) expect(isWithin(boxOf(piece), at!.box)).toBe(true);
    }),
  );
});

test('fields are moved about, and none is lost', () => {
  const ways = Object.keys(CELL_WAYS) as CellWay[];
  const steps = fc.array(fc.tuple(fc.nat(), fc.constantFrom(...ways)), { maxLength: 30 });
  const fieldsOf = ({ rows }: TitleBlock) => rows.flatMap(({ cells }) => cells.map(cellKey));
  fc.assert(
    fc.property(steps, (all) => {
      let block = USUAL_BLOCK;
      for (const [pick, way] of all) {
        const cells = block.rows.flatMap((line, row) => line.cells.map((_, cell) => ({ row, cell })));
        const at = cells[pick % cells.length]!;
        const next = movedCell(block, at, way);
        if (!next) continue;
        const key = cellKey(block.rows[at.row]!.cells[at.cell]!);
        expect(cellKey(next.block.rows[next.at.row]!.cells[next.at.cell]!)).toBe(key);
        block = next.block;
      }
      expect(titleBlockSchema.safeParse(block).success).toBe(true);
      expect(fieldsOf(block).sort()).toEqual(fieldsOf(USUAL_BLOCK).sort());
    }),
  );
});

test('a field goes one place to a side, into the next row, and into one of its own', () => {
  const names = ({ rows }: TitleBlock) => rows.map(({ cells }) => cells.map(cellKey).join(' '));
  const right = movedCell(USUAL_BLOCK, { row: 0, cell: 0 }, 'right')!;
  expect(names(right.block)[0]).toBe('material project mass');
  expect(right.at).toEqual({ row: 0, cell: 1 });
  expect(movedCell(USUAL_BLOCK, { row: 0, cell: 0 }, 'left')).toBeUndefined();
  const down = movedCell(USUAL_BLOCK, { row: 0, cell: 1 }, 'down')!;
  expect(names(down.block).slice(0, 2)).toEqual(['project mass', 'part material tolerance units']);
  const up = movedCell(USUAL_BLOCK, { row: 0, cell: 1 }, 'up')!;
  expect(names(up.block).slice(0, 2)).toEqual(['material', 'project mass']);
  expect(up.at).toEqual({ row: 0, cell: 0 });
  // alone in the first row there is nothing above
  expect(movedCell(up.block, up.at, 'up')).toBeUndefined();
  // back into the row of the others: its own is gone
  expect(movedCell(up.block, up.at, 'down')!.block.rows).toHaveLength(4);
});

test('fields are added where there is room, changed, and taken off', () => {
  const { block, at } = withField(USUAL_BLOCK, 0, owner)!;
  expect(at).toEqual({ row: 0, cell: 3 });
  expect(said(block)).toEqual(expect.arrayContaining(['Owner', 'Village seed library']));
  const renamed = withCell(block, at, { ...owner, label: 'Belongs to' });
  expect(said(renamed)).toContain('Belongs to');
  expect(said(withCell(block, { row: 0, cell: 0 }, { field: 'project', label: 'Machine', share: 9 }))).toContain(
    'Machine',
  );
  expect(withoutCell(block, at)).toEqual(USUAL_BLOCK);
  const full = {
    rows: [
      {
        high: 9,
        cells: fieldsLeft({ rows: [] })
          .slice(0, 8)
          .map((field) => ({ field, share: 1 })),
      },
    ],
  };
  expect(withField(full, 0, owner)).toMatchObject({
    at: { row: 1, cell: 0 },
    block: { rows: [{}, { cells: [owner] }] },
  });
  const alone = withField(USUAL_BLOCK, 9, owner)!;
  expect(alone.at).toEqual({ row: 4, cell: 0 });
  expect(withoutCell(alone.block, alone.at).rows).toHaveLength(4);
  expect(fieldsLeft(USUAL_BLOCK)).toEqual(['approved', 'code']);
});

test('what a sheet writes into a field of its own goes before what stands there always; a high row has several lines', () => {
  const { block } = withField(USUAL_BLOCK, 4, owner)!;
  const sheet = sheetWith({ title: { own: { owner: 'Mill\nby the brook' } } });
  expect(said(block, sheet)).toContain('Mill by the brook');
  const high = withHeight(block, 4, 14);
  expect(said(high, sheet)).toEqual(expect.arrayContaining(['Mill', 'by the brook']));
  expect(titleHeight(high, {})).toBe(50);
  expect(withHeight(block, 4, 99).rows[4]!.high).toBe(TITLE_LIMITS.high);
  expect(withHeight(block, 4, 1).rows[4]!.high).toBe(TITLE_LIMITS.low);
});

test('a block has each field once, and is not higher than there is room', () => {
  const code = (block: object) => titleBlockSchema.safeParse(block).success;
  const line = (field: string) => ({ high: 9, cells: [{ field, share: 1 }] });
  expect(code({ rows: [line('part'), line('part')] })).toBe(false);
  expect(code({ rows: [line('part'), line('mass')] })).toBe(true);
  expect(code({ rows: [line('colour')] })).toBe(false);
  expect(code({ rows: [] })).toBe(false);
  expect(code({ rows: ['part', 'mass', 'scale'].map((name) => ({ ...line(name), high: 40 })) })).toBe(false);
});

test('what can be made of a block is always one', () => {
  const tall = withHeight(withHeight(USUAL_BLOCK, 0, 40), 1, 40);
  expect(titleBlockSchema.safeParse(tall).success).toBe(true);
  // 40 + 40 + 9 + 9: no row more, and none higher
  expect(withHeight(tall, 2, 12).rows[2]!.high).toBe(11);
  expect(withField(tall, 9, owner)).toBeUndefined();
  expect(movedCell(tall, { row: 0, cell: 0 }, 'up')).toBeUndefined();
  expect(titleBlockSchema.safeParse(withField(tall, 0, owner)!.block).success).toBe(true);
  const line = (k: number) => ({ high: 9, cells: [{ own: `f${k}`, label: 'F', share: 1 }] });
  const rows = Array.from({ length: TITLE_LIMITS.rows }, (_, k) => line(k));
  expect(withField({ rows }, 99, owner)).toBeUndefined();
});

test('words are cut where there is no room, and go on on the next line', () => {
  expect(shortened('Bearing bracket', 17.5)).toBe('Bearing b…');
  expect(shortened('Bearing bracket', 35)).toBe('Bearing bracket');
  expect(onLines('Steel sheet 3 mm cold rolled', 21, 3)).toEqual(['Steel sheet', '3 mm cold', 'rolled']);
  expect(onLines('Steel sheet 3 mm cold rolled', 21, 2)).toEqual(['Steel sheet', '3 mm cold r…']);
  expect(onLines('a\nb', 21, 1)).toEqual(['a b']);
});
