import { choleskyOf, timesLower } from '../numeric/linear';

/** Film of a card against the nominal hand: ln h = mean + sd t. Edges build a little more than the middle of an object. */
export interface HandFilm {
  readonly mean: number;
  readonly sd: number;
}

/** What a card's edges add to its film, ln. Common practice (no source). */
export const EDGE_BUILD = 0.04;
/** Hand and session of a card before anything is known: ln film. Common practice (no source). */
export const USUAL_HAND: HandFilm = { mean: EDGE_BUILD, sd: 0.21 };

/** Scatter of a coat's film about its hand, ln: the first scatters most. Common practice (no source). */
const [FIRST_COAT_SD, COAT_SD] = [0.152, 0.08];
/** How much of it a coat shares with its neighbour. */
const COAT_SHARED = 0.5;
/** Counts beyond the last rung whose coats scatter as well. */
const COATS_BEYOND = 3;
/** Film at a spot about that of its rung: a share of it, and a part of a count. */
const [SPOT_SHARE, SPOT_COUNT] = [0.02, 0.05];

/** How a card's coats lie: film of n coats with every coat's own deviation. */
export interface CardFilm {
  /** Deviations, one a coat. */
  readonly coats: number;
  /** Deviations of the coats (ln) from standard normal numbers. */
  readonly deviations: (u: ArrayLike<number>) => Float64Array;
  /** Film after n coats, in counts of this hand. */
  readonly film: (n: number, deviations: ArrayLike<number>) => number;
  /** Derivative of the film by every u. */
  readonly byCoat: (n: number, deviations: ArrayLike<number>, out: Float64Array) => void;
}

/** Part of coat i (from 0) that is on after n coats. */
const partOf = (n: number, i: number): number => Math.min(1, Math.max(0, n - i));

/** @param last highest rung of the card. */
export function createCardFilm(last: number): CardFilm {
  const coats = Math.ceil(last) + COATS_BEYOND;
  const sd = (i: number) => (i === 0 ? FIRST_COAT_SD : COAT_SD);
  const lower = choleskyOf(
    Array.from({ length: coats }, (_, i) =>
      Array.from({ length: coats }, (_, j) => sd(i) * sd(j) * COAT_SHARED ** Math.abs(i - j)),
    ),
  );
  return {
    coats,
    deviations: (u) => timesLower(lower, u),
    film: (n, deviations) => {
      let sum = 0;
      for (let i = 0; i < n; i++) sum += partOf(n, i) * (i < coats ? Math.exp(deviations[i]!) : 1);
      return sum;
    },
    byCoat: (n, deviations, out) => {
      out.fill(0);
      for (let i = 0; i < Math.min(n, coats); i++) {
        const film = partOf(n, i) * Math.exp(deviations[i]!);
        for (let j = 0; j <= i; j++) out[j]! += film * lower[i]![j]!;
      }
    },
  };
}

/** Standard deviation of the film at a spot of a rung whose film is f counts, and its derivative. */
export function spotFilm(f: number): { readonly sd: number; readonly slope: number } {
  const sd = Math.hypot(SPOT_SHARE * f, SPOT_COUNT);
  return { sd, slope: (SPOT_SHARE * SPOT_SHARE * f) / sd };
}
