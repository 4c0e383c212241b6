import type { SurfaceKind } from './kind.ts';

/** Any other surface: the kernel knows it, nobody else asks. */
export interface FreeSurface {
  readonly form: 'free';
}

export const freeSurface: SurfaceKind<FreeSurface> = {
  look: 'surface',
  words: () => 'curved',
  transform: (surface) => surface,
};
