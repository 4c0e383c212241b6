import { z } from 'zod';
import { expressionSchema, idSchema, placeSchema, type Id } from '../../records/index.ts';
import {
  entityKind,
  entitySchema,
  type Entity,
  isSized,
  patternSchema,
  patternWithout,
  relationKind,
  relationSchema,
} from '../../sketch/index.ts';
import { isBorrowed, projectedReferenceWithout, type SketchStep } from '../../steps/index.ts';
import { projectedReferenceSchema } from '../../steps/sketch/projected-references.ts';
import { command, insert, preparing, refuse, sketchIn } from './command.ts';

const where = { part: idSchema, step: idSchema };

export const sketchCommands = {
  /** Adds entities and relations together. */
  'sketch.draw': command(
    z.strictObject({
      ...where,
      what: z.string().min(1).max(40),
      entities: z.record(idSchema, entitySchema),
      relations: z.record(idSchema, relationSchema),
    }),
    (draft, { part, step, what, entities, relations }) => {
      const sketch = sketchIn(draft, part, step);
      for (const [id, entity] of Object.entries(entities)) insert(sketch.entities, id, entity);
      for (const [id, relation] of Object.entries(relations)) insert(sketch.relations, id, relation);
      return `${sketch.name}: ${what}`;
    },
  ),

  /** Removes entities and relations, with all that stands on them; points that nothing needs any more go too. */
  'sketch.erase': command(
    z.strictObject({ ...where, ids: z.array(idSchema).min(1).max(5000) }),
    (draft, { part, step, ids }) => {
      const sketch = sketchIn(draft, part, step);
      const gone = closure(sketch, ids);
      takeAway(sketch, gone);
      return `${sketch.name}: erase ${ids.length === 1 ? 'one' : ids.length}`;
    },
  ),

  /**
   * An edit as a whole: adds and replaces entities and relations, removes others with all that stands on them. Points that
   * lose their last curve go too, unless what is added speaks of them.
   */
  'sketch.revise': command(
    z.strictObject({
      ...where,
      what: z.string().min(1).max(40),
      entities: z.record(idSchema, entitySchema),
      relations: z.record(idSchema, relationSchema),
      remove: z.array(idSchema).max(5000),
    }),
    (draft, { part, step, what, entities, relations, remove }) => {
      const sketch = sketchIn(draft, part, step);
      for (const [id, entity] of Object.entries(entities))
        if (isBorrowed(sketch, id) && !sameShape(sketch.entities[id], entity)) refuse('borrow.held');
      const usedBefore = usedPoints(sketch);
      Object.assign(sketch.entities, entities);
      Object.assign(sketch.relations, relations);
      const spoken = new Set(
        Object.values(relations).flatMap((relation) => relationKind(relation.kind).refs(relation)),
      );
      const usedNow = usedPoints(sketch);
      const orphans = [...usedBefore].filter((id) => !usedNow.has(id) && !spoken.has(id) && !entities[id]);
      takeAway(sketch, closure(sketch, [...remove, ...orphans]));
      return `${sketch.name}: ${what}`;
    },
  ),

  /** Sets where entities are drawn: the end of a drag, or the shape after a solve. */
  'sketch.place': command(
    z.strictObject({ ...where, places: z.record(idSchema, z.array(z.number().min(-1e5).max(1e5)).max(4)) }),
    (draft, { part, step, places }) => {
      const sketch = sketchIn(draft, part, step);
      for (const [id, place] of Object.entries(places)) {
        const entity = sketch.entities[id] ?? refuse('entity.gone', { id });
        const kind = entityKind(entity.kind);
        if (kind.unknowns(entity).length !== place.length) refuse('entity.gone', { id });
        sketch.entities[id] = kind.moved(entity, place);
      }
      return `${sketch.name}: move`;
    },
  ),

  /** Changes a dimension: its expression, where its text stands. */
  'sketch.size': command(
    z.strictObject({
      ...where,
      relation: idSchema,
      value: expressionSchema.optional(),
      at: placeSchema.optional(),
      measuring: z.boolean().optional(),
    }),
    (draft, { part, step, relation: id, value, at, measuring }) => {
      const sketch = sketchIn(draft, part, step);
      const relation = sketch.relations[id];
      if (!relation || !isSized(relation)) return refuse('relation.gone', { id });
      if (value !== undefined) relation.value = value;
      if (at !== undefined) relation.at = at;
      if (measuring === true) relation.measuring = true;
      if (measuring === false) delete relation.measuring;
      return `${sketch.name}: ${relationKind(relation.kind).title.toLowerCase()} ${value ?? 'placed'}`;
    },
  ),

  /** Makes a pattern, or changes one. */
  'sketch.pattern': command(
    z.strictObject({ ...where, id: idSchema, pattern: patternSchema }),
    (draft, { part, step, id, pattern }) => {
      const sketch = sketchIn(draft, part, step);
      if (Object.hasOwn(sketch.entities, id) || Object.hasOwn(sketch.relations, id)) refuse('id.taken', { id });
      sketch.patterns = { ...sketch.patterns, [id]: pattern };
      return `${sketch.name}: pattern of ${pattern.count}`;
    },
  ),

  /** Borrows something: live copies as entities, held by what they come from. */
  'sketch.borrow': preparing(
    z.strictObject({
      ...where,
      id: idSchema,
      loan: projectedReferenceSchema,
      entities: z.record(idSchema, entitySchema),
    }),
    (draft, { part, step, id, loan, entities }) => {
      const sketch = sketchIn(draft, part, step);
      for (const [entity, record] of Object.entries(entities)) insert(sketch.entities, entity, record);
      sketch.loans = { ...sketch.loans };
      insert(sketch.loans, id, loan);
      return `${sketch.name}: borrow`;
    },
  ),

  /** Makes what was borrowed what its source is now, with what follows it; what is gone goes with all that stands on it. */
  'sketch.renew': command(
    z.strictObject({
      ...where,
      loan: idSchema,
      makes: projectedReferenceSchema.shape.makes,
      entities: z.record(idSchema, entitySchema),
      relations: z.record(idSchema, relationSchema),
      remove: z.array(idSchema).max(5000),
    }),
    (draft, { part, step, loan: id, makes, entities, relations, remove }) => {
      const sketch = sketchIn(draft, part, step);
      const loan = sketch.loans?.[id] ?? refuse('entity.gone', { id });
      const others = Object.entries(sketch.loans!).flatMap(([other, one]) =>
        other === id ? [] : Object.values(one.makes),
      );
      if (Object.keys(entities).some((entity) => others.includes(entity))) refuse('borrow.held');
      sketch.loans = { ...sketch.loans, [id]: { ...loan, makes } };
      Object.assign(sketch.entities, entities);
      Object.assign(sketch.relations, relations);
      takeAway(sketch, closure(sketch, remove));
      return `${sketch.name}: take the outline as it is now`;
    },
  ),

  /** Lets something borrowed go: it stays where it is, but follows nothing any more. */
  'sketch.let-go': command(z.strictObject({ ...where, loan: idSchema }), (draft, { part, step, loan }) => {
    const sketch = sketchIn(draft, part, step);
    if (!sketch.loans?.[loan]) refuse('entity.gone', { id: loan });
    const { [loan]: _, ...rest } = sketch.loans!;
    setLoans(sketch, rest);
    return `${sketch.name}: let go`;
  }),

  'sketch.construction': command(
    z.strictObject({ ...where, ids: z.array(idSchema).min(1).max(5000), on: z.boolean() }),
    (draft, { part, step, ids, on }) => {
      const sketch = sketchIn(draft, part, step);
      for (const id of ids) {
        const entity = sketch.entities[id] ?? refuse('entity.gone', { id });
        if (entity.kind === 'point') continue;
        if (on) entity.construction = true;
        else delete entity.construction;
      }
      return `${sketch.name}: ${on ? 'construction' : 'outline'}`;
    },
  ),
};

