import { add3, findUnit, formatAmount, scale3, type LengthUnit, type Pull, type Vec2 } from '@helb/core';
import { alongWay, type HandleView } from './handle.ts';

// Lengths of the step in the making, pulled by arrows that stand at their ends.

/** One of them with what it comes to now, mm. */
export interface ShownPull extends Pull {
  readonly value: number;
  /** What it is called. */
  readonly label: string;
  /** The least that it may be, mm: what is pulled below that stays. */
  readonly min: number;
  /** Can the step be turned round? */
  readonly turns: boolean;
  /** Does it point the other way then, so that it is pulled over to the other side? */
  readonly opposes: boolean;
}

/** Pixels from the end of the length to the tip of its arrow. */
const ARROW = 36;
/** So many pixels a step has to be worth. */
const COARSE = 4;
const MILLIMETRES = [0.01, 0.05, 0.1, 0.5, 1, 5, 10, 50, 100];
const INCHES = [1 / 64, 1 / 32, 1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2].map((inches) => inches * 25.4);

/** A length told by a number alone, also by a fraction: what is told by names is changed where these are told. */
export const isTypedLength = (text: string): boolean =>
  /^-?(\d+([.]\d+)?|(\d+[ -])?\d+\/\d+)\s*(mm|cm|m|in|")?$/.test(text.trim());

/** The line from where it counts to its end, and the arrow beyond that, on the screen; undefined seen from its end. */
export function drawn(pull: ShownPull, view: HandleView): { line: readonly [Vec2, Vec2]; tip: Vec2 } | undefined {
  if (!alongWay(pull.from, pull.along, view)) return undefined;
  const end = add3(pull.from, scale3(pull.along, pull.value * (pull.scale ?? 1)));
  const way = scale3(pull.along, (pull.value < 0 ? -1 : 1) * ARROW * view.pixel);
  const [from, to, tip] = [pull.from, end, add3(end, way)].map((place) => view.toScreen(place)) as [Vec2, Vec2, Vec2];
  return { line: [from, to], tip };
}

interface Pulled {
  readonly text: string;
  /** Is it on the other side, so that the step has to be turned round? */
  readonly isOver: boolean;
}

/**
 * Takes the arrow: what each place of the pointer makes of the number, in steps that can be seen; undefined where it can not
 * be so.
 * @param start where it was taken
 */
export function pulled(
  pull: ShownPull,
  view: HandleView,
  start: Vec2,
  unit: LengthUnit,
): (to: Vec2, fine: boolean) => Pulled | undefined {
  const measure = alongWay(pull.from, pull.along, view) ?? (() => 0);
  const before = measure(start);
  const scale = pull.scale ?? 1;
  const steps = unit === 'in' ? INCHES : MILLIMETRES;
  const least = (COARSE * view.pixel) / scale;
  const at = steps.findIndex((step) => step >= least);
  return (to, fine) => {
    const step = steps[Math.max(0, (at < 0 ? steps.length - 1 : at) - (fine ? 2 : 0))]!;
    const value = Math.round((pull.value + (measure(to) - before) / scale) / step) * step;
    const isOver = pull.opposes && value < 0;
    const amount = isOver ? -value : value;
    return amount < pull.min
      ? undefined
      : { text: `${formatAmount(amount / findUnit(unit)!.size, 6)} ${unit}`, isOver };
  };
}
