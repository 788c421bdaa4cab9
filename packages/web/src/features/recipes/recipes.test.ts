import { describe, expect, it } from '@jest/globals';
import type { Nudge, RatedRecipe } from '@steady-gleam/core/matching';
import { findMix, REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { sayMissing } from '../map/mapModel';
import { recommended, sayNudge, saySearch, searched } from './recipesModel';

const recipe = (more: Partial<RatedRecipe>): RatedRecipe => ({
  groundId: 'aqua-pastel',
  strength: 1,
  style: 'wet',
  coats: 3,
  controlCoats: 0,
  labs: [],
  rmsDe: 0.4,
  toleranceRatio: 0.5,
  window: [2.6, 3.4],
  risk: 0.1,
  ...more,
});
const library = REFERENCE_LIBRARY;
const system = findMix('lagoon-pearl');
const step = (depth: number, rmsDe: number) => ({
  doses: [{ dyeId: 'lagoon-blue', depth }],
  strength: 1,
  labs: [[50, 0, 0] as const],
  rmsDe,
  toleranceRatio: rmsDe,
});
const nudge: Nudge = { before: { rmsDe: 2.4, toleranceRatio: 2 }, half: step(0.018, 1.3), full: step(0.036, 0.4) };

describe('what a search says', () => {
  it('names the safest of those no eye can tell apart, and what the nearest one risks', () => {
    const best = recipe({ coats: 1.5, rmsDe: 0.4, risk: 0.36 });
    const safe = recipe({ coats: 3, rmsDe: 0.5, risk: 0.23 });
    const far = recipe({ strength: 0.625, coats: 5, controlCoats: 1, rmsDe: 1.2, risk: 0.02 });
    // 1.5 coats at 64 in 100 against an equal match of 3 at 77.
    expect(recommended([best, safe, far])).toBe(safe);
    expect(saySearch([best, safe, far], library).answer).toBe('Aqua pastel at 1×, 3 coats.');
    expect(saySearch([best, safe, far], library).why).toContain('77 in 100 such jobs end inside');
    expect(saySearch([best, safe, far], library).why).toContain('only 64 in 100 end inside');
    expect(saySearch([best], library).why).toContain(
      '64 in 100 such jobs end inside the window. Nothing matches better',
    );
    expect(saySearch([recipe({ window: null, rmsDe: 6.2, risk: 1 })], library).answer).toContain(
      'No recipe reaches it',
    );
    expect(searched(15, 'pearl')).toBe(5070);
  });

  it('advises half of a toner first, in grams and drops for the cup that stands there', () => {
    // 0.018 of the 0.3 that half a part in six gives: 0.018 / 0.3 * 0.5 / 6 = 0.005 of the carrier; 300 ml at 0.97 g/ml.
    expect(sayNudge(nudge, system, library, 300, 3).answer).toBe('Add 1.5 g (30 drops) of lagoon blue, then look.');
    expect(sayNudge(nudge, system, library, 300, 3).why).toContain('2.4 now, 1.3 after the first half, 0.4');
    expect(sayNudge(null, system, library, 300, 3).why).toContain('only take light away');
  });

  it('answers weaker with more of its colour and stronger with carrier, never the other way', () => {
    const strong = (strength: number) => ({ ...step(0, 1), doses: [], strength });
    const more = sayNudge({ ...nudge, half: strong(1.1), full: strong(1.2) }, system, library, 600, 3);
    // 600 ml binder: 100 ml pearl and 50 ml blue stand in it; a tenth more of each.
    expect(more.answer).toBe(
      'It wants more colour: add 11.2 g of blue pearl, fine and 4.9 g (100 drops) of lagoon blue, or lay 0.6 coats more in all.',
    );
    const less = sayNudge({ ...nudge, half: strong(0.9), full: strong(0.8) }, system, library, 600, 3);
    expect(less.answer).toMatch(/^It is too strong: let it down with 78\.3 g of binder, or lay 0\.6 coats fewer\.$/);
    const unknown = { ...system, parts: [] };
    expect(sayNudge({ ...nudge, half: strong(1.1), full: strong(1.2) }, unknown, library, 500, 3).answer).toContain(
      '50.0 ml of its colours, by your formula',
    );
  });

  it('says what an unreachable target lacks and what would give it', () => {
    const target = [{ incidence: 45, aspecular: 45, lab: [50, 0, -30] as const, tolerance: 1.2 }];
    const cell = { coats: 3, labs: [[50, 0, -22] as const], score: { toleranceRatio: 4, rmsDe: 5, differences: [5] } };
    const stop = { window: null, closes: false, best: { coats: 3, rmsDe: 5, toleranceRatio: 4 }, curve: [] };
    const map = {
      counts: [3],
      rows: [{ groundId: 'white', cells: [cell], stop, forgiveness: 0 }],
      best: { groundId: 'white', coats: 3 },
      forgiving: null,
      cheapest: null,
    };
    expect(sayMissing(map, target, nudge, library, system)).toBe(
      'At 45° nothing here is as it should be: the target is stronger 8.0. Add 1.0 parts of lagoon blue to 100 of binder: about dE00 0.4 then.',
    );
    expect(sayMissing(map, target, null, library, system)).toContain('No dye of the shop adds that');
  });
});
