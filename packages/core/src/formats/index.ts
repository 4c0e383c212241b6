export * from './drawing-files.ts';
export * from './stl.ts';
export * from './value-table.ts';
export * from './sheet-dxf.ts';
export * from './sheet-svg.ts';
