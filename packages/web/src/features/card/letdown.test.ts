import { describe, expect, it } from '@jest/globals';
import type { VerdictEvent } from '@steady-gleam/contracts';
import { createRandom, normal } from '@steady-gleam/core/numeric';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { adviseFirst, cardByEye, countByEye, withEye } from '@steady-gleam/core/letdown';
import { nearestRung, outlyingSpots, rankChips, sayTriangle } from '../target/chipsModel';
import { bracketRungs } from './CardPlanForm';
import { cardCoats } from './CardCoats';
import { rungVerdicts, sayDisagree, sayEye, sayOutOfOrder, sayPlans } from './eyeModel';
import { testCard, testRead } from './testCard';
import { set, target, verdict } from './testSets';

describe('the card’s count', () => {
  const layer = (materialId: string, coats: number) => ({
    id: `${materialId}-${coats}`,
    kind: 'effect' as const,
    materialId,
    coats,
    style: 'wet' as const,
    strength: 1,
    filmUm: 9,
  });
  const job = {
    family: 'pearl' as const,
    mixId: 'lagoon-pearl',
    status: 'open' as const,
    pick: { groundId: 'white', coats: 3, strength: 1, style: 'wet' as const, controlCoats: 0 },
    stacks: null,
  };

  it('counts the control coats of a colour-shift, and plans them in their own layer', () => {
    const shift = { ...job, family: 'colour-shift' as const, mixId: 'moon-face-shift' };
    const pick = { ...job.pick, groundId: 'black', style: 'medium' as const, coats: 1, controlCoats: 2 };
    expect(cardCoats({ ...shift, pick }, 3)).toBeNull();
    expect(cardCoats({ ...shift, pick }, 2.1)).toMatchObject({
      ...{ planned: 3, lay: 2 },
      change: { pick: { coats: 1, controlCoats: 1 }, stacks: null },
    });
    const of = (id: string, style: 'medium' | 'control', coats: number) => ({
      ...layer('moon-face-shift', coats),
      ...{ id, style },
    });
    const ground = { ...layer('black', 2), id: 'ground', kind: 'ground' as const };
    const stacks = [{ id: 'main', name: 'it', layers: [ground, of('a', 'medium', 1), of('b', 'control', 2)] }];
    const found = cardCoats({ ...shift, pick, stacks }, 2);
    expect(found!.change.stacks![0]!.layers.map((l) => [l.style, l.coats])).toEqual([
      ['wet', 2],
      ['medium', 1],
      ['control', 1],
    ]);
  });

  it('is planned to the nearest half coat, in the pick and in the layer it stands for', () => {
    expect(cardCoats(job, 2.6)).toMatchObject({
      planned: 3,
      lay: 2.5,
      change: { pick: { coats: 2.5 }, stacks: null },
    });
    expect(cardCoats(job, 2.8)).toBeNull();
    expect(cardCoats(job, 0.1)!.lay).toBe(0.5);
    const stacks = [{ id: 'main', name: 'whole piece', layers: [layer('white', 2), layer('lagoon-pearl', 4)] }];
    const found = cardCoats({ ...job, stacks }, 2.6)!;
    expect(found.planned).toBe(4);
    expect(found.change.stacks![0]!.layers.map((l) => l.coats)).toEqual([2, 2.5]);
  });

  it('is left to the painter where it is not plain what it stands for', () => {
    const twice = [{ id: 'main', name: 'x', layers: [layer('lagoon-pearl', 2), layer('lagoon-pearl', 4)] }];
    expect(cardCoats({ ...job, stacks: twice }, 2.6)).toBeNull();
    expect(cardCoats({ ...job, status: 'finished' }, 2.6)).toBeNull();
    expect(cardCoats({ ...job, pick: null }, 2.6)).toBeNull();
  });
});

