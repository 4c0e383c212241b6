<script setup lang="ts">
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import HelbMark from '../components/helb-mark.vue';
import { useSession } from '../stores/session.ts';

const session = useSession();
const route = useRoute();
const router = useRouter();
const how = ref<'in' | 'up'>('in');
const name = ref('');
const password = ref('');
const message = ref('');
const busy = ref(false);

async function enter() {
  busy.value = true;
  message.value = '';
  try {
    await session.enter(how.value, { name: name.value, password: password.value });
    const to = route.query['to'];
    // only a path of our own: never an address that somebody put into a link
    await router.push(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : '/');
  } catch (error) {
    message.value = (error as Error).message;
  }
  busy.value = false;
}
</script>

<template>
  <main class="bg-paper grid min-h-full place-items-center p-6">
    <form class="bg-sheet border-rule w-full max-w-sm border p-8" @submit.prevent="enter">
      <h1 class="mb-1 flex items-center gap-2 text-2xl font-semibold"><HelbMark />Helb</h1>
      <p class="text-muted mb-6">Parts that follow their numbers.</p>
      <label class="mb-3 block">
        Name
        <input v-model="name" class="field mt-1" name="name" autocomplete="username" required autofocus />
      </label>
      <label class="mb-4 block">
        Password
        <input
          v-model="password"
          class="field mt-1"
          type="password"
          name="password"
          :autocomplete="how === 'in' ? 'current-password' : 'new-password'"
          required
        />
        <span v-if="how === 'up'" class="text-muted text-sm">At least 10 characters.</span>
      </label>
      <p v-if="message" class="text-clash mb-3" role="alert">{{ message }}</p>
      <div class="flex items-baseline gap-4">
        <button class="verb-strong" :disabled="busy">{{ how === 'in' ? 'Sign in' : 'Sign up' }}</button>
        <button type="button" class="word-link" @click="how = how === 'in' ? 'up' : 'in'">
          {{ how === 'in' ? 'I am new here' : 'I have a name here' }}
        </button>
      </div>
    </form>
  </main>
</template>
