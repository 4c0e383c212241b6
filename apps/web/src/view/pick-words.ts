import {
  curveWords,
  LENGTH,
  measuredWords,
  middleOf,
  stepOfFace,
  surfaceWords,
  type Id,
  type LengthUnit,
  type Thing,
  type Vec3,
} from '@helb/core';
import type { Pick } from './picks.ts';

// What picks are called.

type Worded = globalThis.Pick<Pick, 'called' | 'thing'>;

const placeWords = (at: Vec3, unit: LengthUnit): string =>
  measuredWords({ amounts: at, dimension: LENGTH }, unit, 2, '  ');

/** How a thing of a body reads; undefined for what has a name of its own. */
function lookWords(thing: Thing, unit: LengthUnit): string | undefined {
  if (thing.to === 'face') return `face · ${surfaceWords(thing.face, unit)}`;
  if (thing.to === 'edge') return `edge · ${curveWords(thing.edge, unit)}`;
  if (thing.to === 'vertex') return `corner · ${placeWords(thing.vertex.at, unit)}`;
  if (thing.to === 'body') return `body · with ${thing.topology.faces.length} faces`;
  return undefined;
}

/** What a pick is called, of whatever part it is. */
export const ownWords = ({ called, thing }: Worded, unit: LengthUnit): string => called ?? lookWords(thing, unit) ?? '';

/** What a pick is called where it stands among those of other parts. */
const pickWords = (pick: Worded & { readonly within?: string }, unit: LengthUnit): string =>
  `${ownWords(pick, unit)}${pick.within === undefined ? '' : ` in ${pick.within}`}`;

/** The step that made a thing of a body: of an edge the later of its faces' steps is not known, so its first. */
function stepOf(thing: Thing): Id | undefined {
  if (thing.to === 'face') return stepOfFace(thing.face.name);
  if (thing.to === 'edge') return thing.edge.faces[0] === undefined ? undefined : stepOfFace(thing.edge.faces[0]);
  return undefined;
}

/**
 * What picks are called in one list, each in its own words: those that read alike say of which step they are, and where that
 * is the same too, where they are.
 */
export function listWords(
  picks: readonly (Worded & { readonly within?: string })[],
  unit: LengthUnit,
  nameOf: (step: Id) => string | undefined,
): string[] {
  const plain = picks.map((pick) => pickWords(pick, unit));
  const withStep = told(plain, (k) => {
    const step = picks[k]!.within === undefined ? stepOf(picks[k]!.thing) : undefined;
    const name = step === undefined ? undefined : nameOf(step);
    return name === undefined ? '' : ` of ${name}`;
  });
  return told(withStep, (k) => {
    const at = middleOf(picks[k]!.thing);
    return at ? ` at ${placeWords(at, unit)}` : '';
  });
}

/** The words with more where others read alike. */
const told = (words: readonly string[], more: (k: number) => string): string[] =>
  words.map((own, k) => (words.some((other, n) => n !== k && other === own) ? own + more(k) : own));
