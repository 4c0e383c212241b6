import { onScopeDispose, shallowRef, watch, type ShallowRef } from 'vue';
import type { Snapshots } from './snapshots.ts';

/** The newest state of what a source gives; undefined while that is nothing. Follows at once, not at the next tick. */
export function useSnapshot<S extends object>(
  source: () => Snapshots<S> | undefined,
): Readonly<ShallowRef<S | undefined>> {
  const state = shallowRef<S>();
  let leave: (() => void) | undefined;
  watch(
    source,
    (from) => {
      leave?.();
      state.value = from?.snapshot;
      leave = from?.subscribe((next) => (state.value = next));
    },
    { immediate: true, flush: 'sync' },
  );
  onScopeDispose(() => leave?.());
  return state;
}
