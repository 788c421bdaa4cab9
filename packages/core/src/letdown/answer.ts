import type { Lab } from '../colour/lab';
import { cardSd, nominalTable, readCard, type CardSaid } from './advise';
import { bestCount, coloursOf, type TargetRead } from './bestCount';
import { cardByEye, ladderOfAnyHand, withEye } from './byEye';
import { USUAL_HAND } from './cardFilm';
import { countByEye, unknownLadders, type EyePosterior } from './eye';
import type { EyeRead } from './eyeSight';
import { USUAL_CUTS, type EyeCuts, type RungVerdict } from './eyeWords';
import type { HandBelieved } from './fitProblem';
import type { LadderOf, LadderTable } from './ladderTable';
import { linesAt, type RungReading } from './readings';
import { FIVE_ANGLES } from '../optics/geometry';
import { differenceNoise, windowCurve } from './window';

/** All that is known of a card, by instrument and by eye. */
export interface CardAsk {
  /** Null where nothing was read. */
  readonly target: TargetRead | null;
  readonly bare: readonly (Lab | null)[] | null;
  readonly rungs: readonly RungReading[];
  readonly verdicts: readonly RungVerdict[];
  readonly handHeld: boolean;
  /** Differences at which this painter's eye says so. */
  readonly cuts?: EyeCuts;
  /** See {@link EyeRead}: of a coat of the recipe. */
  readonly cover?: number;
  readonly believed: HandBelieved;
}

/** What a card says of the count, by readings, by eye, or both. */
export interface CardAnswer {
  readonly card: CardSaid;
  /** What verdicts alone and with the readings say; null without any. */
  readonly eye: EyePosterior | null;
  /** What verdicts are read through, on the card and later on the job. */
  readonly read: EyeRead;
}

/**
 * Reads all there is of a card.
 * @param of the ladder of its recipe, at the target's angles or the usual five; null where nothing is picked, so that no model can
 * be run. @returns null when there is nothing to go by
 */
export function answerCard(of: LadderOf | null, ask: CardAsk, nominal?: LadderTable): CardAnswer | null {
  const { target, bare, rungs, verdicts, handHeld, believed } = ask;
  const cuts = ask.cuts ?? USUAL_CUTS;
  const told = { handHeld, cuts, ...(ask.cover === undefined ? {} : { cover: ask.cover }) };
  if (target && of) {
    const table = nominal ?? nominalTable(of, believed);
    const card = readCard(
      of,
      target,
      { bare, rungs, noise: target.noise },
      { believed, nominal: table, handHeld, proposes: true },
    );
    const read: EyeRead = {
      ladders: card.fit ? [{ ladder: card.ladder, weight: 1 }] : ladderOfAnyHand(table, believed.film ?? USUAL_HAND),
      aspecular: target.angles.map((a) => a.aspecular),
      ...told,
    };
    if (!verdicts.length) return { card, eye: null, read };
    const eye = countByEye(verdicts, read, { mean: card.best, sd: Math.max(0.05, cardSd(card)) });
    return { card: withEye(card, eye), eye, read };
  }
  if (!verdicts.length) return null;
  const read: EyeRead = {
    ladders: of
      ? ladderOfAnyHand(nominal ?? nominalTable(of, believed), believed.film ?? USUAL_HAND)
      : unknownLadders(FIVE_ANGLES.length),
    aspecular: FIVE_ANGLES.map((a) => a.aspecular),
    ...told,
  };
  const eye = countByEye(verdicts, read);
  return { card: cardByEye(eye, read.ladders[0]!.ladder, FIVE_ANGLES), eye, read };
}

/** How far off every count of a card is, over its tolerances, noise taken out. */
export const cardCurve = (card: CardSaid) =>
  windowCurve(coloursOf(card.ladder), card.best, card.sought, differenceNoise(card.sought));

/** How a card lies on its ladder. `few`: too few readings to say. */
export type FitWord = 'few' | 'good' | 'fair' | 'poor';
/** Readings below which nothing is said of a fit; and chi (1 is what readings scatter by) from which it is fair, and poor. Ours. */
const [FEW_READINGS, FAIR_CHI, POOR_CHI] = [12, 1.3, 2] as const;
export function fitWord({ fit }: Pick<CardSaid, 'fit'>): FitWord | null {
  if (!fit) return null;
  if (fit.data < FEW_READINGS) return 'few';
  if (fit.lambda >= 4 || fit.chi > POOR_CHI) return 'poor';
  return fit.lambda >= 2 || fit.chi > FAIR_CHI ? 'fair' : 'good';
}

/** What a ruler through the rungs says of the count; null with fewer than three of them. @param rows rungs, and the bare ground as 0 */
export function linesBest(card: CardSaid, rows: readonly RungReading[]): number | null {
  const full = rows.filter((r) => r.labs.every(Boolean)).sort((a, b) => a.coats - b.coats);
  if (full.filter((r) => r.coats > 0).length < 3) return null;
  const colours = (n: number) => linesAt(full, n).flat();
  return bestCount(colours, card.sought, null, [full[0]!.coats, full.at(-1)!.coats]);
}
