/** The share of a golden section. */
const GOLDEN = (3 - Math.sqrt(5)) / 2;
const MOST = 60;

/**
 * Where a function of one variable is least between two places, if it has one valley there: by parabolas, and by golden sections
 * where these do not help (Brent 1973, ch. 5).
 * @param within how exactly it is found, in the unit of the variable
 */
export function leastBetween(
  low: number,
  high: number,
  of: (x: number) => number,
  within: number,
): { readonly x: number; readonly value: number } {
  let [a, b] = [low, high];
  let x = a + GOLDEN * (b - a);
  let value = of(x);
  // the next best, and the one before that
  let [w, v] = [x, x];
  let [atW, atV] = [value, value];
  let [step, last] = [0, 0];
  for (let k = 0; k < MOST; k++) {
    const middle = (a + b) / 2;
    if (Math.abs(x - middle) + (b - a) / 2 <= 2 * within) break;
    const r = (x - w) * (value - atV);
    const q = (x - v) * (value - atW);
    const top = (x - v) * q - (x - w) * r;
    const under = 2 * (q - r);
    const along = under === 0 ? Infinity : -top / under;
    const isGood = Math.abs(along) < Math.abs(last / 2) && x + along > a + within && x + along < b - within;
    last = isGood ? step : (x < middle ? b : a) - x;
    step = isGood ? along : GOLDEN * last;
    const u = x + (Math.abs(step) >= within ? step : Math.sign(step || 1) * within);
    const atU = of(u);
    if (atU <= value) {
      if (u < x) b = x;
      else a = x;
      [v, w, x] = [w, x, u];
      [atV, atW, value] = [atW, value, atU];
      continue;
    }
    if (u < x) a = u;
    else b = u;
    if (atU <= atW || w === x) [v, atV, w, atW] = [w, atW, u, atU];
    else if (atU <= atV || v === x || v === w) [v, atV] = [u, atU];
  }
  return { x, value };
}
