export { BodyCache } from './body-cache.ts';
export { Engine, Overtaken, type BuildOptions, type FileSource } from './engine.ts';
export { findings, inspect, recoveredWords, type Finding, type Inspection, type PartInspection } from './inspect.ts';
export type * from './model.ts';
export { wallsOf, type Walls } from './walls.ts';
export { seenFrom, totalsOf, type Seen, type Totals } from './totals.ts';
