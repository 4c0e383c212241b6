import { fail, type Issue, type Result } from '../result/index.ts';
import { evaluateNode, type Scope } from './evaluate.ts';
import { CONSTANT_NAMES, FUNCTIONS } from './functions.ts';
import { namesIn, parse } from './parse.ts';
import { isName, tidyName } from './tokens.ts';
import {
  ANGLE,
  findUnit,
  LENGTH,
  sameDimension,
  type Dimension,
  type LengthUnit,
  type Quantity,
} from '../units/index.ts';

interface NamedExpression {
  readonly name: string;
  readonly expression: string;
}

/**
 * The results of all named expressions, each evaluated once when first asked for. A loop of names is found by the mark
 * "being evaluated" and reported with the names in their order round the loop.
 *
 * @param given results of some names that stand instead of their expressions
 */
export function valueScope(
  values: Iterable<NamedExpression>,
  unit: LengthUnit,
  given: ReadonlyMap<string, Result<Quantity>> = new Map(),
): Scope {
  const entries = new Map<string, NamedExpression>();
  for (const entry of values) entries.set(entry.name, entry);
  const done = new Map(given);
  const open: string[] = [];
  const scope: Scope = {
    unit,
    lookup(name) {
      const known = done.get(name);
      if (known) return known;
      const entry = entries.get(name);
      if (!entry) return fail('value.unknown', { name, near: nearest(name, [...entries.keys()]) });
      const from = open.indexOf(name);
      if (from >= 0) return fail('value.loop', { loop: [...open.slice(from), name] });
      open.push(name);
      const result = compute(entry, scope);
      open.pop();
      // inside a loop only the entry where it was noticed knows it whole: keep nothing until the stack is empty again
      if (result.ok || open.length === 0 || result.issue.code !== 'value.loop') done.set(name, result);
      return result;
    },
  };
  return scope;
}

function compute(entry: NamedExpression, scope: Scope): Result<Quantity> {
  const parsed = parse(entry.expression);
  if (!parsed.ok) return parsed;
  const result = evaluateNode(parsed.value, scope);
  return result.ok ? { ok: true, value: { amount: result.value.amount, dimension: result.value.dimension } } : result;
}

/** Why this can't be the name of a value, or undefined if it can. */
export function nameIssue(name: string, taken: Iterable<string>): Issue | undefined {
  const tidy = tidyName(name);
  if (!isName(tidy) || tidy.length > 40) return { code: 'value.name', facts: { name: tidy } };
  if (findUnit(tidy) || CONSTANT_NAMES.has(tidy) || Object.hasOwn(FUNCTIONS, tidy))
    return { code: 'value.reserved', facts: { name: tidy } };
  for (const other of taken) if (other === tidy) return { code: 'value.taken', facts: { name: tidy } };
  return undefined;
}

/** The names that the text of an expression reads; none if it can't be parsed. */
export function namesUsed(text: string): string[] {
  const parsed = parse(text);
  return parsed.ok ? namesIn(parsed.value, CONSTANT_NAMES) : [];
}

/** Writes the text anew with one name replaced everywhere; other characters stay as typed. */
export function renameIn(text: string, from: string, to: string): string {
  if (!namesUsed(text).includes(from)) return text;
  const pattern = from
    .split(' ')
    .map((word) => word.replace(/[^\p{L}\p{N}_]/gu, '\\$&'))
    .join(' +');
  return text.replace(new RegExp(`(?<![\\p{L}\\p{N}_] *)${pattern}(?! *[\\p{L}\\p{N}_])`, 'gu'), to);
}

/** The known name with the smallest edit distance, where it is near enough to be a slip of the keys; else ''. */
function nearest(name: string, known: readonly string[]): string {
  const ranked = known.map((other) => ({ other, distance: editDistance(name, other) }));
  ranked.sort((a, b) => a.distance - b.distance);
  const best = ranked[0];
  return best && best.distance <= Math.max(1, name.length / 3) ? best.other : '';
}

/** Levenshtein 1966, one row at a time. */
function editDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next.push(Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)));
    row = next;
  }
  return row[b.length]!;
}

/**
 * A text that is typed in place of an expression, with the unit of that where it has none of its own: "44" over "40 mm" is
 * 44 mm, in the unit of lengths of the scope; over an angle it is in degrees.
 */
export function withUnitOf(text: string, before: string, scope: Scope): string {
  const known = read(before, scope);
  return known.ok && !known.value.bare ? withUnit(text, known.value.dimension, scope) : text;
}

/**
 * A text for what asks for `dimension`, as it has to be written to mean the same by itself: where it has no unit of its own
 * a length is in the unit of the scope, an angle in degrees.
 */
export function withUnit(text: string, dimension: Dimension, scope: Scope): string {
  const typed = read(text, scope);
  const unit = sameDimension(dimension, LENGTH) ? scope.unit : sameDimension(dimension, ANGLE) ? 'deg' : undefined;
  if (!typed.ok || !typed.value.bare || unit === undefined) return text;
  return /^[\d.]+$/.test(text.trim()) ? `${text.trim()} ${unit}` : `(${text.trim()}) ${unit}`;
}

/** An expression for the opposite of another; twice is as it was, but for brackets. */
export function negated(text: string): string {
  const [sign, rest] = [text.trim().slice(0, 1), text.trim().slice(1).trim()];
  const parsed = parse(text);
  if (sign === '-' && parsed.ok && parsed.value.type === 'negate') return rest;
  return /[-+]/.test(text) ? `-(${text})` : `-${text.trim()}`;
}

function read(text: string, scope: Scope) {
  const parsed = parse(text);
  return parsed.ok ? evaluateNode(parsed.value, scope) : parsed;
}
