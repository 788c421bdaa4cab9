import type { Lab } from '../colour/lab';
import { choleskyOf, halfLogDet, solveCholesky } from '../numeric/linear';
import { createCardFilm, spotFilm, USUAL_HAND, type CardFilm, type HandFilm } from './cardFilm';
import { readLadder, tabulateLadder, type LadderOf, type LadderTable } from './ladderTable';
import { noiseAt, type Noise, type RungReading } from './readings';
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
const [STRAY_CONSTANT, STRAY_CHANGING, STRAY_REACH] = [0.5, 0.7, 1.5] as const;
/** Larger strays that are tried where the evidence asks for it. */
const STRAY_TRIED = [2, 4, 8] as const;
const STRAY_ODDS = 3;
/** How much better (in half squares) two rungs have to fit the other way round: prior odds of 3 in 100. */
const EXCHANGE_GAIN = 5;
const EXCHANGE_ODDS = Math.log(0.03);
const MOST_DEVIATION = 4;
const MOST_STEPS = 12;

/** Covariance of a stray at two counts, per lambda^2. */
export const strayKernel = (n: number, m: number): number =>
  STRAY_CONSTANT ** 2 + STRAY_CHANGING ** 2 * Math.exp(-((n - m) ** 2) / (2 * STRAY_REACH ** 2));

/** One row of data: a rung or the bare ground. */
interface Row {
  readonly coats: number;
  readonly labs: readonly (Lab | null)[];
}

/** Readings of one output (an axis at a geometry) over the rungs, with what they scatter by. */
interface Channel {
  readonly output: number;
  /** Indices into the rows. */
  readonly rows: readonly number[];
  readonly read: readonly number[];
  readonly eps: readonly number[];
}

