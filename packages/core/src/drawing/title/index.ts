export { linesIn, titleBlock, titleHeight, TITLE_WIDTH, type PlacedCell } from './block.ts';
export { fieldOf, WRITTEN, type FieldName, type TitleText, type WrittenName } from './fields.ts';
export * from './layout.ts';
export { cellKey, TITLE_LIMITS, titleBlockSchema, titleSchema, type Cell, type TitleBlock } from './schema.ts';
export { shortened } from './words.ts';
