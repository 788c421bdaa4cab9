import { normalCdf } from '../numeric/normal';
import { EDGE_BUILD } from './cardFilm';

/** Chances of ending under, in and over a window. */
export interface Chances {
  readonly under: number;
  readonly in: number;
  readonly over: number;
}

/** Scatter of the film of a job against its card, ln: sessions of both, edges, and every coat. Common practice (no source). */
const [CARD_SESSION, JOB_SESSION, EDGES] = [0.06, 0.06, 0.03] as const;
export const COAT = 0.096;
/** Chance of going over that is accepted at the first stop, before anything was looked at. */
export const FIRST_STOP_OVER = 0.02;
/** And after a look: while another one can follow, and with the last one behind. */
export const LOOK_OVER = { more: 0.03, last: 0.06 } as const;
const QUARTER = 0.25;

/** Chances of k coats, over the deviations of the best count that a card leaves open. */
export function firstChances(
  k: number,
  window: readonly [number, number],
  closes: boolean,
  deviations: readonly number[],
): Chances {
  const s = Math.hypot(CARD_SESSION, JOB_SESSION, EDGES, COAT / Math.sqrt(Math.max(k, 0.05)));
  const beyond = (limit: number): number =>
    deviations.reduce((sum, d) => {
      const at = limit + d;
      return sum + (at <= 0 ? 1 : normalCdf(-(Math.log(at / Math.max(k, 1e-6)) + EDGE_BUILD) / s));
    }, 0) / deviations.length;
  const over = closes ? beyond(window[1]) : 0;
  const under = k <= 0 ? (window[0] > 0 ? 1 : 0) : 1 - beyond(window[0]);
  return { under: Math.min(under, 1 - over), in: Math.max(0, 1 - under - over), over };
}

/** First stop: the largest quarter coat not beyond the best count that goes over in at most one of fifty. */
export function firstStop(
  best: number,
  window: readonly [number, number],
  closes: boolean,
  deviations: readonly number[],
): number {
  let found = 0;
  for (let k = QUARTER; k <= best + 1e-9; k += QUARTER) {
    if (firstChances(k, window, closes, deviations).over > FIRST_STOP_OVER) break;
    found = k;
  }
  return found || Math.min(2 * QUARTER, Math.max(QUARTER, Math.floor(best * 2) / 4));
}

/** What is believed of the coats still wanted on an object. */
export interface Wanted {
  /** Film wanted, counts of the card; negative when too much is on. */
  readonly film: number;
  readonly sd: number;
  /** How much of a count of the card one coat of today lays. */
  readonly rate: number;
  /** Ends of the window from the film wanted. */
  readonly window: readonly [number, number];
}

/** Scatter of an amount q laid now: of its coats, and of the gun. */
export const [AMOUNT_COAT, AMOUNT_GUN] = [0.09, 0.03] as const;
const MOST_AT_ONCE = 2.5;
export const TENTH = 0.1;
/** A coat costs a little; nearer the middle is worth a little. */
const [COST_OF_A_COAT, WORTH_OF_MIDDLE, COST_OF_OVER] = [0.02, 0.05, 3] as const;

/** Chances of an amount laid now. */
export function amountChances(q: number, { film, sd, rate, window }: Wanted): Chances {
  const s = Math.hypot(sd, (AMOUNT_COAT * rate * q) / Math.sqrt(Math.max(1, q)), AMOUNT_GUN * q);
  const over = normalCdf(-(film + window[1] - q * rate) / s);
  const under = normalCdf((film + window[0] - q * rate) / s);
  return { under, in: Math.max(0, 1 - over - under), over };
}

/**
 * After a look: the amount in tenths of a coat that is likeliest to end inside without going over; 0 is "stop, it is there".
 * @param looksLeft looks that can still follow.
 */
export function nextAmount(wanted: Wanted, looksLeft: number): number {
  const limit = looksLeft > 0 ? LOOK_OVER.more : LOOK_OVER.last;
  let [best, worth] = [0, -Infinity];
  for (let i = 0; i <= Math.round(MOST_AT_ONCE / TENTH); i++) {
    const q = i * TENTH;
    const chances = amountChances(q, wanted);
    if (q > 0 && chances.over > limit) break;
    const value =
      chances.in -
      COST_OF_OVER * chances.over -
      (q > 0 ? COST_OF_A_COAT : 0) +
      WORTH_OF_MIDDLE * (1 - Math.min(1, Math.abs(wanted.film - q * wanted.rate)));
    if (value > worth) [best, worth] = [q, value];
  }
  return Number(best.toFixed(1));
}

/** Count the object will need today for a count the card tells: edges, both sessions and coats between them. */
export const objectFactor = (best: number, e: readonly [number, number, number, number]): number =>
  Math.exp(
    EDGE_BUILD +
      1.2 *
        (EDGES * e[0] +
          CARD_SESSION * e[1] +
          JOB_SESSION * e[2] +
          ((0.08 * 1.25) / Math.sqrt(Math.max(0.25, best))) * e[3]),
  );
