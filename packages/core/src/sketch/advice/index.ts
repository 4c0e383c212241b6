export * from './cures.ts';
export * from './flaws.ts';
export * from './settle.ts';
export * from './words.ts';
