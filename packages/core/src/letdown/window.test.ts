import { describe, expect, it } from '@jest/globals';
import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { seekTarget, type TargetRead } from './bestCount';
import { noiseOf } from './readings';
import { countWindow, differenceNoise, windowCurve } from './window';

const TOLERANCE = 2;
const read = (about: Partial<TargetRead> = {}): TargetRead => ({
  angles: [{ incidence: 45, aspecular: 45, lab: [50, 0, 0], tolerance: TOLERANCE }],
  ...{ spots: 4, sameInstrument: true, noise: noiseOf([0.3], [50]) },
  ...about,
});
/** A grey that falls by five a coat: it matches at two. */
const grey =
  (a = 0) =>
  (n: number): number[] => [60 - 5 * n, a, 0];
const labAt = (n: number, a = 0): Lab => [60 - 5 * n, a, 0];

describe('the stop window about a count', () => {
  const sought = seekTarget(read());

  it('ends where the difference, with what is never taken out of it, comes to the limit', () => {
    const window = countWindow(grey(), 2, sought, [0]);
    expect(window).toMatchObject({ inside: true, closes: true, ratio: expect.closeTo(0.6 / TOLERANCE, 9) });
    for (const end of window.counts)
      expect(Math.hypot(0.6, de2000(labAt(2), labAt(end))) / TOLERANCE).toBeCloseTo(1, 1);
    expect(window.counts[0]).toBeCloseTo(1.62, 1);
    expect(window.counts[1]).toBeCloseTo(2.38, 1);
  });

  it('is open at the highest count that is looked at, and never begins below nothing', () => {
    expect(countWindow(grey(), 2, sought, [0], 2.2)).toMatchObject({
      counts: [expect.any(Number), expect.closeTo(2.2, 9)],
      closes: false,
    });
    const pale = seekTarget(
      read({ angles: [{ incidence: 45, aspecular: 45, lab: [60, 0, 0], tolerance: TOLERANCE }] }),
    );
    expect(countWindow(grey(), 0, pale, [0]).counts[0]).toBe(0);
  });

  it('has noise taken out of what the best one misses by, and is said to be outside where it misses by more', () => {
    const miss = de2000([50, 0, 0], labAt(2, 4));
    expect(countWindow(grey(4), 2, sought, [0]).ratio).toBeCloseTo(miss / TOLERANCE, 9);
    expect(countWindow(grey(4), 2, sought, [0]).inside).toBe(miss <= TOLERANCE);
    const noisy = countWindow(grey(4), 2, sought, [10]);
    expect(noisy.ratio).toBeCloseTo(Math.sqrt(miss ** 2 - 6.5) / TOLERANCE, 9);
    // The closest counts are those that are not much worse than the best: half a tolerance, in quadrature.
    const far = countWindow(grey(9), 2, sought, [0]);
    expect(far.inside).toBe(false);
    for (const end of far.counts) {
      const at = Math.hypot(far.ratio * TOLERANCE, de2000(labAt(end, 9), labAt(2, 9))) / TOLERANCE;
      expect(at).toBeCloseTo(Math.hypot(far.ratio, 0.5), 1);
    }
  });

  it('along the ladder is least at the best count, in steps of a twentieth of a coat', () => {
    const curve = windowCurve(grey(), 2, sought, [0]);
    expect(curve).toHaveLength(161);
    expect(curve[1]!.coats).toBe(0.05);
    expect(curve.at(-1)!.coats).toBe(8);
    expect(curve.reduce((a, b) => (b.ratio < a.ratio ? b : a)).coats).toBe(2);
  });

  it('noise of a difference: each axis by its weight, that of another instrument and what else is told with it', () => {
    const weights = [...sought.weights];
    const sum = (variance: number) => weights.reduce((s, w) => s + w ** 2 * variance, 0);
    const own = (0.3 / 2) ** 2;
    expect(differenceNoise(sought)[0]).toBeCloseTo(sum(own), 12);
    expect(differenceNoise(sought, [0.1, 0.1, 0.1])[0]).toBeCloseTo(sum(own + 0.1), 12);
    expect(differenceNoise(seekTarget(read({ sameInstrument: false })))[0]).toBeCloseTo(sum(own + 0.55 ** 2), 12);
  });
});
