import type { CurtainSaid } from '@steady-gleam/contracts';
import { sayCoats } from '../../shared/jobModel';

type Ended = CurtainSaid['objects'][number];

const ENDED: Readonly<Record<Ended['end'], string>> = {
  in: 'inside',
  over: 'over',
  short: 'short',
  near: 'as near as can be',
};
export const sayEnd = (end: Ended['end']): string => ENDED[end];

/** Film in words: counts of a nominal hand, one place. */
export const sayFilm = (film: number): string => film.toFixed(2);

/** The page's sentence, and its reason. */
export function sayCurtain({ objects, window, hand, nominal, best }: CurtainSaid): { answer: string; why: string } {
  const [first] = objects;
  const on = first?.film ?? 0;
  const answer =
    on <= 0
      ? 'Nothing was sprayed, so there is nothing behind the curtain but the paint.'
      : first!.end === 'in'
        ? 'It matches: every angle passes.'
        : first!.end === 'near'
          ? 'It is as near as this ground and mix can come.'
          : first!.end === 'over'
            ? 'It went over: too much film is on.'
            : 'It stopped short: a little film is missing.';
  const wide = window
    ? `From ${sayFilm(window[0])} to ${sayFilm(window[1])} nominal coats of film every angle passes`
    : `No film of this pick passes at every angle; ${sayFilm(best)} nominal coats come nearest`;
  const counted = `${sayCoats(nominal.coats)} coats, as picked and never looked at, would have laid ${sayFilm(nominal.film)}: ${sayEnd(nominal.end)}`;
  return {
    answer,
    why: `Your hidden hand lays ${hand.toFixed(2)} of a nominal coat.${on > 0 ? ` ${sayFilm(on)} nominal coats are on.` : ''} ${wide}. ${counted}.`,
  };
}

/** Where films stand on the picture's axis, from 0 to a little more than the most of them. */
export function axisOf({ objects, window, nominal, best }: CurtainSaid): number {
  const most = Math.max(best, nominal.film, window?.[1] ?? 0, ...objects.map((o) => o.film));
  return Math.ceil((most + 0.4) * 2) / 2;
}
