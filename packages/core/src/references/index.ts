export * from './reference.ts';
export * from './things.ts';
export * from './rules.ts';
export * from './fingerprints.ts';
export * from './elsewhere.ts';
export * from './locate.ts';
export * from './projection.ts';
export * from './drawn.ts';
export * from './measure.ts';
export { helixAt, helixLength, helixSpans, type Helix } from './helix.ts';
export { chained, endsOfCurve, isOnCurve, Path, placesAlong } from './paths.ts';
export {
  curveWords,
  referencesWords,
  lastSeenWords,
  printWords,
  referenceWords,
  ruleWords,
  surfaceWords,
  ORIGIN_WORDS,
  type NameOf,
} from './words.ts';
