<script setup lang="ts">
import { format, formatDistanceToNow } from 'date-fns';
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import AccountMessage from '../components/account-message.vue';
import CodePicture from '../components/code-picture.vue';
import HelbMark from '../components/helb-mark.vue';
import ProofFields from '../components/proof-fields.vue';
import { download } from '../download.ts';
import { useAccount } from '../stores/account.ts';
import { useSession } from '../stores/session.ts';

const account = useAccount();
const session = useSession();
const route = useRoute();
const router = useRouter();
/** Which form is open: one at a time. */
const open = ref<'password' | 'codes' | 'remove'>();
const password = ref('');
const newPassword = ref('');
const code = ref('');
const offer = ref<{ secret: string; uri: string }>();

/** Nothing else is to be had before codes are set. */
const isFirst = computed(() => route.query['first'] === 'codes' && account.card?.secondFactor === false);
onMounted(async () => {
  await account.load();
  if (isFirst.value) await showCodes();
});

function show(form?: typeof open.value) {
  open.value = form;
  password.value = newPassword.value = code.value = '';
  offer.value = undefined;
  account.message = undefined;
}
/** The form closes where it was done; what was done stays to be read. */
async function then(done: Promise<boolean>) {
  if (!(await done)) return;
  const { message } = account;
  show();
  account.message = message;
}
async function showCodes() {
  show('codes');
  if (!account.card?.secondFactor) offer.value = await account.offerCodes();
}
async function goOut(done: Promise<boolean>) {
  if (await done) await router.push({ name: 'enter' });
}

async function takeOut() {
  const zip = await account.takeOut();
  if (zip) download('helb-account.zip', zip, 'application/zip');
}

const day = (text: string) => format(new Date(text), 'd MMMM yyyy');
const ago = (text: string) => formatDistanceToNow(new Date(text), { addSuffix: true });
const MB = 1024 * 1024;
const room = computed(() => {
  const { used, most } = account.card!.room;
  const taken = used < MB / 10 ? 'Less than 0.1' : (used / MB).toFixed(1);
  return { share: used / most, words: `${taken} of ${(most / MB).toFixed(0)} MB` };
});
const spaced = (secret: string) => secret.replace(/(.{4})(?=.)/g, '$1 ');
</script>

