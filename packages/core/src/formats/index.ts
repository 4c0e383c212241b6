export * from './drawing-files.ts';
export * from './glb.ts';
export * from './obj.ts';
export type { Solid } from './solids.ts';
export * from './three-mf.ts';
export * from './stl.ts';
export * from './value-table.ts';
export * from './sheet-dxf.ts';
export * from './sheet-svg.ts';
