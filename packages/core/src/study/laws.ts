import type { Changing } from '../math/index.ts';

interface Law {
  /** As a sentence says it. */
  readonly title: string;
  /** The share of the way at a share of the time, both from 0 to 1, with its derivatives; none where a table tells it. */
  readonly share?: (time: number) => Changing;
}

const PI = Math.PI;

/**
 * How what is driven goes from its beginning to its end. The smooth ones begin and end without speed, the last two without
 * acceleration too (Norton, Design of Machinery, 2012, ch. 8).
 */
export const LAWS = {
  even: { title: 'evenly', share: (u) => ({ value: u, slope: 1, curvature: 0 }) },
  harmonic: {
    title: 'as a harmonic',
    share: (u) => ({
      value: (1 - Math.cos(PI * u)) / 2,
      slope: (PI / 2) * Math.sin(PI * u),
      curvature: ((PI * PI) / 2) * Math.cos(PI * u),
    }),
  },
  cycloidal: {
    title: 'as a cycloid',
    share: (u) => ({
      value: u - Math.sin(2 * PI * u) / (2 * PI),
      slope: 1 - Math.cos(2 * PI * u),
      curvature: 2 * PI * Math.sin(2 * PI * u),
    }),
  },
  polynomial: {
    title: 'by a 3-4-5 polynomial',
    share: (u) => ({
      value: u ** 3 * (10 - 15 * u + 6 * u * u),
      slope: 30 * u * u * (1 - u) ** 2,
      curvature: 60 * u * (1 - u) * (1 - 2 * u),
    }),
  },
  table: { title: 'by a table' },
} as const satisfies Readonly<Record<string, Law>>;
export type LawName = keyof typeof LAWS;

/** What is told of a law beside its name. */
export const lawOf = (name: LawName): Law => LAWS[name];
