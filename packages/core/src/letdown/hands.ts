import type { FitSaid } from './advise';
import { EDGE_BUILD, USUAL_HAND } from './cardFilm';
import type { HandBelieved } from './fitProblem';
import type { HandParameter } from './handParameters';
import type { VariationId } from './variation';

/** What goes with the painter; hue and ground go with the pot, so they start afresh. */
const OF_THE_HAND = ['flake', 'spread', 'edge'] as const satisfies readonly VariationId[];

/** What a card said of a hand, as it is kept for the next one: logarithms. */
export interface KnownHand {
  readonly mean: Readonly<Partial<Record<HandParameter, number>>>;
  readonly sd: Readonly<Partial<Record<HandParameter, number>>>;
}

/** How much painters differ from themselves between cards, ln. Common practice (no source). */
const BETWEEN_CARDS = { film: 0.08, flake: 0.1, spread: 0.08, edge: 0.2 } as const;
/** What is believed of a painter nobody knows, ln. */
const UNKNOWN = { film: USUAL_HAND.sd, flake: 0.15, spread: 0.12, edge: 0.3 } as const;

/**
 * What earlier cards with the same gun and style say: the precision-weighted mean, drawn to the usual hand; its doubt is what the
 * cards leave, and what hands differ by from card to card.
 */
export function handFromCards(cards: readonly KnownHand[]): HandBelieved {
  const of = (name: keyof typeof BETWEEN_CARDS): { mean: number; sd: number } | null => {
    const known = cards.filter((c) => c.mean[name] !== undefined && (c.sd[name] ?? 0) > 0);
    if (!known.length) return null;
    const weights = known.map((c) => 1 / (c.sd[name]! ** 2 + BETWEEN_CARDS[name] ** 2));
    const total = weights.reduce((s, w) => s + w, 0) + 1 / UNKNOWN[name] ** 2;
    return {
      mean: known.reduce((s, c, i) => s + c.mean[name]! * weights[i]!, 0) / total,
      sd: Math.min(UNKNOWN[name], Math.hypot(1 / Math.sqrt(total), BETWEEN_CARDS[name])),
    };
  };
  const film = of('film');
  return {
    ...(film ? { film: { mean: EDGE_BUILD + film.mean, sd: film.sd } } : {}),
    variations: Object.fromEntries(
      OF_THE_HAND.flatMap((name) => {
        const known = of(name);
        return known ? [[name, known]] : [];
      }),
    ),
  };
}

/** Film of the hand as earlier cards have it, against nominal, ln; null without any. */
export function believedFilm(cards: readonly KnownHand[]): FitSaid['film'] | null {
  const { film } = handFromCards(cards);
  return film ? { mean: film.mean - EDGE_BUILD, sd: film.sd } : null;
}

/** What a card teaches of the hand that sprayed it. */
export function knownHandOf(fit: FitSaid): KnownHand {
  const learned = [
    ['film', fit.film] as const,
    ...OF_THE_HAND.flatMap((id) => {
      const v = fit.variations.find((x) => x.id === id);
      return v ? [[id, v] as const] : [];
    }),
  ];
  return {
    mean: Object.fromEntries(learned.map(([id, v]) => [id, v.mean])),
    sd: Object.fromEntries(learned.map(([id, v]) => [id, v.sd])),
  };
}
