import type { Component } from 'vue';
import type { Field } from '@helb/core';
import AreasLine from './areas-line.vue';
import ChoiceLine from './choice-line.vue';
import FileLine from './file-line.vue';
import NumberLine from './number-line.vue';
import SketchLine from './sketch-line.vue';
import SkipLine from './skip-line.vue';
import StepsLine from './steps-line.vue';

/** How a kind of field is edited on a line of its own. */
interface FieldLine {
  readonly component: Component;
  /** The order of the lines: those below 0 stand above what is picked. */
  readonly rank: number;
  /** Is there a line only where the sentence leaves the field out? */
  readonly ifUnsaid?: boolean;
  /** Is it told how an expression is kept, with the values that are named in it? Else it says what is chosen. */
  readonly keeps?: boolean;
}

/** The register. What is picked and other parts have lines of their own: they are answered in the view and the sentence. */
export const FIELD_LINES: { readonly [T in Field['type']]?: FieldLine } = {
  sketch: { component: SketchLine, rank: -3 },
  steps: { component: StepsLine, rank: -2 },
  file: { component: FileLine, rank: -1 },
  areas: { component: AreasLine, rank: 1 },
  number: { component: NumberLine, rank: 2, ifUnsaid: true, keeps: true },
  choice: { component: ChoiceLine, rank: 2, ifUnsaid: true },
  skip: { component: SkipLine, rank: 3 },
};
