import {
  curveWords,
  LENGTH,
  measuredWords,
  middleOf,
  pointOf,
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

/** What tells picks of one list apart. */
interface Telling<P> {
  /** What a pick is called by itself. */
  readonly called?: (pick: P) => string;
  /** The name of a step of what it is of. */
  readonly nameOf: (step: Id, pick: P) => string | undefined;
  /** Where it stands, mm. */
  readonly placeOf?: (pick: P) => Vec3 | undefined;
}

/**
 * What picks are called in one list, each in its own words: those that read alike say of which step they are, and where that
 * is the same too, where they are.
 */
export function listWords<P extends Worded & { readonly within?: string }>(
  picks: readonly P[],
  unit: LengthUnit,
  {
    nameOf,
    called = (pick) => pickWords(pick, unit),
    placeOf = ({ thing }) => pointOf(thing) ?? middleOf(thing),
  }: Telling<P>,
): string[] {
  const plain = picks.map(called);
  const withStep = told(plain, (k) => {
    const step = picks[k]!.within === undefined ? stepOf(picks[k]!.thing) : undefined;
    const name = step === undefined ? undefined : nameOf(step, picks[k]!);
    return name === undefined ? '' : ` of ${name}`;
  });
  return told(withStep, (k) => {
    const at = placeOf(picks[k]!);
    return at ? ` at ${placeWords(at, unit)}` : '';
  });
}

/** The words with more where others read alike. */
const told = (words: readonly string[], more: (k: number) => string): string[] =>
  words.map((own, k) => (words.some((other, n) => n !== k && other === own) ? own + more(k) : own));
