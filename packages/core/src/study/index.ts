export * from './records.ts';
export { LAWS, type LawName } from './laws.ts';
export { leastOfApproach, planOf, studyWords, tableFrom, type StudyPlan } from './plan.ts';
export { type Nearness } from './approach.ts';
export { StudyOutcome, type StudyInput } from './outcome.ts';
export { chartTitle, unitOf, type MemberMass, type Series, type NameAt } from './readings.ts';
export { type StudyStop, type StudyTouch } from './run.ts';
export {
  columnTitle,
  extremesOf,
  nearnessWords,
  tooNearWords,
  unsureWords,
  overlapWords,
  stopWords,
  studyCsv,
  touchSpans,
  untoldWords,
  type ShownChart,
} from './telling.ts';
