import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { DYES } from '../materials/dyes';
import { findGround } from '../materials/grounds';
import { findMix, MIXES } from '../materials/mixes';
import { FIVE_ANGLES } from '../optics/geometry';
import { prepareLibrary } from '../materials/shop';
import { ladderLabs } from './ladder';
import { targetUnder, lookUnder } from './light';
import { assembleMap, computeMapRows, mapCounts, packRows, unpackRows } from './matchMap';
import { nudge, weakerBy } from './nudge';
import { remarkToLabs } from './remark';
import { nudgePours, tonerParts } from './nudgePours';
import { paretoRecipes, rateExactly, createSearch, type SearchInput } from './search';
import { STYLES } from '../finishes/styles';
import { scoreMatch, type TargetAngle } from './target';
import { defaultTolerance } from '../finishes/tolerances';

const shop = prepareLibrary();
const model = shop.model(FIVE_ANGLES);
const toTarget = (labs: readonly Lab[]): TargetAngle[] =>
  labs.map((lab, g) => ({ ...FIVE_ANGLES[g]!, lab, tolerance: defaultTolerance(FIVE_ANGLES[g]!.aspecular) }));
const sprayed = (mixId: string, groundId: string, coats: number, strength = 1, controlCoats = 0): Lab[] =>
  ladderLabs(
    model,
    shop.ground(findGround(groundId)),
    { coat: shop.coat(findMix(mixId), strength), style: STYLES.wet, controlCoats },
    [coats],
  )[0]!;
const inputFor = (mixId: string, target: readonly TargetAngle[]): SearchInput => ({
  model,
  grounds: shop.grounds(),
  coat: shop.coat(findMix(mixId), 1),
  style: STYLES.wet,
  target,
});

describe('recipe search', () => {
  it('looks at 5,000 recipes and more, and between knots stays within a quarter unit of the model (0.4 in the first half coat)', () => {
    for (const [system, ground] of [
      ['lagoon-pearl', 'white'],
      ['cinder-candy', 'silver-fine'],
    ] as const) {
      const input = inputFor(system, toTarget(sprayed(system, ground, 2)));
      const all = createSearch(input)(shop.ground(findGround(ground)));
      expect(all.length * shop.grounds().length).toBeGreaterThanOrEqual(5000);
      for (const r of all.filter((_, i) => i % 17 === 0)) {
        const exact = rateExactly(input, shop.ground(findGround(ground)), r);
        const limit = r.coats * r.strength < 0.6 ? 0.4 : 0.25;
        r.labs.forEach((lab, g) => expect(de2000(lab, exact.labs[g]!)).toBeLessThan(limit));
      }
    }
  });

  it('finds the recipe a target was made with, and keeps only recipes no other beats', () => {
    for (const [system, ground, coats, strength, control] of [
      ['lagoon-pearl', 'aqua-pastel', 3, 1, 0],
      ['cinder-candy', 'gold', 2.5, 1.25, 1],
      ['moonmilk-pearl', 'cream-pastel', 2, 1.5, 0],
    ] as const) {
      const target = toTarget(sprayed(system, ground, coats, strength, control));
      const input = inputFor(system, target);
      const near = shop.grounds().filter((g) => ['grey-84', ground, 'silver-fine'].includes(g.id));
      const all = near.flatMap(createSearch(input));
      const front = paretoRecipes(all);
      expect(front[0]!.rmsDe).toBeLessThan(0.1);
      expect(front[0]!.groundId).toBe(ground);
      for (const p of front) {
        expect(p.toleranceRatio).toBeLessThanOrEqual(1);
        expect(
          all.some((q) => q.toleranceRatio <= 1 && q.rmsDe < p.rmsDe && q.risk < p.risk && q.coats < p.coats),
        ).toBe(false);
      }
    }
  });

  it('gives the closest and nothing else when no recipe passes', () => {
    const target = toTarget(sprayed('cinder-candy', 'ticket-red', 6, 2));
    const front = paretoRecipes(createSearch(inputFor('moonmilk-pearl', target))(shop.ground(findGround('white'))));
    expect(front).toHaveLength(1);
    expect(front[0]!.window).toBeNull();
  });
});

