import type { Paper } from './papers.ts';
import type { Sheet, View } from './schema.ts';

/** A sheet of the whole as one begins it: from a corner, taken apart, with numbers, and as it stands from the front. */
export function defaultAssemblySheet(how: { readonly paper: Paper; readonly projection: Sheet['projection'] }): Sheet {
  const views: Record<string, View> = {
    corner: { kind: 'corner', apart: 0.4, numbered: true },
    front: { kind: 'base', from: 'front', hidden: false },
  };
  return { name: 'The whole', ...how, upright: false, views, viewOrder: Object.keys(views), title: {} };
}

/** A sheet of a part as one begins it: three views folded out of each other and one from a corner. */
export function defaultSheet(
  part: { readonly id: string; readonly name: string },
  how: { readonly paper: Paper; readonly projection: Sheet['projection'] },
): Sheet {
  const first = how.projection === 'first';
  const views: Record<string, View> = {
    front: { kind: 'base', from: 'front' },
    side: { kind: 'projected', of: 'front', beside: first ? 'left' : 'right' },
    top: { kind: 'projected', of: 'front', beside: 'above' },
    corner: { kind: 'corner' },
  };
  return {
    name: part.name,
    part: part.id,
    ...how,
    upright: false,
    views,
    viewOrder: Object.keys(views),
    title: {},
  };
}
