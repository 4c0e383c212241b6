import { fail, ok, type Result, type Words } from '../result/index.ts';

// The ISO system of limits and fits (ISO 286-1:2010): sizes over 0 to 500 mm, grades IT4 to IT13, the usual letters.

/** Sizes up to and including, mm. */
const STEPS = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500] as const;

/** Standard tolerances by grade, micrometres (table 1). */
const GRADES: Readonly<Record<number, readonly number[]>> = {
  4: [3, 4, 4, 5, 6, 7, 8, 10, 12, 14, 16, 18, 20],
  5: [4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27],
  6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40],
  7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63],
  8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97],
  9: [25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155],
  10: [40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250],
  11: [60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400],
  12: [100, 120, 150, 180, 210, 250, 300, 350, 400, 460, 520, 570, 630],
  13: [140, 180, 220, 270, 330, 390, 460, 540, 630, 720, 810, 890, 970],
};
const [LEAST_GRADE, MOST_GRADE] = [5, 13];

/** How far below the nominal size shafts end at most, micrometres (table 2, upper deviations without their sign). */
const BELOW: Readonly<Record<string, readonly number[]>> = {
  d: [20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230],
  e: [14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135],
  f: [6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68],
  g: [2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20],
  h: [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0],
};

/** How far above it shafts begin at least (table 3, lower deviations). */
const ABOVE: Readonly<Record<string, readonly number[]>> = {
  k: [0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5],
  m: [2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23],
  n: [4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40],
  p: [6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68],
};

/** Those of r and s, for which sizes are told in finer steps. */
const FINE_STEPS = [3, 6, 10, 18, 30, 50, 65, 80, 100, 120, 140, 160, 180, 200, 225, 250, 280, 315, 355, 400, 450, 500];
const FINE: Readonly<Record<string, readonly number[]>> = {
  r: [10, 15, 19, 23, 28, 34, 41, 43, 51, 54, 63, 65, 68, 77, 80, 84, 94, 98, 108, 114, 126, 132],
  s: [14, 19, 23, 28, 35, 43, 53, 59, 71, 79, 92, 100, 108, 122, 130, 140, 158, 170, 190, 208, 232, 252],
};

/** Between which limits a size may lie, mm from the nominal one. */
export interface Deviations {
  readonly upper: number;
  readonly lower: number;
}

const CLASS = /^(js|[defghkmnprs]|JS|[DEFGHKMNPRS])(\d{1,2})$/;

/** Does a word have the form of a tolerance class: "H7", "k6"? */
export const isFitClass = (word: string): boolean => CLASS.test(word);

/**
 * The deviations of a tolerance class at a nominal size (ISO 286-1): capitals for holes, small letters for shafts.
 * @param size mm, over 0 to 500. Fails with fit.class, fit.size.
 */
export function deviations(fitClass: string, size: number): Result<Deviations> {
  const [, letters, digits] = CLASS.exec(fitClass) ?? [];
  const grade = Number(digits);
  if (letters === undefined || grade < LEAST_GRADE || grade > MOST_GRADE) return fail('fit.class', { fitClass });
  if (!(size > 0) || size > 500) return fail('fit.size', { size });
  const step = STEPS.findIndex((most) => size <= most);
  const width = GRADES[grade]![step]!;
  const letter = letters.toLowerCase();
  const inMicrometres =
    letter === 'js'
      ? even(width, grade)
      : letters === letter
        ? shaft(letter, grade, size, step, width)
        : hole(letter, grade, size, step, width);
  return ok({ upper: inMicrometres.upper / 1000 + 0, lower: inMicrometres.lower / 1000 + 0 });
}

/** On both sides alike; odd widths of IT7 to IT11 are rounded down to even ones. */
function even(width: number, grade: number): Deviations {
  const half = grade >= 7 && grade <= 11 ? Math.floor(width / 2) : width / 2;
  return { upper: half, lower: -half };
}

function shaft(letter: string, grade: number, size: number, step: number, width: number): Deviations {
  const below = BELOW[letter]?.[step];
  if (below !== undefined) return { upper: -below, lower: -below - width };
  const above = letter === 'k' && grade > 7 ? 0 : lowest(letter, size, step);
  return { upper: above + width, lower: above };
}

const lowest = (letter: string, size: number, step: number): number =>
  ABOVE[letter]?.[step] ?? FINE[letter]![FINE_STEPS.findIndex((most) => size <= most)]!;

/**
 * Holes mirror the shafts of their letter; those that take less play come nearer by what the next finer grade would be
 * narrower (4.3.2.4), up to IT8 for K, M and N, to IT7 for P and what follows.
 */
function hole(letter: string, grade: number, size: number, step: number, width: number): Deviations {
  const below = BELOW[letter]?.[step];
  if (below !== undefined) return { upper: below + width, lower: below };
  const finest = letter === 'k' || letter === 'm' || letter === 'n' ? 8 : 7;
  const nearer = size > 3 && grade <= finest ? width - GRADES[grade - 1]![step]! : 0;
  const upper = grade > 8 && size > 3 && (letter === 'n' || letter === 'k') ? 0 : nearer - lowest(letter, size, step);
  // the one exception of the standard
  const tabled = letter === 'm' && grade === 6 && size > 250 && size <= 315 ? -9 : upper;
  return { upper: tabled, lower: tabled - width };
}

export const fitWords: Words = {
  'fit.class': (f) =>
    `"${f['fitClass']}" is no tolerance class: a letter of D E F G H JS K M N P R S, small for shafts, and a grade of 5 to 13, as H7 or g6.`,
  'fit.size': () => 'Tolerance classes are told for sizes over 0 up to 500 mm.',
};
