import type { TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  boxesApart,
  issue,
  type BodyHandle,
  type CombineKind,
  type TransformRequest,
  type Result,
  type SplitRequest,
  copyName,
  copyOfBody,
} from '@helb/core';
import {
  agree,
  bulkOf,
  hasFreeFaces,
  hasItsSkin,
  isBoxed,
  keepsPlaces,
  plus,
  type Combining,
} from './boolean-checks.ts';
import { detoured } from './detours.ts';
import { motionOf } from './edges.ts';
import { nearest } from './gaps.ts';
import { fail, guarded, ok, type Library, type DisposalScope } from './library.ts';
import { boxOf } from './measure.ts';
import { carried, carriedOver, distinct, toldApart, type NamedSolid } from './names.ts';
import { plane } from './profile.ts';
import { listOf, members, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';

/**
 * A boolean of targets and tools; the solids of the result with the names carried over. Targets may overlap or touch each
 * other: each is what it is by itself, and what was added joins only what it meets.
 */
export function combined(
  library: Library,
  scope: DisposalScope,
  kind: CombineKind,
  targets: readonly NamedSolid[],
  tools: readonly NamedSolid[],
): Result<NamedSolid[]> {
  const combining = { kind, targets, tools };
  const made = someMeet(library, targets)
    ? oneByOne(library, scope, groupsOf(library, scope, combining))
    : combinedAtOnce(library, scope, combining);
  return made.ok ? ok(toldApart(library, scope, made.value)) : made;
}

/** Do boxes of two of them meet? The library takes what overlaps for one: whatever both share it leaves to one of them. */
function someMeet(library: Library, targets: readonly NamedSolid[]): boolean {
  if (targets.length < 2) return false;
  const boxes = targets.map(({ shape }) => boxOf(library, shape));
  return boxes.some((box, k) => boxes.slice(k + 1).some((other) => boxesApart(box, other) < NEAR));
}
/** Nearer than so much, mm, two solids may meet. */
const NEAR = 1e-3;

/** What has to be done together: to each target by itself, or to all that what is added joins. */
function groupsOf(library: Library, scope: DisposalScope, { kind, targets, tools }: Combining): Combining[] {
  const boxes = new Map([...targets, ...tools].map((solid) => [solid, boxOf(library, solid.shape)]));
  const isNear = (a: NamedSolid, b: NamedSolid) => boxesApart(boxes.get(a)!, boxes.get(b)!) < NEAR;
  if (kind !== 'add')
    return targets.map((target) => ({ kind, targets: [target], tools: tools.filter((tool) => isNear(target, tool)) }));
  const meets = (a: NamedSolid, b: NamedSolid): boolean => {
    if (!isNear(a, b)) return false;
    const gap = nearest(library, scope, a.shape, b.shape);
    return !gap.ok || gap.value.distance_mm < NEAR;
  };
  // all that hangs together by what is added: two targets do not, however they meet
  const left = new Set([...targets, ...tools]);
  const isTool = new Set(tools);
  return [...left].flatMap((first) => {
    if (!left.delete(first)) return [];
    const group = [first];
    for (const one of group)
      for (const other of left)
        if ((isTool.has(one) || isTool.has(other)) && meets(one, other)) {
          left.delete(other);
          group.push(other);
        }
    // names of what was there stay before those of what is added
    const [one, ...others] = [...targets, ...tools].filter((solid) => group.includes(solid));
    return [{ kind, targets: [one!], tools: others }];
  });
}

/** Each group by itself, in the order of the targets; what nothing meets stays, or shares nothing. */
function oneByOne(library: Library, scope: DisposalScope, groups: readonly Combining[]): Result<NamedSolid[]> {
  const made: NamedSolid[] = [];
  for (const group of groups) {
    const { kind, targets, tools } = group;
    if (tools.length === 0 && kind === 'overlap') continue;
    const one =
      tools.length === 0
        ? ok(targets.map((solid) => ({ ...solid, shape: library.TopoDS.Solid(solid.shape) })))
        : combinedAtOnce(library, scope, group);
    if (one.ok) made.push(...one.value);
    else if (one.issue.code !== 'kernel.empty') {
      made.forEach(({ shape }) => shape.delete());
      return one;
    }
  }
  return made.length === 0 ? fail('kernel.empty') : ok(made);
}

/**
 * One operation for all. With free faces the library sometimes gives something else without a word: there it has to be right
 * by other ways, at once or with what nearly meets taken as meeting.
 */
function combinedAtOnce(library: Library, scope: DisposalScope, combining: Combining): Result<NamedSolid[]> {
  if ([...combining.targets, ...combining.tools].every(({ shape }) => !hasFreeFaces(library, scope, shape)))
    return combinedOnce(library, scope, combining, 0);
  let said: Result<NamedSolid[]> | undefined;
  for (const fuzzy of FUZZY) {
    const made = guarded(library, (inner) => combinedOnce(library, inner, combining, fuzzy));
    if (made.ok && isRight(library, scope, combining, made.value, fuzzy)) {
      if (fuzzy >= TOLD) detoured(library, issue('kernel.nearly', { within: fuzzy }));
      return made;
    }
    if (made.ok) made.value.forEach(({ shape }) => shape.delete());
    said ??= made;
  }
  return said!.ok ? fail('kernel.wrong') : said!;
}

/** How far apart, mm, counts as meeting: as ever, then more. */
export const FUZZY = [0, 1e-5, 1e-4, 1e-3] as const;
/** From here on, mm, it is told: less is how exactly the library meets anyway. */
const TOLD = 1e-4;

/**
 * Is it what was asked for? What the library overlooks it overlooks in one order of the bodies, seldom in both: volumes have
 * to add up with what they share in the other order, or in the same one if the skin lies where it has to.
 */
function isRight(
  library: Library,
  scope: DisposalScope,
  combining: Combining,
  made: readonly NamedSolid[],
  fuzzy: number,
): boolean {
  const { kind, targets, tools } = combining;
  if (!isBoxed(library, combining, made) || !keepsPlaces(library, scope, combining, made)) return false;
  // several that are added may overlap each other: by volumes nothing can be told
  const isOne = kind !== 'add' || targets.length + tools.length === 2;
  if (isOne && addsUp(library, combining, made, [tools, targets], fuzzy)) return true;
  if (isOne && addsUp(library, combining, made, [targets, tools], fuzzy) === false) return false;
  return hasItsSkin(library, scope, combining, made);
}

/** Do the volumes add up with what both share, asked for in this order, and where they lie? Undefined where that is not found. */
function addsUp(
  library: Library,
  { kind, targets, tools }: Combining,
  made: readonly NamedSolid[],
  [a, b]: readonly [readonly NamedSolid[], readonly NamedSolid[]],
  fuzzy: number,
): boolean | undefined {
  const shared = guarded(library, (inner) =>
    combinedOnce(library, inner, { kind: 'overlap', targets: a, tools: b }, fuzzy),
  );
  if (!shared.ok && shared.issue.code !== 'kernel.empty') return undefined;
  const overlap = bulkOf(library, shared.ok ? shared.value : []);
  if (shared.ok) shared.value.forEach(({ shape }) => shape.delete());
  const before = bulkOf(library, targets);
  const expected = {
    add: () => plus(plus(before, bulkOf(library, tools)), overlap, -1),
    cut: () => plus(before, overlap, -1),
    overlap: () => overlap,
  }[kind]();
  const isSum = agree(library, bulkOf(library, made), expected, targets);
  // that nothing is shared although something was taken tells nothing but that it was not found
  return isSum || shared.ok ? isSum : undefined;
}

function combinedOnce(
  library: Library,
  scope: DisposalScope,
  { kind, targets, tools }: Combining,
  fuzzy: number,
): Result<NamedSolid[]> {
  const operation = scope.keepCleared(operationOf(library, kind));
  if (fuzzy > 0) operation.SetFuzzyValue(fuzzy);
  const list = (solids: readonly NamedSolid[]) =>
    listOf(
      library,
      scope,
      solids.map((solid) => solid.shape),
    );
  operation.SetArguments(list(targets));
  operation.SetTools(list(tools));
  operation.Build(scope.keep(new library.Message_ProgressRange()));
  if (!operation.IsDone() || operation.HasErrors()) return fail('kernel.failed', { reason: `${kind} found no result` });
  operation.SimplifyResult(true, true, 1e-6);
  const solids = subShapes(library, scope, scope.keep(operation.Shape()), 'TopAbs_SOLID');
  if (solids.length === 0) return fail('kernel.empty');
  if (solids.some((solid) => !isSound(library, solid))) return fail('kernel.invalid');
  const named = carriedOver(library, scope, [...targets, ...tools], operation, solids);
  // the scope deletes its own handles of the solids: the table keeps handles of its own
  return ok(named.map((solid) => ({ ...solid, shape: library.TopoDS.Solid(solid.shape) })));
}

const operationOf = (library: Library, kind: CombineKind) => {
  if (kind === 'add') return new library.BRepAlgoAPI_Fuse();
  return kind === 'cut' ? new library.BRepAlgoAPI_Cut() : new library.BRepAlgoAPI_Common();
};

/** What cuts a body in two: a plane, or a face made larger. Fails where there is no such face. */
export function sheetOf(
  library: Library,
  scope: DisposalScope,
  by: SplitRequest['by'],
  bodyOf: (body: BodyHandle) => NamedSolid,
): Result<TopoDS_Face> {
  if (!('face' in by)) {
    const maker = scope.keep(new library.BRepBuilderAPI_MakeFace(plane(library, scope, by)));
    return ok(scope.keep(maker.Face()));
  }
  const body = bodyOf(by.body);
  const k = body.faceNames.indexOf(by.face);
  if (k < 0) return fail('kernel.gone', { what: 'face' });
  const face = scope.keep(library.TopoDS.Face(subShapes(library, scope, body.shape, 'TopAbs_FACE')[k]!));
  const wide = scope.keep(new library.TopoDS_Face());
  library.BRepLib.ExtendFace(face, 1e3, true, true, true, true, wide);
  return ok(wide);
}

/** The pieces into which a face cuts a body; what the face leaves of itself gets this name. */
export function splitBy(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  cutter: TopoDS_Shape,
  name: string,
): Result<NamedSolid[]> {
  const maker = scope.keepCleared(new library.BRepAlgoAPI_Splitter());
  maker.SetArguments(listOf(library, scope, [body.shape]));
  maker.SetTools(listOf(library, scope, [cutter]));
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone() || maker.HasErrors()) return fail('kernel.failed', { reason: 'no split was found' });
  const solids = subShapes(library, scope, scope.keep(maker.Shape()), 'TopAbs_SOLID');
  if (solids.some((solid) => !isSound(library, solid))) return fail('kernel.invalid');
  const made = members(library, scope, scope.keep(maker.Modified(cutter))).map((face) => ({ face, name }));
  return ok(
    carried(library, scope, [body], maker, solids, made).map((solid) => ({
      ...solid,
      shape: library.TopoDS.Solid(solid.shape),
    })),
  );
}

/** A copy moved, turned or mirrored; its faces are named after the step, the instance and what they were. */
export function transformedBody(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: TransformRequest,
): Result<NamedSolid> {
  const { transform, step, instance } = request;
  const motion = motionOf(library, scope, transform);
  const maker = scope.keep(new library.BRepBuilderAPI_Transform(body.shape, motion, true, false));
  if (!maker.IsDone()) return fail('kernel.failed', { reason: 'it could not be moved' });
  const shape = library.TopoDS.Solid(scope.keep(maker.Shape()));
  const before = subShapes(library, scope, body.shape, 'TopAbs_FACE');
  const after = subShapes(library, scope, shape, 'TopAbs_FACE');
  const names = after.map((face) => {
    const k = before.findIndex((other) => scope.keep(maker.ModifiedShape(other)).IsSame(face));
    return copyName(step, instance, body.faceNames[k] ?? 'face');
  });
  return ok({ shape, name: copyOfBody(step, instance), faceNames: distinct(library, scope, after, names) });
}
