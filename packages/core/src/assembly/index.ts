export * from './equations.ts';
export * from './joints.ts';
export * from './mechanism.ts';
export { drive, type Driven } from './drive.ts';
