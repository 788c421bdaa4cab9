import { COAT_GRID, coatGrid } from '../matching/stopWindow';
import { normalCdf } from '../numeric/normal';

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

/** Cut points of the verdicts in coats; ours. */
const CUTS = [-1.25, -0.35, 0.35, 1.25] as const;
/**
 * How much eyes scatter, coats: from one place to the next, and in what all looks at one rung share, since the rung itself and
 * the eye that judges it stay the same. Ours.
 */
export const EYE_SCATTER = {
  stand: { view: 0.32, rung: 0.38 },
  hand: { view: 0.5, rung: 0.65 },
} as const;

/** Gauss-Hermite quadrature for a standard normal, seven nodes (Abramowitz and Stegun 25.10, scaled). */
const NODES = [
  [0, 0.457142857],
  [1.154405394, 0.240123179],
  [-1.154405394, 0.240123179],
  [2.366759411, 0.030757124],
  [-2.366759411, 0.030757124],
  [3.750439718, 0.000548269],
  [-3.750439718, 0.000548269],
] as const;

/** A verdict rarer than this at the count they agree on contradicts the others; ours. */
const HARDLY_EVER = 0.001;

/** Probability of a verdict on a rung of n coats when the target is matched at `best` (ordered probit). */
export function verdictChance(verdict: Verdict, n: number, best: number, scatter: number): number {
  const k = VERDICTS.indexOf(verdict);
  const below = (cut: number | undefined, end: number) =>
    cut === undefined ? end : normalCdf((cut - (n - best)) / scatter);
  return Math.max(1e-9, below(CUTS[k], 1) - below(CUTS[k - 1], 0));
}

/** Counts that are looked at. */
const COUNTS: readonly number[] = coatGrid(0.5, 8, COAT_GRID);

/** Step and reach of the tables of chances, coats. */
const [TABLE_STEP, TABLE_REACH] = [0.01, 12];
const tables = new Map<string, Float64Array>();

/** {@link verdictChance} from a table over the distance from the count that matches, linear between its points. */
function tabledChance(verdict: Verdict, scatter: number): (distance: number) => number {
  const key = `${verdict} ${scatter}`;
  let table = tables.get(key);
  if (!table) {
    const points = Math.round((2 * TABLE_REACH) / TABLE_STEP) + 2;
    table = Float64Array.from({ length: points }, (_, i) =>
      verdictChance(verdict, i * TABLE_STEP - TABLE_REACH, 0, scatter),
    );
    tables.set(key, table);
  }
  const found = table;
  return (distance) => {
    const at = (Math.min(TABLE_REACH, Math.max(-TABLE_REACH, distance)) + TABLE_REACH) / TABLE_STEP;
    const i = Math.floor(at);
    return found[i]! + (at - i) * (found[i + 1]! - found[i]!);
  };
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
 * Posterior of the best count from verdicts by eye. Rungs multiply; looks at one rung share an error, so that a second place to
 * stand says far less than a second rung.
 * @param prior the model's or the card's belief, mean and standard deviation in coats; flat over 0.5..8 when left out.
 */
export function countByEye(
  verdicts: readonly RungVerdict[],
  { handHeld = false, prior }: { handHeld?: boolean; prior?: { readonly mean: number; readonly sd: number } } = {},
): EyePosterior {
  const counts = COUNTS;
  const eye = handHeld ? EYE_SCATTER.hand : EYE_SCATTER.stand;
  const rungs = new Map<number, ((distance: number) => number)[]>();
  for (const v of verdicts) rungs.set(v.coats, [...(rungs.get(v.coats) ?? []), tabledChance(v.verdict, eye.view)]);
  const logs = counts.map((best) => {
    let log = prior ? -0.5 * ((best - prior.mean) / prior.sd) ** 2 : 0;
    for (const [coats, looks] of rungs) {
      const chance = NODES.reduce((sum, [z, weight]) => {
        const distance = coats + z * eye.rung - best;
        return sum + weight * looks.reduce((p, chance) => p * chance(distance), 1);
      }, 0);
      log += Math.log(Math.max(1e-30, chance));
    }
    return log;
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
      verdicts.some((v) => verdictChance(v.verdict, v.coats, best, Math.hypot(eye.view, eye.rung)) < HARDLY_EVER),
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

/** Rungs that look too light from one side of the light and too dark from the other: no number of coats mends both. */
export function faceAgainstFlop(
  verdicts: readonly RungVerdict[],
): { readonly coats: number; readonly face: Verdict; readonly flop: Verdict }[] {
  const match = VERDICTS.indexOf('match');
  const off = (v: Verdict) => Math.sign(VERDICTS.indexOf(v) - match);
  return [...new Set(verdicts.map((v) => v.coats))]
    .sort((a, b) => a - b)
    .flatMap((coats) => {
      const seen = (view: EyeView) => verdicts.find((v) => v.coats === coats && v.view === view)?.verdict;
      const [face, flop] = [seen('sun face'), seen('sun flop')];
      return face && flop && off(face) * off(flop) < 0 ? [{ coats, face, flop }] : [];
    });
}
