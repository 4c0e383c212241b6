import { computed } from 'vue';
import {
  applying,
  explain,
  OFFERED_RELATIONS,
  OFFERED_STEPS,
  PLANE_NAMES,
  stepKind,
  ORIGIN_PLANES,
  planeOf,
  suits,
  type Id,
  type OriginPlane,
  type Reference,
  type SketchPlane,
} from '@helb/core';
import { EDIT_VERBS } from '../editor/edit-verbs.ts';
import { toggleCentreline, toggleConstruction } from '../editor/entity-edits.ts';
import { fittingRelations } from '../editor/editor-state.ts';
import type { ToolName } from '../editor/tools.ts';
import { useLooking } from './looking.ts';
import { useWorkbench } from './workbench.ts';
import { useProject } from './project.ts';

/** Something that can be done here and now. */
export interface Verb {
  readonly id: string;
  readonly title: string;
  /** One letter; empty for none. */
  readonly key: string;
  readonly run: () => void;
}

/** The tools in the order in which they are offered; the rarer ones have no key and are found by their names. */
const TOOL_KEYS: readonly (readonly [tool: ToolName, key: string, title: string])[] = [
  ['chain', 'K', 'Chain'],
  ['rectangle', 'B', 'Rectangle'],
  ['circle', 'O', 'Circle'],
  ['size', 'N', 'Size'],
  ['borrow', 'R', 'Borrow'],
  ['arc', 'E', 'Arc'],
  ['centred arc', 'Z', 'Arc about a centre'],
  ['centred rectangle', 'I', 'Rectangle about a centre'],
  ['slot', '', 'Slot'],
  ['polygon', '', 'Polygon'],
  ['spline', '', 'Spline'],
  ['ellipse', '', 'Ellipse'],
  ['tangent arc', '', 'Arc tangent to a curve'],
  ['turned rectangle', '', 'Rectangle by three points'],
  ['circle by points', '', 'Circle by three points'],
  ['elliptical arc', '', 'Elliptical arc'],
  ['centred slot', '', 'Slot about its middle'],
  ['arc slot', '', 'Slot along an arc'],
  ['polygon round a circle', '', 'Polygon round a circle'],
  ['point', '', 'Point'],
  ['text', '', 'Text'],
];

/** Words of steps that a key changes to the next; turning round has a key of its own. */
const STEPPED = [
  ['result', 'R'],
  ['extent', 'E'],
  ['ways', 'B'],
] as const;
/** What only turning round leads to. */
const TURNED = 'backwards';

/** Edits by the pointer: what is clicked, without a selection or on what is selected. */
const EDIT_TOOLS: readonly (readonly [tool: ToolName, key: string, title: string])[] = [
  ['trim', 'T', 'Trim'],
  ['extend', 'X', 'Extend'],
  ['offset', 'F', 'Offset'],
  ['split', '', 'Split'],
];
const SELECTION_TOOLS: readonly (readonly [tool: ToolName, key: string, title: string])[] = [
  ['offset', '0', 'Offset'],
  ['move', '6', 'Move'],
  ['copy', '7', 'Copy'],
  ['turn', '8', 'Turn'],
  ['scale', '9', 'Scale'],
];

type Offered = (typeof OFFERED_STEPS)[number];
/** Made in one of several ways from what is picked. */
const DATUMS = OFFERED_STEPS.filter(({ kind }) => stepKind(kind).ways);
/** The extrusion is offered by the name of its sketch. */
const EXTRUDE = OFFERED_STEPS.find(({ kind }) => kind === 'extrude')!;
const STEPS = OFFERED_STEPS.filter((step) => step !== EXTRUDE && !DATUMS.includes(step));

/** Origin planes by their names, all else by the reference itself. */
const planeAt = (reference: Reference): SketchPlane =>
  reference.to === 'origin' ? (reference.name as OriginPlane) : reference;

