import { placesAlong, type EdgeFacts, type Reference, type Vec2 } from '@helb/core';
import type { ViewCamera } from './camera.ts';
import { nearness } from './nearness.ts';
import type { Pick } from './picks.ts';

/**
 * Faces that the sketch plane crosses near a screen place: seen square on they are often edge-on, and lie under no place.
 * @param own where it crosses the part itself; @param around where it crosses others, by their placements
 */
export function crossedNear(
  { screen }: ViewCamera,
  at: Vec2,
  own: readonly EdgeFacts[],
  around: Readonly<Record<string, readonly EdgeFacts[]>>,
  find: (reference: Reference) => readonly Pick[],
): Pick[] {
  const near = (edges: readonly EdgeFacts[], referTo: (name: string) => Reference): Pick[] => {
    const found = edges.filter(({ curve }) => {
      const places = placesAlong(curve).flatMap((place, k, all) => (k === 0 ? [] : [all[k - 1]!, place]));
      return nearness(screen, at, places.length, (k) => places[k]!) !== undefined;
    });
    return [...new Set(found.flatMap(({ faces }) => faces))].flatMap((name) => find(referTo(name)));
  };
  return [
    ...near(own, (name) => ({ to: 'face', name })),
    ...Object.entries(around).flatMap(([placement, edges]) =>
      near(edges, (name) => ({ to: 'other', at: placement, on: { to: 'face', name } })),
    ),
  ];
}
