import {
  borrowingOf,
  drawnSources,
  entityKind,
  fail,
  notYetBorrowed,
  renewal,
  type EdgeFacts,
  type Entity,
  type Frame,
  type Id,
  type Reference,
  type Result,
  type SketchSources,
  type SketchStep,
} from '@helb/core';
import type { BorrowHost, Offer, Under } from './borrow-tool.ts';
import type { SketchEditor } from './sketch-editor.ts';
import type { PointerAt } from './tool.ts';

/** The points of an entity. */
const standsOn = (entity: Entity): readonly Id[] => entityKind(entity.kind).uses(entity);

/** What the sketch borrows from elsewhere: taking, letting go, choosing again. */
export class Loans implements BorrowHost {
  constructor(private readonly editor: SketchEditor) {}

  get frame(): Frame {
    return this.editor.solved.frame;
  }

  under = ({ at }: PointerAt): readonly Under[] => this.editor.port.under(at);
  crossings = (source: Reference): readonly EdgeFacts[] => this.editor.port.crossings(source);

  /** What the engine has told of the sources, but of what is borrowed now; what it does not know yet stays where drawn. */
  sourcesFor(step: SketchStep): SketchSources {
    const drawn = drawnSources(step);
    const told = this.editor.port.sources();
    if (!told) return drawn;
    // what was told of entities that stand on other points by now says nothing of them
    const known = Object.keys(drawn.borrowed).filter((id) => {
      const [was, is] = [told.borrowed[id], drawn.borrowed[id]!];
      return was?.kind === is.kind && String(standsOn(was)) === String(standsOn(is));
    });
    const loans = new Set(['plane', ...Object.keys(step.loans ?? {})]);
    const still = <T>(facts: Readonly<Record<Id, T>>): Record<Id, T> =>
      Object.fromEntries(Object.entries(facts).filter(([id]) => loans.has(id)));
    return {
      frame: told.frame,
      borrowed: { ...drawn.borrowed, ...Object.fromEntries(known.map((id) => [id, told.borrowed[id]!])) },
      lost: still(told.lost),
      more: still(told.more),
      now: still(told.now),
    };
  }

  /** Takes a live copy as outline, of an axis as construction; what is only drawn to is construction too. */
  borrow({ reference, how, seen }: Offer): Result<void> {
    const { editor } = this;
    const { loans = {} } = editor.sketch;
    // of an outline that has grown only the rest is taken
    const rest = notYetBorrowed(seen, editor.sketch, reference, how);
    const construction = how === 'axis';
    const { entities, loan } = borrowingOf(rest, reference, how, { loans, construction, newId: editor.newId });
    const input = { ...this.where, id: editor.newId('o'), entities, loan };
    return this.editor.told(
      Object.keys(rest).length === 0 ? fail('borrow.again') : editor.port.act([{ command: 'sketch.borrow', input }]),
    );
  }

  /** Takes what was borrowed as its source is now, and draws anew what lies beside it. */
  renew(loan: Id): Result<void> {
    const { editor } = this;
    const { sources, solution } = editor.solved;
    const now = sources.now[loan];
    if (!now) return fail('borrow.again');
    const next = renewal(editor.sketch, loan, now, solution.geometry, editor.newId);
    const input = { ...this.where, loan, ...next, remove: [...next.remove] };
    return this.editor.told(editor.port.act([{ command: 'sketch.renew', input }]));
  }

  /** Lets what was borrowed stay where it is, free. */
  letGo(loan: Id): Result<void> {
    return this.editor.told(this.editor.actAndPlace([{ command: 'sketch.let-go', input: { ...this.where, loan } }]));
  }

  /** Points what is borrowed, or the plane, to another source. */
  repoint(path: readonly string[], reference: Reference): Result<void> {
    const input = { ...this.where, path: [...path], reference };
    return this.editor.told(this.editor.act([{ command: 'step.repoint', input }]));
  }

  private get where(): { readonly part: Id; readonly step: Id } {
    return { part: this.editor.part, step: this.editor.step };
  }
}
