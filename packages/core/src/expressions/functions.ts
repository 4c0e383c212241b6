import { issue, IssueError } from '../result/index.ts';
import {
  ANGLE,
  NUMBER,
  dimensionWords,
  isNumber,
  sameDimension,
  type Dimension,
  type Quantity,
} from '../units/index.ts';

/** A number without unit adapts to what it meets: `span / 2 - 4` takes the project's unit for the 4. */
export interface Operand extends Quantity {
  readonly bare: boolean;
}

interface Function {
  readonly min: number;
  readonly max: number;
  /** All values are of one dimension: bare ones take that of the others before the call. */
  readonly alike?: boolean;
  readonly call: (values: readonly Operand[], name: string) => Operand;
}

const number = (amount: number): Operand => ({ amount, dimension: NUMBER, bare: true });
const plain = (amount: number, dimension: Dimension): Operand => ({ amount, dimension, bare: false });

const asked = (value: Operand, name: string, what: string): IssueError =>
  new IssueError(issue('expression.argument', { name, what, given: dimensionWords(value.dimension) }));

/** Rounding needs a plain number: the result of rounding a length would depend on the unit. */
const rounding = (round: (amount: number) => number): Function => ({
  min: 1,
  max: 1,
  call: ([value], name) => {
    if (!isNumber(value!.dimension)) throw asked(value!, name, 'a plain number: divide by a length first');
    return { ...value!, amount: round(value!.amount) };
  },
});

const trigonometry = (of: (angle: number) => number): Function => ({
  min: 1,
  max: 1,
  call: ([value], name) => {
    if (value!.bare) return number(of((value!.amount * Math.PI) / 180));
    if (!sameDimension(value!.dimension, ANGLE)) throw asked(value!, name, 'an angle');
    return number(of(value!.amount));
  },
});

const inverse = (of: (ratio: number) => number): Function => ({
  min: 1,
  max: 1,
  call: ([value], name) => {
    if (!isNumber(value!.dimension)) throw asked(value!, name, 'a plain number');
    return plain(of(value!.amount), ANGLE);
  },
});

/** All values must be of one dimension; the result has it. */
const comparing = (pick: (...amounts: number[]) => number, min: number, max: number): Function => ({
  min,
  max,
  alike: true,
  call: (values, name) => {
    const first = values.find((value) => !value.bare) ?? values[0]!;
    for (const value of values)
      if (!sameDimension(value.dimension, first.dimension))
        throw asked(value, name, `${dimensionWords(first.dimension)} like the others`);
    return { ...first, amount: pick(...values.map((value) => value.amount)) };
  },
});

const sqrt: Function = {
  min: 1,
  max: 1,
  call: ([value]) => {
    const { length, angle, mass } = value!.dimension;
    return {
      amount: Math.sqrt(value!.amount),
      dimension: { length: length / 2, angle: angle / 2, mass: mass / 2 },
      bare: value!.bare,
    };
  },
};

export const FUNCTIONS: Readonly<Record<string, Function>> = {
  sqrt,
  abs: comparing(Math.abs, 1, 1),
  min: comparing(Math.min, 1, 16),
  max: comparing(Math.max, 1, 16),
  floor: rounding(Math.floor),
  ceil: rounding(Math.ceil),
  round: rounding(Math.round),
  sin: trigonometry(Math.sin),
  cos: trigonometry(Math.cos),
  tan: trigonometry(Math.tan),
  asin: inverse(Math.asin),
  acos: inverse(Math.acos),
  atan: inverse(Math.atan),
};

export const CONSTANTS: Readonly<Record<string, Operand>> = { pi: number(Math.PI) };
export const CONSTANT_NAMES: ReadonlySet<string> = new Set(Object.keys(CONSTANTS));