/** The verbs of the present place, most likely first; the strip shows the first few, typing filters them all. */
export function useVerbs() {
  const bench = useWorkbench();
  const looking = useLooking();
  const store = useProject();

  const place = computed(() => {
    if (bench.draft) return bench.draft.isNew ? stepKind(bench.draft.step.kind).title : 'Changing';
    if (!bench.editor) return bench.picked.length > 0 ? 'Picked' : 'Part';
    const count = bench.sketching!.selection.size;
    return count > 0 ? `${count} selected` : 'Sketching';
  });

  const verbs = computed<Verb[]>(() => {
    if (bench.draft)
      return [
        { id: 'accept', title: 'Accept', key: 'Enter', run: () => void bench.acceptDraft() },
        { id: 'leave', title: 'Leave', key: 'Esc', run: () => bench.cancelDraft() },
        ...draftVerbs(),
        ...amongVerb(),
      ];
    return bench.editor ? sketchVerbs() : partVerbs();
  });

  /** A step in the making turned round, and its words stepped through. */
  function draftVerbs(): Verb[] {
    const { step } = bench.draft!;
    const { fields = {}, turned } = stepKind(step.kind);
    const { ways } = step as { ways?: string };
    const goesBoth = ways !== undefined && ways !== 'forwards' && ways !== TURNED;
    const turn: Verb = {
      id: 'turn',
      title: goesBoth ? 'One way' : 'The other way',
      key: 'W',
      run: () => bench.turnDraft(),
    };
    const words = STEPPED.flatMap(([name, key]): Verb[] => {
      const field = Object.fromEntries(applying(fields, step))[name];
      // where turning does nothing, going both ways does nothing either
      const isIdle = name === 'ways' && !turned?.({ ...step, ways: undefined } as typeof step);
      if (field?.type !== 'choice' || isIdle) return [];
      const [first, ...others] = Object.entries(field.options).filter(([value]) => value !== TURNED);
      // what is cut away mostly goes through everything: that is the last of extents
      const isCut = name === 'extent' && (step as { result?: string }).result === 'cut';
      const options = [first!, ...(isCut ? others.toReversed() : others)];
      const now = (step as unknown as Record<string, unknown>)[name] ?? field.initial;
      const [next, title] = options[(options.findIndex(([value]) => value === now) + 1) % options.length]!;
      return [
        { id: name, title: `${title[0]!.toUpperCase()}${title.slice(1)}`, key, run: () => bench.setField(name, next) },
      ];
    });
    return [...(turned?.(step) ? [turn] : []), ...words];
  }

  function sketchVerbs(): Verb[] {
    const [editor, state] = [bench.editor!, bench.sketching!];
    const toolVerb = ([tool, key, title]: (typeof TOOL_KEYS)[number]): Verb => ({
      id: tool,
      title,
      key,
      run: () => editor.take(tool),
    });
    const tools = TOOL_KEYS.map(toolVerb);
    const done: Verb = { id: 'done', title: 'Close sketch', key: 'L', run: () => bench.leaveSketch() };
    const cutOpen: Verb = {
      id: 'cut-open',
      title: looking.cutAtSketch ? 'Show what is in front' : 'Cut open at the sketch',
      key: '',
      run: () => (looking.cutAtSketch = !looking.cutAtSketch),
    };
    const fromFile: Verb = { id: 'from-file', title: 'Outline from a DXF or SVG file', key: '', run: chooseFile };
    if (state.selection.size === 0)
      return [
        ...tools.slice(0, 5),
        done,
        ...EDIT_TOOLS.map(toolVerb),
        ...tools.slice(5),
        cutOpen,
        ...amongVerb(),
        fromFile,
      ];
    const picks = [...state.selection];
    const fitting = new Set(fittingRelations(state));
    const relations = OFFERED_RELATIONS.filter(({ kind }) => fitting.has(kind));
    const relationVerb = ({ kind, title, key }: (typeof relations)[number]): Verb => ({
      ...{ id: kind, title, key, run: () => tell(editor.relate(kind)) },
    });
    const areDrawn = picks.every((id) => !Object.hasOwn(state.borrowed, id) || state.sketch.entities[id]);
    const edits = EDIT_VERBS.filter((verb) => areDrawn && verb.fits(state.geometry, picks)).map(
      ({ id, title, key, run }): Verb => ({
        id,
        title,
        key,
        run: () => void run(editor),
      }),
    );
    const lines = picks.some((id) => state.sketch.entities[id]?.kind === 'line');
    const centreline: Verb[] = lines
      ? [{ id: 'centreline', title: 'Centre line', key: '', run: () => void toggleCentreline(editor) }]
      : [];
    const size = tools.find((verb) => verb.id === 'size')!;
    return [
      ...relations.filter(({ last }) => !last).map(relationVerb),
      size,
      ...relations.filter(({ last }) => last).map(relationVerb),
      { id: 'construction', title: 'Construction', key: 'Y', run: () => void toggleConstruction(editor) },
      { id: 'erase', title: 'Erase', key: 'Del', run: () => void editor.erase() },
      ...edits,
      ...SELECTION_TOOLS.map(toolVerb),
      ...centreline,
      ...tools.filter((verb) => verb !== size),
      // offset is there for what is selected
      ...EDIT_TOOLS.filter(([tool]) => tool !== 'offset').map(toolVerb),
      done,
    ];
  }

  function partVerbs(): Verb[] {
    const { part } = bench;
    if (!part) return [];
    const next = bench.nextSketch();
    const waiting = next !== undefined && !usedSketches().has(next);
    const planes = (Object.entries(PLANE_NAMES) as [OriginPlane, string][]).map(([plane, name], k): Verb => ({
      id: `sketch-${plane}`,
      title: `Sketch on ${name}`,
      key: `${k + 1}`,
      run: () => bench.newSketch(plane),
    }));
    const [flat] = bench.picked.filter(({ thing }) => suits(thing, 'plane'));
    const plane = flat?.reference ?? bench.expectedPlane;
    const here: Verb[] = plane
      ? [{ id: 'sketch-here', title: 'Sketch here', key: 'S', run: () => bench.newSketch(planeAt(plane)) }]
      : [];
    const [datums, steps] = [DATUMS.map(stepVerb), STEPS.map(stepVerb)];
    // a part is cut open at what is its own
    const cut = flat?.within === undefined ? flat : undefined;
    const section: Verb = {
      id: 'section',
      title: cut ? 'Section here' : 'Section',
      key: 'I',
      run: () =>
        cut
          ? looking.cutAt(cut.reference, planeOf(cut.thing)!.z)
          : looking.cutAt({ to: 'origin', name: 'right' }, ORIGIN_PLANES.right.z),
    };
    // its steps are changed where it is drawn
    if (part.from) return [section, ...amongVerb()];
    const extrude: Verb[] = next === undefined ? [] : [extrudeVerb(next)];
    if (bench.picked.length > 0) {
      const [{ kind, within }] = bench.picked as [(typeof bench.picked)[number]];
      // what is of another part is not changed here
      const isLikely = ({ likely }: Offered) => within === undefined && likely.includes(kind);
      const first = STEPS.filter(isLikely).map(stepVerb);
      const rest = STEPS.filter((step) => !isLikely(step)).map(stepVerb);
      return [...here, ...first, section, ...datums, ...rest, ...extrude, ...planes, ...amongVerb()];
    }
    return [
      ...here,
      ...(waiting ? extrude : []),
      ...planes,
      ...(waiting ? [] : extrude),
      ...steps,
      section,
      ...amongVerb(),
      ...datums,
    ];
  }

  const amongVerb = (): Verb[] =>
    looking.isPlaced
      ? [
          {
            id: 'among',
            title: looking.among ? 'Only this' : 'Among the others',
            key: 'Q',
            run: () => (looking.among = !looking.among),
          },
        ]
      : [];

  const stepVerb = ({ kind, title, key }: Offered): Verb => ({ id: kind, title, key, run: () => bench.draftOf(kind) });
  const extrudeVerb = (sketch: Id): Verb => ({
    id: 'extrude',
    title: `Extrude ${bench.part!.steps[sketch]!.name}`,
    key: EXTRUDE.key,
    run: () => bench.draftOf('extrude', sketch),
  });
  const usedSketches = (): Set<Id> =>
    new Set(Object.values(bench.part!.steps).flatMap((step) => stepKind(step.kind).uses(step)));

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

  const tell = (result: { ok: boolean; issue?: Parameters<typeof explain>[0] }) => {
    if (!result.ok && result.issue) store.message = explain(result.issue);
  };

  return { place, verbs };
}
