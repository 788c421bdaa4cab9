import type { Lab } from '../colour/lab';
import { rowFilm, strayKernel, type CardFit } from './fitProblem';
import { readLadder, type LadderTable } from './ladderTable';

/** Highest count a ladder is looked at, and the step of its points. */
export const LADDER_LAST = 8;
export const LADDER_STEP = 0.05;
const POINTS = Math.round(LADDER_LAST / LADDER_STEP) + 1;

/** Lab of a ladder at counts 0, 0.05 .. 8, three outputs a geometry. */
export interface Ladder {
  readonly outputs: number;
  readonly values: Float64Array;
}

/** Lab of a ladder at a count, linear between its points, held beyond its ends; L* is never below 0. */
export function labsAt({ outputs, values }: Ladder, n: number, out = new Float64Array(outputs)): Float64Array {
  const p = Math.min(POINTS - 1 - 1e-9, Math.max(0, n / LADDER_STEP));
  const low = Math.floor(p);
  const u = p - low;
  for (let o = 0; o < outputs; o++) {
    const a = values[low * outputs + o]!;
    const v = a + u * (values[(low + 1) * outputs + o]! - a);
    out[o] = o % 3 === 0 ? Math.max(0, v) : v;
  }
  return out;
}

/** Change of a ladder a count, at a count. */
export function slopeAt(ladder: Ladder, n: number): Float64Array {
  const h = 2 * LADDER_STEP;
  const [lo, hi] = [Math.max(0, n - h), Math.min(LADDER_LAST, n + h)];
  const [a, b] = [labsAt(ladder, lo), labsAt(ladder, hi)];
  return a.map((v, o) => (b[o]! - v) / (hi - lo));
}

/** Outputs of three as colours. */
export const toLabs = (values: ArrayLike<number>): Lab[] =>
  Array.from({ length: values.length / 3 }, (_, g): Lab => [values[3 * g]!, values[3 * g + 1]!, values[3 * g + 2]!]);

/** The ladder of a hand that lays h of a nominal coat, before any card. */
export function plainLadder(table: LadderTable, h: number): Ladder {
  const { outputs } = table;
  const values = new Float64Array(POINTS * outputs);
  const t = new Float64Array(table.believed.length);
  for (let i = 0; i < POINTS; i++)
    readLadder(table, h * i * LADDER_STEP, t, values.subarray(i * outputs, (i + 1) * outputs));
  return { outputs, values };
}

/** What is left of the data at unknowns z, one list a channel. */
export function leftAt(fit: CardFit, z: ArrayLike<number>): number[][] {
  let spot = 0;
  const labs = fit.rows.map((row) => {
    const out = new Float64Array(fit.table.outputs);
    readLadder(fit.table, rowFilm(fit, row.coats, row.coats > 0 ? spot++ : -1, z), z, out);
    return out;
  });
  return fit.channels.map((c) => c.rows.map((k, a) => c.read[a]! - labs[k]![c.output]!));
}

/**
 * Weights that carry what is left at the rungs to a count, one list a channel: K(n, rungs) C^-1. They hold for every sample.
 */
export function strayWeights(fit: CardFit, n: number): number[][] {
  const kernel = fit.rows.map((row) => fit.lambda ** 2 * strayKernel(n, row.coats));
  return fit.channels.map((c, i) =>
    c.rows.map((_, a) => c.rows.reduce((s, k, b) => s + kernel[k]! * fit.weights[i]!.inverse[b]![a]!, 0)),
  );
}

/** The ladder a card tells: the model at its fit, with the stray of the rungs carried between and beyond them. */
export function fittedLadder(fit: CardFit): Ladder {
  const { outputs } = fit.table;
  const values = new Float64Array(POINTS * outputs);
  const left = leftAt(fit, fit.z);
  for (let i = 0; i < POINTS; i++) {
    const n = i * LADDER_STEP;
    const out = values.subarray(i * outputs, (i + 1) * outputs);
    readLadder(fit.table, rowFilm(fit, n, -1, fit.z), fit.z, out);
    const weights = strayWeights(fit, n);
    fit.channels.forEach((c, k) => (out[c.output]! += weights[k]!.reduce((s, w, a) => s + w * left[k]![a]!, 0)));
  }
  return { outputs, values };
}
