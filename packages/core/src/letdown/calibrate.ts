import type { Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import type { FastModel } from '../optics/stack';
import { ladderLabs, type LadderRecipe, type PreparedGround } from '../matching/ladder';
import type { Hand } from '../matching/styles';
import { levenbergMarquardt, type LeastSquaresResult } from './levenbergMarquardt';

/** Readings of one rung, in the order of the model's geometries; null where an angle was not read. */
export interface RungReading {
  readonly coats: number;
  readonly labs: readonly (Lab | null)[];
}

export interface HandPrior {
  readonly film: number;
  readonly flake: number;
  readonly spread: number;
}

/** Standard deviations of the logarithms before any card is read; ours. */
export const DEFAULT_PRIOR_SD: HandPrior = { film: 0.35, flake: 0.35, spread: 0.25 };

/** A rung whose readings stay further than this many standard deviations from the fit is flagged. */
export const MISREAD_LIMIT = 4;

export interface Calibration {
  readonly hand: Hand;
  /** Standard deviations of the hand's members, as fractions; 0 for a member that was not free. */
  readonly sd: HandPrior;
  readonly free: readonly (keyof Hand)[];
  /** Coat counts of rungs that do not fit the others; left out of the fit. */
  readonly misread: readonly number[];
  /** Rms of the kept residuals in units of the reading noise; about 1 for a good card. */
  readonly fit: number;
  readonly status: LeastSquaresResult['status'];
  readonly covariance: readonly (readonly number[])[];
}

/** Repeatability of a reading in Lab units: 0.3 + 0.01 L* (ours). */
export function readingNoise(lab: Lab): number {
  return 0.3 + 0.01 * Math.max(0, lab[0]);
}

function handOf(free: readonly (keyof Hand)[], logs: readonly number[]): Hand {
  const hand = { film: 1, flake: 1, spread: 1 };
  free.forEach((name, p) => (hand[name] = Math.exp(Math.min(2, Math.max(-2, logs[p]!)))));
  return hand;
}

/**
 * Fits the painter's hand to a let-down card: maximum a posteriori by Levenberg-Marquardt over the logarithms of film per
 * coat, flake against dye (only where a coat holds both) and flake spread (only where it holds flakes).
 * A rung that stays beyond four standard deviations is flagged and left out, one at a time, while two others remain.
 */
export function calibrateHand(
  model: FastModel,
  ground: PreparedGround,
  recipe: LadderRecipe,
  readings: readonly RungReading[],
  viewing: Viewing = D65_10,
  priorSd: HandPrior = DEFAULT_PRIOR_SD,
): Calibration {
  const hasFlakes = recipe.coat.tau > 0;
  const hasDye = recipe.coat.a.some((v) => v > 0.02);
  const free: (keyof Hand)[] = [
    'film',
    ...(hasFlakes && hasDye ? (['flake'] as const) : []),
    ...(hasFlakes ? (['spread'] as const) : []),
  ];
  const residualsOf =
    (rungs: readonly RungReading[]) =>
    (logs: readonly number[]): number[] => {
      const labs = ladderLabs(
        model,
        ground,
        { ...recipe, hand: handOf(free, logs) },
        rungs.map((r) => r.coats),
        viewing,
      );
      const out = logs.map((v, p) => v / priorSd[free[p]!]);
      rungs.forEach((rung, k) =>
        rung.labs.forEach((lab, g) => {
          if (lab) for (const c of [0, 1, 2] as const) out.push((labs[k]![g]![c] - lab[c]) / readingNoise(lab));
        }),
      );
      return out;
    };
  let kept = readings.filter((r) => r.labs.some(Boolean));
  const misread: number[] = [];
  const start = free.map(() => 0);
  let result = levenbergMarquardt(residualsOf(kept), start);
  for (;;) {
    const worst = worstRung(kept, residualsOf(kept)(result.parameters), free.length);
    if (!worst || worst.size <= MISREAD_LIMIT || kept.length <= 2) break;
    // Leave out the rung whose removal lets the others agree best, not merely the one pulled furthest.
    const candidates = kept.map((rung) => {
      const rest = kept.filter((r) => r !== rung);
      return { rung, rest, fit: levenbergMarquardt(residualsOf(rest), result.parameters) };
    });
    const best = candidates.reduce((a, b) => (b.fit.residual < a.fit.residual ? b : a));
    misread.push(best.rung.coats);
    kept = best.rest;
    result = best.fit;
  }
  const data = residualsOf(kept)(result.parameters).slice(free.length);
  const sd = { film: 0, flake: 0, spread: 0 };
  free.forEach((name, p) => (sd[name] = Math.sqrt(result.covariance[p]![p]!)));
  return {
    hand: handOf(free, result.parameters),
    sd,
    free,
    misread: misread.sort((a, b) => a - b),
    fit: Math.sqrt(data.reduce((s, v) => s + v * v, 0) / Math.max(1, data.length)),
    status: result.status,
    covariance: result.covariance,
  };
}

function worstRung(rungs: readonly RungReading[], residuals: readonly number[], skip: number): { size: number } | null {
  let at = skip;
  let worst = 0;
  for (const rung of rungs) {
    for (const lab of rung.labs) {
      if (!lab) continue;
      for (let c = 0; c < 3; c++) worst = Math.max(worst, Math.abs(residuals[at++]!));
    }
  }
  return rungs.length ? { size: worst } : null;
}
