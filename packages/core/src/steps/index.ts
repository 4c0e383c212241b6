import { z } from 'zod';
import { extrude, extrudeSchema, type ExtrudeStep } from './extrude/index.ts';
import type { StepKind } from './kind.ts';
import { sketch, sketchSchema, type SketchStep } from './sketch/index.ts';

export type { ExpressionPlace, Phrase, ResolveContext, SolvedSketch, StepKind } from './kind.ts';
export {
  ORIGIN_PLANES,
  outlinePieces,
  PLANE_NAMES,
  readPattern,
  readSize,
  readSizes,
  solved,
  type OriginPlane,
} from './sketch/index.ts';
export type { ExtrudeStep, SketchStep };

/** The register: a new kind of step is a folder beside these and a line here. */
const STEP_KINDS = { sketch, extrude };

export const stepSchema = z.discriminatedUnion('kind', [sketchSchema, extrudeSchema]);
export type Step = z.infer<typeof stepSchema>;
export type StepName = Step['kind'];

/** Is this a step that is drawn? */
export const isSketch = (step: Step | undefined): step is SketchStep => step?.kind === 'sketch';

export const stepKind = (kind: StepName): StepKind<Step, unknown> => STEP_KINDS[kind];
