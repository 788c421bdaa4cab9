import { boundedLeastSquares } from './bounded';

/** What is brought down: residuals of some unknowns, and between which bounds those lie. */
export interface LeastSquaresProblem {
  /** A new array every time. */
  readonly residuals: (x: readonly number[]) => Float64Array;
  readonly lo: readonly number[];
  readonly hi: readonly number[];
  /** Step of a slope for an unknown at a value; by default a thirtieth of it, at least 0.004. */
  readonly step?: (value: number, place: number) => number;
}

export interface LeastSquaresAnswer {
  readonly x: readonly number[];
  readonly residuals: Float64Array;
  /** Sum of their squares. */
  readonly squares: number;
}

/** Shares of a step that are tried, and the gain below which it is not worth going on. */
const SHARES = [1, 0.4, 0.1] as const;
const WORTH = 1e-4;

export const sumOfSquares = (r: Float64Array): number => {
  let sum = 0;
  for (const v of r) sum += v * v;
  return sum;
};

/**
 * Gauss-Newton within bounds: slopes by differences, every step a bounded linear least squares, shortened where it overshoots.
 * It never ends worse than it began.
 * @param start within the bounds. @param rounds at most
 */
export function boundedGaussNewton(
  { residuals, lo, hi, step = (v) => Math.max(0.004, 0.03 * v) }: LeastSquaresProblem,
  start: readonly number[],
  rounds: number,
): LeastSquaresAnswer {
  let x = start;
  let r = residuals(x);
  let squares = sumOfSquares(r);
  for (let round = 0; round < rounds && x.length; round++) {
    const columns = x.map((v, j) => {
      const size = step(v, j);
      const h = v + size > hi[j]! ? -size : size;
      const there = x.slice();
      there[j] = v + h;
      const slope = residuals(there);
      for (let k = 0; k < slope.length; k++) slope[k] = (slope[k]! - r[k]!) / h;
      return slope;
    });
    const move = boundedLeastSquares(
      columns,
      r.map((v) => -v),
      x.map((v, j) => lo[j]! - v),
      x.map((v, j) => hi[j]! - v),
    );
    let gained = false;
    for (const share of SHARES) {
      const next = x.map((v, j) => Math.min(hi[j]!, Math.max(lo[j]!, v + share * move[j]!)));
      const then = residuals(next);
      const least = sumOfSquares(then);
      if (least >= squares) continue;
      gained = squares - least > WORTH * squares;
      [x, r, squares] = [next, then, least];
      break;
    }
    if (!gained) break;
  }
  return { x, residuals: r, squares };
}
