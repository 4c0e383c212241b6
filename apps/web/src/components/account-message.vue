<script setup lang="ts">
import { useAccount } from '../stores/account.ts';

/** What came of a command of one part of the account's page. */
defineProps<{ readonly of: string }>();
const account = useAccount();
</script>

<template>
  <p v-if="account.message?.of === of" class="mt-2" :class="account.message.isDone ? '' : 'text-clash'" role="alert">
    {{ account.message.text }}
  </p>
</template>
