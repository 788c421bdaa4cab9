import {
  fitWord,
  linesBest,
  type Advised,
  type CardSaid,
  type FitSaid,
  type RungReading,
} from '@steady-gleam/core/letdown';
import { countCoats, sayCoats } from '../../shared/jobModel';

const percent = (v: number) => `${Math.round(Math.abs(v - 1) * 100)} %`;

/** Nearer than this to a nominal coat a hand is told as nominal; ours. */
const NOMINAL_WITHIN = 0.03;
export const isNominal = (film: number): boolean => Math.abs(film - 1) < NOMINAL_WITHIN;

/** A figure this much surer than what was believed before is the card's own; else it traded places with another. */
const LEARNED = 0.6;
/** What is believed of flake spread before a card, ln. */
const SPREAD_BEFORE = 0.12;

/** The hand in plain words. @param fit what the card taught. */
export function sayHand({ film, variations }: Pick<FitSaid, 'film' | 'variations'>): string {
  const lays = Math.exp(film.mean);
  const said = isNominal(lays)
    ? 'You lay a nominal coat'
    : `You lay ${percent(lays)} ${lays > 1 ? 'more' : 'less'} than a nominal coat`;
  const spread = variations.find((v) => v.id === 'spread');
  const lies =
    spread && spread.sd < LEARNED * SPREAD_BEFORE && Math.abs(spread.mean) > NOMINAL_WITHIN
      ? `; the flakes lie ${spread.mean < 0 ? 'flatter' : 'less flat'} than usual`
      : '';
  return said + lies;
}

const range = ([lo, hi]: readonly [number, number]): string => `${lo.toFixed(1)}–${hi.toFixed(1)}`;

/** Windows narrower than this share of the count are narrower than a gun's own scatter. */
const NARROW = 0.12;
export const isNarrow = ({ window, best }: Pick<CardSaid, 'window' | 'best'>): boolean =>
  window.inside && window.closes && window.counts[1] - window.counts[0] < NARROW * best;

/** Said before the first coat where no hand can aim at the window, with the ways out. */
export function sayNarrow(card: CardSaid): string | null {
  if (!isNarrow(card)) return null;
  const [lo, hi] = card.window.counts;
  return `The window is ${(hi - lo).toFixed(1)} coats wide, narrower than a gun’s own scatter. Let the mix down 1:1 and lay quarters of it near the end; look under cleared patches, at nine spots; or blend in place of edge to edge.`;
}

/** The two intervals, kept apart: what the card says, and what the piece will need today. */
export const sayIntervals = ({ card90, object90 }: Pick<CardSaid, 'card90' | 'object90'>): string =>
  `The card says ${range(card90)}; on the piece plan for ${range(object90)}.`;

/** How well the rungs lie on their ladder, and what a ruler through them says. */
export function sayFit(card: CardSaid, rows: readonly RungReading[]): string | null {
  const { fit, best } = card;
  const word = fitWord(card);
  if (!fit || !word) return null;
  const lines = linesBest(card, rows);
  const rungs = rows.filter((r) => r.coats > 0 && r.labs.some(Boolean)).length;
  const ruler =
    rungs < 3
      ? ' With so few rungs only the model can say what the next ones look like; another ground or strength it knows as well.'
      : lines === null
        ? ''
        : Math.abs(lines - best) <= 0.15
          ? ' A ruler through your rungs says the same; for another ground or strength only the model can.'
          : ` A ruler through your rungs says ${lines.toFixed(1)}.`;
  switch (word) {
    case 'few':
      return `Too few readings to say how well the card lies on its ladder.${ruler}`;
    case 'good':
      return `Your rungs lie on the ladder within what readings scatter by.${ruler}`;
    case 'fair':
      return `Your rungs lie a little off the ladder: the count may be off by a quarter of a coat.${ruler}`;
    case 'poor':
      return `Your rungs do not lie on the ladder: the count may be off by half a coat, because ${
        fit.lambda >= 4
          ? 'these coats change in a way the model does not know. Trust the rungs next to the count, and spray one more between them'
          : 'they scatter more than spots do. Read them again, three spots each'
      }.${ruler}`;
  }
}

/** The sentence that answers the let-down card. */
export function sayCard(card: CardSaid, advice: Advised): { answer: string; why: string } {
  const { best, nominalBest, fit, window } = card;
  const spray = `Spray ${sayCoats(advice.spray)}, then look.`;
  const [lo, hi] = window.counts;
  if (!window.inside) {
    const closest = `${lo.toFixed(1)} to ${hi.toFixed(1)} come closest`;
    return {
      answer: `No count passes at every angle; closest is ${best.toFixed(1)}. ${spray}`,
      why: `${fit ? `Your card is read: ${closest}` : `Not your hand yet: ${closest}, nominal`}, ${window.ratio.toFixed(1)} times the limit at the worst angle. What would open a window: another ground or strength on the match map, a nudge of the mix, or a blend in place of edge to edge.`,
    };
  }
  const passes = window.closes
    ? `The window runs from ${lo.toFixed(1)} to ${hi.toFixed(1)}.`
    : `The window opens at ${lo.toFixed(1)}.`;
  if (!fit)
    return {
      answer: `Not your hand yet: ${best.toFixed(1)} coats, nominal. ${spray}`,
      why: `${passes} Painters differ by a fifth and more in what they lay: plan for ${range(card.object90)}. Spray the card as you will spray the job, read its rungs, and this becomes yours.`,
    };
  const moved = best - nominalBest;
  const change =
    Math.abs(moved) < 0.1
      ? 'so the count stays where nominal put it'
      : `so it takes ${Math.abs(moved).toFixed(1)} ${moved < 0 ? 'fewer' : 'more'} than nominal said`;
  return {
    answer: `Your card says ${best.toFixed(1)}. ${spray}`,
    why: `${sayHand(fit)}, ${change}. ${passes} ${sayIntervals(card)}`,
  };
}

/** Rungs that do not belong to the others, and what to do. */
export function sayDoubtful({ fit }: { readonly fit: Pick<FitSaid, 'doubtful'> | null }): string | null {
  if (!fit?.doubtful.length) return null;
  const list = fit.doubtful.map((n) => countCoats(n)).join(' and ');
  return `The rung with ${list} does not belong to the others, which agree without it: it is left out. Read it again: wet, another rung, or a slip of the instrument.`;
}

/** Rungs that changed places, and what was done about it. */
export function saySwapped({ fit }: { readonly fit: Pick<FitSaid, 'swapped'> | null }): string | null {
  const [pair] = fit?.swapped ?? [];
  if (!pair) return null;
  return `It looks as if the rungs of ${countCoats(pair[0])} and ${countCoats(pair[1])} changed places. The count is worked out with them put right; look at the marks on the card and correct what is wrong.`;
}
