export * from './drawing-files.ts';
export * from './stl.ts';
