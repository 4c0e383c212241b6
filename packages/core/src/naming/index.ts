export * from './bodies.ts';
export * from './coordinates.ts';
export * from './edges.ts';
export * from './faces.ts';
export * from './placements.ts';
