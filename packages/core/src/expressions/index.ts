export { evaluate, evaluateNode, type Scope } from './evaluate.ts';
export { parse } from './parse.ts';
export { nameIssue, namesUsed, negated, renameIn, valueScope, withUnit, withUnitOf } from './values.ts';
export { isName, MAX_LENGTH, tidyName } from './tokens.ts';
export { expressionWords } from './words.ts';
