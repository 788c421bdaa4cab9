import { normalCdf } from '../numeric/normal';

/** Scatter of the film a painter lays: a factor for the session and one for every coat. Coefficients of variation. */
export interface Scatter {
  readonly session: number;
  readonly coat: number;
}

/** Usual scatter, by which recipes are compared before any card. Common practice (no source). */
export const DEFAULT_SCATTER: Scatter = { session: 0.06, coat: 0.08 };

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
