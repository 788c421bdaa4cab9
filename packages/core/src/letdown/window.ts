import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { LADDER_LAST, LADDER_STEP, toLabs } from './fittedLadder';
import type { TargetSought } from './bestCount';

/** Counts whose colours pass, or the ones nearest to that. */
export interface CountWindow {
  readonly counts: readonly [number, number];
  /** Every angle passes inside; else these are the closest counts. */
  readonly inside: boolean;
  /** False when it is still open at the highest count looked at. */
  readonly closes: boolean;
  /** Largest difference over its tolerance at the best count, with what is noise taken out. */
  readonly ratio: number;
}

/** What is never taken out of a difference, dE00, and how much of the readings' own noise is. */
const [LEAST_LEFT, NOISE_TAKEN_OUT] = [0.6, 0.65] as const;
/** An offset between instruments counts as noise of this much on every axis, Lab units. */
const OTHER_INSTRUMENT_NOISE = 0.55;
/** How much worse than the best the closest counts may be, in tolerances, in quadrature. */
const CLOSEST_WITHIN = 0.5;

/** Noise of a difference from the target, squares of dE00 by geometry. @param more variances on every axis, by output */
export function differenceNoise(sought: TargetSought, more?: ArrayLike<number>): number[] {
  return sought.labs.map((_, g) => {
    let sum = 0;
    for (const c of [0, 1, 2]) {
      const o = 3 * g + c;
      const variance =
        sought.sd[o]! ** 2 + (sought.read.sameInstrument ? 0 : OTHER_INSTRUMENT_NOISE ** 2) + (more ? more[o]! : 0);
      sum += sought.weights[o]! ** 2 * variance;
    }
    return sum;
  });
}

/** Largest difference over its tolerance at any count, noise taken out: what the best one misses by, and how far n is from it. */
function ratioFrom(
  colours: (n: number) => ArrayLike<number>,
  best: number,
  sought: TargetSought,
  noise: readonly number[],
): (n: number) => number {
  const clamped = (n: number): Lab[] => toLabs(colours(n)).map(([l, a, b]) => [Math.max(0, l), a, b]);
  const here = clamped(best);
  const left = here.map((lab, g) =>
    Math.max(LEAST_LEFT ** 2, de2000(sought.labs[g]!, lab) ** 2 - NOISE_TAKEN_OUT * noise[g]!),
  );
  return (n) => {
    const there = clamped(n);
    return here.reduce(
      (m, lab, g) => Math.max(m, Math.sqrt(left[g]! + de2000(there[g]!, lab) ** 2) / sought.read.angles[g]!.tolerance),
      0,
    );
  };
}

/** {@link countWindow}'s measure along a ladder, in steps of 0.05 coats. */
export function windowCurve(
  colours: (n: number) => ArrayLike<number>,
  best: number,
  sought: TargetSought,
  noise: readonly number[],
): { readonly coats: number; readonly ratio: number }[] {
  const at = ratioFrom(colours, best, sought, noise);
  return Array.from({ length: Math.round(LADDER_LAST / LADDER_STEP) + 1 }, (_, i) => ({
    coats: Number((i * LADDER_STEP).toFixed(2)),
    ratio: at(i * LADDER_STEP),
  }));
}

/**
 * Stop window about a best count: counts at which every angle passes, or where none does the ones closest to that.
 * @param colours Lab by count. @param noise squares of dE00 by geometry
 */
export function countWindow(
  colours: (n: number) => ArrayLike<number>,
  best: number,
  sought: TargetSought,
  noise: readonly number[],
  last = LADDER_LAST,
): CountWindow {
  const ratioAt = ratioFrom(colours, best, sought, noise);
  const ratio = ratioAt(best);
  const inside = ratio <= 1;
  const limit = inside ? 1 : Math.hypot(ratio, CLOSEST_WITHIN);
  const end = (step: number): number => {
    let [n, r] = [best, ratio];
    for (;;) {
      const next = n + step;
      if (next < 0 || next > last + 1e-9) return Math.min(last, Math.max(0, n));
      const at = ratioAt(next);
      if (at > limit) return n + (step * (limit - r)) / (at - r);
      [n, r] = [next, at];
    }
  };
  const counts = [end(-LADDER_STEP), end(LADDER_STEP)] as const;
  return { counts, inside, closes: counts[1] < last - 1e-6, ratio };
}
