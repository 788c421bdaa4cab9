import { choleskyOf, solveLower } from '../numeric/linear';
import { bestCount, type TargetSought } from './bestCount';
import { rowFilm, strayKernel, type CardFit } from './fitProblem';
import { leftAt, strayWeights, toLabs } from './fittedLadder';
import { readLadder } from './ladderTable';
import { noiseAt } from './readings';

/** Rungs that may be proposed. */
const PROPOSED = [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6] as const;
/** Step of the derivative, standard deviations. */
const STEP = 0.3;

/** Share of the doubt of the best count that each rung would leave, were it read as well; the one that leaves least, or null. */
export function nextRung(
  fit: CardFit,
  sought: TargetSought,
  best: number,
  nominal: number,
): { readonly coats: number; readonly leaves: number } | null {
  const size = fit.z.length;
  const { outputs, believed } = fit.table;
  const near: [number, number] = [Math.max(0.1, best - 1), best + 1];
  const bestAt = (z: Float64Array): number => {
    const left = leftAt(fit, z);
    const out = new Float64Array(outputs);
    return bestCount(
      (n) => {
        readLadder(fit.table, rowFilm(fit, n, -1, z), z, out);
        const weights = strayWeights(fit, n);
        fit.channels.forEach((c, k) => (out[c.output]! += weights[k]!.reduce((s, w, a) => s + w * left[k]![a]!, 0)));
        return out;
      },
      sought,
      nominal,
      near,
      0.1,
    );
  };
  const gradient = Float64Array.from({ length: size }, (_, i) => {
    const moved = (d: number) => bestAt(fit.z.map((v, j) => (j === i ? v + d : v)));
    return (moved(STEP) - moved(-STEP)) / (2 * STEP);
  });
  const doubt = (lower: readonly (readonly number[])[]) => solveLower(lower, gradient).reduce((s, v) => s + v * v, 0);
  const now = doubt(fit.precision);
  if (!(now > 1e-9)) return null;
  const precision = fit.precision.map((row, i) =>
    fit.precision.map((other, j) => {
      let sum = 0;
      for (let k = 0; k <= Math.min(i, j); k++) sum += row[k]! * other[k]!;
      return sum;
    }),
  );
  const stray = fit.lambda ** 2 * strayKernel(0, 0);
  let found: { coats: number; leaves: number } | null = null;
  for (const coats of PROPOSED) {
    if (coats > best + 1.5 || coats > fit.film.coats || fit.rows.some((r) => r.coats === coats)) continue;
    const byZ = new Float64Array(size);
    const x = rowFilm(fit, coats, -1, fit.z, byZ);
    const labs = new Float64Array(outputs);
    const slope = new Float64Array(outputs);
    const byT = new Float64Array(outputs * believed.length);
    readLadder(fit.table, x, fit.z, labs, slope, byT);
    const colours = toLabs(labs);
    const more = precision.map((row) => [...row]);
    for (let o = 0; o < outputs; o++) {
      const variance = stray + noiseAt(sought.read.noise, Math.floor(o / 3), colours[Math.floor(o / 3)]![0]) ** 2;
      const row = byZ.map((v, i) => slope[o]! * v + (i < believed.length ? byT[i * outputs + o]! : 0));
      row.forEach((a, i) => row.forEach((b, j) => (more[i]![j]! += (a * b) / variance)));
    }
    const leaves = Math.sqrt(doubt(choleskyOf(more)) / now);
    if (!found || leaves < found.leaves) found = { coats, leaves };
  }
  return found;
}
