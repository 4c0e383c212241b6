import { attempt, fail, issue, IssueError, ok, type Result } from '../result/index.ts';
import {
  ANGLE,
  LENGTH,
  NUMBER,
  dimensionWords,
  findUnit,
  isNumber,
  sameDimension,
  type Dimension,
  type LengthUnit,
  type Quantity,
} from '../units/index.ts';
import { CONSTANTS, FUNCTIONS, type Operand } from './functions.ts';
import { parse, type Node } from './parse.ts';

/** Where an expression finds the values of names, and the unit that a bare length takes. */
export interface Scope {
  readonly unit: LengthUnit;
  lookup(name: string): Result<Quantity>;
}

/** Evaluates a parsed expression to whatever dimension it has. */
export const evaluateNode = (node: Node, scope: Scope): Result<Quantity & { bare: boolean }> =>
  attempt(() => finite(value(node, scope)));

/**
 * Evaluates the text for a field that asks for `dimension`. A bare number takes the project's unit (a length) or degrees
 * (an angle). Fails with unit.asked where the dimension differs.
 */
export function evaluate(text: string, dimension: Dimension, scope: Scope): Result<number> {
  const parsed = parse(text);
  if (!parsed.ok) return parsed;
  const result = evaluateNode(parsed.value, scope);
  if (!result.ok) return result;
  const given = result.value.bare ? adapt(result.value, dimension, scope) : result.value;
  if (sameDimension(given.dimension, dimension)) return ok(given.amount);
  const lost = isNumber(given.dimension) && sameDimension(dimension, LENGTH);
  return fail('unit.asked', {
    asked: dimensionWords(dimension),
    text,
    given: dimensionWords(given.dimension),
    hint: lost ? ` Give it a unit, for example by "* 1 ${scope.unit}".` : '',
  });
}

function value(node: Node, scope: Scope): Operand {
  switch (node.type) {
    case 'literal': {
      if (node.unit === undefined) return { amount: node.amount, dimension: NUMBER, bare: true };
      const unit = findUnit(node.unit)!;
      return { amount: node.amount * unit.size, dimension: unit.dimension, bare: false };
    }
    case 'name':
      return named(node.name, scope);
    case 'negate': {
      const of = value(node.of, scope);
      return { ...of, amount: -of.amount };
    }
    case 'binary':
      return OPERATORS[node.sign]!(value(node.left, scope), value(node.right, scope), scope);
    case 'call': {
      const entry = Object.hasOwn(FUNCTIONS, node.name) ? FUNCTIONS[node.name] : undefined;
      if (!entry)
        throw new IssueError(issue('expression.function', { name: node.name, known: Object.keys(FUNCTIONS) }));
      const count = node.arguments.length;
      if (count < entry.min || count > entry.max)
        throw new IssueError(issue('expression.count', { name: node.name, least: entry.min, given: count }));
      const values = node.arguments.map((argument) => value(argument, scope));
      return entry.call(entry.alike ? alike(values, scope) : values, node.name);
    }
  }
}

function named(name: string, scope: Scope): Operand {
  if (Object.hasOwn(CONSTANTS, name)) return CONSTANTS[name]!;
  const found = scope.lookup(name);
  if (!found.ok) throw new IssueError(found.issue);
  return { ...found.value, bare: false };
}

/** Gives a bare number the unit of what it is added to or asked for. */
function adapt(operand: Operand, dimension: Dimension, scope: Scope): Operand {
  if (sameDimension(dimension, LENGTH))
    return { amount: operand.amount * findUnit(scope.unit)!.size, dimension, bare: false };
  if (sameDimension(dimension, ANGLE)) return { amount: (operand.amount * Math.PI) / 180, dimension, bare: false };
  return operand;
}

function alike(values: readonly Operand[], scope: Scope): readonly Operand[] {
  const model = values.find((entry) => !entry.bare);
  return model ? values.map((entry) => (entry.bare ? adapt(entry, model.dimension, scope) : entry)) : values;
}

function summed(left: Operand, right: Operand, scope: Scope, sign: 1 | -1): Operand {
  const [a, b] = alike([left, right], scope) as [Operand, Operand];
  if (!sameDimension(a.dimension, b.dimension))
    throw new IssueError(
      issue('unit.mismatch', {
        left: dimensionWords(a.dimension),
        right: dimensionWords(b.dimension),
        how: sign === 1 ? 'added' : 'subtracted',
      }),
    );
  return { amount: a.amount + sign * b.amount, dimension: a.dimension, bare: a.bare && b.bare };
}

function multiplied(left: Operand, right: Operand, power: 1 | -1): Operand {
  const dimension = {
    length: left.dimension.length + power * right.dimension.length,
    angle: left.dimension.angle + power * right.dimension.angle,
    mass: left.dimension.mass + power * right.dimension.mass,
  };
  if (power === -1 && right.amount === 0) throw new IssueError(issue('expression.zero'));
  const amount = power === 1 ? left.amount * right.amount : left.amount / right.amount;
  return { amount, dimension, bare: left.bare && right.bare };
}

function raised(base: Operand, exponent: Operand): Operand {
  if (!isNumber(exponent.dimension) || (!isNumber(base.dimension) && !Number.isInteger(exponent.amount)))
    throw new IssueError(issue('expression.power'));
  const { length, angle, mass } = base.dimension;
  const n = exponent.amount;
  return {
    amount: base.amount ** n,
    dimension: { length: length * n, angle: angle * n, mass: mass * n },
    bare: base.bare,
  };
}

const OPERATORS: Readonly<Record<string, (left: Operand, right: Operand, scope: Scope) => Operand>> = {
  '+': (left, right, scope) => summed(left, right, scope, 1),
  '-': (left, right, scope) => summed(left, right, scope, -1),
  '*': (left, right) => multiplied(left, right, 1),
  '/': (left, right) => multiplied(left, right, -1),
  '^': raised,
};

function finite(operand: Operand): Operand {
  if (!Number.isFinite(operand.amount)) throw new IssueError(issue('expression.finite'));
  return operand;
}
