export * from './builder.ts';
export * from './polygon.ts';
export * from './rectangle.ts';
export * from './slot.ts';
