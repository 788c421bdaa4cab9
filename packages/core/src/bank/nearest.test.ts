import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { labOf } from '../colour/lab';
import { D65_10 } from '../colour/tristimulus';
import { STYLES } from '../finishes/styles';
import { nominalTable } from '../letdown/advise';
import { labsAt, plainLadder, toLabs } from '../letdown/fittedLadder';
import { findGround, findMix, prepareLibrary } from '../materials';
import { createRandom } from '../numeric/random';
import { FIVE_ANGLES } from '../optics/geometry';
import {
  bankIndex,
  differenceAlong,
  largestDifference,
  nearestByScan,
  nearestFinishes,
  nearestReadings,
  type AngleLab,
  type BankReading,
} from '.';

const VIEWS = [15, 25, 45, 75, 110];
const geometry = (k: number) => ({ incidence: 45, aspecular: VIEWS[k]! });

/** Readings anywhere in CIELAB, some in clusters, some with angles left out. */
function anyBank(seed: number, count: number): BankReading[] {
  const random = createRandom(seed);
  const spread = [4, 15, 60][Math.floor(random() * 3)]!;
  const centre = [20 + 60 * random(), 160 * random() - 80, 160 * random() - 80];
  return Array.from({ length: count }, (_, i) => {
    const from = [0, 1, 2].map((k) => centre[k]! + spread * (random() - 0.5));
    const fall = 0.4 + 0.6 * random();
    const angles = VIEWS.flatMap((_, k): AngleLab[] => {
      if (random() < 0.15) return [];
      const lab = from.map((v, j) => Math.max(j ? -100 : 0, v * fall ** k + (random() - 0.5)));
      return [{ ...geometry(k), lab: labOf(lab) }];
    });
    return { id: `${i}`, finishId: `f${i % 40}`, cardId: `c${i % 40}`, coats: i, angles };
  });
}

describe('nearest readings', () => {
  it('are those of a scan of all, in the same order', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e9 }),
        fc.integer({ min: 0, max: 700 }),
        fc.integer({ min: 1, max: 25 }),
        fc.boolean(),
        fc.integer({ min: 1, max: 5 }),
        (seed, size, count, among, views) => {
          const bank = anyBank(seed, size);
          const pool = among && size ? bank : anyBank(seed + 1, 5);
          const asked = (pool[Math.floor(pool.length / 2)]?.angles ?? []).slice(0, views);
          fc.pre(asked.length > 0);
          expect(nearestReadings(bankIndex(bank), asked, count)).toEqual(nearestByScan(bank, asked, count));
        },
      ),
      { numRuns: 300 },
    );
  });

  it('need half of the angles that were asked for, and give the reading itself first', () => {
    const bank = anyBank(7, 60);
    const asked = bank[9]!.angles;
    const [first] = nearestReadings(bankIndex(bank), asked, 3);
    expect(first).toMatchObject({ at: 9, max: 0, mean: 0, shared: asked.length });
    const one: BankReading = { ...bank[9]!, angles: asked.slice(0, 1) };
    expect(nearestReadings(bankIndex([one]), asked, 3)).toEqual([]);
    expect(nearestReadings(bankIndex([one]), asked.slice(0, 2), 3)).toHaveLength(1);
    expect(nearestReadings(bankIndex([]), asked, 3)).toEqual([]);
  });
});

/** Cards as the film model has them: rungs of mixes on grounds. */
const shop = prepareLibrary();
const ladderOf = (mixId: string, groundId: string) => {
  const of = {
    model: shop.model(FIVE_ANGLES),
    ground: shop.ground(findGround(groundId)),
    recipe: { coat: shop.coat(findMix(mixId), 1), style: STYLES.wet },
    viewing: D65_10,
  };
  const ladder = plainLadder(nominalTable(of), 1);
  return (coats: number): AngleLab[] =>
    toLabs(labsAt(ladder, coats)).map((lab, k) => ({
      ...{ incidence: FIVE_ANGLES[k]!.incidence, aspecular: FIVE_ANGLES[k]!.aspecular },
      lab,
    }));
};
const LADDERS = {
  lagoon: ladderOf('lagoon-pearl', 'aqua-pastel'),
  white: ladderOf('lagoon-pearl', 'white'),
  cinder: ladderOf('cinder-candy', 'silver-fine'),
};
const bank = Object.entries(LADDERS).flatMap(([name, at]) =>
  [1, 2, 3, 4, 5].map((coats): BankReading => {
    return { id: `${name}${coats}`, finishId: name, cardId: `${name}-card`, coats, angles: at(coats) };
  }),
);

describe('nearest finishes', () => {
  it('find the count between two rungs of a card, within a fifth of a coat of what the film model has', () => {
    for (const [name, at] of Object.entries(LADDERS))
      for (const coats of [1.5, 2.3, 2.8, 3.4, 4.6]) {
        const [first] = nearestFinishes(bankIndex(bank), at(coats), 5);
        expect(first!.finishId).toBe(name);
        expect(Math.abs(first!.coats! - coats)).toBeLessThan(0.2);
        expect(first!.max).toBeLessThan(1);
        expect(first!.rungs).toEqual([Math.floor(coats), Math.ceil(coats)]);
      }
  });

  it('give a rung itself where it was read so, each finish once, and a target where there is no card', () => {
    const target: BankReading = {
      ...{ id: 't', finishId: 'eye', cardId: null, coats: null },
      angles: LADDERS.lagoon(3).map((g) => ({ ...g, lab: [g.lab[0] + 1, g.lab[1], g.lab[2]] as const })),
    };
    // The finish of a card has its own target too: the count stands for it.
    const own: BankReading = { ...target, id: 'o', finishId: 'lagoon' };
    const found = nearestFinishes(bankIndex([...bank, target, own]), LADDERS.lagoon(3), 5);
    expect(found.map((f) => f.finishId).sort()).toEqual(['cinder', 'eye', 'lagoon', 'white']);
    expect(found[0]).toMatchObject({ finishId: 'lagoon', coats: 3, rungs: [3], max: 0, shared: 5 });
    expect(found[1]).toMatchObject({ finishId: 'eye', coats: null, cardId: null });
    expect(nearestFinishes(bankIndex(bank), [], 5)).toEqual([]);
  });

  it('are seen along the card: at its rungs as they were read, least where the best count is, and never a jump between', () => {
    const rungs = [1, 2, 3, 4, 5].map((coats) => ({ coats, angles: LADDERS.cinder(coats) }));
    const asked = LADDERS.cinder(2.3);
    const curve = differenceAlong(rungs, asked);
    for (const r of rungs)
      expect(curve.find((p) => p.coats === r.coats)!.off).toBeCloseTo(largestDifference(asked, r.angles)!, 9);
    const least = curve.reduce((p, q) => (q.off < p.off ? q : p));
    const [best] = nearestFinishes(bankIndex(bank), asked, 1);
    expect(Math.abs(least.coats - best!.coats!)).toBeLessThan(0.1);
    // A step of a tenth of a coat moves it by a share of what a whole coat does.
    const steps = curve.slice(1).map((p, i) => Math.abs(p.off - curve[i]!.off));
    const coat = Math.max(...rungs.slice(1).map((r, i) => largestDifference(r.angles, rungs[i]!.angles)!));
    expect(Math.max(...steps)).toBeLessThan(0.4 * coat);
    expect(differenceAlong(rungs, [{ incidence: 45, aspecular: -15, lab: [50, 0, 0] }])).toEqual([]);
  });
});
