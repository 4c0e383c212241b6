import { stepKind, type Id, type Project } from '@helb/core';

/** What a step came to, as far as tasks look at it. */
interface StepFacts {
  readonly part: Id;
  readonly isSketch: boolean;
  /** Of a sketch: does it enclose an area, and is nothing of it loose? Absent where that is not known now. */
  readonly encloses?: boolean;
  readonly isSettled?: boolean;
  /** All its numbers as typed. */
  readonly numbers: string;
}

/** What there is of a project for tasks to look at: small enough to be kept. */
export interface Facts {
  readonly parts: readonly Id[];
  readonly steps: Readonly<Record<Id, StepFacts>>;
  readonly placements: readonly Id[];
  /** Joints and relations of the whole. */
  readonly joins: readonly Id[];
  /** Was something moved away from rest? */
  readonly isMoved: boolean;
}

/** Of a sketch as it was built. */
type SketchFacts = (part: Id, step: Id) => Pick<StepFacts, 'encloses' | 'isSettled'> | undefined;

export function factsOf(project: Project, sketch: SketchFacts, isMoved: boolean): Facts {
  const { assembly } = project;
  const steps = Object.entries(project.parts).flatMap(([part, { steps: all }]) =>
    Object.entries(all).map(([id, step]): [Id, StepFacts] => [
      id,
      {
        part,
        isSketch: step.kind === 'sketch',
        ...(step.kind === 'sketch' ? sketch(part, id) : {}),
        numbers: stepKind(step.kind)
          .expressions(step)
          .map(({ text }) => text)
          .join('; '),
      },
    ]),
  );
  return {
    parts: project.partOrder,
    steps: Object.fromEntries(steps),
    placements: Object.keys(assembly?.placements ?? {}),
    joins: [...Object.keys(assembly?.joints ?? {}), ...Object.keys(assembly?.relations ?? {})],
    isMoved,
  };
}
