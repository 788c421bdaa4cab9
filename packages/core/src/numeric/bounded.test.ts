import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { boundedLeastSquares } from './bounded';
import { createRandom, normal } from './random';

const columnsOf = (rows: readonly (readonly number[])[]): Float64Array[] =>
  rows[0]!.map((_, i) => Float64Array.from(rows, (r) => r[i]!));
const squares = (columns: readonly Float64Array[], b: Float64Array, x: readonly number[]): number =>
  b.reduce((s, v, k) => s + (v - columns.reduce((t, c, i) => t + c[k]! * x[i]!, 0)) ** 2, 0);

/** Every set of bounds tried in turn: slow and sure. */
function byTrying(columns: readonly Float64Array[], b: Float64Array, lo: readonly number[], hi: readonly number[]) {
  const n = columns.length;
  let [best, least] = [lo, Infinity] as [readonly number[], number];
  for (let code = 0; code < 3 ** n; code++) {
    const at = Array.from({ length: n }, (_, i) => Math.floor(code / 3 ** i) % 3);
    let x = at.map((s, i) => (s === 0 ? lo[i]! : s === 1 ? hi[i]! : (lo[i]! + hi[i]!) / 2));
    // Coordinate descent on the free ones, to the end.
    for (let sweep = 0; sweep < 4000; sweep++)
      at.forEach((s, i) => {
        if (s !== 2) return;
        const c = columns[i]!;
        const rest = b.map((v, k) => v - columns.reduce((t, d, j) => (j === i ? t : t + d[k]! * x[j]!), 0));
        const to = c.reduce((t, v, k) => t + v * rest[k]!, 0) / c.reduce((t, v) => t + v * v, 0);
        x = x.map((v, j) => (j === i ? to : v));
      });
    if (x.some((v, i) => v < lo[i]! - 1e-9 || v > hi[i]! + 1e-9)) continue;
    const s = squares(columns, b, x);
    if (s < least) [best, least] = [x, s];
  }
  return best;
}

describe('least squares with bounds', () => {
  it('without a bound in the way is the plain solution', () => {
    // A line through (1,1), (2,2), (3,2): 2/3 + x/2, by hand.
    const columns = columnsOf([
      [1, 1],
      [1, 2],
      [1, 3],
    ]);
    const [a, b] = boundedLeastSquares(columns, Float64Array.of(1, 2, 2), [-10, -10], [10, 10]);
    expect(a).toBeCloseTo(2 / 3, 9);
    expect(b).toBeCloseTo(0.5, 9);
  });
  it('of the published example of non-negative least squares', () => {
    // The example in the manual of a common numeric language for its lsqnonneg (Lawson and Hanson's), from memory: x = (0, 0.6929).
    const columns = columnsOf([
      [0.0372, 0.2868],
      [0.6861, 0.7071],
      [0.6233, 0.6245],
      [0.6344, 0.617],
    ]);
    const x = boundedLeastSquares(columns, Float64Array.of(0.8587, 0.1781, 0.0747, 0.8405), [0, 0], [1e9, 1e9]);
    expect(x[0]).toBe(0);
    expect(x[1]).toBeCloseTo(0.6929, 4);
  });
  it('agrees with trying every set of bounds, on random problems of four', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const random = createRandom(seed);
      const columns = Array.from({ length: 3 }, () => Float64Array.from({ length: 7 }, () => normal(random)));
      const b = Float64Array.from({ length: 7 }, () => 2 * normal(random));
      const [lo, hi] = [
        [0, 0, -0.2],
        [0.6, 1, 0.3],
      ];
      const x = boundedLeastSquares(columns, b, lo, hi);
      const sure = byTrying(columns, b, lo, hi);
      expect(squares(columns, b, x)).toBeCloseTo(squares(columns, b, sure), 6);
    }
  });
  it('stays within its bounds and leaves nothing to gain, whatever it is given', () => {
    const figure = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.array(figure, { minLength: 6, maxLength: 6 }), { minLength: 1, maxLength: 4 }),
        fc.array(figure, { minLength: 6, maxLength: 6 }),
        (a, b) => {
          const columns = a.map((c) => Float64Array.from(c));
          fc.pre(columns.every((c) => c.some((v) => Math.abs(v) > 0.1)));
          const target = Float64Array.from(b);
          const n = columns.length;
          const x = boundedLeastSquares(columns, target, new Array<number>(n).fill(0), new Array<number>(n).fill(2));
          const r = target.map((v, k) => v - columns.reduce((s, c, i) => s + c[k]! * x[i]!, 0));
          x.forEach((v, i) => {
            expect(v).toBeGreaterThanOrEqual(0);
            expect(v).toBeLessThanOrEqual(2);
            const gradient = columns[i]!.reduce((s, w, k) => s + w * r[k]!, 0);
            // Nearly parallel columns are left where they are.
            if (v > 1e-6) expect(gradient).toBeGreaterThan(-1e-3);
            if (v < 2 - 1e-6) expect(gradient).toBeLessThan(1e-3);
          });
        },
      ),
    );
  });
});
