import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { normalCdf } from '../numeric/normal';
import { noiseAt, noiseOf, noiseOfSpots } from './readings';
import {
  amountChances,
  AMOUNT_COAT,
  AMOUNT_GUN,
  firstChances,
  firstStop,
  FIRST_STOP_OVER,
  nextAmount,
  objectFactor,
  LOOK_OVER,
} from './rule';
import type { Lab } from '../colour/lab';
import type { DemoTruth } from '../demo';
import { FIVE_ANGLES } from '../optics';
import { base, KINDS, cardOf, rungsOf, ladderOf, NOMINAL } from '../testdata/ladders';
import { adviseFirst, firstChoices, sayLooks, adviseAfter, nominalTable } from './advise';
import { toLabs, labsAt, plainLadder } from './fittedLadder';
import { handFromCards, knownHandOf } from './hands';

describe('chances of a first stop', () => {
  it('are those of a lognormal film about its count: edges 0.04, two sessions of 0.06, edges of 0.03, 0.096 a coat', () => {
    const s = Math.hypot(0.06, 0.06, 0.03, 0.096 / Math.sqrt(2));
    const got = firstChances(2, [1.8, 2.4], true, [0]);
    expect(got.over).toBeCloseTo(normalCdf(-(Math.log(2.4 / 2) + 0.04) / s), 12);
    expect(got.under).toBeCloseTo(1 - normalCdf(-(Math.log(1.8 / 2) + 0.04) / s), 12);
    expect(got.under + got.in + got.over).toBeCloseTo(1, 12);
  });

  it('are the mean over what the card leaves open; a window that does not close is never gone over', () => {
    const apart = [-0.3, 0.3].map((d) => firstChances(2, [1.8 + d, 2.4 + d], true, [0]).over);
    expect(firstChances(2, [1.8, 2.4], true, [-0.3, 0.3]).over).toBeCloseTo((apart[0]! + apart[1]!) / 2, 12);
    expect(firstChances(2, [1.8, 2.4], false, [0]).over).toBe(0);
    // A window whose end is below nothing is over for certain.
    expect(firstChances(2, [0.1, 0.2], true, [-0.5]).over).toBe(1);
  });

  it('nothing laid is under, unless nothing is wanted', () => {
    expect(firstChances(0, [1, 2], true, [0])).toMatchObject({ under: 1, over: expect.closeTo(0, 6) });
    expect(firstChances(0, [0, 2], true, [0]).under).toBe(0);
  });

  it('the stop is the largest quarter coat that goes over in one of fifty at most, and not beyond the best count', () => {
    const [window, deviations] = [[2.4, 3.2] as const, [-0.1, 0, 0.1]];
    const stop = firstStop(2.8, window, true, deviations);
    expect(stop * 4).toBe(Math.round(stop * 4));
    expect(firstChances(stop, window, true, deviations).over).toBeLessThanOrEqual(FIRST_STOP_OVER);
    expect(firstChances(stop + 0.25, window, true, deviations).over).toBeGreaterThan(FIRST_STOP_OVER);
    // Where it can't be gone over, the best count to the quarter below is gone to, that count itself among them.
    expect(firstStop(2.5, window, false, [0])).toBe(2.5);
    expect(firstStop(2.74, window, false, [0])).toBe(2.5);
    // Where every quarter goes over too often, a look after a mist at the most.
    expect(firstStop(1, [0, 0.01], true, [0])).toBe(0.5);
    expect(firstStop(0.4, [0, 0.01], true, [0])).toBe(0.25);
  });
});

