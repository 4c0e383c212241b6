import { ref } from 'vue';

/** Counts the motions of the camera that are under way, from the moment in which they are asked for. */
export function useMoving() {
  const moving = ref(0);
  async function during(motion: Promise<unknown> | undefined): Promise<void> {
    moving.value++;
    await motion?.catch(() => undefined);
    moving.value--;
  }
  return { moving, during };
}
