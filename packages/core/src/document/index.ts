export * from './schema.ts';
export { designScope, differences, filesUsed, broughtFrom, type Revision } from './brought.ts';
export { checkProject } from './check.ts';
export { buildsOn, COMMANDS, closure, standingOn, type CommandName, type Inputs } from './commands/index.ts';
export { applyChange, perform, type Action, type Change, type FieldChange, type Performed } from './perform.ts';
export { drawnPart } from './drawn-part.ts';
export { isTyped, placedExpressions, unnamedNumbers, usersOf, type PlacedExpression } from './expression-places.ts';
export { pushed, reversal, stacksOf, type LogEntry, type Stacks } from './history.ts';
export { deeperThan, loadProject, parseProject, writeProject } from './load.ts';
export { formatPage } from './format-page.ts';
export { stepsPage } from './steps-page.ts';
export { allowedWords, basisOf, outside, variantNamed, variantOf, variantsOf } from './variants.ts';
export { rebased } from './rebase.ts';
export { ProjectScript } from './script.ts';
export * from './materials.ts';
export {
  namesAlong,
  namesFor,
  partAt,
  placedParts,
  placedSectionName,
  placedSections,
  recordsAlong,
} from './placed.ts';
export { buildOrder, othersOf, partLinks, takeable, type PartLink } from './part-links.ts';
export { telling, tellingAll } from './tell-sizes.ts';
