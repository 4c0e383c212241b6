export type { BuiltPart } from './candidate.ts';
export { checkedSizes, type OpenView, type SaidMark } from './check.ts';
