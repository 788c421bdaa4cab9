import type { SpotState } from '../letdown/live';
import { createRandom, normal } from '../numeric/random';
import { THREE_NODES } from '../numeric/normal';
import {
  AMOUNT_COAT,
  AMOUNT_GUN,
  amountChances,
  COAT,
  FIRST_STOP_OVER,
  nextAmount,
  type Chances,
  type Wanted,
} from '../letdown/rule';

/** How much further than believed films stray, as a factor of the doubt; ours, from the study of repairs. */
const STRAYS = 1.05;
/** In so many something else is off, and films stray this many times as far; ours, from the same study. */
const [ODD, ODD_STRAYS] = [0.1, 4] as const;
/**
 * Half a true window from the one the card tells, both in counts: ln true = at + slope x ln told, and how it scatters about that.
 * Very narrow and very wide ones are partly chance. `none`: how often no film passes at every angle at all. Ours, from the study
 * of repairs; where no count passes by the card it tells less.
 */
const WINDOW = {
  passes: { at: -0.7, slope: 0.58, sd: 0.42, none: 0.02 },
  closest: { at: -1.05, slope: 0.43, sd: 0.53, none: 0.4 },
} as const;

/** Half a window as it may truly be, counts. @param z standard normal */
function halfWindow({ window }: Wanted, passes: boolean, z: number): number {
  const { at, slope, sd } = passes ? WINDOW.passes : WINDOW.closest;
  const told = Math.max(0.01, (window[1] - window[0]) / 2);
  return Math.exp(at + slope * Math.log(told) + sd * z);
}

/**
 * Chances of an amount laid on a place, with what the card leaves open of the window itself.
 * @param passes some count of the card passes at every angle
 */
export function repairChances(q: number, wanted: Wanted, passes: boolean): Chances {
  const middle = (wanted.window[0] + wanted.window[1]) / 2;
  let [under, over] = [0, 0];
  for (const [z, weight] of THREE_NODES) {
    const width = halfWindow(wanted, passes, z);
    const window = [middle - width, middle + width] as const;
    for (const [times, share] of [
      [STRAYS, 1 - ODD],
      [ODD_STRAYS, ODD],
    ] as const) {
      const chances = amountChances(q, { ...wanted, sd: times * wanted.sd, window });
      under += weight * share * chances.under;
      over += weight * share * chances.over;
    }
  }
  const inside = Math.max(0, 1 - under - over) * (1 - (passes ? WINDOW.passes : WINDOW.closest).none);
  return { under, in: inside, over: 1 - under - inside };
}

/** Largest amount in quarter coats that goes over in at most one of fifty, from a film that is wanted. */
export function firstStopOf(wanted: Wanted): number {
  let found = 0.25;
  for (let k = 0.25; k * wanted.rate <= wanted.film + 1e-9 && k <= 8; k += 0.25) {
    if (amountChances(k, wanted).over > FIRST_STOP_OVER) break;
    found = k;
  }
  return found;
}

/**
 * A place laid anew today: what it wants in all, from what was seen of it.
 * @param film what lies there now, counts of the card. @param wanted what was still wanted beyond it
 */
export const wantedAnew = (film: number, wanted: Wanted): Wanted => ({
  ...wanted,
  film: Math.max(0.25, film + wanted.film),
  // Looks at what lies there are all that is known of what it wants, so it is known no better.
  sd: Math.max(0.1, wanted.sd),
});

/** How surely a look at what was laid anew tells what is still missing, counts: as the looks before it, at least this. */
const LEAST_LOOK = 0.18;
const DRAWS = 400;

/**
 * Chances of laying an amount, one look, and what that look says. Worked out by drawing; same seed, same answer.
 * @param first coats laid before the look. @param lookSd how surely a look tells what is missing, counts. @param passes some count of
 * the card passes at every angle
 */
export function lookedAtChances(first: number, wanted: Wanted, lookSd: number, passes: boolean, seed = 7): Chances {
  const random = createRandom(seed);
  const gauss = () => normal(random);
  const sd = Math.max(LEAST_LOOK, lookSd);
  const middle = (wanted.window[0] + wanted.window[1]) / 2;
  const share = COAT / Math.sqrt(Math.max(0.25, first));
  let [under, over] = [0, 0];
  for (let i = 0; i < DRAWS; i++) {
    const needs = wanted.film + (random() < ODD ? ODD_STRAYS : STRAYS) * wanted.sd * gauss();
    const width = halfWindow(wanted, passes, gauss());
    let film = first * wanted.rate * Math.exp(share * gauss() + AMOUNT_GUN * gauss());
    const believed = wanted.film - first * wanted.rate;
    const prior = Math.hypot(wanted.sd, share * first * wanted.rate);
    const seen = needs - film + sd * gauss();
    const [a, b] = [1 / sd ** 2, 1 / prior ** 2];
    const after = { ...wanted, film: (a * seen + b * believed) / (a + b), sd: 1 / Math.sqrt(a + b) };
    const q = nextAmount(after, 0);
    if (q > 0)
      film += q * wanted.rate * (1 + (AMOUNT_COAT / Math.sqrt(Math.max(1, q))) * gauss()) + AMOUNT_GUN * q * gauss();
    if (film > needs + middle + width) over++;
    else if (film < needs + middle - width) under++;
  }
  const inside = (1 - (under + over) / DRAWS) * (1 - (passes ? WINDOW.passes : WINDOW.closest).none);
  return { under: under / DRAWS, in: inside, over: 1 - under / DRAWS - inside };
}

/** How surely looks at a place tell, counts; beyond a coat nothing is told. */
export const lookSdOf = ({ sd }: Pick<SpotState, 'sd'>): number => Math.min(1, sd);

/**
 * Chances of an amount on a place that is short. An instrument says what the rest is; an eye that calls it a match stops there, so
 * what was laid first is what counts.
 */
export const mendedChances = (
  amount: number,
  spot: Pick<SpotState, 'wanted' | 'sd' | 'byEye'>,
  passes: boolean,
): Chances =>
  spot.byEye
    ? repairChances(amount, spot.wanted, passes)
    : lookedAtChances(amount, spot.wanted, lookSdOf(spot), passes);

/** Chances of doing it anew: to the first stop, one look, and what that look says. */
export const anewChances = (wanted: Wanted, lookSd: number, passes: boolean): Chances =>
  lookedAtChances(firstStopOf(wanted), wanted, lookSd, passes);

/** How often it may go over where nothing is advised of itself, and what going over costs against ending inside; ours. */
const [MOST_OVER, COST_OF_OVER] = [0.06, 2] as const;

/**
 * What is laid on a place that was called short: what the advice lays; where it lays nothing, the tenths that are likeliest to end
 * inside without going over, at least one.
 */
export function amountThere(advised: number, wanted: Wanted, passes: boolean): number {
  if (advised > 0) return advised;
  let [best, worth] = [0.1, -Infinity];
  for (let i = 1; i <= 20; i++) {
    const chances = repairChances(i / 10, wanted, passes);
    const value = chances.in - COST_OF_OVER * chances.over;
    if (i > 1 && chances.over > MOST_OVER) break;
    if (value > worth) [best, worth] = [i / 10, value];
  }
  return best;
}
