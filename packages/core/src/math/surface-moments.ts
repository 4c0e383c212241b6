import { add3, cross3, length3, middle3, scale3, sub3, type Vec3 } from './vector.ts';

// Volume, centre and inertia of what a closed surface encloses, from integrals over the surface alone (divergence theorem).
// Each is found three times, from the fields along x, along y and along z: they agree only where the surface is closed and
// each of its faces was integrated over just its own domain. How far they are apart is the uncertainty.

/** Exponents of all monomials x^a y^b z^c up to the third degree, in the order of `SurfaceMoments.flux`. */
export const MONOMIALS: readonly (readonly [number, number, number])[] = [0, 1, 2, 3].flatMap((degree) =>
  Array.from({ length: degree + 1 }, (_, k) => degree - k).flatMap((a) =>
    Array.from({ length: degree - a + 1 }, (_, k): readonly [number, number, number] => [a, degree - a - k, k]),
  ),
);
const placeOf = new Map(MONOMIALS.map((exponents, k) => [exponents.join(), k]));
const at = (a: number, b: number, c: number): number => placeOf.get(`${a},${b},${c}`)!;

/** How many numbers stand in `flux`. */
export const FLUX_LENGTH = 3 * MONOMIALS.length;

/** Integrals over a piece of an oriented surface, about a place near it. */
export interface SurfaceMoments {
  readonly about: Vec3;
  /** mm^2 */
  readonly area: number;
  /** Of the area, mm. */
  readonly centre: Vec3;
  /** Of each monomial in the place times the outward normal: x, y, z of the normal one after the other (mm^2 and up). */
  readonly flux: Float64Array;
  /** Estimated relative error of the quadrature. */
  readonly error: number;
}

/** What a closed surface encloses. Inertia is about the centre for a density of 1 per mm^3, products as in the tensor. */
export interface SolidMoments {
  readonly volume: number;
  readonly area: number;
  readonly centre: Vec3;
  readonly inertia: readonly [xx: number, yy: number, zz: number, xy: number, xz: number, yz: number];
  /** How far each may be off, in its own unit. */
  readonly uncertainty: { readonly volume: number; readonly area: number; readonly centre: number };
}

const BINOMIAL = [[1], [1, 1], [1, 2, 1], [1, 3, 3, 1]] as const;
const upTo = (n: number): number[] => Array.from({ length: n + 1 }, (_, k) => k);

/** What each monomial about one place is made of about another: which monomials, by which factor and powers of the way. */
const SHIFTS = MONOMIALS.flatMap(([a, b, c], to) =>
  upTo(a).flatMap((i) =>
    upTo(b).flatMap((j) =>
      upTo(c).map((l) => ({
        to: 3 * to,
        from: 3 * at(i, j, l),
        factor: BINOMIAL[a]![i]! * BINOMIAL[b]![j]! * BINOMIAL[c]![l]!,
        powers: [a - i, b - j, c - l] as const,
      })),
    ),
  ),
);

/** Adds the flux of a piece to a sum about another place, from which the piece's own lies this far. */
function addShifted(sum: Float64Array, { flux }: SurfaceMoments, way: Vec3): void {
  const [xs, ys, zs] = way.map((d) => [1, d, d * d, d * d * d]) as [number[], number[], number[]];
  for (const { to, from, factor, powers } of SHIFTS) {
    const share = factor * xs[powers[0]]! * ys[powers[1]]! * zs[powers[2]]!;
    for (let n = 0; n < 3; n++) sum[to + n]! += share * flux[from + n]!;
  }
}

/** The integral of a monomial over what is enclosed, by the fields along x, y and z. */
function threeTimes(flux: Float64Array, [a, b, c]: readonly [number, number, number]): Vec3 {
  return [
    flux[3 * at(a + 1, b, c)]! / (a + 1),
    flux[3 * at(a, b + 1, c) + 1]! / (b + 1),
    flux[3 * at(a, b, c + 1) + 2]! / (c + 1),
  ];
}

const mean = ([a, b, c]: Vec3): number => (a + b + c) / 3;
const spread = (three: Vec3): number => Math.max(...three) - Math.min(...three);

/**
 * Moments of triangles, three corners each, counter-clockwise from outside: exact for volume and area, as good as the
 * triangles for the rest.
 * @param error how far the triangles may be from what they stand for, relative
 */
export function triangleMoments(positions: Float32Array, corners: Uint32Array, error: number): SurfaceMoments {
  const corner = (k: number): Vec3 => [0, 1, 2].map((n) => positions[3 * corners[k]! + n]!) as unknown as Vec3;
  const about = corners.length === 0 ? ([0, 0, 0] as const) : corner(0);
  const flux = new Float64Array(FLUX_LENGTH);
  let area = 0;
  let first: Vec3 = [0, 0, 0];
  for (let k = 0; k < corners.length; k += 3) {
    const [a, b, c] = [corner(k), corner(k + 1), corner(k + 2)];
    const normal = scale3(cross3(sub3(b, a), sub3(c, a)), 1 / 2);
    const size = length3(normal);
    area += size;
    for (const place of [middle3(a, b), middle3(b, c), middle3(c, a)]) {
      const off = sub3(place, about);
      first = add3(first, scale3(off, size / 3));
      MONOMIALS.forEach(([i, j, l], m) => {
        const value = (off[0] ** i * off[1] ** j * off[2] ** l) / 3;
        for (let n = 0; n < 3; n++) flux[3 * m + n]! += value * normal[n]!;
      });
    }
  }
  return { about, area, centre: add3(about, scale3(first, 1 / (area || 1))), flux, error };
}

/** What pieces of a surface enclose together. The sum of their outward normals tells besides whether it is closed. */
export function solidMoments(pieces: readonly SurfaceMoments[]): SolidMoments {
  const area = pieces.reduce((sum, piece) => sum + piece.area, 0);
  const about = scale3(
    pieces.reduce((sum, piece) => add3(sum, scale3(piece.centre, piece.area)), [0, 0, 0] as Vec3),
    1 / area,
  );
  const flux = new Float64Array(FLUX_LENGTH);
  for (const piece of pieces) addShifted(flux, piece, sub3(piece.about, about));
  const volumes = threeTimes(flux, [0, 0, 0]);
  const volume = mean(volumes);
  const firsts = (
    [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ] as const
  ).map((monomial) => threeTimes(flux, monomial));
  const off = firsts.map((three) => mean(three) / volume) as unknown as Vec3;
  const second = (a: number, b: number, c: number): number => mean(threeTimes(flux, [a, b, c]));
  const [x2, y2, z2] = [second(2, 0, 0), second(0, 2, 0), second(0, 0, 2)].map(
    (value, k) => value - volume * off[k]! ** 2,
  ) as [number, number, number];
  const product = (i: number, j: number, value: number): number => -(value - volume * off[i]! * off[j]!);
  const rough = pieces.reduce((sum, piece) => sum + piece.error * piece.area, 0) / area;
  const size = Math.cbrt(Math.abs(volume));
  return {
    volume,
    area,
    centre: add3(about, off),
    inertia: [
      y2 + z2,
      x2 + z2,
      x2 + y2,
      product(0, 1, second(1, 1, 0)),
      product(0, 2, second(1, 0, 1)),
      product(1, 2, second(0, 1, 1)),
    ],
    uncertainty: {
      volume: spread(volumes) + rough * Math.abs(volume),
      area: rough * area,
      centre: Math.max(...firsts.map(spread)) / Math.abs(volume) + rough * size,
    },
  };
}
