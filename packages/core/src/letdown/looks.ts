import type { Lab } from '../colour/lab';
import { de2000 } from '../colour/difference';
import { solveCholesky } from '../numeric/linear';
import { bestCount, leastOf, MISMATCH, type TargetSought } from './bestCount';
import { labsAt, LADDER_LAST, LADDER_STEP, slopeAt, type Ladder } from './fittedLadder';
import { noiseAt } from './readings';
import { countWindow, differenceNoise } from './window';
import type { Wanted } from './rule';

/** Readings of a place on the object. */
export interface Look {
  /** Coats that were on in all. */
  readonly sprayed: number;
  readonly labs: readonly (Lab | null)[];
  /** Looked at before it was dry and cleared. */
  readonly wet: boolean;
  /** Spots that were averaged. */
  readonly spots: number;
}

/** What one look says of the film still wanted, in counts of the card. */
export interface LookSays {
  readonly sprayed: number;
  /** Count of the card it looks like. */
  readonly looksLike: number;
  /** Film wanted, and its variances: what the target, and what the look leaves open. */
  readonly film: number;
  readonly targetVariance: number;
  readonly lookVariance: number;
  /** Window's ends from the film wanted. */
  readonly window: readonly [number, number];
  readonly inside: boolean;
  readonly closes: boolean;
  readonly wet: boolean;
  /** How far what it looks like tells what a coat lays: 1 for a reading, less for an eye. */
  readonly tells: number;
}

/** Offset that all readings of a wet film share, Lab units. */
const WET_OFFSET = 0.3;
/** What readings leave open is this much wider than their noise says. */
const WIDER = 1.3;
/** Film of a wet or dry look against what lies elsewhere, as a share of what is on. */
const [WET_SHARE, DRY_SHARE] = [0.036, 0.02] as const;
/** A long way to go is known less well, as a share of it. */
const WAY_SHARE = 0.08;
const MOST_SD = 1.5;

/**
 * Meets a look with the card's ladder and walks on from there to the target. The look is taken as it is: whatever the ladder got
 * wrong where they meet is carried along.
 */
export function sayLook(ladder: Ladder, sought: TargetSought, look: Look): LookSays | null {
  const read = look.labs.flatMap((lab, g) => (lab ? [{ lab, g }] : []));
  if (!read.length) return null;
  const labs = new Float64Array(ladder.outputs);
  const meets = leastOf(LADDER_STEP, LADDER_LAST, LADDER_STEP, (n) => {
    labsAt(ladder, n, labs);
    return read.reduce((s, { lab, g }) => s + de2000(lab, [labs[3 * g]!, labs[3 * g + 1]!, labs[3 * g + 2]!]) ** 2, 0);
  });
  const met = labsAt(ladder, meets);
  const off = new Float64Array(ladder.outputs);
  for (const { lab, g } of read) for (const c of [0, 1, 2] as const) off[3 * g + c] = lab[c] - met[3 * g + c]!;
  const walk = (n: number): Float64Array => labsAt(ladder, n, labs).map((v, o) => v + off[o]!);
  const best = bestCount(walk, sought, null);
  const film = best - meets;

  const eps = sought.labs.map((lab, g) => noiseAt(sought.read.noise, g, lab[0]) / Math.sqrt(Math.max(1, look.spots)));
  const d = slopeAt(ladder, meets).map((v, o) => v * sought.weights[o]!);
  const seen = new Set(read.map((r) => r.g));
  let [way, noise] = [0, 0];
  const shared = [0, 0, 0];
  for (const g of seen)
    for (const c of [0, 1, 2]) {
      const o = 3 * g + c;
      way += d[o]! ** 2;
      noise += (d[o]! * sought.weights[o]! * eps[g]!) ** 2;
      shared[c]! += sought.weights[o]! * d[o]!;
    }
  if (look.wet) noise += WET_OFFSET ** 2 * shared.reduce((s, v) => s + v * v, 0);
  const lookSd = Math.min(MOST_SD, way > 1e-9 ? Math.sqrt(noise) / way : MOST_SD);
  const targetSd = Math.min(MOST_SD, targetSdOf(sought, d));
  const { counts, inside, closes } = countWindow(
    walk,
    best,
    sought,
    differenceNoise(
      sought,
      Float64Array.from(d, (_, o) => eps[Math.floor(o / 3)]! ** 2),
    ),
  );
  const share = look.wet ? WET_SHARE : DRY_SHARE;
  return {
    sprayed: look.sprayed,
    looksLike: meets,
    film,
    targetVariance: (WIDER * targetSd) ** 2,
    lookVariance: (WIDER * lookSd) ** 2 + (share * look.sprayed) ** 2 + (WAY_SHARE * film) ** 2,
    window: [counts[0] - best, counts[1] - best],
    inside,
    closes,
    wet: look.wet,
    tells: 1,
  };
}

