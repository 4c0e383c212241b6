import type { OutlineFormat } from './workers/protocol.ts';

/** What outlines are written as: what flat parts are cut from. */
export const OUTLINES: readonly { readonly format: OutlineFormat; readonly title: string; readonly type: string }[] = [
  { format: 'dxf', title: 'DXF', type: 'image/vnd.dxf' },
  { format: 'svg', title: 'SVG', type: 'image/svg+xml' },
];