describe('tint nudge', () => {
  const system = findMix('lagoon-pearl');
  const ground = shop.ground(findGround('white'));
  const recipe = { coat: shop.coat(system, 1), style: STYLES.wet };
  const labsWith = (extra: Float64Array, n = 3): Lab[] =>
    ladderLabs(model, ground, { ...recipe, coat: { ...recipe.coat, a: recipe.coat.a.map((v, i) => v + extra[i]!) } }, [
      n,
    ])[0]!;

  it('finds the dye a target has more of than the card, and how much', () => {
    fc.assert(
      fc.property(fc.constantFrom(...DYES), fc.double({ min: 0.02, max: 0.15, noNaN: true }), (dye, depth) => {
        const target = toTarget(labsWith(dye.depth.map((v) => v * depth)));
        const found = nudge({
          model,
          ground,
          recipe,
          coats: 3,
          target,
          card: labsWith(new Float64Array(31)),
          toners: DYES,
        });
        if (scoreMatch(target, labsWith(new Float64Array(31))).rmsDe < 0.5) return;
        // Another dye may do as well; what counts is that the predicted card passes and half is half.
        expect(found!.full.rmsDe).toBeLessThan(0.3);
        expect(found!.full.doses.length).toBeLessThanOrEqual(2);
        found!.full.doses.forEach((d, i) => expect(found!.half.doses[i]!.depth).toBeCloseTo(d.depth / 2, 9));
        expect(found!.half.rmsDe).toBeLessThan(found!.before.rmsDe);
      }),
      { numRuns: 40 },
    );
  });

  it('answers a remark with the opposite colour, and has no dye against a card that is too dark', () => {
    const target = toTarget(labsWith(new Float64Array(31)));
    const tooRed = remarkToLabs(target, [{ view: 'face', off: 'redder', amount: 'clearly' }]);
    expect(tooRed[0]![1] - target[0]!.lab[1]).toBeCloseTo(2.5, 9);
    expect(tooRed[4]).toEqual(target[4]!.lab);
    const redAllOver = remarkToLabs(target, [{ view: 'all over', off: 'redder', amount: 'clearly' }]);
    const answer = nudge({ model, ground, recipe, coats: 3, target, card: redAllOver, toners: DYES })!;
    // What takes red away absorbs long wavelengths: a green or a blue.
    const main = DYES.find((d) => d.id === answer.full.doses[0]!.dyeId)!;
    expect(main.depth[24]! + main.depth[26]!).toBeGreaterThan(main.depth[10]!);
    const tooDark = remarkToLabs(target, [{ view: 'all over', off: 'darker', amount: 'far' }]);
    expect(nudge({ model, ground, recipe, coats: 3, target, card: tooDark, toners: DYES, weaker: null })).toBeNull();
  });

  it('goes the way the word says: weaker gets more colour, stronger is let down, at any mix and ground', () => {
    for (const [groundId, mixId, coats] of [
      ['aqua-pastel', 'lagoon-pearl', 3],
      ['silver-fine', 'cinder-candy', 3],
      ['gold', 'smoke-tea-clear', 2],
      ['white', 'moonmilk-pearl', 2],
    ] as const) {
      const over = shop.ground(findGround(groundId));
      const laid = { coat: shop.coat(findMix(mixId), 1), style: STYLES.wet };
      const target = toTarget(ladderLabs(model, over, laid, [coats])[0]!);
      for (const [off, sign] of [
        ['weaker', 1],
        ['stronger', -1],
      ] as const)
        for (const amount of ['a touch', 'clearly', 'far'] as const) {
          const remarks = [{ view: 'all over', off, amount } as const];
          const found = nudge({
            model,
            ground: over,
            recipe: laid,
            coats,
            target,
            card: remarkToLabs(target, remarks),
            toners: DYES,
            weaker: weakerBy(remarks),
          })!;
          expect(found.full.doses).toEqual([]);
          // The card that was described is the mix at another strength, so its own colour brings it home, half of it half way.
          expect(found.full.rmsDe).toBeLessThan(1e-9);
          expect(found.half.rmsDe).toBeLessThan(found.before.rmsDe);
          expect(found.before.rmsDe).toBeGreaterThan(0.2);
          expect(Math.sign(found.full.strength - 1)).toBe(sign);
          expect(Math.abs(found.half.strength - 1)).toBeCloseTo(Math.abs(found.full.strength - 1) / 2, 9);
          const pours = nudgePours(findMix(mixId), found.half, DYES);
          expect(pours.every((p) => p.ratio > 0)).toBe(true);
          const carrier = findMix(mixId).parts[0]!.name;
          expect(pours.some((p) => p.name === carrier)).toBe(sign < 0);
        }
    }
    expect(weakerBy([])).toBe(0);
    expect(
      weakerBy([
        { view: 'face', off: 'weaker', amount: 'far' },
        { view: 'face', off: 'redder', amount: 'far' },
      ]),
    ).toBe(0);
  });

  it('counts a dye of the mix in the mix’s own parts', () => {
    // Lagoon pearl: 6 binder to half a part of lagoon blue for a depth of 0.3; as much again is 8.33 parts in a hundred.
    expect(tonerParts(system, { dyeId: 'lagoon-blue', depth: 0.3 })).toBeCloseTo(8.333, 3);
    for (const s of MIXES) expect(tonerParts(s, { dyeId: 'peat-brown', depth: 0.1 })).toBeGreaterThan(0);
  });
});

