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
} from '@helb/core';
import { Picking } from '../view/picking.ts';
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

/** So many reaches of the pointer the list stays where it is. */
const LIST_REACHES = 3.5;

/** Takes live copies of what lies under the pointer onto the sketch plane; Tab steps through what can be had there. */
export class BorrowTool implements Tool {
  readonly name = 'borrow';
  readonly hint = 'Click an edge, a corner, a face or a drawn line: a live copy comes as outline. Tab: the next one.';
  preview: Preview = NO_PREVIEW;
  private readonly picking = new Picking<Offer>((one, other) => one.words === other.words);

  constructor(private readonly host: BorrowHost) {}

  get offered() {
    const { under } = this.picking.snapshot;
    return (
      under && {
        words: under.picks.map(({ words }) => words),
        chosen: under.chosen,
        at: under.at,
        isHeld: under.isHeld,
      }
    );
  }

  /** What is offered first, or was stepped to. */
  get pointed(): Reference | undefined {
    return this.picking.pointed?.reference;
  }

  move(pointer: PointerAt): void {
    const found = this.host
      .under(pointer)
      .flatMap((under) => WAYS.flatMap((way) => offerOf(way, under, this.host) ?? []));
    this.picking.hover(pointer.at, found, LIST_REACHES * pointer.reach);
    this.show();
  }

  down(pointer: PointerAt): void {
    this.move(pointer);
    const offer = this.picking.pointed;
    this.picking.forget();
    if (offer) this.host.borrow(offer);
  }

  key(key: string): boolean {
    if (key !== 'Tab' || !this.picking.next()) return false;
    this.show();
    return true;
  }

  choose(k: number): void {
    this.picking.choose(k);
    this.show();
  }

  escape(): boolean {
    this.picking.forget();
    this.show();
    return false;
  }

  private show(): void {
    const offer = this.picking.pointed;
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
