import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { strengthenCoat, type PreparedCoat } from '../optics/coat';
import type { FastModel } from '../optics/stack';
import { effectCoats, factorsToLabs } from './ladder';
import { type PreparedGround } from '../optics/preparedGround';

/** Strengths looked for, as a factor on the coat that is given. */
const [WEAKEST, STRONGEST] = [0.02, 30];
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * Strength of a mix from a drawdown or a card: the factor on cover and dye depth of a nominal coat at which some coats of it over
 * a ground look as they were read. Searched on a coarse scale first, since a look may come twice, then by golden section.
 * @param model of the one geometry the reading was taken at. @returns the factor, and what is left of the difference, CIEDE2000
 */
export function fitStrength(
  model: FastModel,
  ground: PreparedGround,
  coat: PreparedCoat,
  coats: number,
  read: Lab,
): { readonly factor: number; readonly off: number } {
  const off = (log: number): number => {
    const strong = strengthenCoat(coat, Math.exp(log));
    const pile = model.pile([...ground.coats, ...effectCoats({ coat: strong }, coats)]);
    return de2000(read, factorsToLabs(model.over(ground, pile))[0]!);
  };
  const [lo, hi] = [Math.log(WEAKEST), Math.log(STRONGEST)];
  const steps = 48;
  const coarse = Array.from({ length: steps + 1 }, (_, i) => lo + ((hi - lo) * i) / steps);
  const near = coarse.reduce((a, b) => (off(b) < off(a) ? b : a));
  let [a, b] = [Math.max(lo, near - (hi - lo) / steps), Math.min(hi, near + (hi - lo) / steps)];
  while (b - a > 1e-4) {
    const [p, q] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
    if (off(p) < off(q)) b = q;
    else a = p;
  }
  const best = (a + b) / 2;
  return { factor: Math.exp(best), off: off(best) };
}
