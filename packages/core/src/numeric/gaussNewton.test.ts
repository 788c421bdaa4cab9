import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { boundedGaussNewton, sumOfSquares } from './gaussNewton';

const wide = (n: number) => ({
  lo: Array.from({ length: n }, () => -100),
  hi: Array.from({ length: n }, () => 100),
  step: (v: number) => 1e-5 * Math.max(1, Math.abs(v)),
});

// Moré, Garbow and Hillstrom, Testing unconstrained optimization software, ACM TOMS 7 (1981); data and minima from memory.
describe('Gauss-Newton on published problems', () => {
  it('Rosenbrock: the minimum 0 at (1, 1)', () => {
    const residuals = ([x, y]: readonly number[]) => Float64Array.of(10 * (y! - x! * x!), 1 - x!);
    const { x, squares } = boundedGaussNewton({ residuals, ...wide(2) }, [-1.2, 1], 200);
    expect(squares).toBeLessThan(1e-8);
    expect(x[0]).toBeCloseTo(1, 3);
    expect(x[1]).toBeCloseTo(1, 3);
  });
  it('Bard: 8.21487e-3 at (0.08241, 1.133, 2.344)', () => {
    const seen = [0.14, 0.18, 0.22, 0.25, 0.29, 0.32, 0.35, 0.39, 0.37, 0.58, 0.73, 0.96, 1.34, 2.1, 4.39];
    const residuals = ([a, b, c]: readonly number[]) =>
      Float64Array.from(seen, (y, i) => {
        const [u, v] = [i + 1, 15 - i];
        return y - (a! + u / (b! * v + c! * Math.min(u, v)));
      });
    const { x, squares } = boundedGaussNewton({ residuals, ...wide(3) }, [1, 1, 1], 60);
    expect(squares).toBeCloseTo(8.21487e-3, 7);
    expect(x[0]).toBeCloseTo(0.08241, 3);
    expect(x[1]).toBeCloseTo(1.133, 2);
    expect(x[2]).toBeCloseTo(2.344, 2);
  });
});

describe('Gauss-Newton within bounds', () => {
  it('never ends worse than it began nor leaves its bounds, and says its own residuals', () => {
    const value = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(fc.array(value, { minLength: 4, maxLength: 4 }), fc.tuple(value, value), ([a, b, c, d], [p, q]) => {
        const residuals = ([x, y]: readonly number[]) =>
          Float64Array.of(Math.sin(a! * x!) - b!, x! * y! - c!, Math.exp(0.3 * y!) - d!);
        const start = [Math.min(1, Math.max(-1, p)), Math.min(1, Math.max(-1, q))];
        const answer = boundedGaussNewton({ residuals, lo: [-1, -1], hi: [1, 1] }, start, 6);
        expect(answer.squares).toBeLessThanOrEqual(sumOfSquares(residuals(start)) + 1e-12);
        for (const v of answer.x) expect(Math.abs(v)).toBeLessThanOrEqual(1);
        expect([...answer.residuals]).toEqual([...residuals(answer.x)]);
      }),
    );
  });
  it('has nothing to do without unknowns', () => {
    const answer = boundedGaussNewton({ residuals: () => Float64Array.of(2, 1), lo: [], hi: [] }, [], 5);
    expect(answer).toMatchObject({ x: [], squares: 5 });
  });
});
