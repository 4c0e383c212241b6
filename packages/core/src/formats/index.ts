export * from './drawing-files.ts';
export * from './stl.ts';
export * from './value-table.ts';
