import type { Lab } from '../colour/lab';
import { choleskyOf, solveCholesky, halfLogDet } from '../numeric/linear';
import { type CardFilm, type HandFilm, spotFilm } from './cardFilm';
import { type LadderTable, readLadder } from './ladderTable';
import type { RungReading, Noise } from './readings';
import type { KnownVariation } from './variation';

/** A card as it was read. */
export interface CardReadings {
  /** The bare ground at every geometry; null where it was not read. */
  readonly bare: readonly (Lab | null)[] | null;
  readonly rungs: readonly RungReading[];
  /** Scatter of one spot. */
  readonly noise: Noise;
}

/** What earlier cards say of a painter's hand. */
export interface HandBelieved {
  readonly film?: HandFilm;
  readonly variations?: KnownVariation;
}

/** How far what a card shows strays from the model, per axis: a constant part and one that changes over counts. Lab units. */
export const [STRAY_CONSTANT, STRAY_CHANGING, STRAY_REACH] = [0.5, 0.7, 1.5] as const;
const MOST_DEVIATION = 4;
const MOST_STEPS = 12;
/** Covariance of a stray at two counts, per lambda^2. */
export const strayKernel = (n: number, m: number): number =>
  STRAY_CONSTANT ** 2 + STRAY_CHANGING ** 2 * Math.exp(-((n - m) ** 2) / (2 * STRAY_REACH ** 2));
/** One row of data: a rung or the bare ground. */
export interface Row {
  readonly coats: number;
  readonly labs: readonly (Lab | null)[];
}

/** Readings of one output (an axis at a geometry) over the rungs, with what they scatter by. */
export interface Channel {
  readonly output: number;
  /** Indices into the rows. */
  readonly rows: readonly number[];
  readonly read: readonly number[];
  readonly eps: readonly number[];
}

/** Covariance of a channel under a stray of a given size, factored and inverted. */
export interface Weight {
  readonly lower: number[][];
  readonly inverse: Float64Array[];
}

/** A card, fitted. */
export interface CardFit {
  readonly table: LadderTable;
  readonly film: CardFilm;
  readonly hand: HandFilm;
  /** t (one a variation), hand, coats, spots of rungs: all standard normal before the card. */
  readonly z: Float64Array;
  /** Lower factor of the posterior's precision. */
  readonly precision: number[][];
  readonly rows: readonly Row[];
  readonly channels: readonly Channel[];
  readonly weights: readonly Weight[];
  /** Size of the strays against the usual. */
  readonly lambda: number;
  /** Twice the cost over the data: about 1 for a card that lies on its ladder. */
  readonly chi: number;
  /** Data used. */
  readonly data: number;
  /** Pairs of counts whose rungs changed places; the card is fitted as exchanged. */
  readonly swapped: readonly (readonly [number, number])[];
  /** Counts of rungs that do not belong to the others; left out of the fit. */
  readonly doubtful: readonly number[];
}

/** Places of the unknowns in z. */
const places = (variations: number, coats: number) => ({
  hand: variations,
  coats: variations + 1,
  spots: variations + 1 + coats,
});

export interface Problem {
  readonly table: LadderTable;
  readonly film: CardFilm;
  readonly hand: HandFilm;
  readonly rows: readonly Row[];
  readonly channels: readonly Channel[];
}

/** Film of a row in counts of the nominal hand, and its derivatives by z where asked. */
export function rowFilm(
  p: Pick<Problem, 'table' | 'film' | 'hand'>,
  n: number,
  spot: number,
  z: ArrayLike<number>,
  by?: Float64Array,
): number {
  if (n <= 0) return 0;
  const at = places(p.table.believed.length, p.film.coats);
  const u = Array.from({ length: p.film.coats }, (_, i) => z[at.coats + i]!);
  const deviations = p.film.deviations(u);
  const f = p.film.film(n, deviations);
  const h = Math.exp(p.hand.mean + p.hand.sd * z[at.hand]!);
  const v = spot < 0 ? 0 : z[at.spots + spot]!;
  const { sd, slope } = spotFilm(f);
  const x = h * (f + sd * v);
  if (by) {
    by.fill(0);
    by[at.hand] = p.hand.sd * x;
    const coats = new Float64Array(p.film.coats);
    p.film.byCoat(n, deviations, coats);
    for (let i = 0; i < coats.length; i++) by[at.coats + i] = h * coats[i]! * (1 + slope * v);
    if (spot >= 0) by[at.spots + spot] = h * sd;
  }
  return x;
}

/** Unknowns of a problem: variations, the hand, every coat, every rung's spot. */
export const unknowns = (p: Problem): number =>
  p.table.believed.length + 1 + p.film.coats + p.rows.filter((r) => r.coats > 0).length;
