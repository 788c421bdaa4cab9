import type { Hand } from '@steady-gleam/core/finishes';
import type { Assessment, HandParameter } from '@steady-gleam/core/letdown';
import { countCoats, sayCoats } from '../../shared/jobModel';

const percent = (v: number) => `${Math.round(Math.abs(v - 1) * 100)} %`;

/** Nearer than this to a nominal coat a hand is told as nominal; ours. */
const NOMINAL_WITHIN = 0.03;
export const isNominal = (film: number): boolean => Math.abs(film - 1) < NOMINAL_WITHIN;

/** The hand in plain words, or null when nothing stands out. */
export function sayHand(hand: Hand, free: readonly HandParameter[]): string {
  const parts: string[] = [];
  const film = isNominal(hand.film)
    ? 'You lay a nominal coat'
    : `You lay ${percent(hand.film)} ${hand.film > 1 ? 'more' : 'less'} than a nominal coat`;
  parts.push(film);
  if (free.includes('spread') && Math.abs(hand.spread - 1) > 0.03)
    parts.push(`the pearl lies ${hand.spread < 1 ? 'flatter' : 'less flat'} than usual`);
  return parts.join('; ');
}

/** The sentence that answers the let-down card. */
export function sayCard(a: Assessment): { answer: string; why: string } {
  const { stop, nominal, advice, calibration } = a;
  const best = a.best;
  if (!stop.window) {
    const [from, to] = a.aim.counts;
    const closest =
      from < to ? `${from.toFixed(1)} to ${to.toFixed(1)} come closest` : `${best.toFixed(1)} comes closest`;
    return {
      answer: `No count passes at every angle; closest is ${best.toFixed(1)}. ${advice.spray > 0 ? `Spray ${sayCoats(advice.spray)}, then look.` : 'Let the mix down first.'}`,
      why: `${calibration ? `Your card is read: ${closest}` : `Not your hand yet: ${closest}, nominal`}, ${stop.best.rmsDe.toFixed(1)} dE00 off over all angles. What would open a window: another ground or strength on the match map, a nudge of the mix, or a blend in place of edge to edge.`,
    };
  }
  const [lo, hi] = stop.window;
  const window = stop.closes
    ? `The window runs from ${lo.toFixed(1)} to ${hi.toFixed(1)}.`
    : `The window opens at ${lo.toFixed(1)}.`;
  if (!calibration) {
    return {
      answer:
        advice.spray > 0
          ? `Not your hand yet: ${best.toFixed(1)} coats, nominal. Spray ${sayCoats(advice.spray)}, then look.`
          : `Not your hand yet: ${best.toFixed(1)} coats, nominal. Spray the card first.`,
      why: `${window} Painters differ by a fifth and more in what they lay. Spray the card as you will spray the job, read its rungs, and this becomes yours.`,
    };
  }
  const said = sayHand(calibration.hand, calibration.free);
  const moved = stop.best.coats - nominal.best.coats;
  const change =
    Math.abs(moved) < 0.1
      ? 'so the count stays where nominal put it'
      : `so it takes ${Math.abs(moved).toFixed(1)} ${moved < 0 ? 'fewer' : 'more'} than nominal said`;
  const after =
    advice.left < 0.2
      ? ''
      : advice.left <= 0.65
        ? ' A half coat after that is the likely finish.'
        : ` About ${advice.left.toFixed(1)} will be left.`;
  return {
    answer:
      advice.spray > 0
        ? `Your card says ${best.toFixed(1)}. Spray ${sayCoats(advice.spray)}, then look.`
        : `Your card says ${best.toFixed(1)}. Even half a coat may be too much: thin the mix.`,
    why: `${said}, ${change}. ${window}${after}`,
  };
}

export function sayMisread(rungs: readonly number[]): string | null {
  if (!rungs.length) return null;
  const list = rungs.map((n) => countCoats(n)).join(' and ');
  return `The rung with ${list} does not fit the others and was left out. Read it again: wet, the wrong rung, or a slip of the instrument.`;
}
