import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { findGround } from '../materials/grounds';
import { findMix, MIXES } from '../materials/mixes';
import { FIVE_ANGLES } from '../optics/geometry';
import { createRandom, normal } from '../numeric/random';
import { prepareLibrary } from '../materials/shop';
import { ladderLabs } from './ladder';
import { computeMatchMap, mapCounts } from './matchMap';
import { chancesAt, logScatter, DEFAULT_SCATTER } from './risk';
import { normalCdf } from '../numeric/normal';
import { coatGrid, findStopWindow, interpolateLabs } from './stopWindow';
import { STYLES } from '../finishes/styles';
import { type TargetAngle } from './target';
import { defaultTolerance } from '../finishes/tolerances';
import { de2000 } from '../colour/difference';

const shop = prepareLibrary();
const model = shop.model(FIVE_ANGLES);
const recipeOf = (id: string) => ({ coat: shop.coat(findMix(id), 1), style: STYLES.wet });
const targetAt = (mixId: string, groundId: string, coats: number): TargetAngle[] =>
  ladderLabs(model, shop.ground(findGround(groundId)), recipeOf(mixId), [coats])[0]!.map((lab, g) => ({
    ...FIVE_ANGLES[g]!,
    lab,
    tolerance: defaultTolerance(FIVE_ANGLES[g]!.aspecular),
  }));

describe('ladder and stop window', () => {
  it('interpolates between quarter coats within 0.05 dE of the computed ladder; within 0.6 in the steep first quarter, where nobody stops', () => {
    const knots = coatGrid(0, 6, 0.25);
    for (const [system, ground] of [
      ['lagoon-pearl', 'white'],
      ['cinder-candy', 'silver-fine'],
      ['smoke-tea-clear', 'gold'],
    ] as const) {
      const g = shop.ground(findGround(ground));
      const labs = ladderLabs(model, g, recipeOf(system), knots);
      for (const n of [0.1, 0.4, 1.15, 2.35, 5.6]) {
        const exact = ladderLabs(model, g, recipeOf(system), [n])[0]!;
        interpolateLabs(knots, labs, n).forEach((lab, a) =>
          expect(de2000(lab, exact[a]!)).toBeLessThan(n < 0.25 ? 0.6 : 0.05),
        );
      }
    }
  });

  it('finds the coat count a target was made with, and a window around it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...MIXES.map((s) => s.id)), fc.integer({ min: 10, max: 80 }), (system, steps) => {
        const coats = steps * 0.05;
        const ground = 'cream-pastel';
        const knots = coatGrid(0, 6, 0.25);
        const stop = findStopWindow(
          targetAt(system, ground, coats),
          knots,
          ladderLabs(model, shop.ground(findGround(ground)), recipeOf(system), knots),
        );
        expect(Math.abs(stop.best.coats - coats)).toBeLessThanOrEqual(0.051);
        expect(stop.window![0]).toBeLessThanOrEqual(coats);
        expect(stop.window![1]).toBeGreaterThanOrEqual(coats - 1e-9);
      }),
      { numRuns: 30 },
    );
  });

  it('says that nothing matches instead of inventing a window', () => {
    const knots = coatGrid(0, 6, 0.25);
    const stop = findStopWindow(
      targetAt('smoke-tea-clear', 'black', 4),
      knots,
      ladderLabs(model, shop.ground(findGround('white')), recipeOf('moonmilk-pearl'), knots),
    );
    expect(stop.window).toBeNull();
    expect(stop.best.toleranceRatio).toBeGreaterThan(1);
  });
});

describe('match map', () => {
  it('gives the same cells as the ladder one by one, and picks the ground the target was made on', () => {
    const target = targetAt('lagoon-pearl', 'aqua-pastel', 3);
    const map = computeMatchMap(model, shop.grounds(), recipeOf('lagoon-pearl'), mapCounts(), target);
    expect(map.best).toEqual({ groundId: 'aqua-pastel', coats: 3 });
    for (const row of map.rows) {
      const g = shop.ground(findGround(row.groundId));
      for (const c of [1, 5, 10]) {
        const alone = ladderLabs(model, g, recipeOf('lagoon-pearl'), [row.cells[c]!.coats])[0]!;
        // Rows with a tinted metallic share slabs with the others; half a unit is what that may cost.
        row.cells[c]!.labs.forEach((lab, a) =>
          expect(de2000(lab, alone[a]!)).toBeLessThan(g.coats.length ? 0.5 : 1e-6),
        );
      }
    }
  });
});

describe('chances and advice', () => {
  it('has a normal distribution function with the tabled values', () => {
    expect(normalCdf(0)).toBeCloseTo(0.5, 7);
    expect(normalCdf(1.644854)).toBeCloseTo(0.95, 6);
    expect(normalCdf(-1.959964)).toBeCloseTo(0.025, 6);
  });

  it('agrees with simulated painters', () => {
    const random = createRandom(7);
    const window = [2.6, 3.4] as const;
    const runs = 20000;
    let over = 0;
    let under = 0;
    for (let i = 0; i < runs; i++) {
      // Film of three coats in a session: one factor for the day, one a coat.
      const film =
        Math.exp(DEFAULT_SCATTER.session * normal(random)) *
        [0, 1, 2].reduce((s) => s + Math.exp(DEFAULT_SCATTER.coat * normal(random)), 0);
      if (film > window[1]) over++;
      if (film < window[0]) under++;
    }
    const said = chancesAt(3, window, true);
    expect(Math.abs(said.over - over / runs)).toBeLessThan(0.012);
    expect(Math.abs(said.under - under / runs)).toBeLessThan(0.012);
  });

  it('adds chances to one for any window and count, and scatters less over more coats', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        fc.double({ min: 0.02, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        fc.double({ min: 0.25, max: 6, noNaN: true }),
        (lo, width, doubt, coats) => {
          const c = chancesAt(coats, [lo, lo + width], true, DEFAULT_SCATTER, doubt);
          expect(c.under + c.inside + c.over).toBeCloseTo(1, 6);
          expect(Math.min(c.under, c.inside, c.over)).toBeGreaterThanOrEqual(0);
        },
      ),
    );
    expect(logScatter(4)).toBeLessThan(logScatter(1));
  });
});
