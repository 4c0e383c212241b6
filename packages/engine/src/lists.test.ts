import Papa from 'papaparse';
import { cutList, writeCutList, writeBillOfMaterials } from './lists.ts';
import type { BillRow } from './bill-of-materials.ts';

const row = (name: string, count: number, material: string | null, ...size_mm: [number, number, number]): BillRow => ({
  part: name,
  name,
  count,
  material,
  mass_g: material === null ? null : 10,
  size_mm,
  fill: name === 'Tray' ? 0.1 : 0.8,
});
const ROWS = [
  row('Side', 2, 'Plywood', 280, 6, 190),
  row('Base', 1, 'Plywood', 300, 160, 6),
  row('Rail', 2, 'Beech', 200, 10, 12),
  row('Knob', 1, 'Beech', 28, 28, 26),
  row('Tray', 1, 'Steel', 160, 100, 24),
  row('Lid', 1, 'Plywood', 100, 9, 90),
  row('=Odd', 1, null, 100, 10, 12),
];

test('panels by their thickness, bars by their section, whatever way they are drawn', () => {
  expect(
    cutList(ROWS).map(({ stock, material, section_mm, pieces }) => [
      stock,
      material,
      section_mm,
      pieces.map(({ name, count, size_mm }) => [name, count, ...size_mm]),
    ]),
  ).toEqual([
    [
      'panel',
      'Plywood',
      [6],
      [
        ['Side', 2, 280, 190],
        ['Base', 1, 300, 160],
      ],
    ],
    ['panel', 'Plywood', [9], [['Lid', 1, 100, 90]]],
    ['bar', 'Beech', [12, 10], [['Rail', 2, 200]]],
    ['bar', null, [12, 10], [['=Odd', 1, 100]]],
    ['block', 'Beech', [], [['Knob', 1, 28, 28, 26]]],
    // hollow: bent or hollowed out
    ['block', 'Steel', [], [['Tray', 1, 160, 100, 24]]],
  ]);
});

test('as tables that a spreadsheet reads: names are no formulas', () => {
  const bill = Papa.parse<string[]>(writeBillOfMaterials(ROWS), { skipEmptyLines: true }).data;
  expect(bill[0]!.slice(0, 5)).toEqual(['part', 'count', 'material', 'mass of one, g', 'mass of all, g']);
  expect(bill[1]).toEqual(['Side', '2', 'Plywood', '10', '20', '280', '6', '190']);
  expect(bill.at(-1)).toEqual(["'=Odd", '1', '', '', '', '100', '10', '12']);
  const cut = Papa.parse<string[]>(writeCutList(cutList(ROWS)), { skipEmptyLines: true }).data;
  expect(cut).toHaveLength(8);
  expect(cut[4]).toEqual(['bar', 'Beech', '12 x 10', 'Rail', '2', '200', '', '']);
});
