import {
  drawnPart,
  explain,
  halfAxis,
  issue,
  outside,
  stepKind,
  valueScope,
  type Action,
  type Id,
  type LengthUnit,
  type Part,
  type Project,
  type SolvedSketch,
} from '@helb/core';
import type { Model, PartModel, StepResult } from '../model.ts';
import type { CheckFinding } from './kind.ts';

/** What stands in the way of a model that is whole and settled: values, steps, references, sketches, materials. */
export const modelFindings = (project: Project, model: Model): CheckFinding[] => [
  ...ofValues(project, model),
  ...model.parts.flatMap((part) => ofPart(project, part)),
];

function ofValues(project: Project, { values }: Model): CheckFinding[] {
  const wrong = values.flatMap(({ id, name, issue }): CheckFinding[] =>
    issue ? [{ code: issue.code, blocks: 'model', words: `${name}: ${explain(issue)}`, value: id }] : [],
  );
  const scope = valueScope(Object.values(project.values), project.unit);
  const beyond = project.valueOrder.flatMap((value): CheckFinding[] => {
    const issue = outside(project.values[value]!, scope);
    return issue ? [{ code: issue.code, blocks: 'model', words: explain(issue), value }] : [];
  });
  return [...wrong, ...beyond];
}

function ofPart(project: Project, model: PartModel): CheckFinding[] {
  const part = drawnPart(project, model.id)!;
  const isOwn = project.parts[model.id]!.from === undefined;
  // lines that a path or thin walls follow may well end
  const followed = new Set(
    model.steps.flatMap(({ id, state }) =>
      state === 'built' ? stepKind(part.steps[id]!.kind).uses(part.steps[id]!) : [],
    ),
  );
  return [
    ...model.steps.flatMap((step) => ofStep(model.id, step, isOwn, project.unit)),
    ...[...model.sketches].flatMap(([id, sketch]) => ofSketch(model.id, id, sketch, followed.has(id), project.unit)),
    ...ofMaterial(part, model),
  ];
}

function ofStep(
  part: Id,
  { id, issue, references = [] }: StepResult,
  isOwn: boolean,
  unit: LengthUnit,
): CheckFinding[] {
  const failed: CheckFinding[] = issue
    ? [{ code: issue.code, blocks: 'model', words: explain(issue, unit), part, step: id }]
    : [];
  const recovered = references.filter(({ fate }) => fate === 'recovered');
  if (recovered.length === 0) return failed;
  const actions = recovered.flatMap(({ path, offers }): Action[] =>
    offers[0] ? [{ command: 'step.repoint', input: { part, step: id, path: [...path], reference: offers[0] } }] : [],
  );
  return [
    ...failed,
    {
      ...{ code: 'reference.recovered', blocks: 'model', words: recoveredWords(recovered.length), part, step: id },
      ...(isOwn ? { cure: { label: 'confirm', actions } } : {}),
    },
  ];
}

/** How many references were recovered, as a sentence. */
const recoveredWords = (count: number): string =>
  `${count === 1 ? '1 reference was' : `${count} references were`} recovered by ${count === 1 ? 'its' : 'their'} shape: please confirm.`;

function ofSketch(
  part: Id,
  step: Id,
  { solution, regions, sources }: SolvedSketch,
  followed: boolean,
  unit: LengthUnit,
): CheckFinding[] {
  const finding = (code: string, blocks: CheckFinding['blocks'], words: string): CheckFinding => ({
    ...{ code, blocks, words, part, step },
  });
  const found: CheckFinding[] = [];
  if (solution.state === 'loose') {
    const count = solution.freedoms === 1 ? '1 freedom is' : `${solution.freedoms} freedoms are`;
    found.push(finding('sketch.loose', 'later', `${count} left.`));
  }
  const more = Object.values(sources.more).reduce((sum, count) => sum + count, 0);
  if (more > 0)
    found.push(
      finding(
        'borrow.more',
        'later',
        `A borrowed outline has ${more === 1 ? 'one curve' : `${more} curves`} more than was borrowed.`,
      ),
    );
  // half a profile is whole once it is turned or mirrored
  const isWhole = followed || halfAxis(solution.geometry) !== undefined;
  for (const { at } of isWhole ? [] : regions.openEnds)
    found.push(finding('sketch.open', 'model', explain(issue('sketch.open', { place: at }), unit)));
  return found;
}

const ofMaterial = ({ material }: Part, { id, bodies }: PartModel): CheckFinding[] =>
  material || bodies.length === 0
    ? []
    : [{ code: 'part.material', blocks: 'shop', words: 'No material is set, so the mass is not known.', part: id }];
