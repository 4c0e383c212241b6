export * from './schema.ts';
export { checkProject } from './check.ts';
export { COMMANDS, closure, type CommandName, type Inputs } from './commands/index.ts';
export { applyChange, perform, type Action, type Change, type FieldChange, type Performed } from './perform.ts';
export { placedExpressions, usersOf, type PlacedExpression } from './expression-places.ts';
export { pushed, reversal, stacksOf, type LogEntry, type Stacks } from './history.ts';
export { deeperThan, loadProject, parseProject, writeProject } from './load.ts';
export { formatPage } from './format-page.ts';
export { ProjectScript } from './script.ts';
