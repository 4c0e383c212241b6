export * from './equations.ts';
export * from './joints.ts';
export * from './mechanism.ts';
export { drive, type Driven } from './drive.ts';
export { ASSEMBLY_RELATIONS, related, type AssemblyRelationName, type Feature } from './relations.ts';
export { Grab, type Limits } from './grab.ts';
