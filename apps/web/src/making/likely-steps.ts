import { isRepeatable, isSketch, latestFeature, stepKind, type Id, type Part } from '@helb/core';

/** What a new step is most likely meant for. */
interface LikelySteps {
  /** The sketch of a step that takes one; undefined where nothing is drawn yet. */
  readonly sketch: Id | undefined;
  /** Was that one chosen, or does no step use it yet? */
  readonly isDue: boolean;
  /** The sketches of a step that takes several. */
  readonly waiting: readonly Id[];
  /** What a repeat is of. */
  readonly latest: readonly Id[];
}

/**
 * The steps that a new one is most likely meant for: those that are chosen; else the sketches that no step uses, and the
 * latest feature.
 * @param before the steps before which it stands, in their order
 */
export function likelySteps(part: Part, before: readonly Id[], chosen: ReadonlySet<Id>): LikelySteps {
  const used = new Set(Object.values(part.steps).flatMap((step) => stepKind(step.kind).uses(step)));
  const drawn = before.filter((id) => isSketch(part.steps[id]));
  const ownSketches = drawn.filter((id) => chosen.has(id));
  const waiting = ownSketches.length > 0 ? ownSketches : drawn.filter((id) => !used.has(id));
  const features = before.filter((id) => chosen.has(id) && isRepeatable(part.steps[id]!.kind));
  return {
    sketch: waiting.at(-1) ?? drawn.at(-1),
    isDue: waiting.length > 0,
    waiting,
    latest: features.length > 0 ? features : latestFeature(before.map((id) => [id, part.steps[id]!])),
  };
}

/** Has a part a body, so that there is something to add to? */
export const hasBodies = ({ steps }: Part): boolean =>
  Object.values(steps).some((step) => stepKind(step.kind).tools !== undefined && !step.suppressed);
