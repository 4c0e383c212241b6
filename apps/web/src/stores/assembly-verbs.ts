import { isRepeat } from '@helb/core';
import { computed } from 'vue';
import { frameOf, JOINTS, offeredJoints } from '@helb/core/assembly';
import type { MemberPick } from '../view/placed-picks.ts';
import { useHandle } from './handle.ts';
import { newId } from './ids.ts';
import { useJoining } from './joining.ts';
import { usePlacements } from './placements.ts';
import { useProject } from './project.ts';
import type { Verb } from './verbs.ts';
import { useAssembly } from './assembly.ts';

/** The verbs of the whole, most likely first. */
export function useAssemblyVerbs() {
  const assemblyStore = useAssembly();
  const joining = useJoining();
  const placements = usePlacements();
  const handle = useHandle();
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

  const verbs = computed((): Verb[] => {
    if (joining.draft)
      return [
        { id: 'accept', title: 'Accept', key: 'Enter', run: () => void joining.accept() },
        { id: 'leave', title: 'Leave', key: 'Esc', run: () => joining.leave() },
        ...(joining.turned
          ? [{ id: 'turn', title: 'The other way', key: 'W', run: () => void joining.change(joining.turned!) }]
          : []),
      ];
    const joints = offeredJoints(JOINTS).map(({ kind, title, key }): Verb => ({
      ...{ id: `joint-${kind}`, title, key, run: () => joining.begin('joint', kind) },
    }));
    const relate: Verb = {
      id: 'relate',
      title: 'Relate',
      key: 'R',
      run: () => joining.begin('relation', 'coincident'),
    };
    const reset: Verb[] = assemblyStore.moved
      ? [{ id: 'reset', title: 'Back to rest', key: '0', run: () => assemblyStore.reset() }]
      : [];
    const look: Verb = {
      id: 'interference',
      title: 'Look for overlaps',
      key: 'I',
      run: () => void assemblyStore.lookForInterference(0),
    };
    const showAll: Verb[] =
      assemblyStore.hidden.size > 0
        ? [{ id: 'show-all', title: 'Show all', key: 'A', run: () => (assemblyStore.hidden = new Set()) }]
        : [];
    const ids = placements.chosen;
    if (ids.length === 0) return [...reset, ...joints.slice(0, 3), relate, look, ...showAll, ...joints.slice(3)];
    const [only] = assemblyStore.picked.length === 1 ? assemblyStore.picked : [];
    const traced: Verb[] =
      only && only.kind !== 'body' && !isRepeat(only.member) && frameOf(only.thing)
        ? [{ id: 'trace', title: 'Trace this point', key: 'T', run: () => trace(only) }]
        : [];
    const { only: single, record } = placements;
    const of = record?.of;
    const opposite: Verb[] =
      of && 'part' in of
        ? [{ id: 'opposite', title: 'Opposite hand of it', key: '', run: () => placements.placeOpposite(of.part) }]
        : [];
    const apart: Verb[] =
      of && 'group' in of
        ? [{ id: 'dissolve', title: 'Take the group apart', key: '', run: () => placements.dissolve(single!) }]
        : [];
    const handled: Verb[] =
      single !== undefined && handle.canHave(single)
        ? [
            {
              id: 'handle',
              title: handle.on === single ? 'Put the handle away' : 'Shift and turn',
              key: 'M',
              run: () => handle.toggle(single),
            },
          ]
        : [];
    const held = ids.every((id) => store.project?.assembly?.placements[id]?.held);
    const members = ids.flatMap((id) => placements.membersOf(id).map((member) => member.id));
    const seen: Verb[] = [
      {
        id: 'only',
        title: 'Only this',
        key: 'O',
        run: () => {
          const shown = new Set(members);
          assemblyStore.hidden = new Set(
            assemblyStore.assembled?.members.map(({ id }) => id).filter((id) => !shown.has(id)),
          );
        },
      },
      { id: 'hide', title: 'Hide', key: 'E', run: () => assemblyStore.toggleHidden(members, true) },
      {
        id: 'hold',
        title: held ? 'Let go' : 'Hold still',
        key: 'H',
        run: () =>
          void store.act(ids.map((id) => ({ command: 'placement.set', input: { id, fields: { held: !held } } }))),
      },
    ];
    // picked as a whole it is looked at; what is picked of it is joined
    const asWhole = assemblyStore.picked.every(({ kind }) => kind === 'body');
    const first = [...joints.slice(0, 3), relate];
    return [
      ...(ids.length > 1 ? [{ id: 'gather', title: 'Make a group', key: 'G', run: () => placements.gather(ids) }] : []),
      ...(asWhole ? [...handled, ...seen, ...first] : [...first, ...handled, ...seen]),
      ...traced,
      ...opposite,
      ...apart,
      ...showAll,
      ...(assemblyStore.moved && placements.canPut(ids)
        ? [{ id: 'put', title: 'Put it here for good', key: 'U', run: () => placements.putHere(ids) }]
        : []),
      { id: 'remove', title: 'Remove', key: 'Del', run: () => placements.remove(ids) },
      ...reset,
      look,
      ...joints.slice(3),
    ];
  });

  return { place, verbs };
}
