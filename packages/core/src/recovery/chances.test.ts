import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Wanted } from '../letdown/rule';
import {
  amountThere,
  anewChances,
  firstStopOf,
  lookedAtChances,
  lookSdOf,
  mendedChances,
  repairChances,
  wantedAnew,
} from './chances';

const wanted: fc.Arbitrary<Wanted> = fc
  .record({
    film: fc.double({ min: 0.2, max: 3, noNaN: true }),
    sd: fc.double({ min: 0.05, max: 0.6, noNaN: true }),
    half: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
    rate: fc.double({ min: 0.8, max: 1.25, noNaN: true }),
  })
  .map(({ film, sd, half, rate }) => ({ film, sd, window: [-half, half], rate }));
const one: Wanted = { film: 1, sd: 0.15, window: [-0.4, 0.4], rate: 1 };
const total = (c: { under: number; in: number; over: number }) => c.under + c.in + c.over;

describe('chances of an amount', () => {
  it('sum to one, and more of it is short less often and over more often', () => {
    fc.assert(
      fc.property(wanted, fc.double({ min: 0.1, max: 4, noNaN: true }), fc.boolean(), (w, q, passes) => {
        const less = repairChances(q, w, passes);
        const more = repairChances(q + 0.5, w, passes);
        for (const c of [less, more]) {
          expect(total(c)).toBeCloseTo(1, 9);
          for (const v of [c.under, c.in, c.over]) expect(v).toBeGreaterThanOrEqual(-1e-9);
        }
        expect(more.under).toBeLessThanOrEqual(less.under + 1e-9);
      }),
      { numRuns: 60 },
    );
  });

  it('end inside less often where no count passes at all, and where less is known', () => {
    expect(repairChances(1, one, false).in).toBeLessThan(repairChances(1, one, true).in);
    expect(repairChances(1, { ...one, sd: 0.5 }, true).in).toBeLessThan(repairChances(1, one, true).in);
    // What is wanted ends inside more often than half of it or twice as much.
    const at = (q: number) => repairChances(q, one, true).in;
    expect(at(1)).toBeGreaterThan(at(0.4));
    expect(at(1)).toBeGreaterThan(at(1.9));
  });
});

describe('the first stop', () => {
  it('is in quarter coats, never beyond what is wanted but for the first quarter, and further the surer it is', () => {
    fc.assert(
      fc.property(wanted, (w) => {
        const stop = firstStopOf(w);
        expect((stop * 4) % 1).toBe(0);
        expect(stop === 0.25 || stop * w.rate <= w.film + 1e-9).toBe(true);
        expect(firstStopOf({ ...w, sd: w.sd * 2 })).toBeLessThanOrEqual(stop);
        expect(firstStopOf({ ...w, film: w.film + 1 })).toBeGreaterThanOrEqual(stop);
      }),
      { numRuns: 60 },
    );
  });

  it('of a place laid anew is of all it wants, known no better than what lay there told', () => {
    expect(wantedAnew(2, one)).toMatchObject({ film: 3, sd: 0.15, window: one.window });
    expect(wantedAnew(0.5, { ...one, film: -2, sd: 0.01 })).toMatchObject({ film: 0.25, sd: 0.1 });
  });
});

describe('laying, looking and laying the rest', () => {
  it('is the same for the same, sums to one, and ends inside more often than laying blindly', () => {
    const unsure = { ...one, film: 2, sd: 0.5 };
    const looked = lookedAtChances(1.25, unsure, 0.2, true);
    expect(lookedAtChances(1.25, unsure, 0.2, true)).toEqual(looked);
    expect(total(looked)).toBeCloseTo(1, 9);
    expect(looked.in).toBeGreaterThan(repairChances(2, unsure, true).in);
    // A look that tells little helps little.
    expect(lookedAtChances(1.25, unsure, 1, true).in).toBeLessThan(looked.in);
  });

  it('anew begins at the first stop', () => {
    expect(anewChances(one, 0.2, true)).toEqual(lookedAtChances(firstStopOf(one), one, 0.2, true));
  });

  it('by an eye that calls it a match nothing more is laid; an instrument says the rest', () => {
    const spot = { wanted: { ...one, film: 2, sd: 0.4 }, sd: 0.2 };
    expect(mendedChances(1.5, { ...spot, byEye: true }, true)).toEqual(repairChances(1.5, spot.wanted, true));
    expect(mendedChances(1.5, { ...spot, byEye: false }, true)).toEqual(
      lookedAtChances(1.5, spot.wanted, lookSdOf(spot), true),
    );
    expect(lookSdOf({ sd: 7 })).toBe(1);
  });
});

describe('what is laid on a place that was called short', () => {
  it('is what was advised; else some tenths that seldom go over', () => {
    expect(amountThere(1.5, one, true)).toBe(1.5);
    fc.assert(
      fc.property(wanted, (w) => {
        const q = amountThere(0, w, true);
        expect(q).toBeGreaterThanOrEqual(0.1);
        expect(q).toBeLessThanOrEqual(2);
        if (q > 0.1) expect(repairChances(q, w, true).over).toBeLessThanOrEqual(0.06);
      }),
      { numRuns: 30 },
    );
  });
});
