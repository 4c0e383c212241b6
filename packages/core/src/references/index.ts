export * from './reference.ts';
export * from './things/index.ts';
export * from './rules.ts';
export * from './fingerprints.ts';
export * from './locate.ts';
export * from './projection.ts';
export * from './drawn.ts';
export * from './measure.ts';
export { chained, isOnCurve, Path } from './paths.ts';
export {
  curveWords,
  referencesWords,
  lastSeenWords,
  offerWords,
  printWords,
  referenceWords,
  ruleWords,
  surfaceWords,
  ORIGIN_WORDS,
  type NameOf,
} from './words.ts';
