import { computed, ref, watch, type Ref } from 'vue';
import { followedBy, PART_COLOURS, undone } from '@helb/core';
import { memberPose } from '@helb/core/assembly';
import { useBench } from '../stores/bench.ts';
import { useLooking } from '../stores/looking.ts';
import { useProject } from '../stores/project.ts';
import { useWhole } from '../stores/whole.ts';
import type { Neighbour } from './others.ts';
import type { Viewport } from './viewport.ts';

/** Keeps what stands round the part in the view, where that was asked for; tells how many. */
export function useOthers(viewport: Ref<Viewport | undefined>) {
  const bench = useBench();
  const looking = useLooking();
  const store = useProject();
  const whole = useWhole();

  const on = computed(() => looking.among && looking.isPlaced);
  /** How many are shown. */
  const count = ref(0);

  watch(
    [on, () => store.project, viewport],
    ([wanted, project, view]) => {
      if (wanted && project && view) void whole.assemble(project, view.knownOthers);
    },
    { immediate: true },
  );
  watch([on, () => whole.whole, () => bench.partId, viewport], ([wanted, all, part, view]) => {
    if (!view) return;
    const members = all?.assembled.members ?? [];
    const own = members.find((member) => member.part === part);
    count.value = wanted && own ? members.length - 1 : 0;
    if (!wanted || !all || !own) return view.setOthers({});
    // seen from the first placement of the part
    const { rest } = all.assembled;
    const back = undone(memberPose(own, rest));
    const neighbours = members
      .filter((member) => member !== own)
      .map((member): Neighbour => {
        const colour = PART_COLOURS[store.project?.parts[member.part]?.colour ?? 0]!;
        const pose = followedBy(memberPose(member, rest), back);
        const named = member.part !== part && !member.id.includes(':');
        return { member: member.id, part: member.part, name: member.name, pose, colour, named };
      });
    const bodies = Object.fromEntries(Object.entries(all.parts).map(([id, one]) => [id, one.bodies]));
    view.setOthers(bodies, neighbours, own.id);
  });

  return count;
}
