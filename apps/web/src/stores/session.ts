import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, ApiError } from '../sync/api.ts';

/** Who is here. */
export const useSession = defineStore('session', () => {
  const name = ref<string>();

  /** Asks the server once; undefined if nobody has signed in. */
  async function look(): Promise<string | undefined> {
    if (name.value === undefined)
      name.value = await api.whoAmI().then(
        (me) => me.name,
        (error: unknown) => {
          if (error instanceof ApiError && error.status === 401) return undefined;
          throw error;
        },
      );
    return name.value;
  }

  async function enter(how: 'in' | 'up', credentials: { name: string; password: string }): Promise<void> {
    name.value = (await (how === 'in' ? api.signIn(credentials) : api.signUp(credentials))).name;
  }

  async function leave(): Promise<void> {
    await api.signOut();
    name.value = undefined;
  }

  return { name, look, enter, leave };
});
