import type { Dimension } from '../../units/index.ts';
import type { FileRecord, Id } from '../../records/index.ts';
import type { Issue, Result } from '../../result/index.ts';
import type { NameOf, Reference } from '../../references/index.ts';
import type { Phrase, PickField, ResolveContext } from '../kind.ts';

/** The fields of a step with what is not stored as it is initially. */
export type Filled = Readonly<Record<string, unknown>>;

/** What all fields have. */
export interface Common {
  readonly label: string;
  /** Does it apply, as the other fields are? */
  readonly when?: (step: Filled) => boolean;
}

/** An expression that a field holds. */
interface FieldExpression {
  readonly text: string;
  readonly asks: Dimension;
}

/** What a kind of field has to say of itself. `V` is what is stored of it. */
export interface FieldKind<F, V> {
  /** What it is until somebody says otherwise; undefined for what can't be but chosen. */
  initial(field: F): V | undefined;
  /** What has to be chosen still; undefined where nothing has. */
  lack?(field: F, value: V | undefined): Issue | undefined;
  /** What it comes to, where that is not what is stored: numbers in mm or rad, picks as what they were found to be. */
  resolve?(field: F, value: V, context: ResolveContext): Result<unknown>;
  /** How it stands in the sentence of its step. */
  phrase(name: string, field: F, value: V, nameOf: NameOf): Phrase;
  /** What it asks for, in the docs. */
  asks(field: F): string;
  /** What it is initially, in the docs; empty for nothing. */
  initialWords?(field: F): string;
  expression?(field: F, value: V): FieldExpression;
  references?(value: V): readonly Reference[];
  /** What it asks to be picked. */
  picks?(name: string, field: F, value: V): PickField;
  /** The earlier steps that it names. */
  uses?(value: V): readonly Id[];
  /** What goes the other way; undefined where nothing does. */
  turned?(field: F, value: V): V | undefined;
  /** The other part whose bodies it takes. */
  part?(value: V): Id | undefined;
  file?(value: V): FileRecord | undefined;
}
