import { describe, expect, it } from '@jest/globals';
import { demoReadings, type DemoTruth } from '../demo/demoReadings';
import { averageReadings } from '../formats/readings';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/systems';
import { FIVE_ANGLES } from '../optics/geometry';
import { createRandom } from '../numeric/random';
import { prepareLibrary } from '../materials/shop';
import { STYLES } from '../finishes/styles';
import { type TargetAngle } from '../matching/target';
import { defaultTolerance } from '../finishes/tolerances';
import type { Lab } from '../colour/lab';
import { assessLadder } from './assess';
import { calibrateHand, type RungReading } from './calibrate';
import { levenbergMarquardt } from '../numeric/leastSquares';

const shop = prepareLibrary();
const model = shop.model(FIVE_ANGLES);
const read = (truth: DemoTruth, coats: number, seed: number): Lab[] =>
  averageReadings(demoReadings(shop, truth, coats, ['1'], seed)).map((a) => a.lab);
const rungsOf = (truth: DemoTruth, counts: readonly number[], seed: number): RungReading[] =>
  counts.map((coats, k) => ({ coats, labs: read(truth, coats, seed + k) }));
const setUp = (truth: DemoTruth) => ({
  ground: shop.ground(findGround(truth.groundId)),
  recipe: { coat: shop.coat(findMix(truth.mixId), truth.strength), style: STYLES[truth.style] },
});
const base = { strength: 1, style: 'wet', edgeScale: 1.2 } as const;
const KINDS = [
  { groundId: 'aqua-pastel', mixId: 'lagoon-pearl' },
  { groundId: 'silver-fine', mixId: 'cinder-candy' },
  { groundId: 'gold', mixId: 'smoke-tea-clear' },
] as const;

describe('least squares', () => {
  it('solves a line with known errors and gives its covariance (closed form)', () => {
    const x = [0, 1, 2, 3];
    const y = [1, 3.1, 4.9, 7];
    const sd = 0.1;
    const fit = levenbergMarquardt(([a, b]) => x.map((v, i) => (a! + b! * v - y[i]!) / sd), [0, 0]);
    expect(fit.status).toBe('converged');
    expect(fit.parameters[0]).toBeCloseTo(1.03, 4);
    expect(fit.parameters[1]).toBeCloseTo(1.98, 4);
    // Var(slope) = sd^2 / sum (x - mean)^2 = 0.01 / 5.
    expect(fit.covariance[1]![1]).toBeCloseTo(0.002, 6);
  });

  it('says so when a residual is not a number', () => {
    expect(levenbergMarquardt(() => [NaN], [0]).status).toBe('nonFinite');
  });
});

describe('learning the hand', () => {
  // The truth is made by the reference tier with another edge share and reading noise than the fit knows.
  it('finds film per coat within 6 % from two rungs, for random painters of three families', () => {
    const random = createRandom(11);
    const errors: number[] = [];
    for (let i = 0; i < 12; i++) {
      const hand = { film: 0.75 + 0.55 * random(), flake: 1, spread: 0.88 + 0.26 * random() };
      const truth: DemoTruth = { ...base, ...KINDS[i % 3]!, hand };
      const { ground, recipe } = setUp(truth);
      const found = calibrateHand(model, ground, recipe, rungsOf(truth, [1, 2], 100 + i));
      errors.push(Math.abs(found.hand.film / hand.film - 1));
    }
    errors.sort((a, b) => a - b);
    expect(errors.at(-2)).toBeLessThan(0.06);
    expect(errors[6]).toBeLessThan(0.03);
  });

  it('flags the rung that was misread and leaves it out', () => {
    const truth: DemoTruth = { ...base, ...KINDS[0], hand: { film: 1.15, flake: 1, spread: 1 } };
    const { ground, recipe } = setUp(truth);
    const rungs = rungsOf(truth, [1, 2, 3, 4], 40).map((r) =>
      r.coats === 3 ? { ...r, labs: read(truth, 1.2, 99) } : r,
    );
    const found = calibrateHand(model, ground, recipe, rungs);
    expect(found.misread).toEqual([3]);
    expect(Math.abs(found.hand.film / 1.15 - 1)).toBeLessThan(0.05);
  });

  it('says which rungs were read the wrong way round', () => {
    for (const kind of KINDS) {
      const truth: DemoTruth = { ...base, ...kind, hand: { film: 1.05, flake: 1, spread: 1 } };
      const { ground, recipe } = setUp(truth);
      const target: TargetAngle[] = read(truth, 2, 5).map((lab, g) => ({ ...FIVE_ANGLES[g]!, lab, tolerance: 1.5 }));
      const rungs = rungsOf(truth, [1, 2, 3], 80);
      expect(assessLadder(model, ground, recipe, target, rungs).disorder).toEqual([]);
      const swapped = rungs.map((r) => ({ ...r, labs: rungs[r.coats === 2 ? 2 : r.coats === 3 ? 1 : 0]!.labs }));
      expect(assessLadder(model, ground, recipe, target, swapped).disorder).toMatchObject([{ fewer: 2, more: 3 }]);
    }
  });

  it('uses a card read at some angles only', () => {
    const truth: DemoTruth = { ...base, ...KINDS[1], hand: { film: 0.85, flake: 1, spread: 1 } };
    const { ground, recipe } = setUp(truth);
    const rungs = rungsOf(truth, [2, 3], 60).map((r) => ({ ...r, labs: r.labs.map((l, g) => (g === 2 ? l : null)) }));
    expect(Math.abs(calibrateHand(model, ground, recipe, rungs).hand.film / 0.85 - 1)).toBeLessThan(0.1);
  });

  it('changes the coat count with the card, and says how sure it is', () => {
    const truth: DemoTruth = { ...base, ...KINDS[0], hand: { film: 1.25, flake: 1, spread: 0.95 } };
    const { ground, recipe } = setUp(truth);
    const maker: DemoTruth = { ...truth, hand: { film: 1, flake: 1, spread: 1 } };
    const target: TargetAngle[] = read(maker, 3, 5).map((lab, g) => ({
      ...FIVE_ANGLES[g]!,
      lab,
      tolerance: defaultTolerance(FIVE_ANGLES[g]!.aspecular),
    }));
    const before = assessLadder(model, ground, recipe, target, []);
    const after = assessLadder(model, ground, recipe, target, rungsOf(truth, [1, 2, 3], 70));
    expect(before.calibration).toBeNull();
    expect(before.stop.best.coats).toBeCloseTo(3, 0);
    expect(Math.abs(after.stop.best.coats - 3 / 1.25)).toBeLessThan(0.25);
    expect(after.bestSd).toBeLessThan(before.bestSd / 2);
    const inTheHand = assessLadder(model, ground, recipe, target, rungsOf(truth, [1, 2, 3], 70), { handHeld: true });
    expect(inTheHand.stop.best.coats).toBe(after.stop.best.coats);
    expect(inTheHand.bestSd).toBeGreaterThan(after.bestSd * 1.2);
    expect(inTheHand.advice!.spray).toBeLessThanOrEqual(after.advice!.spray);
    expect(after.advice!.spray).toBeLessThanOrEqual(2.5);
  });
});
