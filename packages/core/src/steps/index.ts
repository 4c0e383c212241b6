import { z } from 'zod';
import { datumAxis, datumAxisSchema } from './datum-axis/index.ts';
import { datumFrame, datumFrameSchema } from './datum-frame/index.ts';
import { datumPlane, datumPlaneSchema } from './datum-plane/index.ts';
import { datumPoint, datumPointSchema } from './datum-point/index.ts';
import { extrude, extrudeSchema, type ExtrudeStep } from './extrude/index.ts';
import type { StepKind } from './kind.ts';
import { sketch, sketchSchema, type SketchStep } from './sketch/index.ts';

export type {
  ExpressionPlace,
  Phrase,
  PickField,
  ReferencePlace,
  ResolveContext,
  SketchSources,
  SolvedSketch,
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
  loanOf,
  loanWithout,
  planeReference,
  type Loan,
  type SketchPlane,
} from './sketch/loans.ts';
export type { ExtrudeStep, SketchStep };

/** The register: a new kind of step is a folder beside these and a line here. */
const STEP_KINDS = {
  sketch,
  extrude,
  'datum-plane': datumPlane,
  'datum-axis': datumAxis,
  'datum-point': datumPoint,
  'datum-frame': datumFrame,
};

export const stepSchema = z.discriminatedUnion('kind', [
  sketchSchema,
  extrudeSchema,
  datumPlaneSchema,
  datumAxisSchema,
  datumPointSchema,
  datumFrameSchema,
]);
export type Step = z.infer<typeof stepSchema>;
export type StepName = Step['kind'];

/** Is this a step that is drawn? */
export const isSketch = (step: Step | undefined): step is SketchStep => step?.kind === 'sketch';

export const stepKind = (kind: StepName): StepKind<Step, unknown> =>
  STEP_KINDS[kind] as unknown as StepKind<Step, unknown>;
