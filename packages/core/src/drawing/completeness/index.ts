export type { BuiltPart, Candidate } from './candidate.ts';
export { checkedSizes, type MissingSize, type OpenView, type SaidMark, type SizesCheck } from './check.ts';
