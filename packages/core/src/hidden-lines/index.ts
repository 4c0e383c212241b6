export { drawnView, type ViewedBody } from './hidden-lines.ts';
export type * from './views.ts';
