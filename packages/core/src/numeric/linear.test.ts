import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  choleskyOf,
  createRandom,
  halfLogDet,
  normal,
  normalCdf,
  quantile,
  seedOf,
  solveCholesky,
  solveLower,
  solveUpper,
  timesLower,
} from '.';
import { THREE_NODES } from './normal';

const entry = fc.double({ min: -3, max: 3, noNaN: true });
const size = fc.integer({ min: 1, max: 6 });
/** A symmetric positive matrix B B' + I of some size, and a vector of that size. */
const problem = size.chain((n) =>
  fc
    .tuple(
      fc.array(fc.array(entry, { minLength: n, maxLength: n }), { minLength: n, maxLength: n }),
      fc.array(entry, { minLength: n, maxLength: n }),
    )
    .map(([b, x]) => ({
      matrix: b.map((row, i) => b.map((other, j) => row.reduce((s, v, k) => s + v * other[k]!, i === j ? 1 : 0))),
      x,
    })),
);
const times = (matrix: readonly (readonly number[])[], x: ArrayLike<number>): number[] =>
  matrix.map((row) => row.reduce((s, v, j) => s + v * x[j]!, 0));
const near = (a: ArrayLike<number>, b: ArrayLike<number>, within: number) =>
  Array.from(a).forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThan(within));

describe('the lower factor of a positive matrix', () => {
  // Golub and Van Loan, Matrix Computations, section 4.2; the example is the usual one of textbooks, from memory.
  it('of the textbook example is the textbook’s', () => {
    const lower = choleskyOf([
      [4, 12, -16],
      [12, 37, -43],
      [-16, -43, 98],
    ]);
    near(lower.flat(), [2, 0, 0, 6, 1, 0, -8, 5, 3], 1e-9);
    // The determinant is 36.
    expect(halfLogDet(lower)).toBeCloseTo(Math.log(6), 9);
  });

  it('times its mirror image gives the matrix back, and has nothing above its diagonal', () => {
    fc.assert(
      fc.property(problem, ({ matrix }) => {
        const lower = choleskyOf(matrix);
        lower.forEach((row, i) => {
          row.forEach((v, j) => (j > i ? expect(v).toBe(0) : undefined));
          matrix.forEach((_, j) => {
            const sum = row.reduce((s, v, k) => s + v * lower[j]![k]!, 0);
            expect(Math.abs(sum - matrix[i]![j]!)).toBeLessThan(1e-8 * (1 + Math.abs(matrix[i]![j]!)));
          });
        });
      }),
    );
  });

  it('reads the lower half only', () => {
    const half = choleskyOf([
      [2, 99],
      [0.5, 3],
    ]);
    near(
      half.flat(),
      choleskyOf([
        [2, 0.5],
        [0.5, 3],
      ]).flat(),
      1e-12,
    );
  });

  it('of a matrix that rounding left a hair short of positive is still found', () => {
    const short = [
      [1, 1],
      [1, 1 - 1e-13],
    ];
    const lower = choleskyOf(short);
    const sum = lower[1]!.reduce((s, v) => s + v * v, 0);
    expect(sum).toBeGreaterThan(0);
    expect(Math.abs(sum - 1)).toBeLessThan(1e-3);
  });

  it('of one that is far from positive is refused, and of none is none', () => {
    expect(() =>
      choleskyOf([
        [1, 0],
        [0, -5],
      ]),
    ).toThrow(RangeError);
    expect(choleskyOf([])).toEqual([]);
  });
});

describe('solving with it', () => {
  it('gives back what the matrix was multiplied with, by halves and at once', () => {
    fc.assert(
      fc.property(problem, ({ matrix, x }) => {
        const lower = choleskyOf(matrix);
        near(solveCholesky(lower, times(matrix, x)), x, 1e-6);
        near(solveLower(lower, timesLower(lower, x)), x, 1e-7);
        // L' x by its columns.
        const mirrored = x.map((_, j) => lower.reduce((s, row, i) => s + (i >= j ? row[j]! * x[i]! : 0), 0));
        near(solveUpper(lower, mirrored), x, 1e-7);
      }),
    );
  });
});

