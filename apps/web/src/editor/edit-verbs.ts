import {
  chamfer,
  cornerPoint,
  cornersAmong,
  type CornerPlace,
  entityKind,
  fillet,
  isAxisLike,
  LENGTH,
  roundLength,
  turnedRound,
  type EditBuilder,
  type Geometry,
  type Id,
  type LengthUnit,
  type Pattern,
  type Result,
  type SketchEdit,
} from '@helb/core';
import { curvesIn, mirrorIn } from './edit-tools.ts';
import type { SketchEditor } from './sketch-editor.ts';

/** Something that is done with what is selected. */
interface EditVerb {
  readonly id: string;
  readonly title: string;
  readonly key: string;
  /** What it does, in one sentence. */
  readonly says: string;
  /** What has to be chosen for it: "a line". */
  readonly wants: string;
  /** Does it make sense for the selection? */
  fits(geometry: Geometry, selection: readonly Id[]): boolean;
  run(editor: SketchEditor): Result<void> | undefined;
}

/** The thing picked last, if it is of this kind, and all curves picked before it. */
function lastAndOthers(geometry: Geometry, ids: readonly Id[], role: 'line' | 'point') {
  const last = ids.at(-1);
  if (last === undefined || geometry.roleOf(last) !== role) return undefined;
  const others = curvesIn(geometry, ids.slice(0, -1));
  return others.length > 0 ? { last, others } : undefined;
}

/** The line that is meant by what is selected: the one that was clicked last, or the only one that is no outline. */
function mirrorLine({ geometry, selection, clickedLast: last }: SketchEditor): Id | undefined {
  const picks = [...selection];
  const curves = curvesIn(geometry, picks);
  const hasOthers = (line: Id) => curves.some((id) => id !== line);
  if (last !== undefined && selection.has(last) && geometry.roleOf(last) === 'line' && hasOthers(last)) return last;
  const [line, ...more] = picks.filter((id) => isAxisLike(geometry, id));
  return line !== undefined && more.length === 0 && hasOthers(line) ? line : undefined;
}

type Told = Pick<EditVerb, 'id' | 'title' | 'key' | 'says' | 'wants'>;

type CornerEdit = (
  builder: EditBuilder,
  corners: readonly CornerPlace[],
  size: { readonly text: string; readonly size: number },
) => Result<SketchEdit>;

const corner = (told: Told, prompt: string, size: number, edit: CornerEdit): EditVerb => ({
  ...told,
  fits: (geometry, selection) => cornersAmong(geometry, selection).length > 0,
  run(editor) {
    const corners = cornersAmong(editor.geometry, [...editor.selection]);
    editor.askNumber({
      prompt,
      place: cornerPoint(editor.geometry, corners[0]!),
      asks: LENGTH,
      text: roundLength(size, editor.scope.unit),
      take: (taken) => editor.revise(told.id, (builder) => edit(builder, corners, taken), taken.naming),
    });
    return undefined;
  },
});

const pattern = (
  told: Told,
  role: 'line' | 'point',
  make: (of: Id[], frame: Id, unit: LengthUnit) => Pattern,
): EditVerb => ({
  ...told,
  fits: (geometry, selection) => lastAndOthers(geometry, selection, role) !== undefined,
  run(editor) {
    const { last, others } = lastAndOthers(editor.geometry, [...editor.selection], role)!;
    return editor.addPattern(make(others, last, editor.scope.unit));
  },
});

/** The register of edits on the selection: a new one is an entry here. */
export const EDIT_VERBS: readonly EditVerb[] = [
  corner(
    {
      ...{ id: 'fillet', title: 'Round corner', key: '1' },
      says: 'Rounds corners of the outline by a radius: a fillet in the sketch.',
      wants: 'corners',
    },
    'Radius',
    5,
    fillet,
  ),
  corner(
    {
      ...{ id: 'chamfer', title: 'Chamfer corner', key: '2' },
      says: 'Cuts corners of the outline off by a distance.',
      wants: 'corners',
    },
    'Distance',
    3,
    chamfer,
  ),
  {
    id: 'mirror',
    title: 'Mirror in a line',
    key: '3',
    says: 'Draws the mirror image of what is selected; both stay alike.',
    wants: 'curves, then the line',
    fits: (geometry, selection) => curvesIn(geometry, selection).length > 0,
    run(editor) {
      const line = mirrorLine(editor);
      if (line !== undefined) return mirrorIn(editor, line);
      editor.take('mirror');
      return undefined;
    },
  },
  pattern(
    {
      ...{ id: 'pattern-line', title: 'Pattern along the last line', key: '4' },
      says: 'Repeats curves evenly along the line that was picked last.',
      wants: 'curves, then a line',
    },
    'line',
    (of, along, unit) => ({
      layout: 'line',
      of,
      along,
      count: '3',
      spacing: roundLength(20, unit),
    }),
  ),
  pattern(
    {
      ...{ id: 'pattern-round', title: 'Pattern round the last point', key: '5' },
      says: 'Repeats curves evenly about the point that was picked last.',
      wants: 'curves, then a point',
    },
    'point',
    (of, centre) => ({
      layout: 'round',
      of,
      centre,
      count: '6',
      over: '360 deg',
    }),
  ),
  {
    id: 'reverse',
    title: 'Reverse',
    key: '',
    says: 'Lets a curve run from its other end.',
    wants: 'a line or a spline',
    fits: (geometry, selection) =>
      selection.some((id) => {
        const entity = geometry.entities[id];
        return entity !== undefined && entityKind(entity.kind).reversed !== undefined;
      }),
    run: (editor) => editor.revise('reverse', (builder) => turnedRound(builder, [...editor.selection])),
  },
];
