import type { Lab } from '../colour/lab';
import { createCardFilm, USUAL_HAND, type HandFilm } from './cardFilm';
import {
  type CardFit,
  type CardReadings,
  type Channel,
  descend,
  type Problem,
  type Row,
  rowFilm,
  unknowns,
  weigh,
  type Weight,
} from './fitProblem';
import { readLadder, tabulateLadder, type LadderOf, type LadderTable } from './ladderTable';
import { noiseAt } from './readings';

/** Larger strays that are tried where the evidence asks for it. */
const STRAY_TRIED = [2, 4, 8] as const;
const STRAY_ODDS = 3;
/** How much better (in half squares) two rungs have to fit the other way round: prior odds of 3 in 100. */
const EXCHANGE_GAIN = 5;
const EXCHANGE_ODDS = Math.log(0.03);
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
