import { normalCdf } from '../numeric/normal';

/** Scatter of the film a painter lays: a factor for the session and one for every coat. Coefficients of variation. */
export interface Scatter {
  readonly session: number;
  readonly coat: number;
}

/** Our defaults, replaced by what the painter's own cards show. */
export const DEFAULT_SCATTER: Scatter = { session: 0.06, coat: 0.08 };

/** Chance of ending over the window that is still accepted before looking. */
export const ACCEPTED_OVER = 0.05;

/** Standard deviation of the logarithm of the film after n coats. */
export function logScatter(n: number, scatter: Scatter = DEFAULT_SCATTER): number {
  const cv2 = scatter.session ** 2 + (n > 0 ? scatter.coat ** 2 / n : 0);
  return Math.sqrt(Math.log(1 + cv2));
}

export interface Chances {
  readonly coats: number;
  readonly under: number;
  readonly inside: number;
  readonly over: number;
}

/**
 * Chances of ending under, in and over a stop window when n coats are sprayed.
 * @param closes false when the window has no known upper end: then nothing is over.
 * @param doubt standard deviation of the window's own place, as a fraction of the coats (from the card's fit).
 */
export function chancesAt(
  coats: number,
  window: readonly [number, number],
  closes: boolean,
  scatter: Scatter = DEFAULT_SCATTER,
  doubt = 0,
): Chances {
  if (coats <= 0) return { coats, under: window[0] > 0 ? 1 : 0, inside: window[0] > 0 ? 0 : 1, over: 0 };
  const sd = Math.hypot(logScatter(coats, scatter), doubt);
  const below = (limit: number): number => (limit <= 0 ? 0 : normalCdf(Math.log(limit / coats) / sd));
  const under = below(window[0]);
  const over = closes ? 1 - below(window[1]) : 0;
  return { coats, under, inside: Math.max(0, 1 - under - over), over };
}

export interface Advice {
  /** Coats to spray before looking: half coats, a quarter where even half of one would be too much; 0 for none. */
  readonly spray: number;
  readonly chances: readonly Chances[];
  /** Coats probably left after that, to the best count. */
  readonly left: number;
}

/** Counts a first stop may have: a mist coat, then half coats. */
const firstStops = (most: number): number[] => [
  0.25,
  ...Array.from({ length: Math.max(0, Math.floor(most * 2 + 1e-9)) }, (_, i) => (i + 1) / 2),
];

/**
 * "Spray k, then look": the largest count whose chance of ending over the window is at most 5 %, never beyond the best count:
 * what is missing can be added after the look, what is too much can't be taken back.
 */
export function adviseCoats(
  window: readonly [number, number],
  closes: boolean,
  best: number,
  scatter: Scatter = DEFAULT_SCATTER,
  doubt = 0,
): Advice {
  const at = (n: number) => chancesAt(n, window, closes, scatter, doubt);
  const stops = firstStops(best).filter((n) => n <= best + 1e-9 && at(n).over <= ACCEPTED_OVER);
  const spray = stops.at(-1) ?? 0;
  const chances = firstStops(Math.ceil(best * 2) / 2 + 1)
    .filter((n) => n >= 0.5 || n === spray)
    .map(at);
  return { spray, chances, left: Math.max(0, best - spray) };
}
