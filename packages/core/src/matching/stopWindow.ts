import type { Lab } from '../colour/lab';
import { scoreMatch, type TargetAngle } from './target';

/** Step of the coat grid on which windows are found. */
export const COAT_GRID = 0.05;

export interface CurvePoint {
  readonly coats: number;
  readonly toleranceRatio: number;
  readonly rmsDe: number;
}

export interface StopWindow {
  /** Coats at which every angle passes; null when there is none. */
  readonly window: readonly [number, number] | null;
  /** False when the window was still open at the last count looked at. */
  readonly closes: boolean;
  /** Coats with the least rms difference. */
  readonly best: { readonly coats: number; readonly rmsDe: number; readonly toleranceRatio: number };
  readonly curve: readonly CurvePoint[];
}

/**
 * Cubic interpolation of Lab over coats through equally or unequally spaced counts (Catmull-Rom with finite-difference
 * slopes). @param counts ascending. @param n within their range.
 */
export function interpolateLabs(counts: readonly number[], labs: readonly (readonly Lab[])[], n: number): Lab[] {
  const last = counts.length - 1;
  let j = 0;
  while (j < last - 1 && counts[j + 1]! < n) j++;
  if (last === 0) return [...labs[0]!];
  const x0 = counts[j]!;
  const x1 = counts[j + 1]!;
  const u = (n - x0) / (x1 - x0);
  const slope = (k: number, g: number, c: 0 | 1 | 2): number => {
    const a = Math.max(0, k - 1);
    const b = Math.min(last, k + 1);
    const one = (p: number, q: number) => (labs[q]![g]![c] - labs[p]![g]![c]) / (counts[q]! - counts[p]!);
    if (a === k || b === k) {
      // End slope of the parabola through three points, so that the steep first coat is not flattened.
      if (last < 2) return one(a, b);
      const m = k === 0 ? 1 : last - 1;
      const far = k === 0 ? 2 : last - 2;
      const near = k === 0 ? one(0, 1) : one(last - 1, last);
      const wide = k === 0 ? one(1, 2) : one(last - 2, last - 1);
      const h = Math.abs(counts[m]! - counts[k]!);
      const reach = h + Math.abs(counts[far]! - counts[m]!);
      return near + (near - wide) * (h / reach);
    }
    const left = one(a, k);
    const right = one(k, b);
    const hl = counts[k]! - counts[a]!;
    const hr = counts[b]! - counts[k]!;
    return (left * hr + right * hl) / (hl + hr);
  };
  const h = x1 - x0;
  const u2 = u * u;
  const u3 = u2 * u;
  return labs[j]!.map((lab, g) => {
    const at = (c: 0 | 1 | 2): number =>
      lab[c] * (2 * u3 - 3 * u2 + 1) +
      slope(j, g, c) * h * (u3 - 2 * u2 + u) +
      labs[j + 1]![g]![c] * (3 * u2 - 2 * u3) +
      slope(j + 1, g, c) * h * (u3 - u2);
    return [at(0), at(1), at(2)] as const;
  });
}

/** A grid of coats from lo to hi on multiples of the step, ends included, free of rounding drift. */
export function coatGrid(lo: number, hi: number, step = COAT_GRID): number[] {
  const count = Math.floor((hi - lo) / step + 1e-9);
  return Array.from({ length: count + 1 }, (_, i) => Number((lo + i * step).toFixed(6)));
}

/**
 * Stop window of a ladder: the run of coat counts on a 0.05 grid where every angle passes, the run that holds the best
 * count (or the one nearest to it), and the best count itself.
 * @param counts ascending coat counts of `labs`; between them Lab is interpolated.
 * @param worthwhile between given counts that are both at or above this toleranceRatio the curve has no points, and where none is
 * below it the curve stays on the given counts (no window is near).
 */
export function findStopWindow(
  target: readonly TargetAngle[],
  counts: readonly number[],
  labs: readonly (readonly Lab[])[],
  worthwhile = Infinity,
): StopWindow {
  const point = (coats: number, at: readonly Lab[]): CurvePoint => {
    const { toleranceRatio, rmsDe } = scoreMatch(target, at);
    return { coats, toleranceRatio, rmsDe };
  };
  const coarse = counts.map((coats, k) => point(coats, labs[k]!));
  // Between two counts that are both far off nothing is looked for; the curve keeps its points where it matters.
  const near = (coats: number): boolean => {
    const k = Math.max(
      1,
      counts.findIndex((c) => c >= coats - 1e-9),
    );
    return Math.min(coarse[k - 1]!.toleranceRatio, coarse[k]!.toleranceRatio) < worthwhile;
  };
  const curve = coarse.some((p) => p.toleranceRatio < worthwhile)
    ? coatGrid(counts[0]!, counts.at(-1)!)
        .filter((coats) => worthwhile === Infinity || near(coats))
        .map((coats) => point(coats, interpolateLabs(counts, labs, coats)))
    : coarse;
  const best = curve.reduce((a, b) => (b.rmsDe < a.rmsDe ? b : a));
  const runs: [number, number][] = [];
  curve.forEach((p, i) => {
    if (p.toleranceRatio > 1) return;
    const run = runs.at(-1);
    if (run && curve[i - 1]!.toleranceRatio <= 1) run[1] = p.coats;
    else runs.push([p.coats, p.coats]);
  });
  const gap = (r: readonly [number, number]) => Math.max(r[0] - best.coats, best.coats - r[1], 0);
  const window = runs.length ? runs.reduce((a, b) => (gap(b) < gap(a) ? b : a)) : null;
  return { window, closes: window !== null && window[1] < counts.at(-1)! - 1e-9, best, curve };
}
