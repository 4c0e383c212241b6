import {
  axisOf,
  cross3,
  Geometry,
  length3,
  planeOf,
  pointOf,
  projected,
  type Borrowing,
  type EdgeFacts,
  type Entities,
  type Frame,
  type Reference,
  type Result,
  type Thing,
  type Vec2,
} from '@helb/core';
import { NO_PREVIEW, type PointerAt, type Preview, type Tool } from './tool.ts';

/** Something of the model under the pointer. */
export interface Under {
  readonly words: string;
  readonly reference: Reference;
  readonly thing: Thing;
}

/** One way to borrow something: what would come of it. */
export interface Offer {
  readonly words: string;
  readonly reference: Reference;
  readonly how: Borrowing;
  readonly seen: Entities;
}

export interface BorrowHost {
  readonly frame: Frame;
  /** What lies under a place of the sketch plane, front to back. */
  under(pointer: PointerAt): readonly Under[];
  /** Where the sketch plane crosses the bodies of the part that something is of. */
  crossings(source: Reference): readonly EdgeFacts[];
  borrow(offer: Offer): Result<void>;
}

interface Way {
  readonly how: Borrowing;
  readonly words: string;
  suits(thing: Thing, frame: Frame): boolean;
}

const SHAPE: Way = { how: 'shape', words: '', suits: (thing) => thing.to !== 'face' };
const AXIS: Way = {
  ...{ how: 'axis', words: 'axis of ' },
  suits: (thing) => thing.to === 'face' && axisOf(thing) !== undefined,
};
const OUTLINE: Way = {
  ...{ how: 'shape', words: 'outline of ' },
  suits: (thing) => thing.to === 'face' && planeOf(thing) !== undefined,
};
const CROSSING: Way = {
  ...{ how: 'crossing', words: 'crossing of ' },
  suits: (thing, frame) => thing.to === 'face' && !alongside(thing, frame),
};
const CENTRE: Way = {
  ...{ how: 'axis', words: 'centre of ' },
  suits: (thing, frame) => thing.to === 'edge' && isRoundHere(thing, frame),
};

/** The ways in which a thing is borrowed by itself, the usual one first. */
const WAYS: readonly Way[] = [SHAPE, AXIS, OUTLINE, CROSSING];
/** Those in which it is drawn to: of what lies in one place the least that tells it; a whole outline is asked for. */
export const DRAWN_TO: readonly Way[] = [CENTRE, SHAPE, AXIS, CROSSING];

/** Is it round, and seen along its axis, so that this is a point? */
function isRoundHere(thing: Thing, frame: Frame): boolean {
  const axis = pointOf(thing) && axisOf(thing);
  return axis !== undefined && length3(cross3(axis.direction, frame.z)) < 1e-9;
}

/** Does a flat thing lie alongside the plane, so that they never cross? */
function alongside(thing: Thing, frame: Frame): boolean {
  const plane = planeOf(thing);
  return plane !== undefined && length3(cross3(plane.z, frame.z)) < 1e-9;
}

/** Something borrowed in a way, with what would come of it; undefined where nothing would. */
export function offerOf(
  { how, words: before, suits }: Way,
  { words, reference, thing }: Under,
  { frame, crossings }: Pick<BorrowHost, 'frame' | 'crossings'>,
): Offer | undefined {
  const seen = suits(thing, frame) ? projected(thing, how, frame, () => crossings(reference)) : undefined;
  return seen?.ok ? { words: before + words, reference, how, seen: seen.value } : undefined;
}

/** Takes live copies of what lies under the pointer onto the sketch plane; Tab steps through what can be had there. */
export class BorrowTool implements Tool {
  readonly name = 'borrow';
  readonly hint = 'Click an edge, a corner, a face or a drawn line: a live copy comes as outline. Tab: the next one.';
  preview: Preview = NO_PREVIEW;
  private at: Vec2 = [0, 0];
  private chosen = 0;
  private found: readonly Offer[] = [];

  constructor(private readonly host: BorrowHost) {}

  get offered() {
    if (this.found.length === 0) return undefined;
    return { words: this.found.map(({ words }) => words), chosen: this.chosen, at: this.at };
  }

  /** What is offered first, or was stepped to. */
  get pointed(): Reference | undefined {
    return this.found[this.chosen]?.reference;
  }

  move(pointer: PointerAt): void {
    const before = this.found[this.chosen];
    this.found = this.host
      .under(pointer)
      .flatMap((under) => WAYS.flatMap((way) => offerOf(way, under, this.host) ?? []));
    this.at = pointer.at;
    // what was stepped to stays chosen while it is still there
    const kept = this.found.findIndex(({ words }) => words === before?.words);
    this.chosen = this.chosen > 0 && kept > 0 ? kept : 0;
    this.show();
  }

  down(pointer: PointerAt): void {
    this.move(pointer);
    const offer = this.found[this.chosen];
    if (offer) this.host.borrow(offer);
  }

  key(key: string): boolean {
    if (key !== 'Tab' || this.found.length < 2) return false;
    this.chosen = (this.chosen + 1) % this.found.length;
    this.show();
    return true;
  }

  escape(): boolean {
    this.found = [];
    this.show();
    return false;
  }

  private show(): void {
    const offer = this.found[this.chosen];
    if (!offer) this.preview = NO_PREVIEW;
    else {
      const geometry = new Geometry(offer.seen);
      const ids = Object.keys(offer.seen);
      const alone = ids.filter((id) => geometry.roleOf(id) === 'point');
      this.preview = {
        pieces: ids.flatMap((id) => geometry.pieces(id)),
        // points alone would not be seen
        tags: alone.length === ids.length ? alone.map((id) => ({ at: geometry.point(id), mark: '•' })) : [],
        guides: [],
      };
    }
  }
}