<template>
  <div class="bg-paper flex min-h-full flex-col">
    <header class="bg-sheet border-rule flex h-11 items-center gap-4 border-b px-4">
      <RouterLink :to="{ name: 'shelf' }" class="flex items-center gap-2 text-lg font-semibold"
        ><HelbMark />Helb</RouterLink
      >
      <RouterLink :to="{ name: 'shelf' }" class="word-link">Shelf</RouterLink>
      <span class="grow" />
      <span class="text-muted">{{ session.name }}</span>
      <button class="word-link" @click="goOut(account.signOut())">Sign out</button>
    </header>
    <main class="mx-auto w-full max-w-3xl grow p-8">
      <h1 class="mb-1 text-xl font-semibold">Account</h1>
      <AccountMessage of="account" />
      <template v-if="account.card">
        <p class="text-muted mb-6">{{ account.card.name }}, since {{ day(account.card.createdAt) }}</p>

        <section class="border-rule border-t py-4">
          <h2 class="heading mb-1">Room</h2>
          <p :class="room.share > 0.9 ? 'text-loose' : ''">
            {{ room.words }} are taken by projects, their logs, pictures and files.
            <template v-if="room.share > 0.9">Soon nothing more can be kept: remove what you do not need.</template>
          </p>
          <div class="bg-chip border-rule mt-2 h-2 w-64 border" aria-hidden="true">
            <div class="bg-ink h-full" :style="{ width: `${100 * Math.min(room.share, 1)}%` }" />
          </div>
        </section>

        <section class="border-rule border-t py-4">
          <h2 class="heading mb-1">Password</h2>
          <p class="text-muted mb-2">
            <template v-if="account.card.passwordAt">Set {{ ago(account.card.passwordAt) }}.</template>
            When it changes, you are signed out everywhere else.
          </p>
          <form
            v-if="open === 'password'"
            class="max-w-sm space-y-3"
            @submit.prevent="then(account.changePassword(password, code, newPassword))"
          >
            <ProofFields v-model:password="password" v-model:code="code" :wants-code="account.card.secondFactor" />
            <label class="block">
              New password
              <input
                v-model="newPassword"
                class="field mt-1"
                type="password"
                autocomplete="new-password"
                minlength="10"
                required
              />
              <span class="text-muted text-sm">At least 10 characters.</span>
            </label>
            <button class="verb-strong mr-3" :disabled="account.busy">Change the password</button>
            <button type="button" class="word-link" @click="show()">Leave it</button>
          </form>
          <button v-else class="word-link" @click="show('password')">Change the password …</button>
          <AccountMessage of="password" />
        </section>

        <section class="border-rule border-t py-4">
          <h2 class="heading mb-1">One-time codes</h2>
          <p v-if="isFirst" class="text-loose mb-2">
            This server asks everybody for codes. Set them now, then all else opens.
          </p>
          <p class="text-muted mb-2">
            {{
              account.card.secondFactor
                ? 'Beside the password a code is asked for, which an application on your phone shows.'
                : account.card.canHaveSecondFactor
                  ? 'A second lock: beside the password a code can be asked for, which an application on your phone shows.'
                  : 'This server is not set up for codes.'
            }}
          </p>
          <form
            v-if="open === 'codes' && account.card.secondFactor"
            class="max-w-sm space-y-3"
            @submit.prevent="then(account.dropCodes(password, code))"
          >
            <ProofFields v-model:password="password" v-model:code="code" wants-code />
            <button class="verb-strong mr-3" :disabled="account.busy">Ask for no codes</button>
            <button type="button" class="word-link" @click="show()">Leave it</button>
          </form>
          <form
            v-else-if="open === 'codes' && offer"
            class="flex flex-wrap gap-6"
            @submit.prevent="then(account.askForCodes(password, code, offer.secret))"
          >
            <div class="w-48">
              <CodePicture :text="offer.uri" class="border-rule w-48 border" />
            </div>
            <div class="max-w-sm grow space-y-3">
              <p>
                Point the application's camera at the squares, or type this into it. Keep it to yourself.
                <code class="chip mt-1 select-all">{{ spaced(offer.secret) }}</code>
              </p>
              <ProofFields v-model:password="password" v-model:code="code" wants-code />
              <p class="text-muted text-sm">
                Who loses the phone comes back in through whoever looks after this server.
              </p>
              <button class="verb-strong mr-3" :disabled="account.busy">Ask for codes</button>
              <button type="button" class="word-link" @click="show()">Leave it</button>
            </div>
          </form>
          <button
            v-else-if="account.card.secondFactor || account.card.canHaveSecondFactor"
            class="word-link"
            @click="showCodes"
          >
            {{ account.card.secondFactor ? 'Ask for no codes …' : 'Ask for codes …' }}
          </button>
          <AccountMessage of="codes" />
        </section>

        <section class="border-rule border-t py-4">
          <h2 class="heading mb-1">Where you are signed in</h2>
          <ul class="mb-2">
            <li
              v-for="place in account.card.sessions"
              :key="place.id"
              class="border-rule flex items-baseline gap-4 border-b py-1.5"
            >
              <span class="min-w-0 grow">
                <span :class="place.isThis ? 'font-semibold' : ''">{{
                  place.isThis ? 'here' : `used ${ago(place.seenAt)}`
                }}</span>
                <span class="text-muted">
                  · since {{ day(place.openedAt)
                  }}<template v-if="place.address"> · from {{ place.address }}</template></span
                >
                <span class="text-muted block truncate text-sm" :title="place.device">{{ place.device }}</span>
              </span>
              <button v-if="!place.isThis" class="word-link shrink-0" @click="account.endSession(place.id)">
                End it
              </button>
            </li>
          </ul>
          <button class="word-link" @click="goOut(account.signOutEverywhere())">Sign out everywhere, here too</button>
          <AccountMessage of="sessions" />
        </section>

        <section class="border-rule border-y py-4">
          <h2 class="heading mb-1">What is yours</h2>
          <p class="text-muted mb-2">
            One zip with all projects, each to be imported again, their logs and files, and what is known of you.
          </p>
          <button class="word-link" :disabled="account.busy" @click="takeOut">Take everything out</button>
          <AccountMessage of="export" />
          <div class="mt-4">
            <form
              v-if="open === 'remove'"
              class="max-w-sm space-y-3"
              @submit.prevent="goOut(account.remove(password, code))"
            >
              <p class="text-clash">
                The account and all of its projects are gone for good then. Take everything out first.
              </p>
              <ProofFields v-model:password="password" v-model:code="code" :wants-code="account.card.secondFactor" />
              <button class="verb text-clash mr-3" :disabled="account.busy">Remove the account</button>
              <button type="button" class="word-link" @click="show()">Keep it</button>
            </form>
            <button v-else class="text-muted hover:text-ink hover:underline" @click="show('remove')">
              Remove the account …
            </button>
            <AccountMessage of="remove" />
          </div>
        </section>
      </template>
    </main>
  </div>
</template>
