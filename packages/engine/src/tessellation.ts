import type { TessellationQuality } from '@helb/core';

/** For the screen, and for what goes behind what on paper, where lines themselves are exact. */
export const DISPLAY_QUALITY: TessellationQuality = { deflection: 0.08, angle: 0.25 };

/** 0.05 mm and 10 degrees: finer than most printers and light enough to slice. */
export const EXPORT_QUALITY: TessellationQuality = { deflection: 0.05, angle: Math.PI / 18 };

/** For what touches: flat and round faces are exact whatever it is, free ones as exact as this. */
export const CONTACT_QUALITY: TessellationQuality = { deflection: 0.01, angle: 0.2 };
