<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useFirstTasks } from '../stores/first-tasks.ts';
import { TASKS } from '../tasks/tasks.ts';

/** The short tasks of the first hour, below what they are about. */
const tasks = useFirstTasks();
const at = computed(() => tasks.progress?.task ?? 0);
const task = computed(() => TASKS[at.value]);
const isDone = (k: number) => tasks.progress?.done.includes(k) ?? false;
</script>

<template>
  <section
    v-if="tasks.isShown && tasks.progress"
    class="border-ink bg-lit max-h-1/2 shrink-0 overflow-y-auto border-t px-4 py-3 text-sm"
    aria-label="Three short tasks"
  >
    <div class="flex items-baseline gap-3">
      <h2 class="font-semibold">{{ task ? task.title : 'All three are done' }}</h2>
      <nav class="flex gap-1.5" aria-label="Tasks">
        <button
          v-for="({ title }, k) in TASKS"
          :key="title"
          class="hover:border-ink border px-1.5 font-mono text-[12px]"
          :class="k === at ? 'border-ink' : 'border-rule'"
          :title="isDone(k) ? `${title}: done; again` : title"
          :aria-label="title"
          :aria-current="k === at ? 'step' : undefined"
          @click="tasks.begin(k)"
        >
          {{ isDone(k) ? '✓' : k + 1 }}
        </button>
      </nav>
      <span class="grow" />
      <button class="word-link" title="Found again by Space: short tasks" @click="tasks.leave()">leave</button>
    </div>
    <ol v-if="task" class="mt-1 space-y-1" role="status">
      <li
        v-for="(line, k) in task.lines"
        :key="line.says"
        :aria-current="k === tasks.progress.line ? 'step' : undefined"
        :class="k > tasks.progress.line ? 'text-muted' : ''"
      >
        <span class="inline-block w-5" :class="k < tasks.progress.line ? 'text-link' : ''">{{
          k < tasks.progress.line ? '✓' : k === tasks.progress.line ? '→' : '·'
        }}</span>
        <span :class="k === tasks.progress.line ? 'font-semibold' : ''">{{ line.says }}</span>
        <p v-if="k === tasks.progress.line" class="ml-5">{{ line.how }}</p>
      </li>
    </ol>
    <p v-else class="mt-1" role="status">
      That is the whole way: drawn, made, moved. Space finds every verb,
      <RouterLink class="word-link" to="/help">the help</RouterLink> tells what each does, ? shows the keys.
    </p>
  </section>
</template>