/** Covariance of a channel under a stray of a given size, factored and inverted. */
interface Weight {
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

interface Problem {
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
const unknowns = (p: Problem): number =>
  p.table.believed.length + 1 + p.film.coats + p.rows.filter((r) => r.coats > 0).length;

/** Which spot a row has: rows of coats only, in their order. */
const spotsOf = (rows: readonly Row[]): number[] => {
  let next = 0;
  return rows.map((r) => (r.coats > 0 ? next++ : -1));
};

function weigh(p: Pick<Problem, 'rows' | 'channels'>, lambda: number): Weight[] {
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
function descend(p: Problem, weights: readonly Weight[], start: Float64Array) {
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

/** The same with strays as large as the evidence asks for. */
function strayed(p: Problem, weights: readonly Weight[], fit: ReturnType<typeof descend>) {
  let best = { lambda: 1, score: fit.evidence, weights, fit };
  if (!p.channels.length) return best;
  for (const lambda of STRAY_TRIED) {
    const w = weigh(p, lambda);
    const next = descend(p, w, best.fit.z);
    const score = next.evidence - STRAY_ODDS * Math.log(lambda);
    if (score <= best.score) break;
    best = { lambda, score, weights: w, fit: next };
  }
  return best;
}

/** A card fitted with two neighbouring rungs exchanged. */
interface ExchangeTried {
  readonly low: number;
  readonly high: number;
  readonly p: Problem;
  readonly w: readonly Weight[];
  readonly fit: ReturnType<typeof descend>;
}

/** Rows and channels of a card. */
function dataOf(card: CardReadings, outputs: number): Pick<Problem, 'rows' | 'channels'> {
  const isRead = (labs: readonly (Lab | null)[]) => labs.some(Boolean);
  const rows: Row[] = [
    ...(card.bare && isRead(card.bare) ? [{ coats: 0, labs: card.bare }] : []),
    ...card.rungs.filter((r) => isRead(r.labs)).sort((a, b) => a.coats - b.coats),
  ];
  const channels = Array.from({ length: outputs }, (_, output): Channel => {
    const [geometry, axis] = [Math.floor(output / 3), output % 3];
    const own = rows.flatMap((row, k) => {
      const lab = row.labs[geometry];
      return lab ? [{ k, read: lab[axis]!, eps: noiseAt(card.noise, geometry, lab[0]) }] : [];
    });
    return { output, rows: own.map((r) => r.k), read: own.map((r) => r.read), eps: own.map((r) => r.eps) };
  }).filter((c) => c.rows.length);
  return { rows, channels };
}

/** The card with the readings of two neighbouring rungs exchanged. */
function exchanged(card: CardReadings, low: number, high: number): CardReadings {
  const labsOf = (coats: number) => card.rungs.find((r) => r.coats === coats)!.labs;
  return {
    ...card,
    rungs: card.rungs.map((r) =>
      r.coats === low ? { ...r, labs: labsOf(high) } : r.coats === high ? { ...r, labs: labsOf(low) } : r,
    ),
  };
}

/** A rung no reading of which belongs to the card scatters about its ladder by this much on each axis, Lab units. */
const WRONG_RUNG_SD = 6;
/** Chance that a rung is wrong before it is looked at. */
const WRONG_RUNG_ODDS = Math.log(0.02);

/**
 * Fits a card: maximum a posteriori of the ladder's variations, the hand, every coat's film and every rung's spot, under a smooth
 * stray of the readings from the model. Neighbouring rungs are tried exchanged, and each rung is tried as wrong.
 * @param first the ladder tabulated at what is believed, kept between cards of one recipe. @param hand film of the hand before the card
 */
export function fitCard(of: LadderOf, card: CardReadings, first: LadderTable, hand: HandFilm = USUAL_HAND): CardFit {
  const variations = first.believed;
  const counts = (c: CardReadings) => c.rungs.filter((r) => r.labs.some(Boolean)).map((r) => r.coats);
  const film = createCardFilm(Math.max(1, ...counts(card)));
  const problemOf = (c: CardReadings, table: LadderTable): Problem => ({
    table,
    film,
    hand,
    ...dataOf(c, table.outputs),
  });
  const from = (p: Problem) => new Float64Array(unknowns(p));

  let problem = problemOf(card, first);
  let weights: readonly Weight[] = weigh(problem, 1);
  let found = descend(problem, weights, from(problem));
  const swapped: [number, number][] = [];
  let exchange: ExchangeTried | null = null;
  const ladder = counts(card).sort((a, b) => a - b);
  if (ladder.length > 2 || (ladder.length === 2 && problem.rows.some((r) => r.coats === 0))) {
    const tries = ladder.slice(1).map((high, k): ExchangeTried => {
      const other = exchanged(card, ladder[k]!, high);
      const p = problemOf(other, first);
      const w = weigh(p, 1);
      return { low: ladder[k]!, high, p, w, fit: descend(p, w, from(p)) };
    });
    const best = tries.reduce((a, b) => (b.fit.cost < a.fit.cost ? b : a));
    if (found.cost - best.fit.cost > EXCHANGE_GAIN) exchange = best;
  }
  const doubtful: number[] = [];
  const wrong = ladder.length > 2 ? wrongRung(card, problemOf, first) : null;
  const asItIs = strayed(problem, weights, found);
  // Whichever explains the card best: as it is, a model that strays further, two rungs exchanged, or one that is wrong.
  if (wrong && wrong.score > Math.max(asItIs.score, exchange ? exchange.fit.evidence + EXCHANGE_ODDS : -Infinity)) {
    doubtful.push(wrong.coats);
    [problem, weights, found] = [wrong.problem, wrong.weights, wrong.fit];
  } else if (exchange) {
    swapped.push([exchange.low, exchange.high]);
    [problem, weights, found] = [exchange.p, exchange.w, exchange.fit];
  }
  const settled = doubtful.length || swapped.length ? strayed(problem, weights, found) : asItIs;
  ({ weights, fit: found } = settled);
  if (problem.channels.length) {
    // Once more where it landed: the film model is not straight over two standard deviations.
    const table = tabulateLadder(of, variations, Array.from(found.z.slice(0, variations.length)));
    problem = { ...problem, table };
    found = descend(problem, weights, found.z);
  }
  const data = problem.channels.reduce((s, c) => s + c.rows.length, 0);
  return {
    table: problem.table,
    film,
    hand,
    z: found.z,
    precision: found.precision,
    rows: problem.rows,
    channels: problem.channels,
    weights,
    lambda: settled.lambda,
    chi: data ? (2 * found.cost) / data : 0,
    data,
    swapped,
    doubtful,
  };
}

/** The rung that is wrong if one is: the rest fitted without it, and how likely that is with it read from anywhere. */
function wrongRung(
  card: CardReadings,
  problemOf: (card: CardReadings, table: LadderTable) => Problem,
  table: LadderTable,
) {
  const size = new Float64Array(table.outputs);
  const tries = card.rungs
    .filter((r) => r.labs.some(Boolean))
    .map((rung) => {
      const rest = { ...card, rungs: card.rungs.filter((r) => r !== rung) };
      const problem = problemOf(rest, table);
      const weights = weigh(problem, 1);
      const fit = descend(problem, weights, new Float64Array(unknowns(problem)));
      // What is read there as if it came from anywhere about the ladder.
      readLadder(table, rowFilm(problem, rung.coats, -1, fit.z), fit.z, size);
      let anywhere = 0;
      rung.labs.forEach((lab, g) => {
        if (!lab) return;
        for (const c of [0, 1, 2] as const) {
          const off = lab[c] - size[3 * g + c]!;
          anywhere -= 0.5 * (off / WRONG_RUNG_SD) ** 2 + Math.log(WRONG_RUNG_SD);
        }
      });
      // The fewer unknowns of the rest stand in its evidence already.
      return { coats: rung.coats, problem, weights, fit, score: fit.evidence + anywhere + WRONG_RUNG_ODDS };
    });
  return tries.reduce((a, b) => (b.score > a.score ? b : a));
}
