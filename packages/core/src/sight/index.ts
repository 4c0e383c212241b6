export { drawnView, type Looked } from './sight.ts';
export type * from './views.ts';
