import { picks, type Filled } from './fields/index.ts';
import type { DrawnShape } from './kind.ts';

// The axis about which the areas of a sketch are turned or wound.

/** The only centre line of the sketch where nothing is chosen. */
export const axisField = picks('axis', 'axis', { min: 0, none: 'its centre line' });

const isChosen = (step: Filled): boolean => (step['axis'] as readonly unknown[]).length > 0;

/** Is it told already about what, by a pick or by a centre line? */
export const isAxisKnown = (step: Filled, { centrelines }: DrawnShape): boolean => centrelines === 1 || isChosen(step);

/** The line that asks for the axis, where nothing tells it. */
export const axisAsked = (step: Filled, drawn: DrawnShape): string | undefined =>
  isAxisKnown(step, drawn) ? undefined : 'axis';
