import { ref, shallowRef } from 'vue';
import type { Verb } from './verb.ts';

/** What can be done in the view that is on the page, for whoever shows its keys; undefined where there is no view. */
export const here = shallowRef<{ readonly place: string; readonly verbs: readonly Verb[] }>();

/** Are the keys of this place shown? */
export const keysShown = ref(false);
