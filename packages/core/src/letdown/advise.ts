import type { Lab } from '../colour/lab';
import { quantile } from '../numeric/linear';
import { createRandom, normal } from '../numeric/random';
import { bestCount, coloursOf, seekTarget, type TargetRead, type TargetSought } from './bestCount';
import { EDGE_BUILD } from './cardFilm';
import { fitCard } from './fit';
import { type CardFit } from './fitProblem';
import { type CardReadings, type HandBelieved } from './fitProblem';
import { fittedLadder, labsAt, plainLadder, toLabs, type Ladder } from './fittedLadder';
import { tabulateLadder, type LadderOf, type LadderTable } from './ladderTable';
import { nextRung } from './nextRung';
import { sayLook, wantedFrom, type Look, type LookSays } from './looks';
import { amountChances, firstChances, firstStop, nextAmount, objectFactor, type Chances, type Wanted } from './rule';
import { bestDeviations } from './sampling';
import { believedOf, type VariationId } from './variation';
import { countWindow, differenceNoise, type CountWindow } from './window';

/** How a card lies on its ladder, and what it says of the hand. Figures only; nothing of it is asked again. */
export interface FitSaid {
  /** Readings used: rungs and bare ground, axes and angles. */
  readonly data: number;
  /** About 1 for a card that lies on its ladder. */
  readonly chi: number;
  /** How much further than usual readings stray from the model: 1, 2, 4 or 8. */
  readonly lambda: number;
  readonly swapped: readonly (readonly [number, number])[];
  readonly doubtful: readonly number[];
  /** Film of this hand on this card against nominal, the build of edges taken out, ln; with its standard deviation. */
  readonly film: { readonly mean: number; readonly sd: number };
  readonly variations: readonly { readonly id: VariationId; readonly mean: number; readonly sd: number }[];
}

/** What a card says of its ladder and of the count: plain data, so that looks can be read against it anywhere. */
export interface CardSaid {
  /** Null while nothing of the card was read. */
  readonly fit: FitSaid | null;
  readonly ladder: Ladder;
  /** The ladder of the nominal hand, and its best count. */
  readonly nominal: Ladder;
  readonly nominalBest: number;
  readonly sought: TargetSought;
  /** Count as this card tells it. */
  readonly best: number;
  /** How far best counts drawn from what the card leaves open lie from it, ascending. */
  readonly deviations: readonly number[];
  /** Nine in ten: of the card, and of what the object will need today. */
  readonly card90: readonly [number, number];
  readonly object90: readonly [number, number];
  readonly window: CountWindow;
  /** Which rung would settle most, and the share of the doubt it would leave; null where none was asked for or helps. */
  readonly nextRung: { readonly coats: number; readonly leaves: number } | null;
}

/** What to do now, and what it rests on. */
export interface Advised {
  readonly best: number;
  readonly object90: readonly [number, number];
  readonly window: readonly [number, number];
  readonly inside: boolean;
  /** Coats to spray, then look: quarters before the first look, tenths after one; 0 is "stop". */
  readonly spray: number;
  readonly chances: Chances;
  /** Coats left from now to the best count. */
  readonly left: number;
}

/** Half-width of nine in ten of a normal distribution. */
const NINE_IN_TEN = 1.645;

const nineInTen = (values: readonly number[]): [number, number] => [quantile(values, 0.05), quantile(values, 0.95)];

/** How a card is read. */
export interface CardOptions {
  /** What earlier cards say of this hand. */
  readonly believed?: HandBelieved;
  /** The ladder tabulated at what is believed, kept between cards of one recipe. */
  readonly nominal?: LadderTable;
  /** Same seed, same answer. */
  readonly seed?: number;
  /** Sprayed in the hand, not on a stand: its count is trusted less. */
  readonly handHeld?: boolean;
  /** Also say which rung would settle most. */
  readonly proposes?: boolean;
}

/** What a card sprayed in the hand adds to the doubt of its count, as a share. Common practice (no source). */
const HAND_HELD_SD = 0.1;

/** Reads a card: fits it, finds the count that matches, how unsure that is, and where to stop. */
export function readCard(of: LadderOf, target: TargetRead, card: CardReadings, options: CardOptions = {}): CardSaid {
  const { believed = {}, seed = 1, handHeld = false } = options;
  const nominal = options.nominal ?? nominalTable(of, believed);
  const sought = seekTarget(target);
  const plain = plainLadder(nominal, Math.exp(EDGE_BUILD));
  const nominalBest = bestCount(coloursOf(plain), { ...sought, covariance: null }, null);
  const fit = fitCard(of, card, nominal, believed.film);
  const ladder = fittedLadder(fit);
  const best = bestCount(coloursOf(ladder), sought, nominalBest);
  const drawn = bestDeviations(fit, sought, best, nominalBest, seed);
  const random = createRandom(seed + 2);
  const deviations = handHeld
    ? drawn.map((d) => d + HAND_HELD_SD * best * normal(random)).sort((a, b) => a - b)
    : drawn;
  const proposed = options.proposes && fit.data ? nextRung(fit, sought, best, nominalBest) : null;
  return {
    fit: fit.data ? fitSaid(fit) : null,
    ladder,
    nominal: plain,
    nominalBest,
    sought,
    best,
    deviations,
    ...intervals(best, deviations, seed),
    window: countWindow(coloursOf(ladder), best, sought, differenceNoise(sought)),
    nextRung: proposed,
  };
}

