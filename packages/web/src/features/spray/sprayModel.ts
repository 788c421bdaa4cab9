import { capital } from '../../shared/capital';
import { isUnsure, liveAdvice, type CardSaid, type LiveState, type SpotState } from '@steady-gleam/core/letdown';
import { sayCoats } from '../../shared/jobModel';

const ZONES: Record<SpotState['zone'], string> = {
  short: 'short',
  matched: 'matches',
  over: 'over',
  unlike: 'too light from one side, too dark from another',
  again: 'not looked at since the last coat',
};

/** A spot in a line: where it stands and what may still be done there. */
export function saySpot(s: SpotState): string {
  const stands = `${ZONES[s.zone]}: like ${s.film.toFixed(1)} coats`;
  switch (s.zone) {
    case 'over':
      return `${stands}. Nothing sprayed on takes that back: re-ground to a break, or richen what lies beside it.`;
    case 'unlike':
      return `${stands}. No coat mends both: look at how the flakes lie before anything goes on.`;
    case 'again':
      return `${stands}. Look there before anything else.`;
    case 'matched':
      return `${stands}; leave it.`;
    case 'short':
      return s.spray > 0
        ? `${stands}; ${sayAmount(s.spray)} more.`
        : isUnsure(s)
          ? `${stands}; that is too unsure to lay on. Look from another place, or read it.`
          : `${stands}; less is missing than can be laid.`;
  }
}

const names = (spots: readonly SpotState[]): string =>
  spots.length > 1
    ? `${spots
        .slice(0, -1)
        .map((s) => s.spot)
        .join(', ')} and ${spots.at(-1)!.spot}`
    : (spots[0]?.spot ?? '');
/** What is laid for an amount in tenths of a coat, as a hand can do it. */
export interface Layable {
  readonly said: string;
  /** Coats of the mix as it stands in the cup. */
  readonly coats: number;
  /** Laid as this many coats of the mix let down 1:1; null where it is laid as it is. */
  readonly letDown: number | null;
}

/** A tenth can't be laid evenly of the mix as it is: a quarter coat of the mix let down 1:1 is about that much. */
export function layable(tenths: number): Layable {
  if (tenths < 0.2) return { said: 'a quarter coat of the mix let down 1:1', coats: 0.125, letDown: 0.25 };
  if (tenths < 0.45) return { said: 'a mist coat', coats: 0.25, letDown: null };
  if (tenths < 0.65) return { said: 'half a coat', coats: 0.5, letDown: null };
  if (tenths < 0.95) return { said: 'three quarters of a coat', coats: 0.75, letDown: null };
  const coats = Math.max(1, Math.floor(tenths * 4 + 1e-6) / 4);
  return { said: coats === 1 ? 'a coat' : `${sayCoats(coats)} coats`, coats, letDown: null };
}

const sayAmount = (tenths: number): string => layable(tenths).said;

/** How the advised amount may end, in words. */
function chancesSaid(on: readonly SpotState[]): string {
  const over = Math.max(0, ...on.map((s) => s.chances?.over ?? 0));
  const within = Math.min(1, ...on.map((s) => s.chances?.in ?? 1));
  return `It ends inside in ${Math.round(within * 10)} of ten, over in ${Math.round(over * 100)} of a hundred.`;
}

/**
 * What to do now, in one sentence and its reason; from the worst spot first.
 * @param first coats to spray before the first look
 */
