import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { prepareLibrary } from '../materials/shop';
import { parseRatio } from '../mixing';
import { STARTING_PRODUCTS } from '../products/products';
import { adviseCount, countOutcome, drawCount } from './count';
import { DRILL_KINDS, drillOf, isRight } from './drills';

const shop = prepareLibrary();

describe('a card to stop at', () => {
  const rounds = Array.from({ length: 12 }, (_, seed) => drawCount(shop, seed));
  it('is the same for the same seed, and another for another', () => {
    expect(drawCount(shop, 3)).toEqual(rounds[3]);
    expect(new Set(rounds.map((r) => r.best)).size).toBeGreaterThan(8);
    expect(new Set(rounds.map((r) => r.mixId)).size).toBeGreaterThan(1);
  });
  it('gets darker rung by rung in every light, has its best inside its window, and a rung on both sides of it', () => {
    for (const r of rounds) {
      for (const light of r.lights)
        light.rungs.forEach((labs, i) => {
          if (i) expect(labs[2]![0]).toBeLessThan(light.rungs[i - 1]![2]![0] + 0.1);
        });
      expect(r.best).toBeGreaterThanOrEqual(r.window[0]);
      expect(r.best).toBeLessThanOrEqual(r.window[1]);
      expect(r.rungs[0]!).toBeLessThanOrEqual(r.best);
      expect(r.rungs.at(-1)!).toBeGreaterThan(r.best);
      expect([countOutcome(r, r.window[0] - 0.1), countOutcome(r, r.best), countOutcome(r, r.window[1] + 0.1)]).toEqual(
        ['short', 'inside', 'over'],
      );
    }
  });
  it('looks like what is wanted at its best count and not at its first rung', () => {
    for (const r of rounds) {
      const [day] = r.lights;
      const nearest = r.rungs.reduce((a, b) => (Math.abs(b - r.best) < Math.abs(a - r.best) ? b : a));
      const off = (n: number) => Math.abs(day!.rungs[r.rungs.indexOf(n)]![2]![0] - day!.wanted[2]![0]);
      expect(off(nearest)).toBeLessThan(off(r.rungs.at(-1)!));
    }
  });
  it('is answered by the program from the rungs that were looked at, nearer with more of them', () => {
    const tried = rounds.slice(0, 5);
    const off = (seen: number) =>
      tried.reduce((s, r) => s + Math.abs(Math.log(adviseCount(shop, r, seen)! / r.best)), 0) / tried.length;
    expect(off(6)).toBeLessThan(0.12);
    expect(off(6)).toBeLessThanOrEqual(off(1) + 0.03);
  });
});

describe('drills of the mixing bench', () => {
  it('have the answer their ratio gives, in all three kinds', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e6 }), fc.integer({ min: 0, max: 40 }), (seed, n) => {
        const drill = drillOf(STARTING_PRODUCTS, seed, n)!;
        expect(drill.kind).toBe(DRILL_KINDS[n % 3]);
        expect(drill.answer).toBeGreaterThan(0);
        expect(isRight(drill, drill.answer)).toBe(true);
        expect(isRight(drill, drill.answer * 1.05 + 1)).toBe(false);
        if (drill.kind !== 'ratio') return;
        // Worked from the question's own words.
        const has = Number(/(\d+(?:\.\d+)?) ml of it stand/.exec(drill.question)![1]);
        const read = parseRatio(drill.ratio);
        if (!read.ok) throw new Error(read.message);
        expect(read.parts.slice(1).some((p) => isRight(drill, (has * p) / read.parts[0]!))).toBe(true);
      }),
    );
  });
  it('are none where nothing is mixed by parts', () => {
    expect(drillOf([], 1, 0)).toBeNull();
    expect(drillOf([{ ...STARTING_PRODUCTS[0]!, ratio: '1' }], 1, 0)).toBeNull();
  });
});
