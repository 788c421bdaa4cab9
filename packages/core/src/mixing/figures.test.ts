import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { areaOf, pieceArea } from './batch';
import { flakeCover, gramsForCover } from './flakeCover';

describe('the area of a piece', () => {
  it('is its shape’s, as often as there are of it; nothing while a measure is missing or no measure', () => {
    expect(pieceArea({ shape: 'area', measures: { area: 1.5 }, count: 2 })).toBe(3);
    expect(pieceArea({ shape: 'area', measures: {}, count: 2 })).toBeNull();
    expect(pieceArea({ shape: 'area', measures: { area: 0 }, count: 2 })).toBeNull();
    expect(pieceArea({ shape: 'area', measures: { area: -1 }, count: 2 })).toBeNull();
    expect(
      areaOf([
        { shape: 'area', measures: { area: 1.5 }, count: 2 },
        { shape: 'area', measures: {}, count: 1 },
      ]),
    ).toBe(3);
  });
});

describe('flakes thrown at random', () => {
  it('cover 1 - exp(-m / (density x thickness)): 2 g/m2 of 1 um at 2 g/cm3 leave 1/e open (Poisson)', () => {
    expect(flakeCover(2, 1, 2)).toBeCloseTo(1 - Math.exp(-1), 12);
    expect(flakeCover(2, 1, 2, 0.5)).toBeCloseTo(1 - Math.exp(-0.5), 12);
    expect(flakeCover(0, 1, 2)).toBe(-0 + 0);
  });

  it('the grams for a cover give that cover', () => {
    const positive = fc.double({ min: 0.1, max: 10, noNaN: true });
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 0.99, noNaN: true }),
        positive,
        positive,
        positive,
        (cover, um, density, shape) => {
          expect(flakeCover(gramsForCover(cover, um, density, shape), um, density, shape)).toBeCloseTo(cover, 9);
        },
      ),
    );
  });
});
