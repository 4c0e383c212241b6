<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import HelbMark from '../components/helb-mark.vue';
import { useSession, type Entering } from '../stores/session.ts';

const session = useSession();
const route = useRoute();
const router = useRouter();
const how = ref<Entering['how']>('in');
const name = ref('');
const password = ref('');
const recovery = ref('');
const code = ref('');
const wantsCode = ref(false);
const codeField = ref<HTMLInputElement>();
const message = ref('');
const busy = ref(false);

const WAYS = {
  in: { does: 'Sign in', isFor: 'I have a name here' },
  up: { does: 'Sign up', isFor: 'I am new here' },
  back: { does: 'Come back in', isFor: 'I have a word to come back in' },
} as const;
const others = computed(() => (['in', 'up', 'back'] as const).filter((way) => way !== how.value));

function go(way: Entering['how']) {
  how.value = way;
  message.value = '';
  wantsCode.value = false;
}

function entering(): Entering {
  if (how.value === 'up') return { how: 'up', name: name.value, newPassword: password.value };
  if (how.value === 'back')
    return { how: 'back', name: name.value, recovery: recovery.value.trim(), newPassword: password.value };
  return { how: 'in', name: name.value, password: password.value, code: wantsCode.value ? code.value : undefined };
}

async function enter() {
  busy.value = true;
  message.value = '';
  try {
    if (await session.enter(entering())) {
      const to = route.query['to'];
      // only a path of our own: never an address that somebody put into a link
      await router.push(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : '/');
    } else {
      // the password is right, and the code is asked for
      how.value = 'in';
      wantsCode.value = true;
      void nextTick(() => codeField.value?.focus());
    }
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
      <label v-if="how === 'back'" class="mb-3 block">
        Word of whoever looks after this server
        <input v-model="recovery" class="field mt-1 font-mono" name="recovery" autocomplete="off" required />
      </label>
      <label class="mb-4 block">
        {{ how === 'back' ? 'New password' : 'Password' }}
        <input
          v-model="password"
          class="field mt-1"
          type="password"
          name="password"
          :autocomplete="how === 'in' ? 'current-password' : 'new-password'"
          :minlength="how === 'in' ? undefined : 10"
          required
        />
        <span v-if="how !== 'in'" class="text-muted text-sm"
          >At least 10 characters; several words that have nothing to do with each other are good.</span
        >
      </label>
      <label v-if="wantsCode" class="mb-4 block">
        Code that your application for codes shows now
        <input
          ref="codeField"
          v-model="code"
          class="field mt-1 font-mono"
          name="code"
          inputmode="numeric"
          autocomplete="one-time-code"
          maxlength="7"
          required
        />
      </label>
      <p v-if="message" class="text-clash mb-3" role="alert">{{ message }}</p>
      <button class="verb-strong" :disabled="busy">{{ WAYS[how].does }}</button>
      <p class="mt-5 flex flex-wrap gap-x-4 gap-y-1">
        <button v-for="way in others" :key="way" type="button" class="word-link" @click="go(way)">
          {{ WAYS[way].isFor }}
        </button>
      </p>
    </form>
  </main>
</template>
