import { ok, perform, ProjectScript, type Project, type SketchSources, type Vec2 } from '@helb/core';
import { SketchEditor } from '../src/editor/sketch-editor.ts';
import { toolOf } from '../src/verbs/tool-verbs.ts';
import type { ToolName } from '../src/editor/tools.ts';
import type { Under } from '../src/editor/borrow-tool.ts';
import type { PointerAt } from '../src/editor/tool.ts';

/** A person with an empty sketch: clicks are sketch millimetres, 1 mm is near. */
export function desk() {
  const script = new ProjectScript('Test').do('part.add', { id: 'p', name: 'P' });
  script.do('step.add', {
    part: 'p',
    id: 's',
    step: { kind: 'sketch', name: 'S', plane: 'top', entities: {}, relations: {} },
  });
  /** What the model has for the sketch: set by a test. */
  const model: { sources: SketchSources | undefined; under: Under[]; underlay: Vec2[][] } = {
    ...{ sources: undefined, under: [], underlay: [] },
  };
  let project: Project = script.project;
  const before: Project[] = [];
  const labels: string[] = [];
  const refusals: string[] = [];
  const editor = new SketchEditor('p', 's', {
    project: () => project,
    newId: script.newId,
    sources: () => model.sources,
    under: () => model.under,
    crossings: () => [],
    underlay: () => model.underlay,
    toolOf,
    told: (issue) => refusals.push(issue.code),
    act(actions) {
      const done = perform(project, actions);
      if (!done.ok) return done;
      before.push(project);
      project = done.value.project;
      labels.push(done.value.change.label);
      return ok(undefined);
    },
  });
  const pointer = (at: Vec2, more: Partial<PointerAt> = {}): PointerAt => ({
    at,
    reach: 1,
    free: false,
    add: false,
    ...more,
  });
  return {
    editor,
    model,
    labels,
    refusals,
    project: () => project,
    click(at: Vec2, more?: Partial<PointerAt>) {
      editor.pointer('move', pointer(at, more));
      editor.pointer('down', pointer(at, more));
      editor.pointer('up', pointer(at, more));
    },
    drag(from: Vec2, to: Vec2) {
      editor.pointer('down', pointer(from));
      for (let k = 1; k <= 5; k++)
        editor.pointer('move', pointer([from[0] + ((to[0] - from[0]) * k) / 5, from[1] + ((to[1] - from[1]) * k) / 5]));
      editor.pointer('up', pointer(to));
    },
    undo() {
      project = before.pop()!;
      editor.refresh();
    },
    draw(tool: ToolName, ...places: Vec2[]) {
      editor.take(tool);
      for (const place of places) this.click(place);
      editor.take('select');
    },
    kinds: () =>
      Object.values(editor.relations)
        .map((relation) => relation.kind)
        .sort(),
    state: () => [editor.solved.solution.state, editor.solved.solution.freedoms],
  };
}

type Desk = ReturnType<typeof desk>;

/** Types texts at the pointer: the first key opens the numbers, Tab goes on, an empty text leaves one to the pointer. */
export function type({ editor }: Desk, ...texts: string[]) {
  if (!editor.typing.entry && !editor.key(/^\d/.exec(texts[0]!)?.[0] ?? 'Tab')) throw new Error('nothing is asked for');
  texts.forEach((text, k) => {
    if (k > 0) editor.typing.step(1);
    editor.typing.type(text);
  });
  return editor.typing.take();
}

/** The pointer over a place. */
export const move = ({ editor }: Desk, at: Vec2) => editor.pointer('move', { at, reach: 1, free: false, add: false });
