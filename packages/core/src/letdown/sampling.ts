import { choleskyOf, quantile, solveUpper, timesLower } from '../numeric/linear';
import { createRandom, normal } from '../numeric/random';
import { bestCount, drawTarget, type TargetSought } from './bestCount';
import { rowFilm, strayKernel, type CardFit } from './fitProblem';
import { leftAt, LADDER_LAST, strayWeights } from './fittedLadder';
import { readLadder } from './ladderTable';

const SAMPLES = 160;
/** Counts about the best one at which samples are looked at. */
const [REACH_BELOW, REACH_ABOVE, STEP] = [1.6, 2.2, 0.2];
/** Counts at which a stray is drawn; between them linear. */
const STRAY_STEP = 0.5;
/** Tails are longer than the samples show, and longer for a card that does not lie on its ladder. */
const WIDER = 1.2;
const widen = (chi: number): number => WIDER * Math.min(2, Math.max(1, Math.sqrt(chi / 1.1)));

/** How far apart the best counts of ladders drawn from a card's posterior lie, from their median, ascending. */
export function bestDeviations(
  fit: CardFit,
  sought: TargetSought,
  best: number,
  nominal: number,
  seed: number,
): number[] {
  const random = createRandom(seed);
  const gauss = () => normal(random);
  const from = Math.max(STEP / 2, best - REACH_BELOW);
  const to = Math.min(LADDER_LAST, best + REACH_ABOVE);
  const counts = Array.from({ length: Math.floor((to - from) / STEP + 1e-9) + 1 }, (_, i) => from + i * STEP);
  const { outputs } = fit.table;
  const carried = counts.map((n) => strayWeights(fit, n));
  // Prior paths of the stray at the rungs and along the ladder, drawn together.
  const along = Array.from({ length: Math.round(LADDER_LAST / STRAY_STEP) + 1 }, (_, i) => i * STRAY_STEP);
  const places = [...fit.rows.map((r) => r.coats), ...along];
  const lower = choleskyOf(
    places.map((n, i) => places.map((m, j) => fit.lambda ** 2 * strayKernel(n, m) + (i === j ? 1e-8 : 0))),
  );
  const channelOf = new Map(fit.channels.map((c, k) => [c.output, k]));
  const found: number[] = [];
  for (let s = 0; s < SAMPLES; s++) {
    const z = solveUpper(fit.precision, Float64Array.from(fit.z, gauss));
    for (let i = 0; i < z.length; i++) z[i]! += fit.z[i]!;
    const left = leftAt(fit, z);
    const values = counts.map((n) => {
      const out = new Float64Array(outputs);
      readLadder(fit.table, rowFilm(fit, n, -1, z), z, out);
      return out;
    });
    for (let o = 0; o < outputs; o++) {
      const path = timesLower(lower, Float64Array.from(places, gauss));
      const k = channelOf.get(o);
      const channel = k === undefined ? null : fit.channels[k]!;
      const short = channel ? channel.rows.map((row, a) => left[k!]![a]! - path[row]! - channel.eps[a]! * gauss()) : [];
      counts.forEach((n, i) => {
        const p = n / STRAY_STEP;
        const low = Math.min(along.length - 2, Math.floor(p));
        const at = fit.rows.length + low;
        let add = path[at]! + (p - low) * (path[at + 1]! - path[at]!);
        if (k !== undefined) carried[i]![k]!.forEach((w, a) => (add += w * short[a]!));
        values[i]![o]! += add;
      });
    }
    const colours = (n: number) => values[Math.min(values.length - 1, Math.round((n - from) / STEP))]!;
    found.push(bestCount(colours, drawTarget(sought, gauss), nominal, [from, from + (counts.length - 1) * STEP], STEP));
  }
  const middle = quantile(found, 0.5);
  const wide = widen(fit.chi);
  return found.map((v) => (v - middle) * wide).sort((a, b) => a - b);
}
