export * from './cures.ts';
export * from './settle.ts';
export * from './words.ts';
