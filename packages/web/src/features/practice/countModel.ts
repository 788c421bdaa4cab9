import { countOutcome, type CountRound } from '@steady-gleam/core/practice';
import { sayCoats } from '../../shared/jobModel';

/** "1½ coats". */
export const coatsOf = (n: number): string => `${sayCoats(n)} ${n > 1 ? 'coats' : 'coat'}`;

const coats = (n: number) => Number(n.toFixed(2)).toString();
const AFTER = {
  inside: 'inside the window',
  short: 'short of it',
  over: 'past it',
} as const;

/** What is said of a card: before the stop what to look for, after it the truth and what the program would have said. */
export function sayRound(
  round: CountRound,
  at: { readonly rung: number; readonly said: number | null; readonly advice: number | null; readonly mix: string },
): { readonly answer: string; readonly why: string } {
  if (at.said === null)
    return {
      answer: `${coatsOf(at.rung)} of ${at.mix}: lighter than what is wanted, there, or darker?`,
      why: 'Look at face, 45° and flop, in both lights. A coat too few can follow; a coat too many stays.',
    };
  const [from, to] = round.window;
  const program =
    at.advice === null
      ? 'The program, from the rungs you saw: …'
      : `The program, from the rungs you saw, would have stopped at ${coats(at.advice)}: ${AFTER[countOutcome(round, at.advice)]}.`;
  return {
    answer: `You stopped at ${coats(at.said)}: ${AFTER[countOutcome(round, at.said)]}.`,
    why: `Every angle passes from ${coats(from)} to ${coats(to)} coats, ${coats(round.best)} is nearest. ${program}`,
  };
}

/** The cards that were stopped in their window, of those on this device. */
export const sayScore = (scores: readonly number[]): string =>
  scores.length ? `Stopped inside: ${scores.reduce((s, v) => s + v, 0)} of the last ${scores.length}.` : '';