describe('a share of the numbers', () => {
  it('lies between its neighbours; the ends are the ends', () => {
    expect(quantile([3, 1, 2, 4], 0.5)).toBe(2.5);
    expect(quantile([5], 0.9)).toBe(5);
    fc.assert(
      fc.property(
        fc.array(entry, { minLength: 1, maxLength: 40 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (values, q) => {
          const v = quantile(values, q);
          expect(quantile(values, 0)).toBe(Math.min(...values));
          expect(quantile(values, 1)).toBe(Math.max(...values));
          // Of n numbers at least floor(q (n - 1)) + 1 are not above it.
          const below = values.filter((x) => x <= v + 1e-12).length;
          expect(below).toBeGreaterThanOrEqual(Math.floor(q * (values.length - 1)) + 1);
        },
      ),
    );
  });

  it('does not turn the list it is given round, and has to have numbers', () => {
    const values = [3, 1, 2];
    quantile(values, 0.3);
    expect(values).toEqual([3, 1, 2]);
    expect(() => quantile([], 0.5)).toThrow(RangeError);
  });
});

describe('the normal distribution', () => {
  // Abramowitz and Stegun, Handbook of Mathematical Functions, table 26.1.
  it.each([
    [0, 0.5],
    [0.5, 0.6914624613],
    [1, 0.8413447461],
    [1.644853627, 0.95],
    [1.959963985, 0.975],
    [3, 0.998650102],
  ])('lies below %s with %s', (z, share) => {
    expect(normalCdf(z)).toBeCloseTo(share, 6);
    expect(normalCdf(-z)).toBeCloseTo(1 - share, 6);
  });

  it('never falls', () => {
    let last = 0;
    for (let z = -6; z <= 6; z += 0.01) {
      expect(normalCdf(z)).toBeGreaterThanOrEqual(last);
      last = normalCdf(z);
    }
  });

  it('three nodes give its moments up to the fifth', () => {
    const moment = (n: number) => THREE_NODES.reduce((s, [x, w]) => s + w * x ** n, 0);
    [1, 0, 1, 0, 3, 0].forEach((m, n) => expect(moment(n)).toBeCloseTo(m, 12));
  });
});

describe('random numbers', () => {
  it('are the same for a seed and others for another', () => {
    const first = (seed: number) => Array.from({ length: 5 }, createRandom(seed));
    expect(first(7)).toEqual(first(7));
    expect(first(7)).not.toEqual(first(8));
    for (const v of first(0)) expect(v >= 0 && v < 1).toBe(true);
  });

  it('fill 0 to 1 evenly: a chi-square of twenty bins over 20,000 numbers', () => {
    const random = createRandom(11);
    const bins = new Array<number>(20).fill(0);
    for (let i = 0; i < 20_000; i++) bins[Math.floor(random() * 20)]!++;
    const chi = bins.reduce((s, n) => s + (n - 1000) ** 2 / 1000, 0);
    // 19 degrees of freedom, 99.9 % (Abramowitz and Stegun, table 26.8).
    expect(chi).toBeLessThan(43.8);
  });

  it('of a normal distribution have its mean, scatter and tails', () => {
    const random = createRandom(3);
    const values = Array.from({ length: 20_000 }, () => normal(random));
    const mean = values.reduce((s, v) => s + v, 0) / values.length;
    const sd = Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / values.length);
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(Math.abs(sd - 1)).toBeLessThan(0.02);
    expect(Math.abs(values.filter((v) => v > 1.959964).length / values.length - 0.025)).toBeLessThan(0.005);
  });

  // Fowler, Noll and Vo's own test vectors for 32 bit FNV-1a: "a" and "foobar", from memory; the sign between parts is ours.
  it('begin from words: the same seed for the same words, another for others or for the same cut elsewhere', () => {
    expect(seedOf('panel', 3)).toBe(seedOf('panel', 3));
    expect(seedOf('panel', 3)).toBe(seedOf('panel', '3'));
    expect(seedOf('ab', 'c')).not.toBe(seedOf('a', 'bc'));
    expect(seedOf()).toBe(0x811c9dc5);
    const seeds = new Set(Array.from({ length: 2000 }, (_, i) => seedOf('rung', i)));
    expect(seeds.size).toBe(2000);
  });
});
