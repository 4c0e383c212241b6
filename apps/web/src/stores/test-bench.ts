import { createPinia, setActivePinia } from 'pinia';
import {
  explain,
  faceName,
  fail,
  ok,
  ORIGIN_DATUMS,
  perform,
  ProjectScript,
  valueScope,
  type Action,
  type Id,
  type OriginThing,
  type Project,
  type Reference,
  type Thing,
} from '@helb/core';
import { assemble, placementOf, restPose, triple } from '@helb/core/assembly';
import type { MemberPick } from '../view/placed-picks.ts';
import { useJoining } from './joining.ts';
import { usePlacements } from './placements.ts';
import { useProject } from './project.ts';
import { useAssembly } from './assembly.ts';

/** A frame, an arm and a lid that are placed, without bodies: only what every part has can be picked. */
export function testBench(more: (script: ProjectScript) => unknown = () => undefined) {
  setActivePinia(createPinia());
  const script = new ProjectScript('Box').do('value.add', { id: 'v1', name: 'reach', expression: '40 mm' });
  for (const id of ['frame', 'arm', 'lid']) script.do('part.add', { id, name: id });
  script
    .do('placement.add', { id: 'f', record: placementOf('Frame', { part: 'frame' }, true) })
    .do('placement.add', { id: 'a', record: { ...placementOf('Arm', { part: 'arm' }), at: triple('reach', '0', '0') } })
    .do('placement.add', { id: 'l', record: placementOf('Lid', { part: 'lid' }) });
  more(script);
  const store = useProject();
  const assemblyStore = useAssembly();
  let project: Project = script.project;
  const show = () => {
    store.view = { project, stacks: { undo: [], redo: [] }, state: { kind: 'keeping' }, lost: undefined, clashes: [] };
    const shown = store.project!;
    const assembled = assemble(shown.assembly!, {
      scope: valueScope(Object.values(shown.values), shown.unit),
      groups: shown.groups ?? {},
      find: (_, reference: Reference) =>
        reference.to === 'origin'
          ? ok<Thing>({ to: 'datum', datum: ORIGIN_DATUMS[reference.name] })
          : fail('reference.gone', { to: reference.to }),
      sizeOf: () => 50,
      restPose,
    });
    assemblyStore.broughtFor = shown;
    assemblyStore.built = {
      kind: 'assembly',
      parts: {},
      assembled,
      billOfMaterials: [],
      findings: [],
      took: 0,
      memory: 0,
    };
  };
  const acted: Action[] = [];
  store.act = (actions: readonly Action[]) => {
    const done = perform(project, actions);
    if (!done.ok) {
      store.message = explain(done.issue);
      return done;
    }
    project = done.value.project;
    acted.push(...actions);
    show();
    return ok(undefined);
  };
  show();
  return {
    store,
    assemblyStore,
    acted,
    joining: useJoining(),
    placements: usePlacements(),
    project: () => project,
    show,
  };
}

export const pick = (member: Id, name: OriginThing, kind: MemberPick['kind'] = 'guide'): MemberPick => ({
  kind,
  body: '',
  name,
  reference: { to: 'origin', name },
  thing: { to: 'datum', datum: ORIGIN_DATUMS[name] },
  depth: 0,
  member,
  at: [0, 0, 0],
});

/** A flat face that looks along a normal, so high. */
export const face = (member: Id, normal: readonly [number, number, number], at = 0): MemberPick => ({
  ...pick(member, 'top', 'face'),
  reference: { to: 'face', name: faceName(member, 'end') },
  thing: {
    to: 'face',
    body: 0,
    face: {
      name: faceName(member, 'end'),
      surface: { form: 'plane', origin: [0, 0, at], normal },
      area: 1,
      centre: [0, 0, at],
    },
    topology: { name: 'b', faces: [], edges: [], vertices: [] },
  },
});

/** A round edge about the z axis. */
export const rim = (member: Id): MemberPick => ({
  ...pick(member, 'z', 'edge'),
  thing: {
    to: 'edge',
    body: 0,
    edge: {
      name: 'rim',
      faces: [],
      curve: { form: 'circle', centre: [0, 0, 0], axis: [0, 0, 1], radius: 4 },
      length: 8 * Math.PI,
      middle: [4, 0, 0],
    },
  },
});