export function sayLive(
  state: LiveState,
  sprayed: number,
  first: number,
  { best, window: { inside } }: Pick<CardSaid, 'best' | 'window'>,
): { answer: string; why: string } {
  const card = inside
    ? `The card says ${best.toFixed(1)}.`
    : `No count passes at every angle; ${best.toFixed(1)} comes closest.`;
  if (!state.spots.length) {
    if (first <= 0)
      return { answer: 'Even a mist coat may be too much.', why: 'Let the mix down, and spray another card.' };
    if (sprayed <= 0)
      return {
        answer: `Spray ${sayCoats(first)}, then look.`,
        why: `${card} One coat is always needed, so it can go on before you are sure.`,
      };
    const more = first - sprayed;
    // A quarter more is not worth a round of its own before the look.
    return more >= 0.5
      ? { answer: `Spray ${sayCoats(more)} more, then look.`, why: `${card} Look after ${sayCoats(first)}.` }
      : { answer: 'Look before the next coat.', why: `${card} What is on decides what follows, not the count.` };
  }
  const percent = Math.round((state.session - 1) * 100);
  const than =
    percent === 0
      ? 'as much as on the card'
      : `${Math.abs(percent)} % ${percent > 0 ? 'more' : 'less'} than on the card`;
  const hand = `You are laying ${than}, give or take ${Math.round(state.sessionSd * 100)} %.`;
  const { kind, amount, on, keepOff } = liveAdvice(state);
  const over = state.spots.filter((s) => s.zone === 'over');
  const missing = on.length ? `About ${Math.max(...on.map((s) => s.left)).toFixed(1)} is missing there.` : '';
  const lay = `${sayAmount(amount).replace(/^a /, '')} on ${names(on)} only, then look`;
  switch (kind) {
    case 'over':
      return over.length === state.spots.length
        ? {
            answer: 'Stop. It is over the window.',
            why: 'Nothing sprayed on takes that back: re-ground to a break, or richen the neighbours if they are yours.',
          }
        : {
            answer: `${capital(names(over))} ${over.length > 1 ? 'are' : 'is'} over: stop there.${on.length ? ` A faded ${lay}.` : ''}`,
            why: `Nothing sprayed on takes ${names(over)} back: re-ground to a break, or richen what lies beside it. ${missing}`.trim(),
          };
    case 'look':
      return {
        answer: `Look at ${names(state.spots.filter((s) => s.zone === 'again'))} again before the next coat.`,
        why: `Coats went on since. ${hand}`,
      };
    case 'coat':
      return {
        answer: `${capital(sayAmount(amount))} more, then look.`,
        why: `${hand} ${missing.replace(' there', '')} ${chancesSaid(on)} What is too much can’t be taken back.`,
      };
    case 'faded':
      return {
        answer: `A faded ${lay}.`,
        why: `${missing} Keep off ${names(keepOff)}: point the gun away from ${keepOff.length > 1 ? 'them' : 'it'}.`,
      };
    case 'unlike':
      return {
        answer: 'Stop and look at how it lies.',
        why: `${capital(names(state.spots.filter((s) => s.zone === 'unlike')))}: too light from one side and too dark from another, which no coat mends. A control coat from further away lifts the face and darkens the flop; try it on the card first.`,
      };
    case 'unsure':
      return {
        answer: `Look at ${names(state.spots.filter(isUnsure))} from another place before the next coat.`,
        why: `Something is missing there, but what was seen is too unsure: another coat may well go over. A second light, or a reading, settles it.`,
      };
    case 'rest':
      return {
        answer: 'Stop here: less is missing than can be laid.',
        why: `${hand} Even a quarter coat of the mix let down 1:1 would risk going over.`,
      };
    case 'there':
      return {
        answer: 'Stop. It is there.',
        why: `${hand} Check it in a second light before clear; a coat too many can’t be taken back.`,
      };
  }
}

/**
 * Coats the advice comes to at a look: what is left to the first stop while nothing was looked at, then what the look says; 0 is
 * enough, null where nothing may go on before it was looked at again, or from another place.
 * @param first coats the card lets go on before the first look; null while it has not spoken, then a coat is as planned
 */
export function advisedAmount(state: LiveState | null, sprayed: number, first: number | null): number | null {
  if (!state || first === null) return 1;
  if (!state.spots.length) return first - sprayed >= 0.5 ? first - sprayed : null;
  const { kind, amount } = liveAdvice(state);
  switch (kind) {
    case 'coat':
    case 'faded':
      return amount;
    case 'over':
    case 'rest':
    case 'there':
      return 0;
    default:
      return null;
  }
}

/** A whole coat is meant from here on. */
const WHOLE = 0.95;

/** Which of the ways on that is: another full coat, less than one in its place, or none; null for none of them. */
export function whatFollows(amount: number | null): 'one' | 'less' | 'enough' | null {
  return amount === null ? null : amount >= WHOLE ? 'one' : amount > 0 ? 'less' : 'enough';
}
