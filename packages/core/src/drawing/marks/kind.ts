import type { z } from 'zod';
import type { Dual, Frame, Vec2 } from '../../math/index.ts';
import type { Topology } from '../../kernel-port/index.ts';
import type { Id } from '../../records/index.ts';
import type { Reference, Thing } from '../../references/index.ts';
import type { Result } from '../../result/index.ts';
import type { Taken } from '../../sketch/annotation-layout.ts';
import type { Box, Piece } from '../../sketch/pieces/index.ts';
import type { Lettering } from '../picture.ts';
import type { ViewManner } from '../schema.ts';
import type { MovingFaces, Spot } from '../witness/index.ts';

/** Where a mark is drawn. */
export interface MarkContext extends ViewManner {
  readonly faces: MovingFaces;
  readonly eye: Frame;
  /** Mm on paper for 1 mm of the thing. */
  readonly factor: number;
  /** From mm of the thing in the plane of the eye to mm on paper. */
  paper(place: Vec2): Vec2;
  /** What the view covers on paper: marks stand outside. */
  readonly box: Box;
  /** Height of capitals, mm. */
  readonly height: number;
  readonly topologies: readonly Topology[];
}

/** A thing that a mark is attached to, with what it is in the view. */
export interface Held {
  readonly thing: Thing;
  /** None where it leans in this view. */
  readonly spot: Spot | undefined;
}

/** A mark on paper. */
export interface MarkInk extends Taken {
  readonly pieces: readonly Piece[];
  /** Centre lines that belong to it. */
  readonly axes?: readonly Piece[];
  readonly letters: readonly Lettering[];
}

/** A mark as it is now: the sizes that it tells, what is written, and how it is drawn. */
export interface ReadMark {
  /** Each size, mm or rad, as it depends on the part. */
  readonly tells: readonly Dual[];
  /** Faces of which it tells what no numbers tell. */
  readonly covers?: readonly string[];
  /** What it says in words: "⌀12 H7". */
  readonly words: string;
  /** Of what is seen from its end the centre is enough: whether the rim is hidden does not matter. */
  readonly toCentres?: true;
  /** How long its dimension line is, mm on paper: shorter ones stand nearer to the outline. */
  readonly long?: number;
  /** Places for its text, mm on paper, the usual one first. */
  places(): readonly Vec2[];
  draw(at: Vec2): MarkInk;
}

/** What is picked for a dimension, as it is. */
export interface Picked {
  readonly reference: Reference;
  readonly thing: Thing;
}

/** A dimension that might be made, and the things that it would be of. */
export interface MarkTry<M> {
  readonly mark: M;
  readonly things: readonly Thing[];
}

/** What the register knows of a kind of mark. */
export interface MarkKind<M> {
  readonly schema: z.ZodType<M>;
  readonly title: string;
  /** Set on dimensions: they have tolerances, and may stand in brackets. */
  readonly sized?: true;
  /** Is it between its things? */
  readonly between?: true;
  /** What of dimensions could be told of what is picked; all that makes no sense falls away when it is read. */
  tries?(picks: readonly Picked[], view: Id): readonly MarkTry<M>[];
  /** How unusual the place is in which it would be told, 0 for where one looks for it. */
  cost?(mark: M, held: readonly Held[]): number;
  /** Of what is no dimension: how it is offered, and how it begins at a thing. */
  readonly written?: {
    readonly words: string;
    /** @param others all marks of the sheet */
    begin(view: Id, of: Reference[], others: readonly object[]): M;
  };
  /** Which of several of its kind it is, in words; empty for the plain one. */
  way?(mark: M): string;
  /** What it comes to on these things; fails where it makes no sense for them. */
  read(mark: M, held: readonly Held[], context: MarkContext): Result<ReadMark>;
}
