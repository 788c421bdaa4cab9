import { COAT_GRID, coatGrid } from '../matching/stopWindow';
import { normalCdf } from '../matching/risk';

/** How a rung looks beside the target, seen from one place. */
export type Verdict = 'much lighter' | 'lighter' | 'match' | 'darker' | 'much darker';
export const VERDICTS: readonly Verdict[] = ['much lighter', 'lighter', 'match', 'darker', 'much darker'];
/** Where the painter stood. */
export type EyeView = 'sun face' | 'sun flop' | 'shade' | 'lamp';
export const EYE_VIEWS: readonly EyeView[] = ['sun face', 'sun flop', 'shade', 'lamp'];

export interface RungVerdict {
  readonly coats: number;
  readonly view: EyeView;
  readonly verdict: Verdict;
}

/** Cut points of the verdicts in coats, and how much eyes scatter; ours. */
const CUTS = [-1.25, -0.35, 0.35, 1.25] as const;
export const EYE_SCATTER = { stand: 0.45, hand: 0.8 } as const;

/** A verdict rarer than this at the count they agree on contradicts the others; ours. */
const HARDLY_EVER = 0.001;

/** Probability of a verdict on a rung of n coats when the target is matched at `best` (ordered probit). */
export function verdictChance(verdict: Verdict, n: number, best: number, scatter: number): number {
  const k = VERDICTS.indexOf(verdict);
  const below = (cut: number | undefined, end: number) =>
    cut === undefined ? end : normalCdf((cut - (n - best)) / scatter);
  return Math.max(1e-9, below(CUTS[k], 1) - below(CUTS[k - 1], 0));
}

/** What verdicts say of the count that matches. */
export interface EyePosterior {
  /** Grid of counts 0.5..8, and the probability of each. */
  readonly counts: readonly number[];
  readonly chance: readonly number[];
  readonly best: number;
  readonly sd: number;
  /** Central interval that holds nine in ten. */
  readonly interval: readonly [number, number];
  /**
   * The verdicts contradict each other: the chance has two humps, rungs were called the wrong way round, or some verdict would
   * hardly ever be given at the best count.
   */
  readonly contradicts: boolean;
}

/**
 * Posterior of the best count from verdicts by eye; views and rungs multiply.
 * @param prior the model's or the card's belief, mean and standard deviation in coats; flat over 0.5..8 when left out.
 */
export function countByEye(
  verdicts: readonly RungVerdict[],
  { handHeld = false, prior }: { handHeld?: boolean; prior?: { readonly mean: number; readonly sd: number } } = {},
): EyePosterior {
  const counts = coatGrid(0.5, 8, COAT_GRID);
  const scatter = handHeld ? EYE_SCATTER.hand : EYE_SCATTER.stand;
  const logs = counts.map((best) => {
    const start = prior ? -0.5 * ((best - prior.mean) / prior.sd) ** 2 : 0;
    return verdicts.reduce((s, v) => s + Math.log(verdictChance(v.verdict, v.coats, best, scatter)), start);
  });
  const top = Math.max(...logs);
  const raw = logs.map((l) => Math.exp(l - top));
  const total = raw.reduce((s, v) => s + v, 0);
  const chance = raw.map((v) => v / total);
  const best = counts.reduce((s, n, i) => s + n * chance[i]!, 0);
  const sd = Math.sqrt(counts.reduce((s, n, i) => s + (n - best) ** 2 * chance[i]!, 0));
  const quantile = (q: number): number => {
    let sum = 0;
    for (let i = 0; i < counts.length; i++) {
      sum += chance[i]!;
      if (sum >= q) return counts[i]!;
    }
    return counts.at(-1)!;
  };
  return {
    counts,
    chance,
    best,
    sd,
    interval: [quantile(0.05), quantile(0.95)],
    contradicts:
      twoHumps(chance) ||
      outOfOrder(verdicts).length > 0 ||
      verdicts.some((v) => verdictChance(v.verdict, v.coats, best, scatter) < HARDLY_EVER),
  };
}

/** A dip between two humps, deeper than a quarter of the lower hump. */
function twoHumps(chance: readonly number[]): boolean {
  const peaks = chance.flatMap((v, i) =>
    v > (chance[i - 1] ?? 0) && v >= (chance[i + 1] ?? 0) && v > 0.002 ? [i] : [],
  );
  return peaks.some((p, k) => {
    const next = peaks[k + 1];
    if (next === undefined) return false;
    const dip = Math.min(...chance.slice(p, next + 1));
    return dip < 0.75 * Math.min(chance[p]!, chance[next]!);
  });
}

/** Pairs of rungs seen from one place of which the one with more coats was called lighter: one of them is wrong. */
export function outOfOrder(verdicts: readonly RungVerdict[]): { view: EyeView; fewer: number; more: number }[] {
  return EYE_VIEWS.flatMap((view) => {
    const seen = verdicts.filter((v) => v.view === view).sort((a, b) => a.coats - b.coats);
    return seen.flatMap((low, i) =>
      seen
        .slice(i + 1)
        .filter((high) => VERDICTS.indexOf(high.verdict) < VERDICTS.indexOf(low.verdict))
        .map((high) => ({ view, fewer: low.coats, more: high.coats })),
    );
  });
}
