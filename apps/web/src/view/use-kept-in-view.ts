import { watch } from 'vue';
import type { Geometry } from '@helb/core';
import type { PlaneMap } from '../editor/plane-map.ts';

interface Drawn {
  readonly geometry: Geometry;
  /** How its plane lies on the screen. */
  readonly map: PlaneMap;
  readonly pane: { readonly width: number; readonly height: number };
}

/**
 * A number that was typed may throw a drawing out of the view: where all of it was seen before, it is
 * fitted again. Who looks closer on purpose stays there.
 */
export function useKeptInView(drawn: () => Drawn | undefined, fit: () => void): void {
  let wasSeen = false;
  watch(drawn, (now, before) => {
    const isSeen = now !== undefined && isWhole(now);
    const isNew = now?.geometry !== before?.geometry;
    if (now && isNew && wasSeen && !isSeen) fit();
    else wasSeen = isSeen;
  });
}

function isWhole({ geometry, map, pane }: Drawn): boolean {
  const box = geometry.box();
  // of nothing all is seen
  if (!box) return true;
  const [[left, bottom], [right, top]] = [map.at(box.low), map.at(box.high)];
  return left >= 0 && right <= pane.width && top >= 0 && bottom <= pane.height;
}
