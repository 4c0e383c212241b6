<script setup lang="ts">
import { nextTick, ref, watch } from 'vue';
import { formatQuantity, type Vec2 } from '@helb/core';
import type { EditorState } from '../editor/editor-state.ts';
import type { SketchEditor } from '../editor/sketch-editor.ts';
import FirstUnit from './first-unit.vue';
import NumberTrouble from './number-trouble.vue';

/** The numbers of what is being drawn, beside the pointer: to be read all the time, and to be typed. */
const { editor, state } = defineProps<{
  editor: SketchEditor;
  state: EditorState;
  /** Where the pointer is, px. */
  at: Vec2;
}>();

const fields = ref<HTMLInputElement[]>([]);
watch(
  () => state.entry?.focus,
  async (focus) => {
    if (focus === undefined) return;
    await nextTick();
    const field = fields.value[focus];
    field?.focus();
    // what was begun by a key goes on behind it
    field?.setSelectionRange(field.value.length, field.value.length);
  },
  // it may come back, where for a moment there was nothing to be read
  { immediate: true },
);

const shown = (k: number): string => {
  const { asks, now } = state.tool.sizes[k]!;
  return formatQuantity({ amount: now, dimension: asks }, state.unit, 2);
};

function take() {
  editor.typing.take();
}
</script>

<template>
  <div
    class="pointer-events-none absolute z-10 max-w-64"
    :style="{
      left: `min(${at[0] + 18}px, calc(100% - ${state.entry ? 14.5 : 9}rem))`,
      top: `min(${at[1] + 18}px, calc(100% - ${state.entry?.wrong ? 15 : 9}rem))`,
    }"
    data-testid="drawn-sizes"
  >
    <dl class="bg-paper/90 grid w-max grid-cols-[auto_auto] items-baseline gap-x-2 px-1.5 py-0.5 text-[13px]">
      <template v-for="(size, k) in state.tool.sizes" :key="size.prompt">
        <dt class="text-muted">{{ size.prompt }}</dt>
        <dd v-if="!state.entry" class="font-mono">{{ shown(k) }}</dd>
        <dd v-else>
          <input
            ref="fields"
            class="chip bg-lit pointer-events-auto border px-1.5 py-0.5 outline-none"
            :class="k === state.entry.focus ? 'border-act' : 'border-rule'"
            :value="state.entry.texts[k]"
            :placeholder="shown(k)"
            :size="Math.max(10, state.entry.texts[k]!.length + 1)"
            :aria-label="size.prompt"
            :aria-invalid="state.entry.wrong !== undefined && k === state.entry.focus"
            maxlength="240"
            autocomplete="off"
            @input="editor.typing.type(($event.target as HTMLInputElement).value)"
            @focus="editor.typing.focus(k)"
            @keydown.enter.stop.prevent="take"
            @keydown.tab.stop.prevent="editor.typing.step($event.shiftKey ? -1 : 1)"
            @keydown.esc.stop="editor.escape()"
          />
        </dd>
      </template>
    </dl>
    <FirstUnit v-if="state.entry" />
    <NumberTrouble
      v-if="state.entry?.wrong"
      class="pointer-events-auto mt-1"
      :issue="state.entry.wrong"
      :asks="state.tool.sizes[state.entry.focus]!.asks"
      @named="take"
      @left="editor.escape()"
    />
  </div>
</template>