/** Which spot a row has: rows of coats only, in their order. */
const spotsOf = (rows: readonly Row[]): number[] => {
  let next = 0;
  return rows.map((r) => (r.coats > 0 ? next++ : -1));
};
export function weigh(p: Pick<Problem, 'rows' | 'channels'>, lambda: number): Weight[] {
  const known = new Map<string, Weight>();
  return p.channels.map((c) => {
    const key = `${c.rows.join()} ${c.eps.join()}`;
    let weight = known.get(key);
    if (!weight) {
      const covariance = c.rows.map((i, a) =>
        c.rows.map(
          (j, b) => lambda ** 2 * strayKernel(p.rows[i]!.coats, p.rows[j]!.coats) + (a === b ? c.eps[a]! ** 2 : 0),
        ),
      );
      const lower = choleskyOf(covariance);
      const inverse = c.rows.map((_, k) =>
        solveCholesky(
          lower,
          c.rows.map((_, j) => (j === k ? 1 : 0)),
        ),
      );
      known.set(key, (weight = { lower, inverse }));
    }
    return weight;
  });
}

/** Cost, gradient and Gauss-Newton matrix at z; without the last two when `costOnly`. */
function measure(p: Problem, weights: readonly Weight[], z: Float64Array, costOnly = false) {
  const size = z.length;
  const { outputs, believed } = p.table;
  const spots = spotsOf(p.rows);
  const labs = p.rows.map(() => new Float64Array(outputs));
  const slopes = p.rows.map(() => new Float64Array(outputs));
  const byT = costOnly ? [] : p.rows.map(() => new Float64Array(outputs * believed.length));
  const byZ = costOnly ? [] : p.rows.map(() => new Float64Array(size));
  p.rows.forEach((row, k) => {
    const x = rowFilm(p, row.coats, spots[k]!, z, byZ[k]);
    readLadder(p.table, x, z, labs[k]!, slopes[k], byT[k]);
  });
  let cost = 0;
  for (let i = 0; i < size; i++) cost += 0.5 * z[i]! * z[i]!;
  const gradient = Float64Array.from(z);
  const hessian = Array.from({ length: costOnly ? 0 : size }, (_, i) => {
    const row = new Float64Array(size);
    row[i] = 1;
    return row;
  });
  const g = p.rows.map(() => new Float64Array(size));
  p.channels.forEach((channel, c) => {
    const { rows, output: o } = channel;
    const { inverse } = weights[c]!;
    const r = rows.map((k, a) => channel.read[a]! - labs[k]![o]!);
    const wr = inverse.map((row) => row.reduce((s, v, j) => s + v * r[j]!, 0));
    cost += 0.5 * r.reduce((s, v, a) => s + v * wr[a]!, 0);
    if (costOnly) return;
    rows.forEach((k, a) => {
      const row = g[a]!;
      const slope = slopes[k]![o]!;
      const bz = byZ[k]!;
      for (let i = 0; i < size; i++) row[i] = slope * bz[i]!;
      for (let q = 0; q < believed.length; q++) row[q]! += byT[k]![q * outputs + o]!;
    });
    for (let a = 0; a < rows.length; a++) {
      const ga = g[a]!;
      for (let i = 0; i < size; i++) gradient[i]! -= ga[i]! * wr[a]!;
    }
    const weighted = new Float64Array(size);
    for (let a = 0; a < rows.length; a++) {
      weighted.fill(0);
      for (let b = 0; b < rows.length; b++) {
        const w = inverse[a]![b]!;
        const gb = g[b]!;
        for (let i = 0; i < size; i++) weighted[i]! += w * gb[i]!;
      }
      const ga = g[a]!;
      for (let i = 0; i < size; i++) {
        const v = ga[i]!;
        if (v === 0) continue;
        const row = hessian[i]!;
        for (let j = 0; j <= i; j++) row[j]! += v * weighted[j]!;
      }
    }
  });
  hessian.forEach((row, i) => {
    for (let j = 0; j < i; j++) hessian[j]![i] = row[j]!;
  });
  return { cost, gradient, hessian };
}

/** Levenberg-Marquardt (Marquardt 1963) with the analytic derivatives of the table. */
export function descend(p: Problem, weights: readonly Weight[], start: Float64Array) {
  let z = start;
  let here = measure(p, weights, z);
  let damping = 1e-3;
  for (let step = 0; step < MOST_STEPS; step++) {
    const damped = here.hessian.map((row, i) => Array.from(row, (v, j) => (i === j ? v * (1 + damping) : v)));
    const move = solveCholesky(choleskyOf(damped), here.gradient);
    const next = z.map((v, i) => Math.min(MOST_DEVIATION, Math.max(-MOST_DEVIATION, v - move[i]!)));
    const { cost } = measure(p, weights, next, true);
    if (cost < here.cost) {
      const gain = here.cost - cost;
      z = next;
      here = measure(p, weights, z);
      damping = Math.max(damping / 8, 1e-9);
      if (gain < 1e-4) break;
    } else {
      damping *= 8;
      if (damping > 1e6) break;
    }
  }
  const precision = choleskyOf(here.hessian.map((row) => Array.from(row)));
  const evidence = -here.cost - halfLogDet(precision) - weights.reduce((s, w) => s + halfLogDet(w.lower), 0);
  return { z, cost: here.cost, precision, evidence };
}