describe('an amount after a look', () => {
  const wanted = { film: 0.8, sd: 0.1, rate: 1, window: [-0.3, 0.3] as const };

  it('has the chances of a normal film: what is believed, each coat’s own scatter, and the gun’s', () => {
    const half = amountChances(0.5, wanted);
    const s = Math.hypot(0.1, AMOUNT_COAT * 0.5, AMOUNT_GUN * 0.5);
    expect(half.over).toBeCloseTo(normalCdf(-(0.8 + 0.3 - 0.5) / s), 12);
    expect(half.under).toBeCloseTo(normalCdf((0.8 - 0.3 - 0.5) / s), 12);
    // Two coats scatter by the root of two.
    const two = amountChances(2, { ...wanted, film: 2 });
    expect(two.over).toBeCloseTo(normalCdf(-0.3 / Math.hypot(0.1, AMOUNT_COAT * Math.sqrt(2), AMOUNT_GUN * 2)), 12);
  });

  it('is in tenths, near what is wanted, none where it is there, and scaled by what a coat of today lays', () => {
    expect(nextAmount(wanted, 1)).toBeGreaterThan(0.6);
    expect(nextAmount(wanted, 1)).toBeLessThanOrEqual(0.8);
    expect(nextAmount({ ...wanted, film: 0 }, 1)).toBe(0);
    expect(nextAmount({ ...wanted, film: -1 }, 1)).toBe(0);
    expect(nextAmount({ ...wanted, rate: 2 }, 1)).toBeLessThanOrEqual(0.4);
    expect(nextAmount({ ...wanted, film: 9, window: [-8, 8] }, 1)).toBeLessThanOrEqual(2.5);
  });

  it('never goes over more often than is accepted, and dares more where no look follows', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 0.03, max: 0.4, noNaN: true }),
        fc.double({ min: 0.1, max: 0.6, noNaN: true }),
        (film, sd, half) => {
          const here = { film, sd, rate: 1, window: [-half, half] as const };
          const [withLook, last] = [nextAmount(here, 1), nextAmount(here, 0)];
          if (withLook > 0) expect(amountChances(withLook, here).over).toBeLessThanOrEqual(0.03 + 1e-12);
          if (last > 0) expect(amountChances(last, here).over).toBeLessThanOrEqual(0.06 + 1e-12);
          expect(last).toBeGreaterThanOrEqual(withLook);
        },
      ),
    );
  });

  it('an object needs more of the count than its card by its edges, and by what hands differ', () => {
    expect(objectFactor(2, [0, 0, 0, 0])).toBeCloseTo(Math.exp(0.04), 12);
    expect(objectFactor(2, [1, 0, 0, 0])).toBeCloseTo(Math.exp(0.04 + 1.2 * 0.03), 12);
    expect(objectFactor(2, [0, 1, 1, 0])).toBeCloseTo(Math.exp(0.04 + 1.2 * 0.12), 12);
    expect(objectFactor(4, [0, 0, 0, 1])).toBeCloseTo(Math.exp(0.04 + (1.2 * 0.1) / 2), 12);
  });
});

