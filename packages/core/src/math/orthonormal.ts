/** The scalar product of two vectors of one length. */
export const inner = (a: Float64Array, b: Float64Array): number => {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k]! * b[k]!;
  return sum;
};

/** The Euclidean length of a vector. */
export const norm = (a: Float64Array): number => Math.sqrt(inner(a, a));

/** Takes so many times a vector from another, in its place. */
export function subtract(a: Float64Array, b: Float64Array, factor: number): void {
  for (let k = 0; k < a.length; k++) a[k]! -= factor * b[k]!;
}

/** An orthonormal basis of the span (Gram-Schmidt, twice), without what adds nothing. */
export function orthonormal(vectors: readonly Float64Array[]): Float64Array[] {
  const basis: Float64Array[] = [];
  for (const vector of vectors) {
    const own = Float64Array.from(vector);
    const before = norm(own);
    for (let pass = 0; pass < 2; pass++) for (const other of basis) subtract(own, other, inner(own, other));
    const length = norm(own);
    if (length > 1e-7 * before) basis.push(own.map((entry) => entry / length));
  }
  return basis;
}

/** Does a vector lie in the span of an orthonormal basis, to 1e-6 of its length? */
export function inSpan(basis: readonly Float64Array[], vector: Float64Array): boolean {
  const rest = Float64Array.from(vector);
  for (const other of basis) subtract(rest, other, inner(rest, other));
  return norm(rest) <= 1e-6 * norm(vector);
}
