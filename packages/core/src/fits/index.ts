export { deviations, fitWords, isFitClass, type Deviations } from './iso286.ts';
