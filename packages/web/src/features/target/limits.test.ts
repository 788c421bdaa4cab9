import { describe, expect, it } from '@jest/globals';
import { limitsSchema } from '@steady-gleam/contracts';
import { DEFAULT_TOLERANCES, limitAt } from '@steady-gleam/core/finishes';
import { noiseOf, targetNoise } from '@steady-gleam/core/letdown';
import { get } from 'react-hook-form';
import { targetOf } from '../../shared/jobModel';
import { fieldAt, sayNotProven } from './limitsModel';

describe('limits of a match', () => {
  const own = { meeting: 'edge' as const, own: [{ aspecular: 15, limit: 1 }], source: 'the customer’s sheet' };

  it('are the family’s, the job’s own where one was set, and wider in a blend', () => {
    expect(limitAt(15, DEFAULT_TOLERANCES, null)).toBe(1.6);
    expect(limitAt(15, DEFAULT_TOLERANCES, own)).toBe(1);
    expect(limitAt(45, DEFAULT_TOLERANCES, own)).toBe(1.2);
    expect(limitAt(15, DEFAULT_TOLERANCES, { ...own, meeting: 'blend' })).toBe(1.5);
    expect(limitAt(45, DEFAULT_TOLERANCES, { ...own, meeting: 'blend' })).toBeCloseTo(1.8, 12);
    expect(limitAt(60, DEFAULT_TOLERANCES, null)).toBe(1.5);
  });

  it('reach every place that looks at the target', () => {
    const readings = [{ spot: '1', incidence: 45, aspecular: 15, l: 60, a: 0, b: 0 }];
    const set = { readings, doubt: null };
    expect(targetOf(set, { job: { family: 'candy', limits: own }, familyLimits: null })[0]!.tolerance).toBe(1);
    const shop = { family: 'candy' as const, version: 1, own: [{ aspecular: 15, limit: 2 }], source: 'the shop' };
    const at = (limits: typeof own | null, familyLimits: typeof shop | null) =>
      targetOf(set, { job: { family: 'candy', limits }, familyLimits })[0]!.tolerance;
    expect(at(null, null)).toBe(1.6);
    // The shop's limits of the family stand for every job that has none of its own.
    expect(at(null, shop)).toBe(2);
    expect(at(own, shop)).toBe(1);
  });

  it('say what the target’s own scatter can’t prove, and how many spots would', () => {
    const target = [15, 45].map((aspecular) => ({
      incidence: 45,
      aspecular,
      lab: [60, 0, 0] as const,
      tolerance: 1.4,
    }));
    expect(sayNotProven(target, [0.3, 0.4], 1)).toBeNull();
    // 1.645 x 1.2 / 1.4 = 1.41: twice the spots.
    expect(sayNotProven(target, [0.4, 1.2], 3)).toBe('This target can’t prove 1.4 at 45°: read 3 more spots.');
    const read = { angles: target, sameInstrument: true, noise: noiseOf(null, []) };
    const [one, nine] = [targetNoise({ ...read, spots: 1 }), targetNoise({ ...read, spots: 9 })];
    expect(nine[0]).toBeCloseTo(one[0]! / 3, 9);
  });

  it('refuse what is no limit, at its own field', () => {
    const wrong = () => limitsSchema.validateSync({ ...own, own: [{ aspecular: 15, limit: 0 }] });
    expect(wrong).toThrow('A limit is at least 0.2 dE00.');
  });

  it('have a field each, one that a form finds at an angle between degrees too', () => {
    const angles = [-15, 15, 22.5, 110];
    const form = Object.fromEntries(angles.map((a) => [fieldAt(a), String(a)]));
    for (const a of angles) expect(get({ limits: form }, `limits.${fieldAt(a)}`)).toBe(String(a));
    expect(new Set(Object.keys(form)).size).toBe(angles.length);
  });
});
