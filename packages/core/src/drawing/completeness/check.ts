import { isCalled, stepOfFace } from '../../naming/index.ts';
import type { Frame } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { type Thing } from '../../references/index.ts';
import { isSize, markCost, readMark, type Held, type Mark, type MarkContext, type ReadMark } from '../marks/index.ts';
import type { Span, Spot, Witness } from '../witness/index.ts';
import { allFaces, faceOf, type BuiltPart, type Candidate, type Item } from './candidate.ts';
import { fromSketches } from './from-sketches.ts';
import { fromSteps } from './from-steps.ts';
import { generalCandidates } from './general.ts';

/** A mark on one of the sheets of a part, with what it says now; nothing where its things are gone. */
export interface SaidMark {
  readonly sheet: Id;
  readonly id: Id;
  readonly mark: Mark;
  readonly read: ReadMark | undefined;
}

/** A view in which missing sizes can be told. */
export interface OpenView {
  readonly id: Id;
  readonly eye: Frame;
  readonly context: Omit<MarkContext, 'eye'>;
  /** What a thing is in it. */
  spotOf(thing: Thing): Spot | undefined;
  /** Is a thing seen in it, and not behind others? */
  isSeen(held: Held): boolean;
}

/** A size that does not follow from what the sheets say, with the mark that would say it. */
interface MissingSize {
  readonly mark: Mark;
  readonly words: string;
}

interface SizesCheck {
  readonly missing: readonly MissingSize[];
  /** What is said twice: by a mark, and by others together, told by what they say. */
  readonly doubled: readonly {
    readonly sheet: Id;
    readonly id: Id;
    readonly words: string;
    readonly by: readonly string[];
  }[];
  /** Faces of which something is free that no mark of these views would tell. */
  readonly untold: readonly string[];
}

/**
 * What is missing and what is said twice: every size is a row over the unknowns of the part (as it is at this moment: the
 * witness); what the rows do not span can still be another way, and is told by the candidates that span it, those of the
 * model's own numbers first.
 */
export function checkedSizes(
  built: BuiltPart,
  witness: Witness,
  said: readonly SaidMark[],
  views: readonly OpenView[],
): SizesCheck {
  const { implied } = witness;
  const counting = said.flatMap(({ mark, read, ...where }) =>
    read && read.tells.length > 0 && !(isSize(mark) && mark.extra) ? [{ ...where, words: read.words, read }] : [],
  );
  const span = implied.copy();
  const clear = counting.map(({ read }) => takenBy(span, implied, read)).every((one) => one);
  const doubled = clear ? [] : saidTwice(counting, implied);
  const missing = [
    ...proposed(built, witness, { span, implied, counting }, views),
    ...curvedFaces(built, witness, said, views),
    ...threads(built, said, views),
  ];
  return { missing, doubled, untold: span.rank < witness.count ? untold(witness, span) : [] };
}

/** Takes what a mark tells; true where all that did not hold of itself is new. */
function takenBy(span: Span, implied: Span, { tells }: ReadMark): boolean {
  const alone = implied.copy();
  const own = tells.filter(({ d }) => alone.add(d)).length;
  return own > 0 && tells.filter(({ d }) => span.add(d)).length === own;
}

type Counting = readonly { readonly sheet: Id; readonly id: Id; readonly words: string; readonly read: ReadMark }[];

/** Marks that say nothing that the others do not say. */
function saidTwice(all: Counting, implied: Span): SizesCheck['doubled'] {
  return all.flatMap((one) => {
    const { sheet, id, words, read } = one;
    const span = implied.copy();
    const owners = new Map<number, string>();
    for (const other of all)
      if (other !== one) for (const { d } of other.read.tells) if (span.add(d)) owners.set(span.rank - 1, other.words);
    if (!read.tells.every(({ d }) => span.says(d))) return [];
    const by = read.tells.flatMap(({ d }) => span.sumOf(d)).flatMap((row) => owners.get(row) ?? []);
    return [{ sheet, id, words, by: [...new Set(by)] }];
  });
}

interface Known {
  /** What is said up to now; grows. */
  readonly span: Span;
  readonly implied: Span;
  readonly counting: Counting;
}

/** Marks that say what is still free, each something that no other says. */
function proposed(built: BuiltPart, witness: Witness, known: Known, views: readonly OpenView[]): MissingSize[] {
  const found: { mark: Mark; read: ReadMark }[] = [];
  if (views.length === 0 || known.span.rank >= witness.count) return [];
  let clear = true;
  for (const candidate of [...fromSteps(built), ...fromSketches(built), ...generalCandidates(built)]) {
    if (known.span.rank >= witness.count) break;
    const placed = placedIn(candidate, views, (tells) => tells.every(({ d }) => known.span.says(d)));
    if (!placed) continue;
    clear = takenBy(known.span, known.implied, placed.read) && clear;
    found.push(placed);
  }
  const needed = clear ? found : withoutSurplus(found, known);
  return needed.map(({ mark, read }) => ({ mark, words: read.words }));
}

