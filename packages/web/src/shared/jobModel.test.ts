import { describe, expect, it } from '@jest/globals';
import type { Job, ReadingSet } from '@steady-gleam/contracts';
import { FAMILIES, FAMILY_IDS, startRecipe } from '@steady-gleam/core/finishes';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import fc from 'fast-check';
import {
  countCoats,
  mixOf,
  openPoints,
  pickedCount,
  pickOf,
  rungReadingsOf,
  sayCoats,
  sayCount,
  sayDone,
  sayMatching,
  sayMix,
  targetOf,
} from './jobModel';

const job = (more: Partial<Job> = {}): Job =>
  ({
    family: 'pearl',
    mixId: 'lagoon-pearl',
    matching: 'tub 5',
    pick: null,
    stacks: null,
    limits: null,
    ...more,
  }) as Job;
const setOf = (l: number, aspecular: number, more: Partial<ReadingSet> = {}): ReadingSet => ({
  ...{
    id: 'r',
    kind: 'rung',
    rungCoats: 2,
    source: 'typed',
    label: '',
    objectId: null,
    state: 'cleared',
    doubt: null,
  },
  ...{ takenAt: '2026-11-20T09:00:00.000Z', readings: [{ spot: '1', incidence: 45, aspecular, l, a: 0, b: 0 }] },
  ...more,
});
const figureOf = (text: string): number => {
  const quarter = { '¼': 0.25, '½': 0.5, '¾': 0.75 }[text.at(-1)!];
  return quarter === undefined ? Number(text) : Number(text.slice(0, -1) || 0) + quarter;
};

describe('coat counts', () => {
  it('are said as a shop says them, and mean what they are to a tenth', () => {
    expect([0, 0.25, 0.5, 1, 1.75, 2.5, 2.6].map(sayCoats)).toEqual(['0', '¼', '½', '1', '1¾', '2½', '2.6']);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2000 }), (n) => {
        expect(Math.abs(figureOf(sayCoats(n / 100)) - n / 100)).toBeLessThanOrEqual(0.0501);
      }),
    );
  });

  it('up to one are a coat, more are coats', () => {
    expect([0.5, 1, 1.5].map(countCoats)).toEqual(['½ coat', '1 coat', '1½ coats']);
  });

  it('tell the control coats apart where they are counted', () => {
    const counted = FAMILY_IDS.filter((f) => FAMILIES[f].controlAfter !== null);
    for (const f of FAMILY_IDS) {
      const text = sayCount(f, 3);
      expect(text.startsWith('3 coats')).toBe(true);
      if (!counted.includes(f)) expect(text).toBe('3 coats');
    }
  });
});

describe('what is picked', () => {
  it('is the family’s start until something is', () => {
    for (const family of FAMILY_IDS) expect(pickOf(job({ family }))).toEqual(startRecipe(family));
    const pick = { ...startRecipe('pearl'), coats: 2.5, strength: 1.2 };
    expect(pickOf(job({ pick }))).toBe(pick);
    expect(pickedCount(job({ pick }))).toBe(2.5);
    expect(mixOf(job({ pick }))).toEqual({
      mixId: 'lagoon-pearl',
      strength: 1.2,
      style: pick.style,
      controlCoats: pick.controlCoats,
    });
  });

  it('is said with what it matches, and by what is laid', () => {
    expect(sayMatching(job())).toBe('matching tub 5');
    expect(sayMatching(job({ matching: '' }))).toBe('a look of its own');
    expect(sayMix(job(), REFERENCE_LIBRARY)).toBe('Lagoon pearl');
    expect(sayMix(job({ mixId: 'gone' }), REFERENCE_LIBRARY)).toBe('a material that is not here any more');
    const layer = (kind: 'ground' | 'effect', materialId: string) => ({
      ...{ id: kind, kind, materialId, coats: 2, style: 'wet' as const, strength: 1, filmUm: 10 },
    });
    const laid = (...layers: ReturnType<typeof layer>[]) => job({ stacks: [{ id: 'main', name: '', layers }] });
    expect(sayMix(laid(layer('ground', 'white')), REFERENCE_LIBRARY)).toBe('Bright white');
    expect(sayMix(laid(layer('ground', 'white'), layer('effect', 'lagoon-pearl')), REFERENCE_LIBRARY)).toBe(
      'Lagoon pearl',
    );
  });
});

describe('the target', () => {
  const limited = { job: job(), familyLimits: null };

  it('is the average of its spots with the family’s limits; nothing read is no target', () => {
    expect(targetOf(null, limited)).toEqual([]);
    const readings = [40, 44].map((l, i) => ({ spot: String(i), incidence: 45, aspecular: 45, l, a: 2, b: 4 }));
    const [at45] = targetOf({ readings, doubt: null }, limited);
    expect(at45).toMatchObject({ aspecular: 45, lab: [42, 2, 4], tolerance: FAMILIES.pearl.limits[45] });
  });

  it('of a photo is met within a wider limit: doubts add as squares', () => {
    const { readings } = setOf(50, 45);
    const sure = targetOf({ readings, doubt: null }, limited)[0]!.tolerance;
    expect(targetOf({ readings, doubt: 4 }, limited)[0]!.tolerance).toBeCloseTo(Math.hypot(sure, 4), 12);
  });

  it('has the rungs’ readings in its own order, and none where an angle was not read', () => {
    const target = targetOf(
      {
        doubt: null,
        readings: [15, 45].map((aspecular) => ({ spot: '1', incidence: 45, aspecular, l: 50, a: 0, b: 0 })),
      },
      limited,
    );
    expect(rungReadingsOf([setOf(30, 45), setOf(31, 15, { rungCoats: null })], target)).toEqual([
      { coats: 2, labs: [null, [30, 0, 0]] },
      { coats: 0, labs: [[31, 0, 0], null] },
    ]);
  });
});

describe('how a job ends', () => {
  const done = { at: '2026-11-20T09:00:00.000Z', sprays: 9, planned: 10, film: [] };
  const laid = (name: string, coats: number) => ({ objectId: name, name, coats });

  it('is said by its counts, each object by name where there are several', () => {
    const when = () => '20 Nov';
    const one = { ...done, counts: [laid('Shell', 2.5)] };
    expect(sayDone(one, when)).toBe('Finished 20 Nov: 2½ coats of the effect, 9 of 10 sprays on.');
    const two = {
      ...done,
      counts: [laid('Shell', 3), laid('Lid', 1), laid('Edge', 0)],
    };
    expect(sayDone(two, when)).toBe(
      'Finished 20 Nov: 3 coats on Shell, 1 coat on Lid of the effect, 9 of 10 sprays on.',
    );
    expect(sayDone({ ...done, counts: [] }, when)).toContain('no effect coat');
  });

  it('names what is still open, and nothing where all is done', () => {
    const standing = { mixId: 'lagoon-pearl', pick: startRecipe('pearl'), stacks: null, rungsRead: 1, batches: 1 };
    const run = { done: 10, total: 10, readyAt: null, closesAt: null, next: null, isCoat: true, unseen: null };
    expect(openPoints({ ...standing, run })).toEqual([]);
    expect(openPoints({ ...standing, pick: null, run: null })).toEqual(['no ground and count are picked']);
    expect(openPoints({ ...standing, rungsRead: 0, batches: 0, run: null })).toHaveLength(3);
    expect(openPoints({ ...standing, run: { ...run, done: 4 } })).toEqual(['4 of 10 sprays are on']);
  });
});
