import type { Vec2 } from '../math/index.ts';
import type { Box } from '../sketch/pieces/index.ts';

/**
 * Sizes of sheets lying on their longer side, mm: ISO 216 for A4 to A0, ANSI/ASME Y14.1 for A to E (8.5 x 11 in to
 * 34 x 44 in).
 */
export const PAPERS = {
  A4: [297, 210],
  A3: [420, 297],
  A2: [594, 420],
  A1: [841, 594],
  A0: [1189, 841],
  'ANSI A': [279.4, 215.9],
  'ANSI B': [431.8, 279.4],
  'ANSI C': [558.8, 431.8],
  'ANSI D': [863.6, 558.8],
  'ANSI E': [1117.6, 863.6],
} as const satisfies Record<string, Vec2>;
export type Paper = keyof typeof PAPERS;
export const PAPER_NAMES = Object.keys(PAPERS) as [Paper, ...Paper[]];

/** Width and height as it is used, mm. */
export function paperSize(paper: Paper, upright: boolean): Vec2 {
  const [long, short] = PAPERS[paper];
  return upright ? [short, long] : [long, short];
}

/** The frame leaves 20 mm at the left for filing, else 10 mm (ISO 5457). */
const MARGINS = { left: 20, other: 10 } as const;

/** What lies within the frame of a sheet, mm from its lower left corner. */
export const withinFrame = ([width, height]: Vec2): Box => ({
  low: [MARGINS.left, MARGINS.other],
  high: [width - MARGINS.other, height - MARGINS.other],
});
