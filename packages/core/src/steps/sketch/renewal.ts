import { add2, direction2, left2, scale2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import {
  along,
  derivatives,
  distanceFrom,
  EditBuilder,
  entityKind,
  Geometry,
  offsetOf,
  type Entities,
  type Entity,
  type NewId,
  type Relation,
  type SketchEdit,
} from '../../sketch/index.ts';
import type { SketchStep } from './index.ts';
import type { ProjectedReference } from './projected-references.ts';

/** What makes a projected reference what its source is now: its own entities, and the offsets that follow them. */
interface Renewal extends SketchEdit {
  readonly makes: ProjectedReference['makes'];
}

type Offset = Extract<Relation, { kind: 'offset' }>;

/**
 * A projected reference as its source is now. What is there still keeps its entity, so that relations, areas and steps that speak of it
 * go on; what is new gets one, what is gone goes. Curves beside the outline are drawn beside the new one, at the same
 * distance.
 * @param now what the source looks like, by lasting keys @param drawn the sketch as it is solved
 */
export function renewal(step: SketchStep, id: Id, now: Entities, drawn: Geometry, newId: NewId): Renewal {
  const { [id]: own, ...others } = step.loans ?? {};
  const before = own?.makes ?? {};
  const beside = new Map(Object.values(others).flatMap(({ makes }) => Object.entries(makes)));
  const isAs = (entity: Entity, known: Id | undefined) =>
    known !== undefined && step.entities[known]?.kind === entity.kind;
  const makes = Object.fromEntries(
    Object.entries(now).map(([key, entity]) => {
      const known = [before[key], beside.get(key)].find((other) => isAs(entity, other));
      return [key, known ?? newId('b')];
    }),
  );
  const flagged = Object.values(before).flatMap((known) => {
    const entity = step.entities[known];
    return entity && entity.kind !== 'point' ? [entity.construction === true] : [];
  });
  const isConstruction = flagged.length > 0 && flagged.every(Boolean);
  const shared = new Set(Object.values(others).flatMap((loan) => Object.values(loan.makes)));
  const entities: Record<Id, Entity> = {};
  for (const [key, entity] of Object.entries(now)) {
    const made = entityKind(entity.kind).onto(entity, (point) => makes[point]!);
    const known = step.entities[makes[key]!];
    const flag = known && 'construction' in known ? known.construction === true : !known && isConstruction;
    if (shared.has(makes[key]!)) continue;
    entities[makes[key]!] = made.kind !== 'point' && flag ? { ...made, construction: true } : made;
  }
  const kept = new Set(Object.values(makes));
  const remove = Object.values(before).filter((known) => !kept.has(known) && !shared.has(known));
  return {
    makes,
    ...withOffsets(step, drawn, { entities, relations: {}, remove }, [Object.values(before), [...kept]], newId),
  };
}

/** The edit with curves beside the ones that it changes, and with those beside these. */
function withOffsets(
  step: SketchStep,
  drawn: Geometry,
  edit: SketchEdit,
  [before, after]: readonly [readonly Id[], readonly Id[]],
  newId: NewId,
): SketchEdit {
  let all = edit;
  const changes = [{ before: new Set(before), after }];
  for (const change of changes)
    for (const [id, relation] of Object.entries(step.relations)) {
      if (relation.kind !== 'offset' || all.relations[id]) continue;
      if (!relation.pairs.every(({ from }) => change.before.has(from))) continue;
      const next = besideAnew(id, relation, drawn, all, change.after, newId);
      if (!next) continue;
      const gone = ofOffset(relation).filter((to) => !next.made.includes(to));
      all = {
        entities: { ...all.entities, ...next.edit.entities },
        relations: { ...all.relations, ...next.edit.relations },
        remove: [...all.remove, ...gone],
      };
      changes.push({ before: new Set(ofOffset(relation)), after: next.made });
    }
  return all;
}

/** The curves and ends that an offset made. */
const ofOffset = ({ pairs, joints }: Offset): Id[] => [...pairs, ...joints].map(({ to }) => to);

/** An offset drawn anew beside a chain that has changed; undefined where it can't be, or nothing of the old chain is left. */
function besideAnew(
  id: Id,
  offset: Offset,
  drawn: Geometry,
  { entities }: SketchEdit,
  after: readonly Id[],
  newId: NewId,
): { readonly edit: SketchEdit; readonly made: readonly Id[] } | undefined {
  const geometry = new Geometry({ ...drawn.entities, ...entities });
  const first = offset.pairs.find(({ from }) => after.includes(from));
  if (!first) return undefined;
  const chain = hangingTogether(geometry, after, first.from);
  const [piece] = drawn.pieces(first.from);
  const [now] = geometry.pieces(first.from);
  const size = distanceFrom(drawn, [first.from], along(drawn.pieces(first.to)[0]!, 0.5));
  const heading = direction2(derivatives(now!, 0.5)[0]);
  if (!piece || !heading) return undefined;
  const towards = add2(along(now!, 0.5), scale2(left2(heading), first.side * size));
  const builder = new EditBuilder({ geometry, relations: {} }, newId);
  const made = offsetOf(builder, chain, towards, { text: offset.value, size });
  if (!made.ok) return undefined;
  const [anew] = Object.values(made.value.relations) as [Offset];
  // what was there before keeps its name
  const names = new Map<Id, Id>();
  for (const side of ['pairs', 'joints'] as const)
    for (const { from, to } of anew[side]) {
      const known = (offset[side] as readonly { from: Id; to: Id }[]).find((other) => other.from === from);
      if (known && drawn.entities[known.to]?.kind === made.value.entities[to]?.kind) names.set(to, known.to);
    }
  const name = (to: Id): Id => names.get(to) ?? to;
  const renamed = <T extends { to: Id }>(one: T): T => ({ ...one, to: name(one.to) });
  const relation: Offset = { ...offset, pairs: anew.pairs.map(renamed), joints: anew.joints.map(renamed) };
  const flags = (to: Id) => ('construction' in (drawn.entities[to] ?? {}) ? { construction: true as const } : {});
  return {
    edit: {
      entities: Object.fromEntries(
        Object.entries(made.value.entities).map(([to, entity]) => {
          const { construction: _, ...bare } = entityKind(entity.kind).onto(entity, name) as Entity & {
            construction?: boolean;
          };
          return [name(to), { ...bare, ...(entity.kind === 'point' ? {} : flags(name(to))) }];
        }),
      ),
      relations: { [id]: relation },
      remove: [],
    },
    made: ofOffset(relation),
  };
}

/** Those of some curves that hang together with one by their ends, itself first. */
function hangingTogether(geometry: Geometry, ids: readonly Id[], first: Id): Id[] {
  const curves = ids.filter((id) => geometry.entities[id] && geometry.entities[id].kind !== 'point');
  const chain = [first];
  for (const id of chain)
    for (const other of curves)
      if (!chain.includes(other) && geometry.ends(other).some((end) => geometry.ends(id).includes(end)))
        chain.push(other);
  return chain;
}