function takeAway(sketch: SketchStep, gone: ReadonlySet<Id>): void {
  for (const id of gone) {
    delete sketch.entities[id];
    delete sketch.relations[id];
  }
  setLoans(
    sketch,
    Object.fromEntries(
      Object.entries(sketch.loans ?? {}).flatMap(([id, loan]) => {
        const left = gone.has(id) ? undefined : projectedReferenceWithout(loan, gone);
        return left ? [[id, left]] : [];
      }),
    ),
  );
  if (!sketch.patterns) return;
  const patterns = Object.entries(sketch.patterns).flatMap(([id, pattern]) => {
    const left = gone.has(id) ? undefined : patternWithout(pattern, gone);
    return left ? [[id, left] as const] : [];
  });
  if (patterns.length > 0) sketch.patterns = Object.fromEntries(patterns);
  else delete sketch.patterns;
}

function setLoans(sketch: SketchStep, loans: NonNullable<SketchStep['loans']>): void {
  if (Object.keys(loans).length > 0) sketch.loans = loans;
  else delete sketch.loans;
}

/** Is it the same curve on the same points? Only where it is drawn, and as what, may differ. */
const sameShape = (before: Entity | undefined, after: Entity): boolean =>
  before?.kind === after.kind &&
  entityKind(before.kind).uses(before).join(' ') === entityKind(after.kind).uses(after).join(' ');

/** Points that some curve stands on. */
const usedPoints = ({ entities }: SketchStep): Set<Id> =>
  new Set(Object.values(entities).flatMap((entity) => [...entityKind(entity.kind).uses(entity)]));

/** What goes when these go: users of erased points, relations on erased entities, points left without any user. */
export function closure(sketch: SketchStep, ids: readonly Id[]): Set<Id> {
  const { entities: drawn, relations, patterns = {}, loans = {} } = sketch;
  const gone = new Set(
    ids.filter((id) => [drawn, relations, patterns, loans].some((records) => Object.hasOwn(records, id))),
  );
  // what was borrowed goes with its projected reference, but for corners that another projected reference has too
  for (const id of [...gone].filter((loan) => loans[loan])) {
    const others = new Set(
      Object.entries(loans).flatMap(([other, { makes }]) => (gone.has(other) ? [] : Object.values(makes))),
    );
    Object.values(loans[id]!.makes)
      .filter((entity) => !others.has(entity))
      .forEach((entity) => gone.add(entity));
  }
  const entities = Object.entries(sketch.entities);
  const uses = (id: Id) => entityKind(sketch.entities[id]!.kind).uses(sketch.entities[id]!);
  for (const [id] of entities) if (uses(id).some((used) => gone.has(used))) gone.add(id);
  for (const id of [...gone].filter((gid) => sketch.entities[gid])) {
    for (const point of uses(id)) {
      const needed = entities.some(([other]) => !gone.has(other) && uses(other).includes(point));
      if (!needed && Object.hasOwn(sketch.entities, point)) gone.add(point);
    }
  }
  for (const [id, relation] of Object.entries(sketch.relations))
    if (
      relationKind(relation.kind)
        .refs(relation)
        .some((ref) => gone.has(ref))
    )
      gone.add(id);
  return gone;
}
