export * from './schema.ts';
export { PAPERS, paperSize, withinFrame, type Paper } from './papers.ts';
export { SCALE_NAMES, scaleFactor } from './scales.ts';
export { BESIDE_EYES, CORNER_EYE, SIDE_EYES } from './eyes.ts';
export { LINES, LINE_KINDS, type Lettering, type LineKind, type SheetPicture, type Stroke } from './picture.ts';
export { composed, USUAL_LINES, type ComposedSheet, type SeenView } from './compose.ts';
export type { TitleText } from './title-block.ts';
export { usualSheet } from './usual.ts';
export { BESIDE_WORDS, SIDE_WORDS, viewWords } from './view-words.ts';
