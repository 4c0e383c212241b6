import {
  borrowingOf,
  entityKind,
  Geometry,
  notYetBorrowed,
  sameReference,
  type Action,
  type Entities,
  type Id,
  type SketchStep,
} from '@helb/core';
import { DRAWN_TO, offerOf, type Offer } from './borrow-tool.ts';
import type { SketchEditor } from './sketch-editor.ts';
import type { PointerAt } from './tool.ts';

/** Something of the model as it would be borrowed: no part of the document until something uses it. */
interface Lent {
  readonly offer: Offer;
  readonly entities: Entities;
  /** Borrows it: `sketch.borrow` under this id. */
  readonly loan: Id;
  readonly action: Action;
}

export interface LentWords {
  readonly words: string;
  readonly ids: readonly Id[];
}

type LentThings = ReadonlyMap<string, Lent>;

/**
 * What of the model can be drawn to without an errand: all that the pointer has been over, as entities of the sketch that
 * are borrowed with whatever uses them first.
 */
export class Lending {
  private lent: LentThings = new Map();
  /** What they were made for. */
  private of: { readonly loans: SketchStep['loans']; readonly frame: string } | undefined;
  private cache: { readonly own: Geometry; readonly lent: LentThings; readonly geometry: Geometry } | undefined;

  constructor(private readonly editor: SketchEditor) {}

  /** The pointer is there: from now on what of the model lies under it can be drawn to. */
  reach(pointer: PointerAt): void {
    const { editor } = this;
    this.renew();
    const found = new Map<string, Lent>();
    for (const under of editor.loans.under(pointer))
      for (const way of DRAWN_TO) {
        const key = JSON.stringify([way.how, under.reference]);
        const offer = this.lent.has(key) ? undefined : offerOf(way, under, editor.loans);
        const lent = offer && this.made(offer);
        if (lent) found.set(key, lent);
      }
    if (found.size > 0) this.lent = new Map([...this.lent, ...found]);
  }

  /** What has been borrowed is lent no more; on another plane all is seen otherwise. */
  private renew(): void {
    const { loans = {} } = this.editor.sketch;
    const frame = JSON.stringify(this.editor.loans.frame);
    if (this.of?.loans === loans && this.of.frame === frame) return;
    const isBorrowed = ({ offer }: Lent) =>
      Object.values(loans).some(({ source, how }) => how === offer.how && sameReference(source, offer.reference));
    const left = frame === this.of?.frame ? [...this.lent].filter(([, lent]) => !isBorrowed(lent)) : [];
    if (left.length < this.lent.size) this.lent = new Map(left);
    this.of = { loans, frame };
  }

  /** The sketch with all that can be drawn to; what is drawn comes last, so that it is meant where both lie in one place. */
  with(own: Geometry): Geometry {
    const { lent } = this;
    if (lent.size === 0) return own;
    if (this.cache?.own !== own || this.cache.lent !== lent)
      this.cache = { own, lent, geometry: new Geometry({ ...this.entities, ...own.entities }) };
    return this.cache.geometry;
  }

  /** Of some entities those that are only lent, with the points that they stand on and that are lent too. */
  among(ids: Iterable<Id>): Entities {
    const { entities } = this;
    const found = [...ids].flatMap((id) => {
      const entity = entities[id];
      return entity ? [...entityKind(entity.kind).uses(entity), id] : [];
    });
    // a corner may have been borrowed with another edge
    return Object.fromEntries(found.flatMap((id) => (entities[id] ? [[id, entities[id]]] : [])));
  }

  /** What some entities would be borrowed from, in words, each with all entities of it. */
  wordsOf(ids: readonly Id[]): LentWords[] {
    return this.all
      .filter(({ entities }) => ids.some((id) => entities[id]))
      .map(({ offer, entities }) => ({ words: offer.words, ids: Object.keys(entities) }));
  }

  /** What has to be borrowed first, so that something can speak of it. */
  neededBy(what: unknown): Action[] {
    if (this.lent.size === 0) return [];
    const text = JSON.stringify(what);
    const speaksOf = (id: Id) => text.includes(`"${id}"`);
    return this.all
      .filter(({ entities, loan }) => !speaksOf(loan) && Object.keys(entities).some(speaksOf))
      .map(({ action }) => action);
  }

  private get all(): readonly Lent[] {
    return [...this.lent.values()];
  }

  /** What lies in front comes last: of several in one place that is meant. */
  private get entities(): Entities {
    return Object.assign({}, ...this.all.toReversed().map(({ entities }) => entities)) as Entities;
  }

  /** As construction: what is borrowed by itself is outline. Undefined where all of it is borrowed. */
  private made(offer: Offer): Lent | undefined {
    const { editor } = this;
    const { seen, reference, how } = offer;
    const rest = notYetBorrowed(seen, editor.sketch, reference, how);
    if (Object.keys(rest).length === 0) return undefined;
    const loans = editor.sketch.loans ?? {};
    const { entities, loan } = borrowingOf(rest, reference, how, { loans, construction: true, newId: editor.newId });
    const id = editor.newId('o');
    const input = { part: editor.part, step: editor.step, id, entities, loan };
    return { offer, entities, loan: id, action: { command: 'sketch.borrow', input } };
  }
}
