import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, ApiError } from '../sync/api.ts';

/** What is asked for at the door, in each of the ways in. */
export type Entering =
  | { readonly how: 'in'; readonly name: string; readonly password: string; readonly code?: string | undefined }
  | { readonly how: 'up'; readonly name: string; readonly newPassword: string }
  | { readonly how: 'back'; readonly name: string; readonly recovery: string; readonly newPassword: string };

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

  /** Comes in; false where a code is asked for too. */
  async function enter({ how, ...entering }: Entering): Promise<boolean> {
    try {
      const entered =
        'recovery' in entering
          ? await api.comeBack(entering)
          : 'newPassword' in entering
            ? await api.signUp(entering)
            : await api.signIn(entering);
      if ('wants' in entered) return false;
      name.value = entered.name;
      return true;
    } catch (error) {
      const isMissing = how === 'in' && 'password' in entering && entering.code === undefined;
      if (isMissing && error instanceof ApiError && error.facts['wants'] === 'code') return false;
      throw error;
    }
  }

  async function leave(): Promise<void> {
    await api.signOut();
    name.value = undefined;
  }
  /** Elsewhere the session was ended. */
  const forget = () => (name.value = undefined);

  return { name, look, enter, leave, forget };
});
