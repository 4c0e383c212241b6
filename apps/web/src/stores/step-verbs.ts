import { isSketch, standingOn, type Action, type Id, type Step } from '@helb/core';
import { useWorkbench } from './workbench.ts';
import { newId } from './ids.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

interface StepVerb {
  readonly title: string;
  readonly run: () => void;
}

/** What can be done with a step of the build sheet, or with several that are chosen. */
export function useStepVerbs(rename: (id: Id, step: Step) => void) {
  const bench = useWorkbench();
  const store = useProject();
  const model = useModel();
  const where = (step: Id) => ({ part: bench.partId!, step });

  const isPlane = (id: Id): boolean => {
    const datum = model.built?.datums[id];
    return datum !== undefined && 'frame' in datum;
  };

  /** Of a variant that is shown the step is left out there; what is left out of the project itself is of all variants. */
  function leaving(step: Id, on: boolean): Action {
    const { variant: id, kept } = store;
    const { part } = where(step);
    if (id === undefined || kept!.parts[part]!.steps[step]!.suppressed)
      return { command: 'step.suppress', input: { ...where(step), on } };
    return { command: 'variant.leave-out', input: { id, part, step, out: on } };
  }

  function suppress(ids: readonly Id[], on: boolean): void {
    store.act(ids.map((id) => leaving(id, on)));
  }

  /** Removes steps at once where nothing stands on them; else the desk asks. */
  function remove(ids: readonly Id[]): void {
    const { needing, naming } = standingOn(bench.part!, ids);
    if (needing.length + naming.length > 0) bench.removing = { steps: ids, needing, naming };
    else removeNow(ids);
  }

  function removeNow(ids: readonly Id[]): void {
    bench.removing = undefined;
    store.act([{ command: 'step.remove', input: { part: bench.partId!, steps: [...ids] } }]);
  }

  function duplicate(id: Id, step: Step): void {
    const input = { ...where(id), id: newId('s'), name: bench.freeName(step.name.replace(/ \d+$/, '')) };
    store.act([{ command: 'step.duplicate', input }]);
  }

  function verbsOf(id: Id, step: Step, at: number): StepVerb[] {
    const { stepOrder } = bench.part!;
    const last = stepOrder.length - 1;
    const move = (title: string, to: number): StepVerb => ({
      title,
      run: () => void store.act([{ command: 'step.move', input: { ...where(id), to } }]),
    });
    return [
      ...(isSketch(step)
        ? [
            { title: 'Open sketch', run: () => bench.editSketch(id) },
            { title: 'Extrude', run: () => bench.draftOf('extrude', id) },
          ]
        : [{ title: 'Change', run: () => bench.editStep(id) }]),
      ...(isPlane(id) ? [{ title: 'Sketch on it', run: () => bench.newSketch({ to: 'datum', step: id }) }] : []),
      { title: 'Rename', run: () => rename(id, step) },
      { title: 'Duplicate', run: () => duplicate(id, step) },
      ...(bench.upTo === undefined ? [] : [{ title: 'Build all', run: () => (bench.upTo = undefined) }]),
      ...(bench.upTo === id || at === last ? [] : [{ title: 'Build up to here', run: () => (bench.upTo = id) }]),
      {
        title: step.suppressed ? 'Take in again' : 'Leave out',
        run: () => suppress([id], !step.suppressed),
      },
      ...(at > 0 ? [move('Move up', at - 1)] : []),
      ...(at < last ? [move('Move down', at + 1)] : []),
      { title: 'Remove', run: () => remove([id]) },
    ];
  }

  return { verbsOf, suppress, remove, removeNow };
}
