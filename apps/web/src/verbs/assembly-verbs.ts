import { isRepeat, type Id } from '@helb/core';
import { computed } from 'vue';
import { frameOf, JOINTS, offeredJoints } from '@helb/core/assembly';
import type { MemberPick } from '../view/placed-picks.ts';
import { useAssembly } from '../stores/assembly.ts';
import { useFirstTasks } from '../stores/first-tasks.ts';
import { useHandle } from '../stores/handle.ts';
import { newId } from '../stores/ids.ts';
import { useJoining } from '../stores/joining.ts';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';
import { accepting, leaving, showingTasks, wanting, type Verb } from './verb.ts';

/** The verbs of the whole, most likely first. */
export function useAssemblyVerbs() {
  const assemblyStore = useAssembly();
  const joining = useJoining();
  const placements = usePlacements();
  const handle = useHandle();
  const tasks = useFirstTasks();
  const store = useProject();

  const place = computed(() => {
    if (joining.draft) return joining.draft.sort === 'joint' ? 'Joining' : 'Relating';
    if (placements.chosen.length > 1) return `${placements.chosen.length} picked`;
    return assemblyStore.picked.length > 0 ? 'Picked' : 'The whole';
  });

  /** Tells where a point of a placement comes along: the middle of what is picked. */
  function trace({ member, reference }: MemberPick): void {
    const count = Object.keys(store.kept?.assembly?.traces ?? {}).length + 1;
    const record = {
      name: `Point ${count} of ${assemblyStore.nameOf(member)}`.slice(0, 60),
      placement: member,
      on: reference,
    };
    store.act([{ command: 'trace.add', input: { id: newId('t'), record } }]);
  }

  const verbs = computed((): readonly Verb[] => (joining.draft ? joiningVerbs() : wholeVerbs()));

  function joiningVerbs(): readonly Verb[] {
    const turn: Verb = {
      ...{ id: 'turn', title: 'The other way', key: 'W' },
      says: 'Turns it round: faces look along each other or against, numbers count to the other side.',
      run: () => void joining.change(joining.turned!),
    };
    const { sort, keep } = joining.draft!;
    const stay: Verb = {
      ...{ id: 'stay', title: keep ? 'Move into place' : 'Keep where they are', key: 'K' },
      says: 'Joins two parts as they stand: nothing moves, and of the second nothing but the part is chosen.',
      run: () => void joining.change({ keep: !keep }),
    };
    return [
      ...[accepting(() => void joining.accept()), leaving(() => joining.leave())],
      ...(joining.turned ? [turn] : []),
      ...(sort === 'joint' ? [stay] : []),
    ];
  }

  function wholeVerbs(): readonly Verb[] {
    const ids = placements.chosen;
    const { only: single, record } = placements;
    const [only] = assemblyStore.picked.length === 1 ? assemblyStore.picked : [];
    const onChosen = (verb: Verb, isThere = ids.length > 0, wants = 'a part'): Verb =>
      isThere ? verb : wanting(verb, wants);

    const joints = offeredJoints(JOINTS).map(({ kind, ...told }): Verb => ({
      ...{ id: `joint-${kind}`, ...told },
      run: () => joining.begin('joint', kind),
    }));
    const relate: Verb = {
      ...{ id: 'relate', title: 'Relate', key: 'R' },
      says: 'Keeps two things of two parts together: flush, concentric, at a distance, at an angle.',
      run: () => joining.begin('relation', 'coincident'),
    };
    const first = [...joints.slice(0, 3), relate];
    const rest = [...joints.slice(3), showingTasks(() => tasks.begin())];
    const reset: Verb = {
      ...{ id: 'reset', title: 'Back to rest', key: '0' },
      says: 'Puts everything back to where the design has it.',
      ...(assemblyStore.moved ? {} : { lacks: 'Everything is at rest.' }),
      run: () => assemblyStore.reset(),
    };
    const look: Verb = {
      ...{ id: 'interference', title: 'Look for overlaps', key: 'I' },
      says: 'Finds where parts stand in each other: interference, with its volume.',
      run: () => void assemblyStore.lookForInterference(0),
    };
    const showAll: Verb = {
      ...{ id: 'show-all', title: 'Show all', key: 'A' },
      says: 'Shows again what was hidden.',
      ...(assemblyStore.hidden.size > 0 ? {} : { lacks: 'Nothing is hidden.' }),
      run: () => (assemblyStore.hidden = new Set()),
    };
    const traced = onChosen(
      {
        ...{ id: 'trace', title: 'Trace this point', key: 'T' },
        says: 'Draws the path of a point while parts move.',
        run: () => trace(only!),
      },
      only !== undefined && only.kind !== 'body' && !isRepeat(only.member) && frameOf(only.thing) !== undefined,
      'a corner, an edge or a face',
    );
    const of = record?.of;
    const opposite = onChosen(
      {
        ...{ id: 'opposite', title: 'Opposite hand of it', key: '' },
        says: 'Places the mirror image of a part, which follows it.',
        run: () => placements.placeOpposite((of as { part: Id }).part),
      },
      of !== undefined && 'part' in of,
    );
    const apart = onChosen(
      {
        ...{ id: 'dissolve', title: 'Take the group apart', key: '' },
        says: 'Leaves the members of a group each on its own.',
        run: () => placements.dissolve(single!),
      },
      of !== undefined && 'group' in of,
      'a group',
    );
    const handled = onChosen(
      {
        id: 'handle',
        title: single !== undefined && handle.on === single ? 'Put the handle away' : 'Shift and turn',
        key: 'M',
        says: 'Shifts and turns a part by arrows and rings, or by numbers.',
        run: () => handle.toggle(single!),
      },
      single !== undefined && handle.canHave(single),
      'one part that is free to move',
    );
    const gather = onChosen(
      {
        ...{ id: 'gather', title: 'Make a group', key: 'G' },
        says: 'Makes a group of parts: a subassembly that is placed and moved as one.',
        run: () => placements.gather(ids),
      },
      ids.length > 1,
      'two parts or more',
    );
    const put = onChosen(
      {
        ...{ id: 'put', title: 'Put it here for good', key: 'U' },
        says: 'Makes where parts were moved to where the design has them.',
        run: () => placements.putHere(ids),
      },
      assemblyStore.moved && placements.canPut(ids),
      'a part that was moved and is free to',
    );
    const remove = onChosen({
      ...{ id: 'remove', title: 'Remove', key: 'Del' },
      says: 'Takes parts out of the whole; they stay on the bench.',
      run: () => placements.remove(ids),
    });
    const seen = seeing(ids).map((verb) => onChosen(verb));
    // picked as a whole it is looked at; what is picked of it is joined
    const asWhole = assemblyStore.picked.every(({ kind }) => kind === 'body');
    if (ids.length === 0)
      return [reset, ...first, look, showAll, ...rest, gather, handled, ...seen, traced, opposite, apart, put, remove];
    return [
      gather,
      ...(asWhole ? [handled, ...seen, ...first] : [...first, handled, ...seen]),
      ...[traced, opposite, apart, showAll, put, remove, reset, look],
      ...rest,
    ];
  }

  /** What parts are seen by, and whether they stand still. */
  function seeing(ids: readonly Id[]): Verb[] {
    const held = ids.every((id) => store.project?.assembly?.placements[id]?.held);
    const members = ids.flatMap((id) => placements.membersOf(id).map((member) => member.id));
    return [
      {
        ...{ id: 'only', title: 'Only this', key: 'O' },
        says: 'Hides everything else.',
        run() {
          const shown = new Set(members);
          assemblyStore.hidden = new Set(
            assemblyStore.assembled?.members.map(({ id }) => id).filter((id) => !shown.has(id)),
          );
        },
      },
      {
        ...{ id: 'hide', title: 'Hide', key: 'E' },
        says: 'Hides parts in the view; they stay where they are.',
        run: () => assemblyStore.toggleHidden(members, true),
      },
      {
        ...{ id: 'hold', title: held && ids.length > 0 ? 'Let go' : 'Hold still', key: 'H' },
        says: 'Fixes a part in space, or lets it move again.',
        run: () => placements.hold(ids, !held),
      },
    ];
  }

  return { place, verbs };
}
