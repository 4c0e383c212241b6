import { BorrowTool } from './borrow-tool.ts';
import { ChainTool } from './chain-tool.ts';
import { FIGURE_RECIPES, type FigureName } from './figure-recipes.ts';
import { FigureTool } from './figure-tool.ts';
import { extendTool, MirrorTool, OffsetTool, PivotTool, ShiftTool, splitTool, trimTool } from './edit-tools.ts';
import { SizeTool } from './size-tool.ts';
import { SplineTool } from './spline-tool.ts';
import { SelectTool } from './select-tool.ts';
import type { SketchEditor } from './sketch-editor.ts';
import type { Tool } from './tool.ts';

type ToolMaker = (editor: SketchEditor) => Tool;

const FIGURE_TOOLS = Object.fromEntries(
  Object.entries(FIGURE_RECIPES).map(([name, recipe]): [string, ToolMaker] => [
    name,
    (editor) => new FigureTool(editor, name, recipe),
  ]),
) as Record<FigureName, ToolMaker>;

/** The register: a new tool is a file beside these and a line here. */
export const TOOLS = {
  ...FIGURE_TOOLS,
  chain: (editor: SketchEditor) => new ChainTool(editor),
  'tangent arc': (editor: SketchEditor) => new ChainTool(editor, true, 'tangent arc'),
  spline: (editor: SketchEditor) => new SplineTool(editor),
  borrow: (editor: SketchEditor) => new BorrowTool(editor.loans),
  trim: trimTool,
  extend: extendTool,
  split: splitTool,
  offset: (editor: SketchEditor) => new OffsetTool(editor),
  mirror: (editor: SketchEditor) => new MirrorTool(editor),
  move: (editor: SketchEditor) => new ShiftTool(editor, 'move'),
  copy: (editor: SketchEditor) => new ShiftTool(editor, 'copy'),
  turn: (editor: SketchEditor) => new PivotTool(editor, 'turn'),
  scale: (editor: SketchEditor) => new PivotTool(editor, 'scale'),
  size: (editor: SketchEditor) => new SizeTool(editor, [...editor.selection]),
  select: (editor: SketchEditor) => new SelectTool(editor),
} satisfies Record<string, ToolMaker>;
export type ToolName = keyof typeof TOOLS;
/** Those that do something with what is selected: the others begin without it. */
export const USE_SELECTION: readonly ToolName[] = [
  'select',
  'size',
  'offset',
  'mirror',
  'move',
  'copy',
  'turn',
  'scale',
];
