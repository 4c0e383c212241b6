import { arrowPieces, labelInk, labelSize, textWidth, type Label } from './label.ts';
import { signWidth } from './signs.ts';

const label: Label = { rows: [['4× ', { sign: 'diameter' }, '5.5'], ['M5']], height: 2 };

test('a label is as wide as its longest row, as high as its rows', () => {
  const [width, height] = labelSize(label);
  expect(width).toBeCloseTo(2 * (textWidth('4× ') + signWidth('diameter') + 0.1 + textWidth('5.5')), 9);
  expect(height).toBeCloseTo(2 * (1 + 1.75), 9);
});

test('words that follow each other are written as one', () => {
  const { letters } = labelInk({ rows: [['(', '12', ')']], height: 2.5 }, [0, 0]);
  expect(letters.map(({ text }) => text)).toEqual(['(12)']);
});

test('a label turned by a quarter reads from the right, about its middle', () => {
  const [flat, upright] = [0, Math.PI / 2].map((angle) => labelInk(label, [10, 20], angle));
  flat!.letters.forEach(({ at }, k) => {
    const turned = upright!.letters[k]!;
    expect(turned.at[0]).toBeCloseTo(10 - (at[1] - 20), 9);
    expect(turned.at[1]).toBeCloseTo(20 + (at[0] - 10), 9);
    expect(turned.angle).toBeCloseTo(Math.PI / 2, 9);
  });
  expect(upright!.pieces).toHaveLength(flat!.pieces.length);
});

test('deviations stand over each other, cells side by side in frames', () => {
  const stack = labelInk({ rows: [['⌀', { upper: '+0.1', lower: '0' }]], height: 2 }, [0, 0]).letters;
  expect(stack.map(({ text }) => text)).toEqual(['⌀', '+0.1', '0']);
  expect(stack[1]!.at[1]).toBeGreaterThan(stack[2]!.at[1]);
  const frame = labelInk({ rows: [[{ cells: [[{ sign: 'flatness' }], ['0.1'], ['A']] }]], height: 2 }, [0, 0]);
  // three frames of four lines, and the sign
  expect(frame.pieces.length).toBe(12 + 4);
});

test('an arrow ends in its tip', () => {
  const tips = arrowPieces([3, 4], [0, 1]).flatMap(({ from, to }) => [from, to]);
  expect(Math.max(...tips.map(([, y]) => y))).toBe(4);
  expect(Math.min(...tips.map(([, y]) => y))).toBe(1.5);
});
