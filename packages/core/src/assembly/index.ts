export * from './equations.ts';
export * from './joints.ts';
export * from './mechanism.ts';
export * from './records.ts';
export * from './frames.ts';
export { originOf } from './pose.ts';
export { amountsOf, drawnPose } from './drawn-pose.ts';
export { assemble, restPoses, type Assembled, type Surroundings } from './assemble.ts';
export { memberPose, repeatedBy, type Member } from './member.ts';
export { isBranching } from './branching.ts';
export { drive, type Driven } from './drive.ts';
export { explodedBy, explodedPoses } from './explode.ts';
export { restPose, type Rest } from './rest.ts';
export {
  ASSEMBLY_RELATIONS,
  FACINGS,
  related,
  usualFacing,
  type AssemblyRelationName,
  type FacingName,
  type Feature,
} from './relations.ts';
export { Grab } from './grab.ts';
export { assemblyFreedoms, freedomWords } from './freedoms.ts';
