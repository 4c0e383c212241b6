import { ACCEPT_WORDS } from '../references/index.ts';
import { issue, type Issue, type Words } from '../result/index.ts';
import { wallWords } from '../sketch/index.ts';
import { areaWords } from './areas.ts';
import { bodyWords } from './bodies.ts';
import { bringIn } from './bring-in/index.ts';
import { oppositeHand } from './opposite-hand/index.ts';
import { chamfer } from './chamfer/index.ts';
import { combine } from './combine/index.ts';
import { datumAxis } from './datum-axis/index.ts';
import { datumFrame } from './datum-frame/index.ts';
import { datumPlane } from './datum-plane/index.ts';
import { datumPoint } from './datum-point/index.ts';
import { datumWords } from './datum.ts';
import { draft } from './draft/index.ts';
import { extrude } from './extrude/index.ts';
import { applying, fieldWords, filledIn, lackIn } from './fields/index.ts';
import { fillet } from './fillet/index.ts';
import { fullRound } from './full-round/index.ts';
import { helix } from './helix/index.ts';
import { helixCurve } from './helix-curve/index.ts';
import { hole } from './hole/index.ts';
import type { StepKind } from './kind.ts';
import type { Id, RecordOf } from '../records/index.ts';
import { stepRegister, type OfferedStep } from './register.ts';
import { loft } from './loft/index.ts';
import { mirror } from './mirror/index.ts';
import { move } from './move/index.ts';
import { offsetFace } from './offset-face/index.ts';
import { patternLine } from './pattern-line/index.ts';
import { patternPath } from './pattern-path/index.ts';
import { patternRound } from './pattern-round/index.ts';
import { referenceMesh } from './reference-mesh/index.ts';
import { repeatWords } from './repeats.ts';
import { revolve } from './revolve/index.ts';
import { shell } from './shell/index.ts';
import { sketch, type SketchStep } from './sketch/index.ts';
import { split } from './split/index.ts';
import { sweep } from './sweep/index.ts';
import { thread } from './thread/index.ts';
import { thicken } from './thicken/index.ts';
import { windingWords } from './winding.ts';

export type { Pull, SeenAround } from './pulls.ts';
export { signLines, type Sign } from './thread/index.ts';
export { BOLT_NAMES } from './hole/tables.ts';
export type { Field } from './fields/index.ts';
export { applying, askWords, filledIn, initialWords, type Fields, type Filled } from './fields/index.ts';
export type {
  DrawnShape,
  LaidFile,
  Phrase,
  PickField,
  ResolveContext,
  SketchSources,
  SolvedSketch,
  Source,
  StepKind,
} from './kind.ts';
export { outlinePieces, PLANE_NAMES, readSize, readSizes, solved, type OriginPlane } from './sketch/index.ts';
export {
  borrowingOf,
  drawnSources,
  isBorrowed,
  projectedReferenceWithout,
  notYetBorrowed,
  planeReference,
  type SketchPlane,
} from './sketch/projected-references.ts';
export { buildsAfter, placeFurtherUp, withItsName } from './earlier.ts';
export { tightestPlace } from './shell/tightest.ts';
export { skinPieces } from './shell/skin.ts';
export { renewal } from './sketch/renewal.ts';
export type { SketchStep };

/** Steps that repeat others look these up here. */
const kindOf = (kind: string): StepKind<never, unknown> => stepKind(kind as StepName) as StepKind<never, unknown>;

/** The register: a new kind of step is a folder beside these and a line here, where it is to be offered. */
const STEP_KINDS = {
  sketch,
  extrude,
  hole,
  fillet,
  chamfer,
  shell,
  revolve,
  'pattern-line': patternLine(kindOf),
  'pattern-round': patternRound(kindOf),
  'pattern-path': patternPath(kindOf),
  mirror: mirror(kindOf),
  loft,
  sweep,
  helix,
  combine,
  split,
  draft,
  'offset-face': offsetFace,
  thicken,
  thread,
  'full-round': fullRound,
  'helix-curve': helixCurve,
  'bring-in': bringIn,
  'reference-mesh': referenceMesh,
  'opposite-hand': oppositeHand,
  move,
  'datum-plane': datumPlane,
  'datum-axis': datumAxis,
  'datum-point': datumPoint,
  'datum-frame': datumFrame,
};

const register = stepRegister(STEP_KINDS);
export type Step = RecordOf<typeof STEP_KINDS>;
export type StepName = Step['kind'];
export const stepSchema = register.schema;
export const STEP_NAMES: readonly StepName[] = register.names;
/** Kinds of steps that are offered by themselves, in this order. */
export const OFFERED_STEPS: readonly OfferedStep<StepName>[] = register.offered;
/** What the register knows of a kind. */
export const stepKind = (kind: StepName): StepKind<Step, unknown> => register.kind(kind);

/** The first line of a step on which something has to be chosen still; undefined where nothing is. */
export function lacking(step: Step): { readonly field: string; readonly issue: Issue } | undefined {
  const { picks, fields = {} } = stepKind(step.kind);
  const filled = filledIn(fields, step);
  for (const [field, spec] of applying(fields, step)) {
    const found = lackIn(spec, filled[field]);
    if (found) return { field, issue: found };
  }
  // datums are asked line by line, without fields
  const line = picks?.(step).find(({ picked, min }) => picked.length < min);
  return line && { field: line.field, issue: issue('reference.missing', { asked: ACCEPT_WORDS[line.accepts] }) };
}

/** Can a step of this kind be repeated by patterns and mirrors? */
export function isRepeatable(kind: StepName): boolean {
  const { tools, repeats, again } = stepKind(kind);
  return (tools ?? repeats ?? again) !== undefined;
}

/**
 * What a repeat is most likely meant for: the last step that adds or cuts, with what changes its edges since. None where
 * something else came last.
 * @param steps of a part, in their order
 */
export function latestFeature(steps: readonly (readonly [Id, Step])[]): readonly Id[] {
  const made = steps.filter(([, { kind, suppressed }]) => stepKind(kind).build && !suppressed).reverse();
  const at = made.findIndex(([, { kind }]) => !stepKind(kind).again);
  const [, step] = made[at] ?? [];
  const { tools, fields = {} } = step ? stepKind(step.kind) : {};
  // what stands alone is repeated as a body
  if (!tools || filledIn(fields, step!)['result'] === 'new') return [];
  return made
    .slice(0, at + 1)
    .map(([id]) => id)
    .reverse();
}

/** Is this a step that is drawn? */
export const isSketch = (step: Step | undefined): step is SketchStep => step?.kind === 'sketch';

/** Sentences of all steps, and of what several of them have in common. */
export const stepWords: Words = {
  ...areaWords,
  ...wallWords,
  ...bodyWords,
  ...fieldWords,
  ...datumWords,
  ...repeatWords,
  ...windingWords,
  ...register.words,
};
