<script setup lang="ts">
import { RouterView } from 'vue-router';
import KeysSheet from './components/keys-sheet.vue';
</script>

<template>
  <RouterView />
  <KeysSheet />
</template>
