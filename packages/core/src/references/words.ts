import { facesOfName, ownRoleOf, stepOfFace } from '../naming/index.ts';
import { formatAmount, LENGTH, measuredWords, type LengthUnit } from '../units/index.ts';
import type { Words } from '../result/index.ts';
import { wordsOfCurve, wordsOfSurface } from '../geometry/index.ts';
import type { EdgeFacts, FaceFacts } from '../kernel-port/index.ts';
import { BUILT_IN_NAMES } from '../sketch/index.ts';
import { type Family, type OriginThing, type Fingerprint, type Reference, type Rule } from './reference.ts';

export const ORIGIN_WORDS: Readonly<Record<OriginThing, string>> = {
  front: 'Front',
  top: 'Top',
  right: 'Right',
  x: 'the x axis',
  y: 'the y axis',
  z: 'the z axis',
  origin: 'the origin',
};

/** The name of a step: of this part, or of that at a placement; without a step the name of the placement. */
export type NameOf = (step: string, at?: string) => string;

type Worder<T extends Reference['to']> = (reference: Extract<Reference, { to: T }>, nameOf: NameOf) => string;

/** The steps whose faces meet at an edge or a corner. */
const meeting = (name: string, nameOf: NameOf): string =>
  [...new Set(facesOfName(name).map((face) => nameOf(stepOfFace(face))))].join(' and ');

const WORDS: { readonly [T in Reference['to']]: Worder<T> } = {
  origin: ({ name }) => ORIGIN_WORDS[name],
  datum: ({ step }, nameOf) => nameOf(step),
  drawn: ({ step, entity }, nameOf) => `${BUILT_IN_NAMES[entity] ?? 'a curve or point'} of ${nameOf(step)}`,
  rule: (rule, nameOf) => ruleWords(rule, nameOf),
  face: ({ name }, nameOf) => faceWords(facesOfName(name)[0]!, nameOf),
  edge: ({ name }, nameOf) => `an edge of ${meeting(name, nameOf)}`,
  vertex: ({ name }, nameOf) => `a corner of ${meeting(name, nameOf)}`,
  body: ({ name }, nameOf) => `the body of ${nameOf(stepOfFace(name))}`,
  other: ({ at, on }, nameOf) =>
    `${referenceWords(on, (step) => nameOf(step, at))} ${on.to === 'origin' ? 'of' : 'in'} ${nameOf('', at)}`,
};

/** What a face, edge, corner, datum or drawn curve is called in a sentence: by the steps that made it. */
export const referenceWords = (reference: Reference, nameOf: NameOf): string =>
  WORDS[reference.to](reference as never, nameOf);

/** A rule as a phrase: "all outer edges along z", "all edges between the sides of Plate and the end of Plate". */
export function ruleWords({ gives, of, and, turn, along }: Rule, nameOf: (step: string) => string): string {
  const family = ({ step, role }: Family) =>
    role === undefined ? nameOf(step) : `${FAMILY_WORDS[role] ?? 'faces'} of ${nameOf(step)}`;
  if (gives === 'faces') return `all ${of?.role ? family(of) : `faces of ${of ? nameOf(of.step) : 'the part'}`}`;
  const kind = `all ${turn ? `${turn} ` : ''}edges${along ? ` along ${along}` : ''}`;
  if (!of) return kind;
  if (!and) return `${kind} of ${family(of)}`;
  // among the faces of one family
  return family(of) === family(and)
    ? `${kind} between ${family(of)}`
    : `${kind} between ${family(of)} and ${family(and)}`;
}

const FAMILY_WORDS: Readonly<Record<string, string>> = {
  end: 'the end',
  start: 'the start',
  side: 'sides',
  round: 'rounds',
  bevel: 'bevels',
  corner: 'corners',
  inside: 'inner walls',
  rim: 'rims',
};

const ROLE_WORDS: Readonly<Record<string, string>> = { end: 'the end', start: 'the start', side: 'a side' };

function faceWords(name: string, nameOf: (step: string) => string): string {
  return `${ROLE_WORDS[ownRoleOf(name)] ?? 'a face'} of ${nameOf(stepOfFace(name))}`;
}

/** What something looked like when it was last seen, to tell several of one name apart: "straight 24". Empty for corners. */
export function printWords({ form, size }: Fingerprint): string {
  const [word, square] = PRINT_WORDS[form] ?? ['curved', false];
  return word === '' ? '' : `${word} ${formatAmount(size, 1)}${square ? ' mm²' : ''}`;
}

/** Something by its makers, what it looked like and where it was when it was last seen: each of several reads differently. */
export function lastSeenWords(reference: Reference, nameOf: NameOf): string {
  const words = referenceWords(reference, nameOf);
  const print = 'print' in reference ? reference.print : undefined;
  if (!print) return words;
  const look = [printWords(print), `at ${print.at.map((c) => formatAmount(c, 1)).join(' / ')}`];
  return `${words} (${look.filter(Boolean).join(' ')})`;
}

/** Things that are offered instead of one that is gone, each called otherwise: by its look, and by its place where that is needed. */
export function offerWords(offers: readonly Reference[], nameOf: NameOf): string[] {
  const looks = offers.map((offer) => {
    const look = 'print' in offer && offer.print ? printWords(offer.print) : '';
    return [referenceWords(offer, nameOf), look].filter(Boolean).join(', ');
  });
  return offers.map((offer, k) =>
    looks.indexOf(looks[k]!) === looks.lastIndexOf(looks[k]!) ? looks[k]! : lastSeenWords(offer, nameOf),
  );
}

const PRINT_WORDS: Readonly<Record<string, readonly [word: string, square: boolean]>> = {
  line: ['straight', false],
  circle: ['round', false],
  plane: ['flat', true],
  cylinder: ['round', true],
  cone: ['conical', true],
  sphere: ['ball', true],
  surface: ['curved', true],
  point: ['', false],
};

/** What a face looks like: "flat", "round ⌀16 mm". */
export const surfaceWords = ({ surface }: FaceFacts, unit: LengthUnit): string =>
  wordsOfSurface(surface, (mm) => lengthWords(mm, unit));

/** What an edge looks like: "straight 24 mm", "rim ⌀5.5 mm". */
export const curveWords = ({ curve, length, ends }: EdgeFacts, unit: LengthUnit): string =>
  wordsOfCurve(curve, length, !ends, (mm) => lengthWords(mm, unit));

const lengthWords = (mm: number, unit: LengthUnit): string =>
  measuredWords({ amounts: [mm], dimension: LENGTH }, unit, 3);

export const referencesWords: Words = {
  'reference.alone': () => 'This builds on another part, and this part is not built among the others here.',
  'reference.unplaced': () => 'The placement that this builds on is not there any more: choose again.',
  'reference.moved': (f) =>
    `"${f['name']}" stands elsewhere in the end than where this step sees it: it is joined by something that comes later in this part. Join it by what comes before this step, or move this step down.`,
  'reference.gone': (f) =>
    f['to'] === 'datum' || f['to'] === 'drawn'
      ? 'What this builds on is not there: it is left out, failed, or comes later.'
      : f['what']
        ? `${f['what']} is gone, and this builds on it: choose again.`
        : `The ${f['to'] === 'vertex' ? 'corner' : f['to']} that this builds on is gone: choose again.`,
  'reference.none': (f) => `No ${String(f['gives']).slice(0, -1)} fits the rule any more: choose again.`,
  'reference.kind': (f) => `What was chosen here is of another kind now; this needs ${f['asked']}.`,
  'reference.missing': (f) => `Choose ${f['asked']} for this.`,
};
