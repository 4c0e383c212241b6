import { borrowingOf, entityKind, Geometry, notYetBorrowed, type Action, type Entities, type Id } from '@helb/core';
import { DRAWN_TO, offersOf, type Offer } from './borrow-tool.ts';
import type { SketchEditor } from './sketch-editor.ts';
import type { PointerAt } from './tool.ts';

/** Something of the model as it would be borrowed: no part of the document until something uses it. */
interface Lent {
  readonly words: string;
  readonly entities: Entities;
  /** Borrows it: `sketch.borrow` under this id. */
  readonly loan: Id;
  readonly action: Action;
}

export interface LentWords {
  readonly words: string;
  readonly ids: readonly Id[];
}

/**
 * What of the model can be drawn to without an errand: all that the pointer has been over, as entities of the sketch that
 * are borrowed with whatever uses them first.
 */
export class Lending {
  private readonly lent = new Map<string, Lent | undefined>();
  private of: readonly unknown[] = [];
  private cache: { readonly own: Geometry; readonly count: number; readonly geometry: Geometry } | undefined;

  constructor(private readonly editor: SketchEditor) {}

  /** The pointer is there: from now on what of the model lies under it can be drawn to. */
  reach(pointer: PointerAt): void {
    const { editor, lent } = this;
    const { loans } = editor.sketch;
    // what was borrowed, or lies elsewhere, is offered anew
    const of = [loans, JSON.stringify(editor.loans.frame)];
    if (of.some((one, k) => one !== this.of[k])) lent.clear();
    this.of = of;
    for (const under of editor.loans.under(pointer))
      for (const offer of offersOf(under, editor.loans, DRAWN_TO)) {
        const key = JSON.stringify([offer.how, offer.reference]);
        if (!lent.has(key)) lent.set(key, this.made(offer));
      }
  }

  /** The sketch with all that can be drawn to; what is drawn comes last, so that it is meant where both lie in one place. */
  with(own: Geometry): Geometry {
    if (this.count === 0) return own;
    if (this.cache?.own !== own || this.cache.count !== this.count) {
      const geometry = new Geometry({ ...this.entities, ...own.entities });
      this.cache = { own, count: this.count, geometry };
    }
    return this.cache.geometry;
  }

  /** Of some entities those that are only lent, with the points that they stand on. */
  among(ids: Iterable<Id>): Entities {
    const { entities } = this;
    const found = [...ids].flatMap((id) => {
      const entity = entities[id];
      return entity ? [...entityKind(entity.kind).uses(entity), id] : [];
    });
    return Object.fromEntries(found.map((id) => [id, entities[id]!]));
  }

  /** What some entities would be borrowed from, in words, each with all entities of it. */
  wordsOf(ids: readonly Id[]): LentWords[] {
    return this.all
      .filter(({ entities }) => ids.some((id) => entities[id]))
      .map(({ words, entities }) => ({ words, ids: Object.keys(entities) }));
  }

  /** What has to be borrowed first, so that something can speak of it. */
  neededBy(what: unknown): Action[] {
    if (this.count === 0) return [];
    const text = JSON.stringify(what);
    const speaksOf = (id: Id) => text.includes(`"${id}"`);
    return this.all
      .filter(({ entities, loan }) => !speaksOf(loan) && Object.keys(entities).some(speaksOf))
      .map(({ action }) => action);
  }

  private get all(): readonly Lent[] {
    return [...this.lent.values()].filter((one) => one !== undefined);
  }

  private get count(): number {
    return this.lent.size;
  }

  private get entities(): Entities {
    return Object.assign({}, ...this.all.map(({ entities }) => entities)) as Entities;
  }

  /** As construction: what is borrowed by itself is outline. */
  private made({ seen, reference, how, words }: Offer): Lent | undefined {
    const { editor } = this;
    const rest = notYetBorrowed(seen, editor.sketch, reference, how);
    if (Object.keys(rest).length === 0) return undefined;
    const loans = editor.sketch.loans ?? {};
    const { entities, loan } = borrowingOf(rest, reference, how, { loans, construction: true, newId: editor.newId });
    const id = editor.newId('o');
    const input = { part: editor.part, step: editor.step, id, entities, loan };
    return { words, entities, loan: id, action: { command: 'sketch.borrow', input } };
  }
}
