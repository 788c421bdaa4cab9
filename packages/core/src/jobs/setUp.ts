import { filmOfSettings } from '../application/gunFilm';
import type { JobPlan } from './plan';

/** Where the plan's set-up is not the card's. */
export interface SetUpDifference {
  readonly what: 'gun' | 'distance' | 'pressure';
  /** cm or bar, or the gun's name. */
  readonly card: number | string;
  readonly plan: number | string;
  /** Film a coat lays as planned against the same coat as on the card, fraction; null where that is not known. */
  readonly lays: number | null;
}

/** A set-up this near to another is the same: 10 %, ours. */
const SAME_WITHIN = 0.1;

/**
 * What the plan lays otherwise than the card of a mix was sprayed: its count may not hold then.
 * @param systemId mix of the card. @returns nothing where the plan does not lay that mix
 */
export function setUpDifferences(
  card: { readonly gun: string; readonly pressureBar: number; readonly distanceCm: number | null },
  plan: JobPlan,
  systemId: string,
): SetUpDifference[] {
  const coat = plan.cells.find(
    (c) =>
      c.coats > 0 &&
      c.coat.style !== 'control' &&
      plan.layers.some((l) => l.id === c.layerId && l.kind === 'effect' && l.materialId === systemId),
  )?.coat;
  if (!coat) return [];
  const film = (more: Partial<typeof coat>) => filmOfSettings(plan.gun, { ...coat, ...more }, coat.volumeSolids);
  const differences: SetUpDifference[] = [];
  if (card.gun !== plan.gun.name) differences.push({ what: 'gun', card: card.gun, plan: plan.gun.name, lays: null });
  // A light coat is laid from further away by rule: against what the card's own distance makes of it.
  if (card.distanceCm !== null && coat.style !== 'light' && off(coat.distanceCm, card.distanceCm))
    differences.push({
      what: 'distance',
      card: card.distanceCm,
      plan: coat.distanceCm,
      lays: film({}) / film({ distanceCm: card.distanceCm }),
    });
  if (off(coat.pressureBar, card.pressureBar))
    differences.push({
      what: 'pressure',
      card: card.pressureBar,
      plan: coat.pressureBar,
      lays: film({}) / film({ pressureBar: card.pressureBar }),
    });
  return differences;
}

const off = (plan: number, card: number): boolean => Math.abs(plan / card - 1) > SAME_WITHIN;
