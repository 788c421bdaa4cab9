import { Matrix, inverse } from 'ml-matrix';
import type { Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import { effectCoats, ladderLabs, type EffectCoats } from '../matching/ladder';
import { type PreparedGround } from '../optics/preparedGround';
import { adviseCoats, type Advice } from '../matching/risk';
import { coatGrid, findStopWindow, type StopWindow } from '../matching/stopWindow';
import { NOMINAL_HAND, type Hand } from '../finishes/styles';
import type { TargetAngle } from '../matching/target';
import type { FastModel } from '../optics/stack';
import {
  calibrateHand,
  DEFAULT_PRIOR,
  readingNoise,
  shiftGround,
  valuesOf,
  withResiduals,
  type Calibration,
  type HandPrior,
  type RungReading,
} from './calibrate';

/** What a target, a recipe and (when sprayed) a card say about the coat count. */
export interface Assessment {
  /** Null until a rung has been read. */
  readonly calibration: Calibration | null;
  readonly hand: Hand;
  readonly stop: StopWindow;
  /** The same with the nominal hand, to say what the card changed. */
  readonly nominal: StopWindow;
  /**
   * Counts to aim for: the window, or where no count passes at every angle the ones nearest to it; `inside` says which.
   */
  readonly aim: { readonly counts: readonly [number, number]; readonly inside: boolean };
  /** What to spray before looking, towards the aim. */
  readonly advice: Advice;
  /** Best count between the points of the grid. */
  readonly best: number;
  /** Standard deviation of the best count, coats: from the card, or from what hands usually differ by. */
  readonly bestSd: number;
  /** Which rung would settle most, and the standard deviation it would leave; null before a card and without a window. */
  readonly nextRung: { readonly coats: number; readonly leaves: number } | null;
  /** Pairs of rungs read the wrong way round: more coats came out lighter where the model says darker, or the other way. */
  readonly disorder: readonly { readonly fewer: number; readonly more: number; readonly said: 'lighter' | 'darker' }[];
  /** Predicted Lab per geometry on `counts`. */
  readonly counts: readonly number[];
  readonly labs: readonly (readonly Lab[])[];
}

export interface AssessOptions {
  /** Highest coat count looked at. */
  readonly last?: number;
  /** The card was sprayed in the hand, not on a stand: its count is trusted less. */
  readonly handHeld?: boolean;
  readonly prior?: HandPrior;
  readonly viewing?: Viewing;
}

/** How much painters differ from nominal before a card is read: standard deviation of ln(film). Ours. */
export const UNREAD_HAND_SD = 0.2;
/** What a card sprayed in the hand adds to the doubt of the film, standard deviation of ln(film). Ours. */
export const HAND_HELD_SD = 0.1;
/** What the model itself may be wrong by, as a fraction of the coats: set by `npm run study`, so that nine in ten intervals hold. */
export const MODEL_DOUBT = 0.02;
/** Counts of the ladder behind the curve. */
const KNOT_STEP = 0.25;
/** Rungs that may be proposed. */
const PROPOSED = [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6] as const;

/** Best count refined between grid points by a parabola through the least rms difference. */
function refinedBest(stop: StopWindow): number {
  const i = stop.curve.findIndex((p) => p.coats === stop.best.coats);
  const [a, b, c] = [stop.curve[i - 1], stop.curve[i], stop.curve[i + 1]];
  if (!a || !b || !c) return stop.best.coats;
  const curvature = a.rmsDe - 2 * b.rmsDe + c.rmsDe;
  return curvature > 1e-12 ? b.coats + ((a.rmsDe - c.rmsDe) / (2 * curvature)) * (b.coats - a.coats) : b.coats;
}

/**
 * Assesses a ladder for one ground and recipe.
 * @param rungs readings of the card in the order of the target's geometries; empty before the card is sprayed.
 */
export function assessLadder(
  model: FastModel,
  ground: PreparedGround,
  recipe: EffectCoats,
  target: readonly TargetAngle[],
  rungs: readonly RungReading[],
  { last = 6, handHeld = false, prior = DEFAULT_PRIOR, viewing = D65_10 }: AssessOptions = {},
): Assessment {
  const counts = coatGrid(0, last, KNOT_STEP);
  const moveGround = shiftGround(ground);
  const nominal = findStopWindow(
    target,
    counts,
    ladderLabs(model, ground, { ...recipe, hand: NOMINAL_HAND }, counts, viewing),
  );
  const calibration = rungs.some((r) => r.labs.some(Boolean))
    ? calibrateHand(model, ground, recipe, rungs, viewing, prior)
    : null;
  const earlier = valuesOf(
    Object.keys(prior.mean) as (keyof HandPrior['mean'])[],
    Object.values(prior.mean) as number[],
  ).hand;
  const hand = calibration?.hand ?? earlier;
  const ladderAt = (parameters: readonly number[], at: readonly number[]): Lab[][] => {
    const values = valuesOf(calibration!.free, parameters);
    const labs = ladderLabs(model, moveGround(values.groundOffset), { ...recipe, hand: values.hand }, at, viewing);
    return withResiduals(at, labs, calibration!.residuals);
  };
  const labs = calibration
    ? ladderAt(calibration.parameters, counts)
    : ladderLabs(model, ground, { ...recipe, hand }, counts, viewing);
  const stop = findStopWindow(target, counts, labs);
  const best = refinedBest(stop);
  // Around the best count finely enough for a derivative, without the rest of the ladder.
  const near = coatGrid(Math.max(0, best - 1), best + 1, KNOT_STEP);
  const bestAt = (parameters: readonly number[]) =>
    refinedBest(findStopWindow(target, near, ladderAt(parameters, near)));

  let relative = calibration ? 0 : prior.mean.film === undefined ? UNREAD_HAND_SD : prior.sd.film;
  let nextRung: Assessment['nextRung'] = null;
  if (calibration) {
    const { free, parameters, covariance } = calibration;
    const step = 0.05;
    const slope = free.map((_, p) => {
      const moved = (d: number) => bestAt(parameters.map((v, q) => (q === p ? v + d : v)));
      return (moved(step) - moved(-step)) / (2 * step) / Math.max(best, 0.25);
    });
    const quadratic = (c: readonly (readonly number[])[]) =>
      Math.sqrt(
        Math.max(
          0,
          slope.reduce((s, a, i) => s + slope.reduce((t, b, j) => t + a * b * c[i]![j]!, 0), 0),
        ),
      );
    const own = quadratic(covariance);
    relative = Math.hypot(own, MODEL_DOUBT, handHeld ? HAND_HELD_SD : 0);
    nextRung = stop.window ? proposeRung(calibration, rungs, ladderAt, quadratic, best) : null;
  } else if (handHeld) relative = Math.hypot(relative, HAND_HELD_SD);

  const aim = { counts: stop.window ?? closestCounts(stop), inside: stop.window !== null };
  return {
    calibration,
    hand,
    stop,
    nominal,
    aim,
    advice: adviseCoats(aim.counts, !aim.inside || stop.closes, best, undefined, relative),
    best,
    bestSd: relative * best,
    nextRung,
    disorder: disorderOf(rungs, (at) => ladderLabs(model, ground, { ...recipe, hand: NOMINAL_HAND }, at, viewing)),
    counts,
    labs,
  };
}

/** How much worse than the best a count may be and still be among the closest, in tolerances, added in quadrature; ours. */
const CLOSEST_WITHIN = 0.5;

/** Where no count passes: the run of counts around the best that are hardly worse than it. */
function closestCounts(stop: StopWindow): readonly [number, number] {
  const at = stop.curve.findIndex((p) => p.coats === stop.best.coats);
  const limit = Math.hypot(stop.best.toleranceRatio, CLOSEST_WITHIN);
  const near = (i: number) => (stop.curve[i]?.toleranceRatio ?? Infinity) <= limit;
  let [lo, hi] = [at, at];
  while (near(lo - 1)) lo--;
  while (near(hi + 1)) hi++;
  return [stop.curve[lo]!.coats, stop.curve[hi]!.coats];
}

/** The rung whose reading would leave the least doubt of the best count: its rows of the Jacobian join the fit's. */
function proposeRung(
  { parameters, covariance }: Calibration,
  rungs: readonly RungReading[],
  ladderAt: (parameters: readonly number[], counts: readonly number[]) => Lab[][],
  doubt: (covariance: readonly (readonly number[])[]) => number,
  best: number,
): Assessment['nextRung'] {
  const counts = PROPOSED.filter((n) => n <= best + 1.5 && !rungs.some((r) => r.coats === n));
  if (!counts.length) return null;
  const here = ladderAt(parameters, counts);
  const step = 0.02;
  const moved = parameters.map((_, p) =>
    ladderAt(
      parameters.map((v, q) => (q === p ? v + step : v)),
      counts,
    ),
  );
  const information = inverse(new Matrix(covariance.map((row) => [...row])));
  let found: { coats: number; leaves: number } | null = null;
  counts.forEach((coats, k) => {
    const more = information.clone();
    here[k]!.forEach((lab, g) => {
      const noise = readingNoise(lab);
      for (const c of [0, 1, 2] as const) {
        const row = moved.map((m) => (m[k]![g]![c] - lab[c]) / step / noise);
        row.forEach((a, i) => row.forEach((b, j) => more.set(i, j, more.get(i, j) + a * b)));
      }
    });
    const leaves = Math.hypot(doubt(inverse(more).to2DArray()), MODEL_DOUBT) * best;
    if (!found || leaves < found.leaves) found = { coats, leaves };
  });
  return found;
}

/** Neighbouring rungs whose mean lightness goes against the nominal ladder by more than what readings scatter by. */
function disorderOf(
  rungs: readonly RungReading[],
  ladder: (counts: readonly number[]) => Lab[][],
): Assessment['disorder'] {
  const read = rungs.filter((r) => r.labs.some(Boolean)).sort((a, b) => a.coats - b.coats);
  if (read.length < 2) return [];
  const expected = ladder(read.map((r) => r.coats));
  return read.slice(1).flatMap((high, k) => {
    const low = read[k]!;
    const both = high.labs.flatMap((lab, g) => {
      const below = low.labs[g];
      return lab && below
        ? [{ read: lab[0] - below[0], model: expected[k + 1]![g]![0] - expected[k]![g]![0], noise: readingNoise(lab) }]
        : [];
    });
    if (!both.length) return [];
    const mean = (key: 'read' | 'model' | 'noise') => both.reduce((s, b) => s + b[key], 0) / both.length;
    const scatter = (2 * mean('noise')) / Math.sqrt(both.length);
    const against =
      mean('read') * mean('model') < 0 && Math.abs(mean('read')) > scatter && Math.abs(mean('model')) > scatter;
    return against
      ? [{ fewer: low.coats, more: high.coats, said: mean('read') > 0 ? ('lighter' as const) : ('darker' as const) }]
      : [];
  });
}

/** Dry effect film of n coats against the nominal coat, for the film section. */
export function filmFactor(recipe: EffectCoats, n: number): number {
  return effectCoats(recipe, n).reduce((sum, c) => sum + c.factor, 0);
}