/** What the target's own readings leave open of a count. @param d dE00 a count, by output */
function targetSdOf(sought: TargetSought, d: Float64Array): number {
  const way = d.reduce((s, v) => s + v * v, 0);
  if (way < 1e-9) return MOST_SD;
  if (!sought.covariance) {
    return Math.sqrt(d.reduce((s, v, o) => s + (v * sought.weights[o]! * sought.sd[o]!) ** 2, 0)) / way;
  }
  // Generalised least squares; most of the part no count mends is taken out again.
  const weighed = solveCholesky(sought.covariance, d);
  const information = d.reduce((s, v, o) => s + v * weighed[o]!, 0);
  const gain = weighed.reduce((s, v) => s + (v / information) ** 2, 0);
  return Math.sqrt(Math.max(0, 1 / information - 0.75 * MISMATCH ** 2 * gain));
}

/** What the card and the gun alone say of the film wanted. */
export interface CardSays {
  readonly best: number;
  readonly sd: number;
}

/** One place may be off by much more than the job is: a pass that missed it, an edge that got two; ours. */
export const PLACE_FILM_SD = 0.35;
/** Film of a job against its card before it is looked at, and how unsure that is. */
const [USUAL_FILM, JOB_FILM_SD, LEAST_VARIANCE] = [0.96, 0.105, 0.02] as const;
/** How much less an earlier look says: by the coats laid since, and by how far it then was from the target. */
const [SINCE_SHARE, THEN_SHARE] = [0.1, 0.1] as const;
/** Scatter of a coat that went on since the last look, counts. */
const SINCE_COAT = 0.09;
/** Two looks share what wet film does to readings. */
const [SHARED_WET, SHARED_DRY] = [1.3, 1] as const;
const [RATE_POWER, LEAST_RATE, MOST_RATE] = [0.7, 0.75, 1.3] as const;

/** How much of a count of the card one coat lays, from what is on and how it looks. @param tells how far that is believed, 0..1 */
export const rateOf = (looksLike: number, sprayed: number, tells = 1): number =>
  sprayed > 0 ? Math.min(MOST_RATE, Math.max(LEAST_RATE, (looksLike / sprayed) ** (tells * RATE_POWER))) : 1;

/**
 * What all looks and the card together say is still wanted.
 * @param says looks, oldest first, at least one. @param now coats that are on. @param filmSd how far the film there may be from
 * what the card and the gun say, as a share
 */
export function wantedFrom(
  card: CardSays,
  says: readonly LookSays[],
  now: number,
  filmSd: number = JOB_FILM_SD,
): Wanted {
  const newest = says.at(-1)!;
  const rate = rateOf(newest.looksLike, newest.sprayed, newest.tells);
  const since = Math.max(0, now - newest.sprayed);
  let film = newest.film;
  let variance = newest.lookVariance;
  for (const earlier of says.slice(0, -1)) {
    const laid = newest.sprayed - earlier.sprayed;
    const carried = earlier.film - rate * laid;
    const doubt =
      earlier.lookVariance +
      (SINCE_SHARE * laid) ** 2 +
      (THEN_SHARE * earlier.film) ** 2 -
      (WAY_SHARE * earlier.film) ** 2;
    const [a, b] = [1 / variance, 1 / Math.max(1e-6, doubt)];
    film = (a * film + b * carried) / (a + b);
    variance = (newest.wet ? SHARED_WET : SHARED_DRY) / (a + b);
  }
  const targetVariance = newest.targetVariance;
  const ofCard = card.best - USUAL_FILM * newest.sprayed;
  const cardVariance = Math.max(LEAST_VARIANCE, card.sd ** 2 + (filmSd * newest.sprayed) ** 2 - targetVariance / 2);
  const [a, b] = [1 / variance, 1 / cardVariance];
  film = (a * film + b * ofCard) / (a + b);
  variance = 1 / (a + b);
  const mean = (k: 0 | 1) => says.reduce((s, l) => s + l.window[k], 0) / says.length;
  return {
    film: film - rate * since,
    sd: Math.sqrt(targetVariance + variance + (SINCE_COAT * rate) ** 2 * since),
    rate,
    window: [mean(0), mean(1)],
  };
}