describe('map rows', () => {
  const target = toTarget(sprayed('lagoon-pearl', 'aqua-pastel', 3));
  const recipe = { coat: shop.coat(findMix('lagoon-pearl'), 1), style: STYLES.wet };
  const counts = mapCounts(4);
  const rows = computeMapRows(model, shop.grounds(), recipe, counts, target);

  it('packs and unpacks without loss but for the curve', () => {
    const back = unpackRows(
      packRows(rows),
      rows.map((r) => r.groundId),
      counts,
      5,
    );
    expect(back).toEqual(rows.map((r) => ({ ...r, stop: { ...r.stop, curve: [] } })));
  });

  it('marks the cheapest passing cell, whatever the costs are, and splits into halves that give the same rows', () => {
    const cost = ({ groundId, coats }: { groundId: string; coats: number }) =>
      coats * 10 + (groundId === 'aqua-pastel' ? 100 : 0);
    const map = assembleMap(counts, rows, cost);
    const passing = rows.flatMap((r) =>
      r.cells.filter((c) => c.score.toleranceRatio <= 1).map((c) => cost({ groundId: r.groundId, coats: c.coats })),
    );
    expect(cost(map.cheapest!)).toBe(Math.min(...passing));
    const grounds = shop.grounds();
    const halves = [grounds.slice(0, 8), grounds.slice(8)].flatMap((g) =>
      computeMapRows(model, g, recipe, counts, target),
    );
    expect(halves.map((r) => r.cells[3]!.score.rmsDe)).toEqual(rows.map((r) => r.cells[3]!.score.rmsDe));
  });

  it('agrees with itself under a second light: the same spectrum is no metamer, and D65 changes nothing', () => {
    const same = targetUnder(target, { illuminant: 'D65', observer: '10' });
    same.forEach((t, g) => expect(de2000(t.lab, target[g]!.lab)).toBeLessThan(0.02));
    const pile = model.pile([{ ...recipe.coat, factor: 3 }]);
    const factors = model.over(shop.ground(findGround('aqua-pastel')), pile);
    const look = lookUnder(target, factors, 'A');
    expect(look.differences).toHaveLength(5);
    for (const m of look.metamerism) expect(m).toBeGreaterThanOrEqual(0);
    const away = lookUnder(target, factors, 'D65');
    away.metamerism.forEach((m) => expect(m).toBeLessThan(1e-9));
  });
});
