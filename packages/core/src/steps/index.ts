import { z } from 'zod';
import { ACCEPT_WORDS } from '../references/index.ts';
import { issue, type Issue, type Words } from '../result/index.ts';
import { wallWords } from '../sketch/index.ts';
import { areaWords } from './areas.ts';
import { bodyWords } from './bodies.ts';
import { bringIn, bringInSchema, bringInWords } from './bring-in/index.ts';
import { oppositeHand, oppositeHandSchema, oppositeHandWords } from './opposite-hand/index.ts';
import { chamfer, chamferSchema } from './chamfer/index.ts';
import { combine, combineSchema, combineWords } from './combine/index.ts';
import { datumAxis, datumAxisSchema } from './datum-axis/index.ts';
import { datumFrame, datumFrameSchema } from './datum-frame/index.ts';
import { datumPlane, datumPlaneSchema } from './datum-plane/index.ts';
import { datumPoint, datumPointSchema } from './datum-point/index.ts';
import { datumWords } from './datum.ts';
import { draft, draftSchema, draftWords } from './draft/index.ts';
import { extrude, extrudeSchema, extrudeWords, type ExtrudeStep } from './extrude/index.ts';
import { applying, fieldWords, filledIn, lackIn } from './fields.ts';
import { fillet, filletSchema, filletWords } from './fillet/index.ts';
import { fullRound, fullRoundSchema, fullRoundWords } from './full-round/index.ts';
import { helix, helixSchema, helixWords } from './helix/index.ts';
import { helixCurve, helixCurveSchema, helixCurveWords } from './helix-curve/index.ts';
import { hole, holeSchema, holeWords } from './hole/index.ts';
import type { StepKind } from './kind.ts';
import { loft, loftSchema, loftWords } from './loft/index.ts';
import { mirror, mirrorSchema } from './mirror/index.ts';
import { move, moveSchema, moveWords } from './move/index.ts';
import { offsetFace, offsetFaceSchema, offsetFaceWords } from './offset-face/index.ts';
import { patternLine, patternLineSchema } from './pattern-line/index.ts';
import { patternPath, patternPathSchema } from './pattern-path/index.ts';
import { patternRound, patternRoundSchema } from './pattern-round/index.ts';
import { referenceMesh, referenceMeshSchema, referenceMeshWords } from './reference-mesh/index.ts';
import { repeatWords } from './repeats.ts';
import { revolve, revolveSchema, revolveWords } from './revolve/index.ts';
import { shell, shellSchema, shellWords } from './shell/index.ts';
import { sketch, sketchSchema, sketchWords, type SketchStep } from './sketch/index.ts';
import { split, splitSchema, splitWords } from './split/index.ts';
import { sweep, sweepSchema, sweepWords } from './sweep/index.ts';
import { thread, threadSchema, threadWords } from './thread/index.ts';
import { thicken, thickenSchema, thickenWords } from './thicken/index.ts';
import { windingWords } from './winding.ts';

export { signLines, type Sign } from './thread/index.ts';
export { BOLT_NAMES } from './hole/tables.ts';
export type { Field, Fields } from './fields.ts';
export { applying, filledIn, isUsual } from './fields.ts';
export type {
  BodyResult,
  ExpressionPlace,
  LaidFile,
  Phrase,
  PickField,
  ReferencePlace,
  ResolveContext,
  SketchSources,
  SolvedSketch,
  Source,
  StepKind,
} from './kind.ts';
export {
  outlinePieces,
  PLANE_NAMES,
  readPattern,
  readSize,
  readSizes,
  solved,
  type OriginPlane,
} from './sketch/index.ts';
export {
  borrowingOf,
  drawnSources,
  isBorrowed,
  projectedReferenceOf,
  projectedReferenceWithout,
  notYetBorrowed,
  planeReference,
  type ProjectedReference,
  type SketchPlane,
} from './sketch/projected-references.ts';
export { tightestPlace, type Tightest } from './shell/tightest.ts';
export { skinPieces } from './shell/skin.ts';
export { renewal, type Renewal } from './sketch/renewal.ts';
export type { ExtrudeStep, SketchStep };

/** Steps that repeat others look these up here. */
const kindOf = (kind: string) => stepKind(kind as StepName) as StepKind<never, unknown>;

/** The register: a new kind of step is a folder beside these, a line here and one in the schema. */
const STEP_KINDS = {
  sketch,
  extrude,
  revolve,
  sweep,
  helix,
  loft,
  hole,
  fillet,
  'full-round': fullRound,
  chamfer,
  shell,
  draft,
  'offset-face': offsetFace,
  thicken,
  thread,
  split,
  combine,
  mirror: mirror(kindOf),
  'pattern-line': patternLine(kindOf),
  'pattern-round': patternRound(kindOf),
  'pattern-path': patternPath(kindOf),
  move,
  'bring-in': bringIn,
  'reference-mesh': referenceMesh,
  'opposite-hand': oppositeHand,
  'datum-plane': datumPlane,
  'datum-axis': datumAxis,
  'datum-point': datumPoint,
  'datum-frame': datumFrame,
  'helix-curve': helixCurve,
};

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

export const stepSchema = z.discriminatedUnion('kind', [
  sketchSchema,
  extrudeSchema,
  revolveSchema,
  sweepSchema,
  helixSchema,
  loftSchema,
  holeSchema,
  filletSchema,
  fullRoundSchema,
  chamferSchema,
  shellSchema,
  draftSchema,
  offsetFaceSchema,
  thickenSchema,
  threadSchema,
  splitSchema,
  combineSchema,
  mirrorSchema,
  patternLineSchema,
  patternRoundSchema,
  patternPathSchema,
  moveSchema,
  bringInSchema,
  referenceMeshSchema,
  oppositeHandSchema,
  datumPlaneSchema,
  datumAxisSchema,
  datumPointSchema,
  datumFrameSchema,
  helixCurveSchema,
]);
export type Step = z.infer<typeof stepSchema>;
export type StepName = Step['kind'];
export const STEP_NAMES = Object.keys(STEP_KINDS) as StepName[];

/** Is this a step that is drawn? */
export const isSketch = (step: Step | undefined): step is SketchStep => step?.kind === 'sketch';

/** What the register knows of a kind. */
export const stepKind = (kind: StepName): StepKind<Step, unknown> => STEP_KINDS[kind];

/** Sentences of all steps. */
export const stepWords: Words = {
  ...sketchWords,
  ...areaWords,
  ...wallWords,
  ...bodyWords,
  ...fieldWords,
  ...datumWords,
  ...repeatWords,
  ...extrudeWords,
  ...revolveWords,
  ...sweepWords,
  ...helixWords,
  ...windingWords,
  ...helixCurveWords,
  ...loftWords,
  ...bringInWords,
  ...referenceMeshWords,
  ...oppositeHandWords,
  ...holeWords,
  ...filletWords,
  ...fullRoundWords,
  ...moveWords,
  ...shellWords,
  ...draftWords,
  ...offsetFaceWords,
  ...thickenWords,
  ...threadWords,
  ...splitWords,
  ...combineWords,
};