/** Nine in ten of a card's count and of what an object needs today. */
export function intervals(
  best: number,
  deviations: readonly number[],
  seed: number,
): Pick<CardSaid, 'card90' | 'object90'> {
  const random = createRandom(seed + 1);
  const gauss = () => normal(random);
  const needed = deviations.map(
    (d) => Math.max(0, best + d) * objectFactor(best, [gauss(), gauss(), gauss(), gauss()]),
  );
  const [lo, hi] = nineInTen(deviations);
  return { card90: [Math.max(0, best + lo), best + hi], object90: nineInTen(needed) };
}

/** Figures of a fit: its hand and variations in their own units, with what the card leaves open of them. */
function fitSaid(fit: CardFit): FitSaid {
  const { believed } = fit.table;
  const size = believed.length;
  // Columns of the inverse factor: their squares sum to the variances.
  const variance = (k: number): number => {
    let sum = 0;
    const column = new Float64Array(fit.z.length);
    for (let i = k; i < column.length; i++) {
      let v = i === k ? 1 : 0;
      for (let j = k; j < i; j++) v -= fit.precision[i]![j]! * column[j]!;
      column[i] = v / fit.precision[i]![i]!;
      sum += column[i]! ** 2;
    }
    return sum;
  };
  return {
    data: fit.data,
    chi: fit.chi,
    lambda: fit.lambda,
    swapped: fit.swapped,
    doubtful: fit.doubtful,
    film: {
      mean: fit.hand.mean - EDGE_BUILD + fit.hand.sd * fit.z[size]!,
      sd: fit.hand.sd * Math.sqrt(variance(size)),
    },
    variations: believed.map((b, p) => ({
      id: b.id,
      mean: b.mean + b.sd * fit.z[p]!,
      sd: b.sd * Math.sqrt(variance(p)),
    })),
  };
}

/** The ladder tabulated at what is believed before a card is read; only the recipe, ground and hand tell it. */
export function nominalTable(of: LadderOf, believed: HandBelieved = {}): LadderTable {
  const variations = believedOf(of.ground, of.recipe, believed.variations);
  return tabulateLadder(
    of,
    variations,
    variations.map(() => 0),
  );
}

/** First stop, before anything was looked at. */
export function adviseFirst(card: CardSaid): Advised {
  const { best, object90, window, deviations } = card;
  const spray = firstStop(best, window.counts, window.closes, deviations);
  return {
    best,
    object90,
    window: window.counts,
    inside: window.inside,
    spray,
    chances: firstChances(spray, window.counts, window.closes, deviations),
    left: Math.max(0, best - spray),
  };
}

/** Chances of counts a painter may think of before the first look: half coats to a coat beyond the best, and the one advised. */
export function firstChoices(card: CardSaid): { readonly coats: number; readonly chances: Chances }[] {
  const { spray } = adviseFirst(card);
  const halves = Array.from({ length: 2 * Math.ceil(card.best) + 2 }, (_, i) => (i + 1) / 2);
  return [...new Set([...halves, spray])]
    .filter((n) => n > 0 && n <= Math.ceil(card.best * 2) / 2 + 1)
    .sort((a, b) => a - b)
    .map((coats) => ({ coats, chances: firstChances(coats, card.window.counts, card.window.closes, card.deviations) }));
}

/** Standard deviation of the count a card tells. */
export const cardSd = ({ deviations }: Pick<CardSaid, 'deviations'>): number =>
  Math.sqrt(deviations.reduce((s, d) => s + d * d, 0) / Math.max(1, deviations.length));

/** What looks say of what is wanted; those without any reading say nothing. */
export function sayLooks(card: CardSaid, looks: readonly Look[]): readonly LookSays[] {
  return looks.flatMap((look) => sayLook(card.ladder, card.sought, look) ?? []);
}

/** What is wanted at one place. @param says looks there, oldest first, at least one. @param now coats that are on */
export const wantedAt = (
  card: Pick<CardSaid, 'best' | 'deviations'>,
  says: readonly LookSays[],
  now: number,
  filmSd?: number,
): Wanted => wantedFrom({ best: card.best, sd: cardSd(card) }, says, now, filmSd);

/**
 * After looks at one place.
 * @param says oldest first, at least one. @param now coats that are on. @param looksLeft looks that can still follow
 */
export function adviseAfter(card: CardSaid, says: readonly LookSays[], now: number, looksLeft: number): Advised {
  const wanted = wantedAt(card, says, now);
  const spray = nextAmount(wanted, looksLeft);
  const left = wanted.film / wanted.rate;
  const best = now + left;
  const doubt = (NINE_IN_TEN * wanted.sd) / wanted.rate;
  return {
    best,
    object90: [Math.max(0, best - doubt), best + doubt],
    window: [Math.max(0, best + wanted.window[0] / wanted.rate), best + wanted.window[1] / wanted.rate],
    inside: says.at(-1)!.inside,
    spray,
    chances: amountChances(spray, wanted),
    left,
  };
}

/** Looks a job is planned with; fewer are left after each. */
const PLANNED_LOOKS = 2;
export const looksLeftAfter = (looks: number): number => Math.max(0, PLANNED_LOOKS - looks);

/** Colours a card predicts at counts, one list a count. */
export const predictedLabs = (ladder: Ladder, counts: readonly number[]): Lab[][] =>
  counts.map((n) => toLabs(labsAt(ladder, n)));
