import { computed, ref, watch, type Ref } from 'vue';
import { drawnPart, compose, PART_COLOURS, inverse, isRepeat } from '@helb/core';
import { memberPose } from '@helb/core/assembly';
import { useWorkbench } from '../stores/workbench.ts';
import { useLooking } from '../stores/looking.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import { guidesOf } from './guides.ts';
import type { Neighbour } from './others.ts';
import type { Viewport } from './viewport.ts';

/** Keeps what stands round the part in the view, where that was asked for; tells how many. */
export function useOthers(viewport: Ref<Viewport | undefined>) {
  const bench = useWorkbench();
  const looking = useLooking();
  const store = useProject();
  const assemblyStore = useAssembly();
  const model = useModel();

  const on = computed(() => looking.among && looking.isPlaced);
  /** How many are shown. */
  const count = ref(0);
  /** The last one that was under the pointer: so that its lines can be reached beside it. */
  const pointed = ref<string>();
  const isAsked = computed(() => bench.askedField !== undefined);

  watch(
    [on, () => store.project, viewport],
    ([wanted, project, view]) => {
      if (wanted && project && view) void assemblyStore.assemble(project, view.knownOthers);
    },
    { immediate: true },
  );
  watch([on, () => assemblyStore.built, () => bench.partId, viewport, isAsked], ([wanted, all, part, view, points]) => {
    if (!view) return;
    const members = all?.assembled.members ?? [];
    const own = members.find((member) => member.part === part);
    count.value = wanted && own ? members.length - 1 : 0;
    if (!wanted || !all || !own) return view.setOthers({});
    // seen from the first placement of the part
    const { rest } = all.assembled;
    const back = inverse(memberPose(own, rest));
    const neighbours = members
      .filter((member) => member !== own)
      .map((member): Neighbour => {
        const colour = PART_COLOURS[store.project?.parts[member.part]?.colour ?? 0]!;
        const pose = compose(memberPose(member, rest), back);
        const named = member.part !== part && !isRepeat(member.id);
        const drawn = named && store.project && drawnPart(store.project, member.part);
        const shown = all.parts[member.part];
        const guides = drawn && shown ? guidesOf(drawn, shown, { origin: false, drawn: 'all', points }) : [];
        return { member: member.id, part: member.part, name: member.name, pose, colour, named, guides };
      });
    const bodies = Object.fromEntries(Object.entries(all.parts).map(([id, one]) => [id, one.bodies]));
    view.setOthers(bodies, neighbours, own.id);
    view.pointOther(pointed.value);
  });

  // where something is asked for, the datums and drawn curves of what is under the pointer can be picked too
  const isDrawing = computed(() => bench.sketching !== undefined);
  const under = computed(() => {
    const found = isDrawing.value ? bench.sketching!.tool.pointed : bench.askedField && bench.hovered[0]?.reference;
    return found?.to === 'other' ? found.at : undefined;
  });
  watch([under, isDrawing, isAsked], ([member, drawing, asked]) => {
    if (member !== undefined) pointed.value = member;
    else if (!drawing && !asked) pointed.value = undefined;
  });
  watch([pointed, viewport], ([member, view]) => view?.pointOther(member));

  // and a sketch can borrow where its plane crosses them
  watch(
    [() => on.value && isDrawing.value, () => assemblyStore.built, () => bench.editor?.step],
    async ([wanted, all, sketch], [, , before], onCleanup) => {
      let isOver = false;
      onCleanup(() => (isOver = true));
      // of another plane they say nothing
      if (sketch !== before) bench.around = {};
      const [project, part] = [store.project, bench.partId];
      if (!wanted || !all || !project || part === undefined || sketch === undefined) return;
      const found = await model.engine.crossings(project, part, sketch).catch(() => ({}));
      if (!isOver) bench.around = found;
    },
  );

  return count;
}
