import type { Gun } from '../products/guns';
import type { StyleId } from '../finishes/styles';
import { filmOfSettings, type GunSettings } from './gunFilm';

/** How the effect coats are laid: one record for card, plan, booth and papers. Null is what was not said. */
export interface SetUp {
  readonly gun: string;
  readonly tipMm: number | null;
  readonly pressureBar: number | null;
  readonly distanceCm: number | null;
  /** Of two passes, fraction. */
  readonly overlap: number | null;
  /** Of the fluid needle. */
  readonly turns: number | null;
}

/** What of a set-up is a figure. */
export type SetUpFigure = Exclude<keyof SetUp, 'gun'>;
const FIGURES: readonly SetUpFigure[] = ['distanceCm', 'pressureBar', 'tipMm', 'overlap', 'turns'];

/** The set-up a card was sprayed with. */
export const setUpOf = (card: {
  readonly gun: string;
  readonly pressureBar: number;
  readonly settings: Readonly<Partial<Record<Exclude<SetUpFigure, 'pressureBar'>, number | null | undefined>>>;
}): SetUp => ({
  gun: card.gun,
  pressureBar: card.pressureBar,
  distanceCm: card.settings.distanceCm ?? null,
  tipMm: card.settings.tipMm ?? null,
  overlap: card.settings.overlap ?? null,
  turns: card.settings.turns ?? null,
});

/** Where the plan's set-up is not the card's. */
export interface SetUpDifference {
  readonly what: 'gun' | SetUpFigure;
  /** Metric, a fraction for the overlap, or the gun's name. */
  readonly card: number | string;
  readonly plan: number | string;
  /** Film a coat lays as planned against the same coat as on the card, fraction; null where that is not known. */
  readonly lays: number | null;
}

/** A set-up this near to another is the same: 10 %, ours. */
const SAME_WITHIN = 0.1;

/**
 * What a coat is laid otherwise than on the card: its count may not hold then.
 * @param coat a full coat of the mix the card is of, as planned
 */
export function setUpDifferences(
  card: SetUp,
  gun: Gun,
  coat: GunSettings & { readonly style: StyleId; readonly volumeSolids: number },
): SetUpDifference[] {
  const film = (more: Partial<GunSettings>) => filmOfSettings(gun, { ...coat, ...more }, coat.volumeSolids);
  const differences: SetUpDifference[] = [];
  if (card.gun !== gun.name) differences.push({ what: 'gun', card: card.gun, plan: gun.name, lays: null });
  for (const what of FIGURES) {
    const [here, there] = [coat[what], card[what]];
    // A light coat is laid from further away by rule: the card's own distance is not the coat's.
    if (there === null || (what === 'distanceCm' && coat.style === 'light')) continue;
    if (Math.abs(here / there - 1) > SAME_WITHIN)
      differences.push({ what, card: there, plan: here, lays: film({}) / film({ [what]: there }) });
  }
  return differences;
}
