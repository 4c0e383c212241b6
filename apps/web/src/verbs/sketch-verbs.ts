import { explain, OFFERED_RELATIONS, OFFERED_STEPS, type Id, type RelationName, type Result } from '@helb/core';
import { EDIT_VERBS } from '../editor/edit-verbs.ts';
import { toggleCentreline, toggleConstruction } from '../editor/entity-edits.ts';
import { fittingRelations } from '../editor/editor-state.ts';
import { useFirstTasks } from '../stores/first-tasks.ts';
import { useLooking } from '../stores/looking.ts';
import { useProject } from '../stores/project.ts';
import { useWorkbench } from '../stores/workbench.ts';
import { DRAWING_TOOLS, EDIT_TOOLS, SELECTION_TOOLS, type ToolVerb } from './tool-verbs.ts';
import { showingTasks, wanting, type Verb } from './verb.ts';

/** How many tools come before closing the sketch. */
const FIRST = 5;

/** The verbs of the sketch that is open, most likely first; what wants a selection of another kind comes last. */
export function useSketchVerbs() {
  const bench = useWorkbench();
  const looking = useLooking();
  const store = useProject();
  const tasks = useFirstTasks();

  return function sketchVerbs(): readonly Verb[] {
    const [editor, state] = [bench.editor!, bench.sketching!];
    const picks = [...state.selection];
    const isFree = picks.length === 0;

    const toolVerb = ({ tool, ...verb }: ToolVerb): Verb => ({ id: tool, ...verb, run: () => editor.take(tool) });
    const tools = DRAWING_TOOLS.map(toolVerb);
    const size = tools.find(({ id }) => id === 'size')!;

    const fitting = fittingRelations(state);
    const relationVerb = ({ kind, title, key, says, wants }: (typeof OFFERED_RELATIONS)[number]): Verb => {
      const verb = { id: kind, title, key, says, run: () => tell(editor.relate(kind)) };
      return fitting.includes(kind) ? verb : wanting(verb, wants);
    };
    const areDrawn = picks.every((id) => !Object.hasOwn(state.borrowed, id) || state.sketch.entities[id]);
    const editVerb = ({ id, title, key, says, wants, fits, run }: (typeof EDIT_VERBS)[number]): Verb => {
      const verb = { id, title, key, says, run: () => void run(editor) };
      return !isFree && areDrawn && fits(state.geometry, picks) ? verb : wanting(verb, wants);
    };
    const onSelected = (verb: Verb, wants: string, isThere = !isFree): Verb => (isThere ? verb : wanting(verb, wants));

    const rank = ({ kind }: { readonly kind: RelationName }) =>
      fitting.includes(kind) ? fitting.indexOf(kind) : Infinity;
    const relations = (last: boolean) =>
      OFFERED_RELATIONS.filter((one) => one.last === last)
        .toSorted((one, other) => (rank(one) === rank(other) ? 0 : rank(one) - rank(other)))
        .map(relationVerb);
    const [first, last, edits] = [relations(false), relations(true), EDIT_VERBS.map(editVerb)];
    const construction = onSelected(
      {
        ...{ id: 'construction', title: 'Construction', key: 'Y' },
        says: 'Makes curves construction, which nothing is built of, or outline again.',
        run: () => void toggleConstruction(editor),
      },
      'curves',
    );
    const erase = onSelected(
      {
        ...{ id: 'erase', title: 'Erase', key: 'Del' },
        says: 'Takes what is selected out of the sketch.',
        run: () => void editor.erase(),
      },
      'what is to go',
    );
    const centreline = onSelected(
      {
        ...{ id: 'centreline', title: 'Centre line', key: '' },
        says: 'Makes lines centre lines: diameters are measured across them, and half profiles turned about them.',
        run: () => void toggleCentreline(editor),
      },
      'lines',
      picks.some((id) => state.sketch.entities[id]?.kind === 'line'),
    );
    const done: Verb = {
      ...{ id: 'done', title: 'Close sketch', key: 'L' },
      says: 'Ends drawing; the sketch is there to be built of.',
      run: () => bench.closeSketch(),
    };
    const cutOpen: Verb = {
      id: 'cut-open',
      title: looking.cutAtSketch ? 'Show what is in front' : 'Cut open at the sketch',
      key: '',
      says: 'Takes away from the view what lies between you and the sketch, or shows it again.',
      run: () => (looking.cutAtSketch = !looking.cutAtSketch),
    };
    const fromFile: Verb = {
      ...{ id: 'from-file', title: 'Outline from a DXF or SVG file', key: '' },
      says: 'Draws what a file holds, as curves that can be changed.',
      run: chooseFile,
    };
    // holding Q while drawing places freely
    const rare = [
      cutOpen,
      ...amongVerb(looking, ''),
      fromFile,
      ...afterwards(editor.step),
      showingTasks(() => tasks.begin()),
    ];

    if (isFree)
      return [
        ...tools.slice(0, FIRST),
        done,
        ...EDIT_TOOLS.map(toolVerb),
        ...tools.slice(FIRST),
        ...rare,
        ...first,
        ...last,
        ...edits,
        ...[construction, erase, centreline],
        // offset is there without a selection
        ...SELECTION_TOOLS.filter(({ tool }) => tool !== 'offset').map((one) => wanting(toolVerb(one), 'curves')),
      ];
    return [
      ...first,
      size,
      ...last,
      ...[construction, erase],
      ...edits,
      ...SELECTION_TOOLS.map(toolVerb),
      centreline,
      ...tools.filter((verb) => verb !== size),
      // offset is there for what is selected
      ...EDIT_TOOLS.filter(({ tool }) => tool !== 'offset').map(toolVerb),
      done,
      ...rare,
    ];
  };

  /** Steps are found while drawing: they close the sketch and begin with it. */
  function afterwards(sketch: Id): Verb[] {
    return OFFERED_STEPS.map(({ kind, title, says }) => ({
      ...{ id: `then-${kind}`, title, key: '' },
      says: `Closes the sketch. ${says}`,
      run: () => bench.draftOf(kind, sketch),
    }));
  }

  function chooseFile(): void {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = '.dxf,.svg';
    input.onchange = () => {
      const [file] = input.files ?? [];
      if (file) void bench.openOutline(file);
    };
    input.click();
  }

  function tell(result: Result<void>): void {
    if (!result.ok) store.message = explain(result.issue, store.project?.unit);
  }
}

/** Shows a part where it is placed, or alone. */
export const amongVerb = (looking: ReturnType<typeof useLooking>, key = 'Q'): Verb[] =>
  looking.isPlaced
    ? [
        {
          id: 'among',
          title: looking.among ? 'Only this' : 'Among the others',
          key,
          says: 'Shows the part where it is placed among the others, or alone.',
          run: () => (looking.among = !looking.among),
        },
      ]
    : [];
