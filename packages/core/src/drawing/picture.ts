import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Piece } from '../sketch/pieces/index.ts';

/**
 * Kinds of lines on sheets (ISO 128-2): how wide, mm, and how broken: lengths of dashes and gaps, mm. Wide lines are twice as
 * wide as narrow ones; dashes are 12, gaps 3 times as long as the line is wide, long dashes 24 times.
 */
export const LINES = {
  visible: { width: 0.5, dashes: [], words: 'visible edges' },
  hidden: { width: 0.25, dashes: [3, 0.75], words: 'hidden edges' },
  smooth: { width: 0.25, dashes: [], words: 'edges at which faces go on' },
  thread: { width: 0.25, dashes: [], words: 'threads' },
  centre: { width: 0.25, dashes: [6, 0.75, 0.25, 0.75], words: 'centre lines' },
  hatch: { width: 0.18, dashes: [], words: 'hatching of what is cut' },
  frame: { width: 0.7, dashes: [], words: 'frame' },
  thin: { width: 0.25, dashes: [], words: 'title block, symbols' },
  size: { width: 0.18, dashes: [], words: 'dimensions, leaders, notes' },
} as const satisfies Record<string, { width: number; dashes: readonly number[]; words: string }>;
export type LineKind = keyof typeof LINES;
export const LINE_KINDS = Object.keys(LINES) as LineKind[];

export interface Stroke {
  readonly line: LineKind;
  readonly pieces: readonly Piece[];
  /** The view that it belongs to. */
  readonly view?: Id;
  /** What it belongs to of that which is dragged by itself: the id of a mark, the key of a sign. */
  readonly mark?: string;
}

/** Words on paper: `at` is where their base line begins, ends or has its middle. */
export interface Lettering {
  readonly at: Vec2;
  readonly text: string;
  /** Height of capitals, mm (ISO 3098: 2.5, 3.5, 5). */
  readonly height: number;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly bold?: boolean;
  /** How far it is turned counter-clockwise about `at`, rad. */
  readonly angle?: number;
  /** As of strokes. */
  readonly mark?: string;
}

/** A sheet as it is printed: everything in mm from its lower left corner. */
export interface SheetPicture {
  readonly size: Vec2;
  readonly strokes: readonly Stroke[];
  readonly letters: readonly Lettering[];
}

/** A straight line, mm on paper. */
export const segment = (from: Vec2, to: Vec2): Piece => ({ form: 'segment', entity: '', from, to });

/** The four sides of a rectangle between two corners. */
export const frameOf = ([x0, y0]: Vec2, [x1, y1]: Vec2): Piece[] => {
  const corners: Vec2[] = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
  return corners.map((corner, k) => segment(corner, corners[(k + 1) % 4]!));
};
