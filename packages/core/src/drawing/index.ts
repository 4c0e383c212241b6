export * from './schema.ts';
export { PAPERS } from './papers.ts';
export { SCALE_NAMES, scaleFactor } from './scales.ts';
export { BESIDE_EYES, CORNER_EYE, SIDE_EYES } from './eyes.ts';
export { LINES, LINE_KINDS, type Lettering, type LineKind, type SheetPicture, type Stroke } from './picture.ts';
export { cutAway, cutLine, cutWords, isCutAway, type CutLine } from './cut.ts';
export { onPaper, onThing } from './placing.ts';
export { composed, type ComposedSheet } from './compose.ts';
export type { SheetSign } from './view-signs.ts';
export { USUAL_LINES, type SeenView } from './placed-view.ts';
export { contextOf, readSeen, type Scene, type SeenMark } from './marked.ts';
export { fittingMarks, type FittingMark } from './fitting.ts';
export type { Handle } from './handles.ts';
export { nothingFound, partFindings, sheetWords, assemblyFindings, type SheetFinding } from './findings.ts';
export type { BuiltPart, SaidMark } from './completeness/index.ts';
export { MovingFaces, placesOfFace, Witness } from './witness/index.ts';
export {
  CHARACTERISTICS,
  isSize,
  MARK_LIMITS,
  MARK_NAMES,
  markOn,
  markReferences,
  markSchema,
  markTitle,
  markWay,
  markWords,
  TOLERANCE_TITLES,
  toleranceKind,
  toleranceSchema,
  WRITTEN_MARKS,
  type Mark,
  type Tolerance,
} from './marks/index.ts';
export { changesSince, changeWords, issuedNow, nextRevision } from './issues.ts';
export type { ListedPart } from './parts-list.ts';
export * from './title/index.ts';
export { defaultSheet, defaultAssemblySheet } from './default-sheets.ts';
export { BESIDE_WORDS, SIDE_WORDS, viewWords, type SectionName } from './view-words.ts';
