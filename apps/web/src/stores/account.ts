import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, ApiError, type AccountCard, type Proof } from '../sync/api.ts';
import { useSession } from './session.ts';

/** The account of whoever is here. Each of its commands tells whether it was done; why not is in `message`. */
export const useAccount = defineStore('account', () => {
  const session = useSession();
  const card = ref<AccountCard>();
  /** Why something was not done, or what was; and of which part of the page. */
  const message = ref<{ readonly of: string; readonly text: string; readonly isDone: boolean }>();
  const busy = ref(false);

  const load = () => tell('account', async () => void (card.value = await api.account()));

  async function tell(of: string, work: () => Promise<string | void>): Promise<boolean> {
    busy.value = true;
    message.value = undefined;
    try {
      const done = await work();
      if (done) message.value = { of, text: done, isDone: true };
      return true;
    } catch (error) {
      if (error instanceof ApiError && error.status === 401) session.forget();
      message.value = { of, text: (error as Error).message, isDone: false };
      return false;
    } finally {
      busy.value = false;
    }
  }
  /** Does it, and shows the account as it is then. */
  const change = (of: string, work: () => Promise<unknown>, done: string) =>
    tell(of, async () => {
      await work();
      card.value = await api.account();
      return done;
    });

  const proofOf = (password: string, code: string): Proof => ({
    ...{ name: card.value!.name, password },
    code: card.value!.secondFactor ? code : undefined,
  });

  return {
    card,
    message,
    busy,
    load,
    changePassword: (password: string, code: string, newPassword: string) =>
      change(
        'password',
        () => api.changePassword({ ...proofOf(password, code), newPassword }),
        'The password is changed. Everywhere else you are signed out.',
      ),
    async offerCodes() {
      let offer: { secret: string; uri: string } | undefined;
      await tell('codes', async () => void (offer = await api.offerCodes()));
      return offer;
    },
    askForCodes: (password: string, code: string, secret: string) =>
      change(
        'codes',
        () => api.askForCodes({ ...proofOf(password, code), code, secret }),
        'From now on a code is asked for. Everywhere else you are signed out.',
      ),
    dropCodes: (password: string, code: string) =>
      change('codes', () => api.dropCodes(proofOf(password, code)), 'No codes are asked for any more.'),
    endSession: (id: string) => change('sessions', () => api.endSession(id), 'It has ended.'),
    signOut: () => tell('account', session.leave),
    signOutEverywhere: () =>
      tell('sessions', async () => {
        await api.signOutEverywhere();
        session.forget();
      }),
    async takeOut() {
      let zip: Blob | undefined;
      await tell('export', async () => {
        zip = await api.export();
        return 'It is among your downloads.';
      });
      return zip;
    },
    remove: (password: string, code: string) =>
      tell('remove', async () => {
        await api.removeAccount(proofOf(password, code));
        session.forget();
      }),
  };
});