/** Of marks of which some say in part what others say, those without which something would be missing. */
function withoutSurplus<T extends { readonly read: ReadMark }>(found: readonly T[], { implied, counting }: Known): T[] {
  const kept = [...found];
  for (const one of found) {
    const span = implied.copy();
    for (const { read } of [...counting, ...kept]) if (read !== one.read) for (const { d } of read.tells) span.add(d);
    if (one.read.tells.every(({ d }) => span.says(d))) kept.splice(kept.indexOf(one), 1);
  }
  return kept;
}

/** A candidate in the view that shows it best; none where all of it is said. */
function placedIn(
  { items, mark }: Candidate,
  views: readonly OpenView[],
  isSaid: (tells: ReadMark['tells']) => boolean,
): { mark: Mark; read: ReadMark } | undefined {
  let best: { mark: Mark; read: ReadMark; cost: number } | undefined;
  for (const [k, view] of views.entries()) {
    const held = items.map(({ thing }): Held => ({ thing, spot: view.spotOf(thing) }));
    const made = mark(view.id, view.eye);
    const read = readMark(made, held, { ...view.context, eye: view.eye });
    if (!read.ok) continue;
    // what it tells is the same in every view
    if (!best && isSaid(read.value.tells)) return undefined;
    // the least that it can come to; whether things are seen is the dear question
    const least = markCost(made, held) + k * 0.01;
    if (best && least >= best.cost) continue;
    const hidden = held.filter((one) => !view.isSeen(one)).length;
    const cost = 10 * Math.min(hidden, 3) + least;
    if (!best || cost < best.cost) best = { mark: made, read: read.value, cost };
  }
  return best;
}

/** Faces that no numbers tell need a word that points to them. */
function curvedFaces(
  built: BuiltPart,
  { curved }: Witness,
  said: readonly SaidMark[],
  views: readonly OpenView[],
): MissingSize[] {
  const covered = new Set(said.flatMap(({ read }) => (read?.covers ?? []).map(stepOfFace)));
  const steps = new Map<Id, Item>();
  for (const item of allFaces(built)) {
    const step = stepOfFace(faceOf(item).name);
    if (curved.some(({ face }) => face === faceOf(item)) && !covered.has(step) && !steps.has(step))
      steps.set(step, item);
  }
  return [...steps].flatMap(([step, item]): MissingSize[] => {
    const view = views.find((one) => one.isSeen({ thing: item.thing, spot: undefined })) ?? views[0];
    if (!view) return [];
    const thread = built.threads.find((one) => one.step === step);
    const name = built.steps[step]?.name ?? 'a step that is gone';
    const text = thread ? thread.name : `${name}: shape as in the model file`;
    return [{ mark: { kind: 'note', view: view.id, of: [item.reference], text }, words: text }];
  });
}

/** Threads that are shown by a sign need a word at the face that they are on. */
function threads(built: BuiltPart, said: readonly SaidMark[], views: readonly OpenView[]): MissingSize[] {
  const covered = new Set(said.flatMap(({ read }) => read?.covers ?? []));
  const faces = allFaces(built);
  return built.threads.flatMap(({ step, name }): MissingSize[] => {
    const record = built.steps[step];
    const wanted = record?.kind === 'thread' ? (record.faces ?? []) : [];
    const on = faces.filter((item) =>
      wanted.some((reference) => reference.to === 'face' && isCalled(reference.name, faceOf(item).name)),
    );
    const view = views.find((one) => on.every(({ thing }) => one.spotOf(thing))) ?? views[0];
    if (on.length === 0 || !view || on.some((item) => covered.has(faceOf(item).name))) return [];
    const of = on.map(({ reference }) => reference);
    return [{ mark: { kind: 'note', view: view.id, of, text: name }, words: name }];
  });
}

/** Faces on which something that is still free depends. */
function untold({ faces, count }: Witness, span: Span): string[] {
  const free = Array.from({ length: count }, (_, unknown) => span.freedomOf(unknown) > 1e-6);
  return faces
    .filter(({ surface, places }) =>
      places.some((place) => {
        const { at, by } = surface.off(place).d;
        return at.some((unknown, k) => by[k] !== 0 && free[unknown]);
      }),
    )
    .map(({ face }) => face.name);
}
