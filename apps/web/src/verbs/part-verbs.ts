import { computed } from 'vue';
import {
  applying,
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
import { useFirstTasks } from '../stores/first-tasks.ts';
import { useLooking } from '../stores/looking.ts';
import { usePlacements } from '../stores/placements.ts';
import { useWorkbench } from '../stores/workbench.ts';
import { amongVerb, useSketchVerbs } from './sketch-verbs.ts';
import { accepting, leaving, showingTasks, wanting, type Verb } from './verb.ts';

/** Words of steps that a key changes to the next; turning round has a key of its own. */
const STEPPED = [
  ['result', 'R', 'Changes what becomes of it: a new body, added, cut away, or what both share.'],
  ['extent', 'E', 'Changes how far it goes.'],
  ['ways', 'B', 'Changes whether it goes one way or both.'],
] as const;
/** What only turning round leads to. */
const TURNED = 'backwards';

type Offered = (typeof OFFERED_STEPS)[number];
/** Made in one of several ways from what is picked. */
const DATUMS = OFFERED_STEPS.filter(({ kind }) => stepKind(kind).ways);
/** The extrusion is offered by the name of its sketch. */
const EXTRUDE = OFFERED_STEPS.find(({ kind }) => kind === 'extrude')!;
const STEPS = OFFERED_STEPS.filter((step) => step !== EXTRUDE && !DATUMS.includes(step));

/** Origin planes by their names, all else by the reference itself. */
const planeAt = (reference: Reference): SketchPlane =>
  reference.to === 'origin' ? (reference.name as OriginPlane) : reference;

/** The verbs of a part, of its sketch or its step in the making, most likely first. */
export function usePartVerbs() {
  const bench = useWorkbench();
  const looking = useLooking();
  const placements = usePlacements();
  const tasks = useFirstTasks();
  const sketchVerbs = useSketchVerbs();

  const place = computed(() => {
    if (bench.draft) return bench.draft.isNew ? stepKind(bench.draft.step.kind).title : 'Changing';
    if (!bench.editor) return bench.picked.length > 0 ? 'Picked' : 'Part';
    const count = bench.sketching!.selection.size;
    return count > 0 ? `${count} selected` : 'Sketching';
  });

  const verbs = computed((): readonly Verb[] => {
    if (bench.draft) return draftVerbs();
    return bench.editor ? sketchVerbs() : partVerbs();
  });

  /** A step in the making is kept, left, turned round, and its words stepped through. */
  function draftVerbs(): readonly Verb[] {
    const { step } = bench.draft!;
    const { fields = {}, turned } = stepKind(step.kind);
    const { ways } = step as { ways?: string };
    const goesBoth = ways !== undefined && ways !== 'forwards' && ways !== TURNED;
    const turn: Verb = {
      id: 'turn',
      title: goesBoth ? 'One way' : 'The other way',
      key: 'W',
      says: 'Turns it round: to the other side, the other direction.',
      run: () => bench.turnDraft(),
    };
    const words = STEPPED.flatMap(([name, key, says]): Verb[] => {
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
      const capital = `${title[0]!.toUpperCase()}${title.slice(1)}`;
      return [{ id: name, title: capital, key, says, run: () => bench.setField(name, next) }];
    });
    return [
      accepting(() => void bench.acceptDraft()),
      leaving(() => bench.cancelDraft()),
      ...(turned?.(step) ? [turn] : []),
      ...words,
      ...amongVerb(looking),
    ];
  }

  function partVerbs(): readonly Verb[] {
    const { part } = bench;
    if (!part) return [];
    const { sketch, isDue } = bench.likely!;
    const planes = (Object.entries(PLANE_NAMES) as [OriginPlane, string][]).map(([plane, name], k): Verb => ({
      id: `sketch-${plane}`,
      title: `Sketch on ${name}`,
      key: `${k + 1}`,
      says: `Begins a new sketch on the plane ${name} through the origin.`,
      run: () => bench.newSketch(plane),
    }));
    const [flat] = bench.picked.filter(({ thing }) => suits(thing, 'plane'));
    const plane = flat?.reference ?? bench.expectedPlane;
    const sketchHere: Verb = {
      ...{ id: 'sketch-here', title: 'Sketch here', key: 'S' },
      says: 'Begins a new sketch on the flat face or plane that is picked.',
      run: () => bench.newSketch(planeAt(plane!)),
    };
    const [datums, steps] = [DATUMS.map(stepVerb), STEPS.map(stepVerb)];
    // a part is cut open at what is its own
    const cut = flat?.within === undefined ? flat : undefined;
    const section: Verb = {
      id: 'section',
      title: cut ? 'Section here' : 'Section',
      key: 'I',
      says: 'Cuts the view open at a plane; the part stays whole.',
      run: () =>
        cut
          ? looking.cutAt(cut.reference, planeOf(cut.thing)!.z)
          : looking.cutAt({ to: 'origin', name: 'right' }, ORIGIN_PLANES.right.z),
    };
    const rare = [...amongVerb(looking), ...standVerb(), showingTasks(() => tasks.begin())];
    // its steps are changed where it is drawn
    if (part.from) return [section, ...rare];
    const here = plane ? sketchHere : wanting(sketchHere, 'a flat face or a plane');
    const extrude = extrudeVerb(sketch);
    if (bench.picked.length > 0) {
      const [{ kind, within }] = bench.picked as [(typeof bench.picked)[number]];
      // what is of another part is not changed here
      const isLikely = ({ likely }: Offered) => within === undefined && likely.includes(kind);
      const first = STEPS.filter(isLikely).map(stepVerb);
      const rest = STEPS.filter((step) => !isLikely(step)).map(stepVerb);
      return [here, ...first, section, ...datums, ...rest, extrude, ...planes, ...rare];
    }
    return [here, ...(isDue ? [extrude, ...planes] : [...planes, extrude]), ...steps, section, ...rare, ...datums];
  }

  /** Where the part is placed it stands still, or moves. */
  function standVerb(): Verb[] {
    const placed = placements.ofPart(bench.partId);
    if (placed.length === 0) return [];
    const held = placed.every((one) => one.held);
    return [
      {
        ...{ id: 'hold', title: held ? 'Let go' : 'Hold still', key: 'H' },
        says: 'Fixes the part in space where it is placed, or lets it move again.',
        run: () =>
          placements.hold(
            placed.map(({ id }) => id),
            !held,
          ),
      },
    ];
  }

  const stepVerb = ({ kind, title, key, says }: Offered): Verb => ({
    ...{ id: kind, title, key, says },
    run: () => bench.draftOf(kind),
  });
  function extrudeVerb(sketch: Id | undefined): Verb {
    const verb = stepVerb(EXTRUDE);
    if (sketch === undefined) return { ...verb, lacks: 'Draw a sketch with an outline first.' };
    return {
      ...verb,
      title: `Extrude ${bench.part!.steps[sketch]!.name}`,
      run: () => bench.draftOf('extrude'),
    };
  }

  return { place, verbs };
}
