import type { Group, Placement } from '../assembly/index.ts';
import { evaluate, namesUsed, valueScope, type Scope } from '../expressions/index.ts';
import type { FileRecord, Id } from '../records/index.ts';
import { ok, type Result } from '../result/index.ts';
import { stepKind } from '../steps/index.ts';
import type { Quantity } from '../units/index.ts';
import { placedExpressions } from './expression-places.ts';
import { buildOrder, looksAtOthers } from './part-links.ts';
import type { Origin, Part, Project } from './schema.ts';
import { variantOf } from './variants.ts';

// Parts of other projects.

/** A project as it was saved. */
export interface Revision {
  /** Absent for one from a file. */
  readonly project?: string;
  readonly revision: number;
  readonly document: Project;
}

/**
 * A part of a project as it can be taken into another, with all that it is built from and nothing else. Of a variant it is
 * told as what: the design is called so.
 */
export function broughtFrom({ project, revision, document }: Revision, part: Id, variant?: Id): Origin {
  const shown = variant === undefined ? undefined : document.variants?.[variant];
  const design = designFor(variantOf(document, variant), part);
  return {
    ...(project === undefined ? {} : { project }),
    revision,
    ...(shown ? { variant: variant! } : {}),
    part,
    design: shown ? { ...design, basis: shown.name } : design,
  };
}

function designFor(project: Project, part: Id): Project {
  const { format, schema, name, unit, basis } = project;
  const needed = new Set(buildOrder(project, [part]));
  const partOrder = project.partOrder.filter((id) => needed.has(id));
  const parts = Object.fromEntries(
    partOrder.map((id) => {
      const { sections, ...rest } = project.parts[id]!;
      void sections;
      return [id, rest];
    }),
  );
  const { assembly } = project;
  const looks = assembly !== undefined && partOrder.some((id) => looksAtOthers(parts[id]!));
  const groups = looks ? groupsIn(project.groups ?? {}, assembly.placements) : {};
  const built: Project = {
    ...{ format, schema, name, unit, values: {}, valueOrder: [], parts, partOrder },
    ...(basis === undefined ? {} : { basis }),
    ...(looks ? { assembly } : {}),
    ...(Object.keys(groups).length > 0 ? { groups } : {}),
  };
  const read = namesRead(project, built);
  const valueOrder = project.valueOrder.filter((id) => read.has(project.values[id]!.name));
  const values = valueOrder.map((id) => {
    const { name: called, expression, note } = project.values[id]!;
    return [id, { name: called, expression, ...(note === undefined ? {} : { note }) }] as const;
  });
  return { ...built, values: Object.fromEntries(values), valueOrder };
}

/** The files that the parts of a project bring in, and those that parts from other projects do. */
export const filesUsed = ({ parts }: Project): FileRecord[] =>
  Object.values(parts).flatMap(({ steps, from }) => [
    ...Object.values(steps).flatMap((step) => stepKind(step.kind).files?.(step) ?? []),
    ...(from ? filesUsed(from.design) : []),
  ]);

/** The groups that are placed, and those that are placed in them. */
function groupsIn(groups: Readonly<Record<Id, Group>>, placements: Readonly<Record<Id, Placement>>) {
  const found: Record<Id, Group> = {};
  for (const { of } of Object.values(placements))
    if ('group' in of && groups[of.group])
      Object.assign(found, { [of.group]: groups[of.group] }, groupsIn(groups, groups[of.group]!.placements));
  return found;
}

/** The names of values that something built reads, and those that these read in turn. */
function namesRead({ values }: Project, built: Project): Set<string> {
  const expressions = new Map(Object.values(values).map(({ name, expression }) => [name, expression]));
  const read = new Set(placedExpressions(built).flatMap(({ text }) => namesUsed(text)));
  // grows while it is gone through
  for (const name of read) namesUsed(expressions.get(name) ?? '').forEach((other) => read.add(other));
  return read;
}

/** The values of a design, some of them given by the project that the part was brought into. */
export function designScope({ design, given = {} }: Origin, scope: Scope): Scope {
  const values = Object.values(design.values);
  const own = valueScope(values, design.unit);
  const results = Object.entries(given).flatMap(([id, text]) => {
    const value = design.values[id];
    return value ? [[value.name, givenAs(own.lookup(value.name), text, scope)] as const] : [];
  });
  return valueScope(values, design.unit, new Map(results));
}

/** What is given for a value: of the kind that the value has. */
function givenAs(own: Result<Quantity>, text: string, scope: Scope): Result<Quantity> {
  if (!own.ok) return own;
  const { dimension } = own.value;
  const amount = evaluate(text, dimension, scope);
  return amount.ok ? ok({ amount: amount.value, dimension }) : amount;
}

/**
 * What of a part is otherwise in another revision, in words; nothing where it is built alike. Where things were drawn
 * last counts as well: whether it matters only building them can tell.
 */
export function differences(before: Origin, after: Origin): string[] {
  const [was, is] = [before.design, after.design];
  const [old, next] = [was.parts[before.part]!, is.parts[after.part]!];
  const values = recordsApart(was.values, is.values, (one, other) =>
    one.name === other.name
      ? `${one.name}: ${other.expression} instead of ${one.expression}`
      : `${one.name} is called ${other.name}`,
  );
  const steps = recordsApart(old.steps, next.steps, ({ name }) => `“${name}” is changed`);
  const parts = recordsApart(
    without(was.parts, before.part),
    without(is.parts, after.part),
    ({ name }) => `${name}, which it takes from, is changed`,
  );
  const moved = isAlike(old.stepOrder, next.stepOrder) || steps.length > 0 ? [] : ['the order of its steps is changed'];
  const material = isAlike(old.material, next.material) ? [] : [`of ${materialOf(next)} instead of ${materialOf(old)}`];
  const source = isAlike(old.from, next.from)
    ? []
    : [`what it takes from “${(next.from ?? old.from)!.design.name}” is changed`];
  const stand = isAlike([was.assembly, was.groups], [is.assembly, is.groups])
    ? []
    : ['the parts that it takes from stand otherwise'];
  const unit = was.unit === is.unit ? [] : [`bare numbers are ${is.unit} instead of ${was.unit}`];
  return [...values, ...steps, ...moved, ...material, ...parts, ...source, ...stand, ...unit];
}

const materialOf = ({ material }: Part): string => material?.name ?? 'no material';

function recordsApart<T extends { readonly name: string }>(
  before: Readonly<Record<Id, T>>,
  after: Readonly<Record<Id, T>>,
  changed: (before: T, after: T) => string,
): string[] {
  const lost = Object.entries(before).flatMap(([id, { name }]) => (after[id] ? [] : [`“${name}” is gone`]));
  const found = Object.entries(after).flatMap(([id, record]) => {
    const old = before[id];
    if (!old) return [`“${record.name}” is new`];
    return isAlike(old, record) ? [] : [changed(old, record)];
  });
  return [...lost, ...found];
}

const without = <T>(records: Readonly<Record<Id, T>>, id: Id): Record<Id, T> =>
  Object.fromEntries(Object.entries(records).filter(([key]) => key !== id));

/** Are two pieces of a document the same, whatever the order of their keys? */
function isAlike(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [one, other] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = Object.keys(one);
  return keys.length === Object.keys(other).length && keys.every((key) => isAlike(one[key], other[key]));
}
