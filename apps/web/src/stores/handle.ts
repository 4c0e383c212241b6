import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import {
  add3,
  compose,
  middle3,
  transformPoint,
  scale3,
  valueScope,
  type Id,
  type RigidTransform,
  type Vec3,
  headOf,
} from '@helb/core';
import { drawnPose, memberPose, type Pose } from '@helb/core/assembly';
import { replaced, usePlacements } from './placements.ts';
import { useProject } from './project.ts';
import { useUnits } from './units.ts';
import { useAssembly } from './assembly.ts';

/** Decimals of what is placed by the hand. */
const DIGITS = 3;

/** A pose with some of its bodies moved as one. */
const shiftedBy = (pose: Pose, bodies: ReadonlySet<number>, by: RigidTransform): Pose => ({
  ...pose,
  poses: pose.poses.map((at, k) => (bodies.has(k) ? compose(at, by) : at)),
});

/** The handle by which a placement is shifted and turned: its numbers become what the handle comes to. */
export const useHandle = defineStore('handle', () => {
  const store = useProject();
  const { unit } = useUnits();
  const assemblyStore = useAssembly();
  const placements = usePlacements();
  /** The placement that has it. */
  const on = ref<Id>();
  /** Where everything was when it was taken. */
  let taken: { readonly pose: Pose; readonly moved: Pose | undefined } | undefined;

  // what is let go by choosing something else was not meant
  watch(
    () => placements.only,
    (id) => {
      if (id === on.value) return;
      on.value = undefined;
      if (taken) assemblyStore.moved = taken.moved;
      taken = undefined;
    },
  );

  /** Does nothing that joins it to others hold it? */
  function canHave(id: Id): boolean {
    const { joints = {}, relations = {} } = store.project?.assembly ?? {};
    return ![...Object.values(joints), ...Object.values(relations)].some(({ a, b }) =>
      [a, b].some(({ placement }) => headOf(placement) === id),
    );
  }

  /** Where it is: in the middle of what is placed, as that stands now. */
  const at = computed((): Vec3 | undefined => {
    if (on.value === undefined || !canHave(on.value) || assemblyStore.exploded > 0) return undefined;
    const middles = placements.membersOf(on.value).flatMap((member) => {
      const box = assemblyStore.built?.parts[member.part]?.totals.box_mm;
      const pose = assemblyStore.memberPoses.get(member.id);
      return box && pose ? [transformPoint(pose, middle3(box.low, box.high))] : [];
    });
    return middles.length === 0 ? undefined : scale3(middles.reduce(add3), 1 / middles.length);
  });

  const toggle = (id: Id): void => void (on.value = on.value === id ? undefined : id);

  /** Shows the placement where the handle is drawn to. */
  function follow(by: RigidTransform): void {
    if (on.value === undefined || !assemblyStore.pose) return;
    taken ??= { pose: assemblyStore.pose, moved: assemblyStore.moved };
    const bodies = new Set(placements.membersOf(on.value).map(({ body }) => body));
    assemblyStore.moved = shiftedBy(taken.pose, bodies, by);
  }

  /** Puts it there for good. */
  function letGo(by: RigidTransform): void {
    const [id, before] = [on.value, taken?.pose];
    taken = undefined;
    const placed = id === undefined ? undefined : store.kept?.assembly?.placements[id];
    const { project } = store;
    if (id === undefined || !placed || !before || !project) return;
    const was = drawnPose(placed, valueScope(Object.values(project.values), project.unit));
    const [member] = placements.membersOf(id);
    if (!was.ok || !member) return;
    // a part may have been moved by the hand before; of a group only its numbers tell where it is
    const from = 'part' in placed.of ? memberPose(member, before) : was.value;
    if (placements.set(id, replaced(placed, compose(from, by), was.value, unit.value, DIGITS)).ok)
      assemblyStore.reset();
  }

  return { on, at, canHave, toggle, follow, letGo };
});
