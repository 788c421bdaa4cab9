import { describe, expect, it } from '@jest/globals';
import { findSystem, REFERENCE_LIBRARY, type Nudge, type RatedRecipe } from '@steady-gleam/core';
import { sayMissing } from '../map/mapModel';
import { sayNudge, saySearch, searched } from './recipesModel';

const recipe = (more: Partial<RatedRecipe>): RatedRecipe => ({
  groundId: 'aqua-pastel',
  strength: 1,
  coats: 3,
  controlCoats: 0,
  labs: [],
  meanDe: 0.4,
  badness: 0.5,
  window: [2.6, 3.4],
  risk: 0.1,
  ...more,
});
const library = REFERENCE_LIBRARY;
const system = findSystem('lagoon-pearl');
const step = (depth: number, meanDe: number) => ({
  doses: [{ dyeId: 'lagoon-blue', depth }],
  labs: [[50, 0, 0] as const],
  meanDe,
  badness: meanDe,
});
const nudge: Nudge = { before: { meanDe: 2.4, badness: 2 }, half: step(0.018, 1.3), full: step(0.036, 0.4) };

describe('what a search says', () => {
  it('names the best, and the safest when it is another', () => {
    const best = recipe({});
    const safe = recipe({ strength: 0.625, coats: 5, controlCoats: 1, meanDe: 0.7, risk: 0.02 });
    expect(saySearch([best, safe], library).answer).toBe('Aqua pastel at 1×, 3 coats.');
    expect(saySearch([best, safe], library).why).toContain(
      'Safest is Aqua pastel at 0.625×, 5 coats and a control coat: 98 in 100',
    );
    expect(saySearch([best], library).why).toContain('the safest: 90 in 100');
    expect(saySearch([recipe({ window: null, meanDe: 6.2, risk: 1 })], library).answer).toContain(
      'No recipe reaches it',
    );
    expect(searched(15)).toBe(5070);
  });

  it('advises half of a toner first, in parts of the mix, and says when none helps', () => {
    // 0.018 of the 0.3 that half a part in six gives: 0.018 / 0.3 * 0.5 * 100 / 6.
    expect(sayNudge(nudge, system, library).answer).toBe('Add 0.50 parts of lagoon blue to 100 of binder, then look.');
    expect(sayNudge(nudge, system, library).why).toContain('2.4 now, 1.3 after the first half, 0.4');
    expect(sayNudge(null, system, library).why).toContain('only take light away');
  });

  it('says what an unreachable target lacks and what would give it', () => {
    const target = [{ incidence: 45, aspecular: 45, lab: [50, 0, -30] as const, tolerance: 1.2 }];
    const cell = { coats: 3, labs: [[50, 0, -22] as const], score: { badness: 4, meanDe: 5, differences: [5] } };
    const stop = { window: null, closes: false, best: { coats: 3, meanDe: 5, badness: 4 }, curve: [] };
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