describe('chips', () => {
  it('rank by distance from the object, and say how far chips can be trusted', () => {
    const ranked = rankChips([set('far', 6), set('near', 1), set('mid', -3)], target);
    expect(ranked.map((c) => c.label)).toEqual(['near', 'mid', 'far']);
    const card = target.map((t) => ({
      incidence: 45,
      aspecular: t.aspecular,
      lab: [50.2, 20, 10] as const,
      spots: 1,
      spread: 0,
    }));
    expect(sayTriangle(ranked[0]!, card, target, 2)).toContain('trust the card');
    expect(sayTriangle(ranked[0]!, [], target, 2)).toBeNull();
    // The rung nearest to the object stands for the card, not the last one entered.
    const rung = (coats: number, shift: number) => set('', shift, { kind: 'rung', rungCoats: coats });
    expect(nearestRung([rung(2, 0.4), rung(3, -2), rung(4, -6)], target)?.rungCoats).toBe(2);
    expect(nearestRung([], target)).toBeNull();
  });

  it('name a spot that stands apart, and none where all agree', () => {
    const spots = (values: readonly number[]) =>
      set('t', 0, {
        readings: values.map((l, i) => ({ spot: String(i + 1), incidence: 45, aspecular: 45, l, a: 20, b: 10 })),
      });
    expect(outlyingSpots(spots([50, 50.2, 49.9, 56])).map((s) => s.spot)).toEqual(['4']);
    expect(outlyingSpots(spots([50, 50.2, 49.9, 50.1]))).toEqual([]);
    expect(outlyingSpots(spots([50, 58]))).toEqual([]);
    // Three are what is asked for: the odd one of them is named, the even ones are not.
    expect(outlyingSpots(spots([50, 50.2, 56]))).toMatchObject([{ spot: '3', off: expect.closeTo(5.6, 0) }]);
    expect(outlyingSpots(spots([50, 53, 56]))).toEqual([]);
    const nine = [50, 50.3, 49.8, 57, 50.1, 49.9, 50.2, 43, 50];
    expect(outlyingSpots(spots(nine)).map((s) => s.spot)).toEqual(['4', '8']);
  });

  it('name no spot of an even finish, however noisy the instrument: at most three sets in a hundred', () => {
    const random = createRandom(31);
    const noisy = () => 50 + normal(random);
    const sets = Array.from({ length: 300 }, () =>
      ['1', '2', '3'].flatMap((spot) =>
        FIVE_ANGLES.map((angle) => ({ ...angle, spot, l: noisy(), a: noisy(), b: noisy() })),
      ),
    );
    const named = sets.filter((readings) => outlyingSpots({ readings }).length);
    expect(named.length).toBeLessThanOrEqual(9);
    // The same with one of them well off: it is that one, nearly always.
    const found = sets.filter((readings) => {
      const off = outlyingSpots({ readings: readings.map((r) => (r.spot === '2' ? { ...r, l: r.l + 8 } : r)) });
      return off.length === 1 && off[0]!.spot === '2';
    });
    expect(found.length).toBeGreaterThan(285);
  });
});

describe('by eye', () => {
  const three = [verdict(2, 'lighter'), verdict(3, 'match'), verdict(4, 'darker'), verdict(3, 'match', 'lamp')];

  it('counts from verdicts alone, or pulls what the card says', () => {
    const alone = countByEye(three, testRead);
    expect(alone.best).toBeCloseTo(3, 0);
    const card = cardByEye(alone, testRead.ladders[0]!.ladder, target);
    expect(sayEye(alone, adviseFirst(card), card).answer).toMatch(
      /^By eye, (2\.9|3\.[01]) coats\. Spray 2(½|¼|¾)?, then look\.$/,
    );
    const joined = countByEye(three, testRead, { mean: 2.4, sd: 0.15 });
    // Read as well, it is no answer of the eye alone, and its two intervals stand apart.
    const fit = { data: 75, chi: 1, lambda: 1, swapped: [], doubtful: [], film: { mean: 0, sd: 0.1 }, variations: [] };
    const both = sayEye(joined, adviseFirst(card), { ...card, fit });
    expect(both.answer).toMatch(/^Read and by eye, your card says 2\.\d\. Spray/);
    expect(both.why).toMatch(/^The card says .* on the piece plan for/);
    expect(joined.best).toBeGreaterThan(2.4);
    expect(joined.best).toBeLessThan(alone.best);
    const moved = withEye(testCard(2.4, 0.25), joined);
    expect(moved.window.counts[1] - moved.window.counts[0]).toBeCloseTo(0.5, 9);
    expect(moved.window.counts[0]).toBeCloseTo(joined.best - 0.25, 9);
  });

  it('says what is the wrong way round, and drops what was taken back', () => {
    const wrong = [verdict(1, 'lighter'), verdict(2, 'darker'), verdict(3, 'lighter')];
    expect(sayOutOfOrder(wrong)).toContain('In shade 3 coats looked lighter than 2 coats');
    // From a place where coats brighten, all rungs going that way is no mistake.
    expect(sayOutOfOrder([verdict(1, 'darker'), verdict(2, 'match'), verdict(3, 'lighter')])).toBeNull();
    const against = [verdict(2, 'lighter', 'sun face'), verdict(2, 'darker', 'sun flop')];
    expect(sayDisagree(null, against)).toContain('no count mends both');
    const event = (v: VerdictEvent['verdict']): VerdictEvent => ({
      id: 'x',
      coats: 2,
      view: 'shade',
      verdict: v,
      hue: null,
      takenAt: '2026-11-20T09:00:00.000Z',
    });
    expect(rungVerdicts([event(null), event('match')])).toHaveLength(1);
  });

  it('offers the safest and the fastest plan', () => {
    const said = sayPlans(testCard(2.5));
    expect(said).toMatch(
      /^Safest: (1½|2|2¼), then look; [01] % end over\. In one go: 2½; \d\d % end inside, \d+ % over\.$/,
    );
  });

  it('brackets a count with rungs on both sides', () => {
    for (const best of [0.6, 1.1, 2.4, 2.8, 3.6, 5.2]) {
      const rungs = bracketRungs(best);
      expect(rungs[0]!).toBeLessThanOrEqual(best);
      expect(rungs.at(-1)!).toBeGreaterThan(best);
      expect([...rungs].sort((a, b) => a - b)).toEqual(rungs);
    }
  });
});
