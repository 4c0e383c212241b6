<script setup lang="ts">
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/vue';
import { until } from '@vueuse/core';
import { onBeforeUnmount, onMounted, ref, watch, watchEffect } from 'vue';
import type { Id } from '@helb/core';
import BroughtSheet from '../components/brought-sheet.vue';
import BuildSheet from '../components/build-sheet.vue';
import Desk from '../components/desk.vue';
import FirstTasks from '../components/first-tasks.vue';
import PartsList from '../components/parts-list.vue';
import AssemblyDesk from '../components/assembly-desk.vue';
import AssemblyPane from '../components/assembly-pane.vue';
import ViewPane from '../components/view-pane.vue';
import { useWorkbench } from '../stores/workbench.ts';
import { useAssembly } from '../stores/assembly.ts';
import { useJoining } from '../stores/joining.ts';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';

const bench = useWorkbench();
const store = useProject();
const assemblyStore = useAssembly();
const joining = useJoining();
const placements = usePlacements();
/** Steps of the part that is edited, or everything that is placed. */
const kept = `helb tab ${store.id}`;
const tab = ref(sessionStorage.getItem(kept) === '1' ? 1 : 0);
watch(tab, (now) => sessionStorage.setItem(kept, `${now}`));
watchEffect(() => (bench.isWhole = tab.value === 1 && placements.records.length > 0));

/** To a placement among all parts: chosen as soon as they are there. */
async function showWhole(placement: Id) {
  tab.value = 1;
  await until(() => assemblyStore.built !== undefined && assemblyStore.broughtFor === store.project).toBe(true);
  assemblyStore.choose(placements.membersOf(placement).map(({ id }) => id));
}

onBeforeUnmount(() => {
  bench.isWhole = false;
  removeEventListener('pagehide', bench.keepStanding);
  bench.goAway();
});
onMounted(() => bench.comeBack());
// the page may be loaded anew
addEventListener('pagehide', bench.keepStanding);
</script>

<template>
  <main class="flex room">
    <TabGroup
      as="div"
      :selected-index="tab"
      class="border-rule bg-sheet flex w-80 shrink-0 flex-col border-r"
      @change="(next) => (tab = next)"
    >
      <TabList class="border-rule flex h-[38px] shrink-0 gap-4 border-b px-4">
        <Tab v-for="title in ['Steps', 'Parts']" :key="title" v-slot="{ selected }" as="template">
          <button
            class="border-b-2 outline-offset-[-2px]"
            :class="selected ? 'border-ink font-semibold' : 'text-muted border-transparent'"
          >
            {{ title }}
            <span v-if="title === 'Parts'" class="text-muted text-sm font-normal">{{
              store.project?.partOrder.length
            }}</span>
            <span
              v-if="title === 'Parts' && joining.stands.length > 0"
              class="bg-act ml-0.5 inline-block size-1.5 rounded-full align-super"
              title="Something was left open here"
            />
          </button>
        </Tab>
      </TabList>
      <TabPanels class="flex room flex-col">
        <TabPanel class="flex room flex-col" tabindex="-1">
          <BroughtSheet v-if="bench.part?.from" /><BuildSheet v-else />
        </TabPanel>
        <TabPanel class="flex room flex-col" tabindex="-1"><PartsList @edit="tab = 0" /></TabPanel>
      </TabPanels>
      <FirstTasks />
    </TabGroup>
    <template v-if="bench.isWhole"><AssemblyPane /><AssemblyDesk @edit="tab = 0" /></template>
    <template v-else><ViewPane /><Desk @whole="showWhole" /></template>
  </main>
</template>
