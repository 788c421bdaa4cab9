import type { Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import { effectCoats, ladderLabs, type LadderRecipe, type PreparedGround } from '../matching/ladder';
import { adviseCoats, type Advice } from '../matching/risk';
import { coatGrid, findStopWindow, type StopWindow } from '../matching/stopWindow';
import { NOMINAL_HAND, type Hand } from '../matching/styles';
import type { TargetAngle } from '../matching/target';
import type { FastModel } from '../optics/stack';
import { calibrateHand, type Calibration, type RungReading } from './calibrate';

/** What a target, a recipe and (when sprayed) a card say about the coat count. */
export interface Assessment {
  /** Null until a rung has been read. */
  readonly calibration: Calibration | null;
  readonly hand: Hand;
  readonly stop: StopWindow;
  /** The same with the nominal hand, to say what the card changed. */
  readonly nominal: StopWindow;
  /** Null when no coat count passes at every angle. */
  readonly advice: Advice | null;
  /** Standard deviation of the best count, coats: from the card, or from what hands usually differ by. */
  readonly bestSd: number;
  /** Predicted Lab per geometry on `counts`. */
  readonly counts: readonly number[];
  readonly labs: readonly (readonly Lab[])[];
}

/** How much painters differ from nominal before a card is read: standard deviation of ln(film). Ours. */
export const UNREAD_HAND_SD = 0.2;
/** What a card sprayed in the hand adds to the doubt of the film, standard deviation of ln(film). Ours. */
export const HAND_HELD_SD = 0.1;
/** Counts of the ladder behind the curve. */
const KNOT_STEP = 0.25;

/** Best count refined between grid points by a parabola through the least rms difference. */
function refinedBest(stop: StopWindow): number {
  const i = stop.curve.findIndex((p) => p.coats === stop.best.coats);
  const [a, b, c] = [stop.curve[i - 1], stop.curve[i], stop.curve[i + 1]];
  if (!a || !b || !c) return stop.best.coats;
  const curvature = a.meanDe - 2 * b.meanDe + c.meanDe;
  return curvature > 1e-12 ? b.coats + ((a.meanDe - c.meanDe) / (2 * curvature)) * (b.coats - a.coats) : b.coats;
}

/**
 * Assesses a ladder for one ground and recipe.
 * @param last highest coat count looked at.
 * @param handHeld the card was sprayed in the hand, not on a stand: its count is trusted less.
 * @param rungs readings of the card in the order of the target's geometries; empty before the card is sprayed.
 */
export function assessLadder(
  model: FastModel,
  ground: PreparedGround,
  recipe: LadderRecipe,
  target: readonly TargetAngle[],
  rungs: readonly RungReading[],
  last = 6,
  handHeld = false,
  viewing: Viewing = D65_10,
): Assessment {
  const counts = coatGrid(0, last, KNOT_STEP);
  const ladder = (hand: Hand) => ladderLabs(model, ground, { ...recipe, hand }, counts, viewing);
  const nominal = findStopWindow(target, counts, ladder(NOMINAL_HAND));
  const calibration = rungs.some((r) => r.labs.some(Boolean))
    ? calibrateHand(model, ground, recipe, rungs, viewing)
    : null;
  const hand = calibration?.hand ?? NOMINAL_HAND;
  const labs = ladder(hand);
  const stop = calibration ? findStopWindow(target, counts, labs) : nominal;
  const best = refinedBest(stop);
  const relative = calibration ? Math.hypot(relativeDoubt(calibration), handHeld ? HAND_HELD_SD : 0) : UNREAD_HAND_SD;

  function relativeDoubt({ free, covariance }: Calibration): number {
    const slope = free.map((name) => {
      const moved = { ...hand, [name]: hand[name] * Math.exp(0.03) };
      return (refinedBest(findStopWindow(target, counts, ladder(moved))) - best) / 0.03 / Math.max(best, 0.25);
    });
    const variance = slope.reduce((s, p, i) => s + slope.reduce((t, q, j) => t + p * q * covariance[i]![j]!, 0), 0);
    return Math.sqrt(Math.max(0, variance));
  }

  return {
    calibration,
    hand,
    stop,
    nominal,
    advice: stop.window ? adviseCoats(stop.window, stop.closes, best, undefined, relative) : null,
    bestSd: relative * best,
    counts,
    labs,
  };
}

/** Dry effect film of n coats against the nominal coat, for the film section. */
export function filmFactor(recipe: LadderRecipe, n: number): number {
  return effectCoats(recipe, n).reduce((sum, c) => sum + c.factor, 0);
}
