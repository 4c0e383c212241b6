<script setup lang="ts">
/** Who somebody is, once more: before what can not be taken back. */
const password = defineModel<string>('password', { required: true });
const code = defineModel<string>('code', { required: true });
defineProps<{ readonly wantsCode: boolean }>();
</script>

<template>
  <label class="block">
    Your password
    <input v-model="password" class="field mt-1" type="password" autocomplete="current-password" required />
  </label>
  <label v-if="wantsCode" class="block">
    Code of now
    <input
      v-model="code"
      class="field mt-1 font-mono"
      inputmode="numeric"
      autocomplete="one-time-code"
      maxlength="7"
      required
    />
  </label>
</template>
