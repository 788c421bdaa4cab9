import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { de2000 } from '../colour/difference';
import { STYLES } from '../finishes/styles';
import { MIXES } from '../materials/mixes';
import { prepareLibrary } from '../materials/shop';
import { FIVE_ANGLES } from '../optics/geometry';
import { computeMapRows, mapCounts } from './matchMap';
import { LEAST_STRENGTH, MOST_STRENGTH, sharesAt, sweepStrengths, SWEPT_STRENGTHS, sweptRows } from './strengthSweep';
import type { TargetAngle } from './target';

const strengths = fc.double({ min: LEAST_STRENGTH, max: MOST_STRENGTH, noNaN: true });
const shop = prepareLibrary();
const model = shop.model(FIVE_ANGLES);
const target: TargetAngle[] = FIVE_ANGLES.map((g) => ({ ...g, lab: [50, 0, 0], tolerance: 1 }));
const COUNTS = mapCounts();

describe('shares of the swept strengths', () => {
  it('give every polynomial of the logarithm back that six points determine', () => {
    fc.assert(
      fc.property(strengths, fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 6, maxLength: 6 }), (s, c) => {
        const at = (strength: number) => c.reduce((sum, k, power) => sum + k * Math.log(strength) ** power, 0);
        const shares = sharesAt(s);
        const told = SWEPT_STRENGTHS.reduce((sum, strength, i) => sum + shares[i]! * at(strength), 0);
        expect(told).toBeCloseTo(at(s), 9);
      }),
    );
  });
  it('are one of itself at a strength that was worked out, and refuse one beyond the ends', () => {
    SWEPT_STRENGTHS.forEach((s, i) => expect(sharesAt(s)).toEqual(SWEPT_STRENGTHS.map((_, j) => (i === j ? 1 : 0))));
    expect(SWEPT_STRENGTHS[0]).toBeCloseTo(LEAST_STRENGTH, 12);
    expect(() => sharesAt(0.49)).toThrow(RangeError);
    expect(() => sharesAt(2.01)).toThrow('strength 2.01 is not among those swept');
  });
});

describe('a map that follows the slider', () => {
  it('is within 0.15 dE00 of the whole one for every library mix, at a step of its own each', () => {
    const off = MIXES.flatMap((mix, m) => {
      const recipeAt = (strength: number) => ({ coat: shop.coat(mix, strength), style: STYLES.wet });
      const walk = sweepStrengths(model, shop.grounds(), recipeAt, COUNTS);
      let step = walk.next();
      while (!step.done) step = walk.next();
      const strength = 0.55 + (m % 29) * 0.05;
      const told = sweptRows(step.value, strength, target);
      return computeMapRows(model, shop.grounds(), recipeAt(strength), COUNTS, target).flatMap((row, r) =>
        row.cells.flatMap((cell, c) => cell.labs.map((lab, g) => de2000(lab, told[r]!.cells[c]!.labs[g]!))),
      );
    });
    expect(off).toHaveLength(MIXES.length * shop.grounds().length * COUNTS.length * FIVE_ANGLES.length);
    expect(Math.max(...off)).toBeLessThan(0.15);
  });
  it('takes a step for each strength it works out, and finds the picks of the whole map', () => {
    const recipeAt = (strength: number) => ({ coat: shop.coat(MIXES[0]!, strength), style: STYLES.wet });
    const grounds = shop.grounds().slice(0, 3);
    const aim = computeMapRows(model, grounds, recipeAt(1.3), [3], target)[1]!.cells[0]!.labs;
    const wanted = target.map((t, g) => ({ ...t, lab: aim[g]!, tolerance: 1.5 }));
    const walk = sweepStrengths(model, grounds, recipeAt, COUNTS);
    const steps: number[] = [];
    let step = walk.next();
    for (; !step.done; step = walk.next()) steps.push(step.value);
    expect(steps).toEqual(SWEPT_STRENGTHS.map((_, i) => i + 1));
    const row = sweptRows(step.value, 1.3, wanted)[1]!;
    const whole = computeMapRows(model, grounds, recipeAt(1.3), COUNTS, wanted)[1]!;
    expect(row.stop.best.coats).toBeCloseTo(3, 1);
    row.stop.window!.forEach((end, i) =>
      expect(Math.abs(end - whole.stop.window![i]!)).toBeLessThanOrEqual(0.05 + 1e-9),
    );
  });
});