describe('the scatter of readings', () => {
  const labs = (...l: number[]): Lab[] => l.map((v) => [v, 0, 0]);

  it('is the usual one by lightness while nothing is known', () => {
    expect(noiseAt(noiseOf(null, []), 0, 50)).toBeCloseTo(0.25 + 0.35, 12);
    expect(noiseAt(noiseOf(null, []), 0, -3)).toBeCloseTo(0.25, 12);
  });

  it('by geometry is taken as it is; one figure is drawn half way to the usual and spread by lightness', () => {
    expect(noiseAt(noiseOf([0.2, 0.9], [50, 50]), 1, 50)).toBe(0.9);
    const noise = noiseOf(1.2, [50, 50]);
    expect(noiseAt(noise, 0, 50)).toBeCloseTo((1.2 + noise.usual) / 2, 12);
    expect(noiseAt(noise, 0, 80)).toBeGreaterThan(noiseAt(noise, 0, 20));
  });

  it('of repeated spots is pooled over all axes: two spots apart by d scatter by d/root 2 on that axis', () => {
    expect(noiseOfSpots([[labs(50), labs(51)]])).toBeCloseTo(Math.sqrt(0.5 / 3), 12);
    // A set of one tells nothing, and an angle that was not read leaves nothing behind.
    expect(noiseOfSpots([[labs(50)]])).toBeNull();
    expect(noiseOfSpots([[labs(50), labs(51)], [labs(10)]])).toBeCloseTo(Math.sqrt(0.5 / 3), 12);
    expect(noiseOfSpots([[[null], labs(51)]])).toBeNull();
  });
});
describe('earlier cards', () => {
  it('pull the hand to what they said, and never make it surer than hands are', () => {
    const card = (film: number, sd: number) => ({ mean: { film: Math.log(film) }, sd: { film: sd } });
    const mean = (cards: Parameters<typeof handFromCards>[0]) => Math.exp(handFromCards(cards).film!.mean - 0.04);
    const three = [card(1.2, 0.02), card(1.22, 0.02), card(1.18, 0.02)];
    expect(handFromCards([])).toEqual({ variations: {} });
    expect(mean([card(1.2, 0.02)])).toBeGreaterThan(1.15);
    expect(mean([card(1.2, 0.02)])).toBeLessThan(1.2);
    expect(mean(three)).toBeGreaterThan(mean([card(1.2, 0.02)]));
    expect(handFromCards(three).film!.sd).toBeGreaterThan(0.08);
    // What belongs to the pot is not carried on.
    expect(handFromCards([{ mean: { hueNm: 1, groundL: 1 }, sd: { hueNm: 0.1, groundL: 0.1 } }])).toEqual({
      variations: {},
    });
  });

  it('help a card with one rung', () => {
    const off = { without: 0, with: 0 };
    for (let i = 0; i < 4; i++) {
      const truth: DemoTruth = { ...base, ...KINDS[0], hand: { film: 1.3, flake: 1, spread: 0.9 } };
      const full = cardOf(truth, rungsOf(truth, [1, 2, 3], 20 + 5 * i));
      const one = rungsOf(truth, [1], 400 + i).map((r) => ({ ...r, labs: r.labs.map((l, g) => (g === 3 ? l : null)) }));
      const believed = handFromCards([knownHandOf(full.fit!)]);
      off.without += Math.abs(cardOf(truth, one).fit!.film.mean - Math.log(1.3));
      off.with += Math.abs(cardOf(truth, one, undefined, { believed }).fit!.film.mean - Math.log(1.3));
    }
    expect(off.with).toBeLessThan(off.without);
  });
});
describe('the rule', () => {
  const deviations = Array.from({ length: 41 }, (_, i) => (i - 20) / 100);

  it('adds chances to one, and never takes a first stop that goes over in more than one of fifty', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 5, noNaN: true }),
        fc.double({ min: 0.02, max: 1.5, noNaN: true }),
        fc.double({ min: 0.25, max: 6, noNaN: true }),
        (lo, width, k) => {
          const window = [lo, lo + width] as const;
          const c = firstChances(k, window, true, deviations);
          expect(c.under + c.in + c.over).toBeCloseTo(1, 9);
          expect(Math.min(c.under, c.in, c.over)).toBeGreaterThanOrEqual(0);
          expect(firstChances(k + 0.25, window, true, deviations).over).toBeGreaterThanOrEqual(c.over - 1e-12);
        },
      ),
    );
    const truth: DemoTruth = { ...base, ...KINDS[0], hand: { film: 1.1, flake: 1, spread: 1 } };
    const card = cardOf(truth, rungsOf(truth, [1, 2, 3], 41));
    const first = adviseFirst(card);
    expect(first.spray).toBeLessThanOrEqual(card.best + 1e-9);
    expect(first.chances.over).toBeLessThanOrEqual(FIRST_STOP_OVER);
    expect(first.left).toBeCloseTo(card.best - first.spray, 9);
    expect(firstChoices(card).map((c) => c.coats)).toContain(first.spray);
  });

  it('lays tenths that are worth it, less when less is wanted, none when there is nothing to gain', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 3, noNaN: true }),
        fc.double({ min: 0.05, max: 0.8, noNaN: true }),
        fc.double({ min: 0.05, max: 0.8, noNaN: true }),
        fc.double({ min: 0.75, max: 1.3, noNaN: true }),
        fc.constantFrom(0, 1, 2),
        (film, sd, half, rate, left) => {
          const wanted = { film, sd, rate, window: [-half, half] as const };
          const q = nextAmount(wanted, left);
          expect(q * 10).toBeCloseTo(Math.round(q * 10), 6);
          const c = amountChances(q, wanted);
          expect(c.under + c.in + c.over).toBeCloseTo(1, 6);
          if (q > 0) expect(c.over).toBeLessThanOrEqual(left > 0 ? LOOK_OVER.more : LOOK_OVER.last);
          // On the last look as much risk may be taken as before, and more.
          if (left > 0) expect(nextAmount(wanted, 0)).toBeGreaterThanOrEqual(q - 1e-9);
          // Too much is on: nothing more, ever.
          if (film < -half) expect(q).toBe(0);
        },
      ),
    );
    expect(nextAmount({ film: 0, sd: 0.1, rate: 1, window: [-0.4, 0.4] }, 1)).toBe(0);
    expect(nextAmount({ film: 1, sd: 0.1, rate: 1, window: [-0.4, 0.4] }, 1)).toBeGreaterThan(0.6);
  });
});
describe('a look', () => {
  const truth: DemoTruth = { ...base, ...KINDS[1], hand: { film: 1.1, flake: 1, spread: 1 } };
  const card = cardOf(truth, rungsOf(truth, [1, 2, 3, 4], 51));
  const ladder = (n: number) => toLabs(labsAt(card.ladder, n));
  const look = (n: number, more: object = {}) => ({ sprayed: 2, labs: ladder(n), wet: true, spots: 3, ...more });

  it('is taken as it is: it meets the ladder where it was made, and walks on to the target', () => {
    for (const n of [1, 1.7, 2.2]) {
      const [says] = sayLooks(card, [look(n)]);
      expect(says!.looksLike).toBeCloseTo(n, 1);
      expect(Math.abs(says!.film - (card.best - n))).toBeLessThan(0.12);
    }
    expect(sayLooks(card, [look(2, { labs: FIVE_ANGLES.map(() => null) })])).toEqual([]);
  });

  it('says more dry and of nine spots than wet and of three', () => {
    const at = (wet: boolean, spots: number) => sayLooks(card, [look(1.8, { wet, spots })])[0]!.lookVariance;
    expect(at(false, 9)).toBeLessThan(at(true, 3));
    expect(at(true, 9)).toBeLessThan(at(true, 3));
  });

  it('leads to less the more lies there, and to nothing where it is there or over', () => {
    const spray = (n: number) => adviseAfter(card, sayLooks(card, [look(n)]), 2, 1).spray;
    const amounts = [0.8, 1.2, 1.6, 2, card.best, card.best + 0.5].map(spray);
    for (let i = 1; i < amounts.length; i++) expect(amounts[i]!).toBeLessThanOrEqual(amounts[i - 1]! + 1e-9);
    expect(amounts[0]).toBeGreaterThan(0.5);
    expect(spray(card.best + 0.5)).toBe(0);
    const two = adviseAfter(card, sayLooks(card, [look(1.8), look(2.2, { sprayed: 2.4 })]), 2.4, 0);
    expect(two.best).toBeGreaterThan(2.4);
    expect(two.object90[1] - two.object90[0]).toBeLessThan(1.6);
  });
});
describe('a nominal ladder', () => {
  it('of a stronger hand is the same ladder walked faster', () => {
    const of = ladderOf({ ...base, ...KINDS[2], hand: NOMINAL });
    const table = nominalTable(of);
    const [one, fast] = [plainLadder(table, 1), plainLadder(table, 1.25)];
    [...labsAt(one, 2.5)].forEach((v, o) => expect(labsAt(fast, 2)[o]).toBeCloseTo(v, 6));
  });
});
