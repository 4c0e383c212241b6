import { checkAssemblies } from './check-assembly.ts';
import { checkSheets } from './check-sheets.ts';
import { tidyName } from '../expressions/index.ts';
import { once, type Id } from '../records/index.ts';
import { issue, type Issue } from '../result/index.ts';
import { entityKind, findEntity, Geometry, patternRefs, relationKind, type Relation } from '../sketch/index.ts';
import { isSketch, stepKind, type SketchStep } from '../steps/index.ts';
import { loopOfParts, partLinks } from './part-links.ts';
import { LIMITS, type Part, type Project } from './schema.ts';

/** What a schema can't say: orders are complete, references point at what is there, names are unique. */
export const checkProject = (project: Project): Issue | undefined => checkNested(project, 0);

/** @param depth how many projects this one is brought into */
function checkNested(project: Project, depth: number): Issue | undefined {
  return (
    checkOrder('values', project.valueOrder, project.values) ??
    checkOrder('parts', project.partOrder, project.parts) ??
    checkNames(project) ??
    checkOrder('variants', project.variantOrder ?? [], project.variants ?? {}) ??
    first(Object.values(project.parts), checkPart) ??
    first(Object.values(project.parts), (part) => checkOrigin(part, depth)) ??
    checkAssemblies(project) ??
    checkOrder('sheets', project.sheetOrder ?? [], project.sheets ?? {}) ??
    checkSheets(project) ??
    checkLinks(project)
  );
}

/** Parts that are taken from are there, and none takes from itself, in whatever way round. */
function checkLinks(project: Project): Issue | undefined {
  const links = partLinks(project);
  const lost = links.find(({ from }) => !project.parts[from]);
  if (lost) return issue('part.lost', { name: project.parts[lost.part]!.name });
  const loop = loopOfParts(links);
  return loop && issue('part.loop', { loop: loop.map((id) => project.parts[id]!.name) });
}

function first<T>(items: readonly T[], check: (item: T) => Issue | undefined): Issue | undefined {
  for (const item of items) {
    const found = check(item);
    if (found) return found;
  }
  return undefined;
}

function checkOrder(what: string, order: readonly Id[], records: object): Issue | undefined {
  const complete = order.length === Object.keys(records).length && new Set(order).size === order.length;
  return complete && order.every((id) => Object.hasOwn(records, id)) ? undefined : issue('project.order', { what });
}

function checkNames({ values }: Project): Issue | undefined {
  const names = Object.values(values).map((value) => value.name);
  const untidy = names.find((name) => name !== tidyName(name));
  const doubled = names.find((name, k) => names.indexOf(name) !== k);
  if (untidy !== undefined) return issue('value.name', { name: untidy });
  return doubled === undefined ? undefined : issue('value.taken', { name: doubled });
}

const checkPart = once((part: Part): Issue | undefined => {
  const order = checkOrder(`steps of ${part.name}`, part.stepOrder, part.steps);
  if (order) return order;
  const built = new Set<Id>();
  return first(part.stepOrder, (stepId) => {
    const step = part.steps[stepId]!;
    const missing = stepKind(step.kind)
      .uses(step)
      .find((used) => !built.has(used));
    if (missing !== undefined)
      return issue('step.needs', { step: step.name, needs: part.steps[missing]?.name ?? missing });
    built.add(stepId);
    return isSketch(step) ? checkSketch(step) : undefined;
  });
});

/** A part that comes from another project has nothing of its own, and what it comes from is sound. */
function checkOrigin({ name, from, steps }: Part, depth: number): Issue | undefined {
  if (!from) return undefined;
  const { design, given = {} } = from;
  if (Object.keys(steps).length > 0) return issue('part.brought', { name, project: design.name });
  if (depth >= LIMITS.origins) return issue('part.origins', { name, most: LIMITS.origins });
  if (!design.parts[from.part]) return issue('part.origin', { name, project: design.name });
  if (Object.keys(given).some((id) => !design.values[id])) return issue('part.given', { name, project: design.name });
  return checkNested(design, depth + 1);
}

/** References of entities and relations, by kind: a line stands on points, a relation on what is there. */
function checkSketch(sketch: SketchStep): Issue | undefined {
  const missing = (id: Id) => findEntity(sketch.entities, id) === undefined;
  for (const [id, entity] of Object.entries(sketch.entities))
    for (const used of entityKind(entity.kind).uses(entity))
      if (findEntity(sketch.entities, used)?.kind !== 'point') return dangling(sketch, id, used);
  const geometry = new Geometry(sketch.entities);
  for (const [id, relation] of Object.entries(sketch.relations)) {
    const kind = relationKind(relation.kind);
    const lost = kind.refs(relation).find(missing);
    if (lost !== undefined) return dangling(sketch, id, lost);
    if (!fits(relation, geometry))
      return issue('relation.kind', { sketch: sketch.name, relation: id, kind: relation.kind });
  }
  for (const [id, { makes }] of Object.entries(sketch.loans ?? {})) {
    const lost = Object.values(makes).find((entity) => !Object.hasOwn(sketch.entities, entity));
    if (lost !== undefined) return dangling(sketch, id, lost);
  }
  for (const [id, pattern] of Object.entries(sketch.patterns ?? {})) {
    const lost = patternRefs(pattern).find(missing);
    if (lost !== undefined) return dangling(sketch, id, lost);
    const [frame, role] = pattern.layout === 'line' ? [pattern.along, 'line'] : [pattern.centre, 'point'];
    if (geometry.roleOf(frame) !== role || pattern.of.some((of) => geometry.roleOf(of) === 'point'))
      return issue('relation.kind', { sketch: sketch.name, relation: id, kind: 'pattern' });
  }
  return undefined;
}

const dangling = (sketch: SketchStep, from: Id, to: Id): Issue =>
  issue('sketch.dangling', { sketch: sketch.name, from, to });

/** Is each role filled by a kind of entity that can play it? */
const fits = (relation: Relation, geometry: Geometry): boolean =>
  Object.entries(relationKind(relation.kind).roles(relation, geometry.roleOf)).every(([id, kinds]) =>
    kinds.includes(geometry.roleOf(id)!),
  );
