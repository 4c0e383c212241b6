import {
  filledIn,
  LENGTH,
  roundLength,
  sameDimension,
  stepKind,
  suits,
  type Field,
  type Fields,
  type Filled,
  type Id,
  type LengthUnit,
  type Reference,
  type Step,
  type StepName,
  type Thing,
} from '@helb/core';

/** Something that is picked while a step begins. */
interface Picked {
  readonly thing: Thing;
  readonly reference: Reference;
}

/** What a new step can begin with. */
export interface Beginning {
  readonly picked: readonly Picked[];
  /** A name that no other step has: the word and a number. */
  freeName(word: string): string;
  /** The sketch that it is most likely for. */
  readonly sketch: Id | undefined;
  /** The sketches that no step uses yet. */
  readonly waiting: readonly Id[];
  /** Steps that a repeat is most likely meant for. */
  readonly latest: readonly Id[];
  /** Parts whose bodies it could take. */
  readonly parts: readonly Id[];
  /** The unit of lengths in which the project works. */
  readonly unit: LengthUnit;
  /** Has the part a body, so that there is something to add to? */
  readonly hasBody: boolean;
  /** The bodies that are shown, where some are not: what is hidden is not touched by accident. */
  readonly shown: readonly Reference[] | undefined;
  /** The only body that is shown: nobody needs to be asked which. */
  readonly only?: Reference | undefined;
}

/** Takes the picks that a field can use away from those that are left. */
function fitting(field: Extract<Field, { type: 'picks' }>, left: Picked[]): Reference[] | undefined {
  const found = left.filter(({ thing }) => suits(thing, field.accepts)).slice(0, field.max);
  found.forEach((pick) => left.splice(left.indexOf(pick), 1));
  return found.length > 0 ? found.map(({ reference }) => reference) : undefined;
}

/** What a field of each kind begins with, where not with what it is initially. @param left picks that no field took */
const BEGUN: {
  readonly [T in Field['type']]?: (field: Extract<Field, { type: T }>, from: Beginning, left: Picked[]) => unknown;
} = {
  sketch: (_, { sketch }) => sketch,
  part: (_, { parts }) => parts[0],
  steps({ of }, { waiting, latest, picked }) {
    const likely = of === 'sketches' ? waiting : picked.some(({ thing }) => thing.to === 'body') ? [] : latest;
    return likely.length > 0 ? likely : undefined;
  },
  // first lengths are round in the unit of the project
  number: ({ asks, initial }, { unit }) =>
    unit === 'mm' || !sameDimension(asks, LENGTH) || Number.parseFloat(initial) === 0
      ? undefined
      : roundLike(initial, unit),
  picks: (field, { shown }, left) =>
    fitting(field, left) ??
    // where nothing is chosen a step takes all bodies: of some that are hidden it takes the others
    (field.accepts === 'body' && field.min === 0 ? shown : undefined),
};

/** A step of fields with what is picked, in the order of the fields. */
function ofFields(kind: StepName, from: Beginning): object {
  const { fields = {} } = stepKind(kind);
  const left = [...from.picked];
  const begun = Object.entries(fields).flatMap(([name, field]) => {
    const value = BEGUN[field.type]?.(field as never, from, left);
    return value === undefined ? [] : [[name, value] as const];
  });
  const isAdded = 'result' in fields && from.hasBody && from.shown?.length !== 0;
  const told = { ...onlyBody(fields, from), ...Object.fromEntries(begun), ...(isAdded ? { result: 'add' } : {}) };
  return { ...told, ...wordsFor(fields, told, from) };
}

/** The first field that asks for a body begins with the only one that there is. */
function onlyBody(fields: Fields, { only }: Beginning): Filled {
  const asks = Object.entries(fields).flatMap(([name, one]) =>
    one.type === 'picks' && one.accepts === 'body' ? [{ name, isNeeded: one.min > 0 }] : [],
  );
  return only && asks[0]?.isNeeded ? { [asks[0].name]: [only] } : {};
}

/** The words of a sentence under which what is picked counts: with a body picked a mirror is one of bodies. */
function wordsFor(fields: Fields, told: Filled, { picked }: Beginning): Filled {
  const filled = filledIn(fields, told);
  // a face may be picked for something else; a body as a whole is meant
  const bodies = picked.flatMap(({ thing, reference }) => (thing.to === 'body' ? [reference] : []));
  const unused = Object.entries(fields).find(([name, field]) => {
    const value = told[name];
    const isOfBodies = field.type === 'picks' && field.accepts === 'body' && Array.isArray(value);
    return isOfBodies && bodies.some((body) => value.includes(body)) && field.when && !field.when(filled);
  });
  if (!unused) return {};
  const [, { when }] = unused;
  const words = Object.entries(fields).flatMap(([name, field]) =>
    field.type === 'choice' ? Object.keys(field.options).map((option) => ({ [name]: option })) : [],
  );
  return words.find((word) => when!({ ...filled, ...word })) ?? {};
}

/** A length that is round in a unit, about as long as one that is in mm. */
const roundLike = (initial: string, unit: LengthUnit): string => roundLength(Number.parseFloat(initial), unit);

/** A datum with what is picked, in the way that suits it best. */
function inBestWay(kind: StepName, ways: readonly string[], { picked, unit }: Beginning): object {
  const tried = ways.map((how) => {
    const asks = stepKind(kind).picks!({ kind, name: '', how, on: [] } as unknown as Step);
    const miss = asks.findIndex(({ accepts }, k) => !picked[k] || !suits(picked[k].thing, accepts));
    const fits = miss < 0 ? asks.length : miss;
    return { how, fits, whole: fits === picked.length && fits === asks.length };
  });
  const best = tried.reduce((a, b) => ((Number(b.whole) - Number(a.whole) || b.fits - a.fits) > 0 ? b : a));
  const made = { how: best.how, on: picked.slice(0, best.fits).map(({ reference }) => reference) };
  // its number, where it asks for a length
  const [number] = stepKind(kind).expressions?.({ kind, name: '', ...made } as unknown as Step) ?? [];
  const isLength = unit !== 'mm' && number && sameDimension(number.asks, LENGTH);
  return isLength ? { ...made, by: roundLike(number.text, unit) } : made;
}

/** A new step of a kind, with what is picked where it asks for that. */
export function begunStep(kind: StepName, from: Beginning): Step {
  const { title, noun = title, ways } = stepKind(kind);
  const name = from.freeName(noun);
  return { kind, name, ...(ways ? inBestWay(kind, ways, from) : ofFields(kind, from)) } as Step;
}
