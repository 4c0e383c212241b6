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
export { Contacts, contactsOf, pushesOn, touchingShape, type Touch, type TouchingBody } from './contacts.ts';
export { Carriers } from './carriers.ts';
export { Clearance, MemberPair } from './clearance.ts';
export { drive, driving, type Driven } from './drive.ts';
export { withinLimits } from './limits.ts';
export { isTouchTold, joins, pressing } from './pairs.ts';
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
export { carriedBy, RateEquations, type Motion, type Rates } from './rates.ts';
export { Grab } from './grab.ts';
export { assemblyFreedoms, freedomWords } from './freedoms.ts';
