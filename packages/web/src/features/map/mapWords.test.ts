import { describe, expect, it } from '@jest/globals';
import type { Lab } from '@steady-gleam/core/colour';
import type { MatchMap, Nudge, TargetAngle } from '@steady-gleam/core/matching';
import { findMix, REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { cssOf } from '../../shared/screenColour';
import { cellOf, mapExposures, rowOf, sayGreyStep, sayMissing } from './mapModel';

const COUNTS = [1, 2, 3];
const target: TargetAngle[] = [15, 45, 110].map((aspecular) => ({
  ...{ incidence: 45, aspecular, tolerance: 1 },
  lab: [60, 10, 20],
}));
/** A ground whose cells are so much lighter than the target, a coat at a time. */
const row = (groundId: string, off: number) => ({
  groundId,
  cells: COUNTS.map((coats) => {
    const labs = target.map(({ lab: [l, a, b] }): Lab => [l + off - coats, a, b]);
    const de = Math.abs(off - coats);
    return { coats, labs, score: { rmsDe: de, toleranceRatio: de, differences: [de, de / 2, 2 * de] } };
  }),
  stop: { window: null, closes: true, best: { coats: 3, rmsDe: 1, toleranceRatio: 1 }, curve: [] },
  forgiveness: 0,
});
const mapOf = (...rows: ReturnType<typeof row>[]): MatchMap => ({
  ...{ counts: COUNTS, rows, best: { groundId: rows[0]!.groundId, coats: 3 }, forgiving: null, cheapest: null },
});
const greys = mapOf(row('grey-84', 8), row('grey-63', 2.4), row('grey-41', -6), row('aqua-pastel', 0));
const { grounds } = REFERENCE_LIBRARY;

describe('places on the map', () => {
  it('are the nearest count there is, on the ground that is asked for, or the first', () => {
    expect(cellOf(greys, 'grey-63', 2.2).coats).toBe(2);
    expect(cellOf(greys, 'grey-63', 99).coats).toBe(3);
    expect(rowOf(greys, 'gone').groundId).toBe('grey-84');
  });

  it('have one exposure an angle for all that come near the target; what is far off does not dim them', () => {
    const near = mapExposures(mapOf(row('white', 3)), target);
    expect(near).toHaveLength(target.length);
    expect(mapExposures(mapOf(row('white', 3), row('black', 300)), target)).toEqual(near);
    const bright = target.map((t): TargetAngle => ({ ...t, lab: [160, 0, 0] }));
    for (const [g, exposure] of mapExposures(mapOf(row('white', 3)), bright).entries()) {
      expect(exposure).toBeLessThan(1);
      expect(cssOf(bright[g]!.lab, exposure)).toBe('rgb(255,255,255)');
    }
  });
});

describe('the grey step of a weak-hiding colour', () => {
  it('is the one that comes nearest at the specified counts, with what a lighter and a darker one would do', () => {
    const three = grounds.filter((g) => /^grey-(84|63|41)$/.test(g.id) || g.id === 'aqua-pastel');
    const said = sayGreyStep(greys, target, three, [2, 3])!;
    expect(said).toMatch(/^At the specified 2 to 3 coats mid grey is its grey step, dE00 0\.4: /);
    expect(said).toContain('over pale grey it comes out lighter');
    expect(said).toContain('over dark grey it comes out darker');
  });

  it('at an end has a neighbour on one side only, and among fewer than two is none', () => {
    const end = sayGreyStep(
      mapOf(row('grey-84', 2), row('grey-63', 9)),
      target,
      grounds.filter((g) => /^grey-(84|63)$/.test(g.id)),
      [2],
    )!;
    expect(end.match(/it comes out/g)).toHaveLength(1);
    expect(
      sayGreyStep(
        greys,
        target,
        grounds.filter((g) => g.id === 'grey-63'),
        [2],
      ),
    ).toBeNull();
    expect(
      sayGreyStep(
        greys,
        target,
        grounds.filter((g) => g.id === 'aqua-pastel'),
        [2],
      ),
    ).toBeNull();
  });
});

describe('what is missing where no ground reaches the target', () => {
  const mix = findMix('lagoon-pearl');
  const far = mapOf(row('grey-84', 12));

  it('is said at the angle where it is furthest off for what is allowed there', () => {
    const said = sayMissing(far, target, null, REFERENCE_LIBRARY, mix);
    expect(said).toMatch(/^At 110° nothing here is as it should be: the target is darker/);
    expect(said).toContain('No dye of the shop adds that');
    // A wide limit there, and another angle is the one that counts.
    const wide = target.map((t): TargetAngle => ({ ...t, tolerance: t.aspecular === 110 ? 9 : 1 }));
    expect(sayMissing(far, wide, null, REFERENCE_LIBRARY, mix)).toMatch(/^At 15°/);
  });

  it('with a dye that adds it says how many parts, and how near it is then', () => {
    const doses = [{ dyeId: 'lagoon-blue', depth: 0.06 }];
    const full = { doses, strength: 1, labs: [], rmsDe: 1.4, toleranceRatio: 1.4 };
    const help: Nudge = { before: full, half: full, full };
    const said = sayMissing(far, target, help, REFERENCE_LIBRARY, mix);
    expect(said).toMatch(/Add [\d.]+ parts of lagoon blue to 100 of binder: about dE00 1\.4 then\.$/);
  });
});
