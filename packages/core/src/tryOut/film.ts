import { STYLES, type StyleId } from '../finishes/styles';
import type { JobPlan } from '../jobs/planTypes';
import type { CellState, JobState } from '../jobs/stateTypes';
import { planAgainstCard, type CardRow } from '../jobs/work';
import { createRandom, normal, seedOf } from '../numeric/random';
import { setUpOf } from '../spraying/setUp';
import { SCATTER } from '../study/painterFigures';
import type { Hidden } from './hidden';

/** Areas of one round differ by this much, ln; ours. */
const AREA_SD = 0.02;

/** Film of each coat of an object against what the hand lays, one after the other: on an object a coat lies like the one before it. */
function jobCoats(hidden: Hidden, objectId: string, count: number): number[] {
  const random = createRandom(seedOf(hidden.seed, 'coats', objectId));
  const session = Math.exp(SCATTER.session * normal(random));
  let off = SCATTER.coat * normal(random);
  return Array.from({ length: count }, () => {
    const coat = session * Math.exp(off);
    off = SCATTER.jobShared * off + Math.sqrt(1 - SCATTER.jobShared ** 2) * SCATTER.coat * normal(random);
    return coat;
  });
}

/** The same of a card: laid in one go of its own, the first coat least alike, a little more at its edges. */
function cardCoats(hidden: Hidden, cardId: string, count: number): number[] {
  const random = createRandom(seedOf(hidden.seed, 'card', cardId));
  const session = Math.exp(SCATTER.session * normal(random) + SCATTER.edges);
  return Array.from(
    { length: count },
    (_, i) => session * Math.exp((i === 0 ? SCATTER.firstCoat : SCATTER.coat) * normal(random)),
  );
}

/** What was laid of counted coats on an area, or on a place of it, in the order of time. */
function laidOn(state: JobState, layerIds: readonly string[], areaId: string, spot: string): readonly CellState[] {
  const own = state.cells
    .filter((s) => s.cell.areaId === areaId && s.sprayedAt !== null && layerIds.includes(s.cell.layerId))
    .filter((s) => !s.cell.spot || s.cell.spot === spot)
    .sort((a, b) => a.sprayedAt! - b.sprayedAt!);
  // What lies below a coat that begins anew counts no more.
  const anew = state.cells.findLast(
    (s) => s.cell.areaId === areaId && s.cell.anew && s.sprayedAt !== null && s.cell.spot === spot,
  );
  return anew ? own.filter((s) => s.sprayedAt! > anew.sprayedAt!) : own;
}

/** What a coat of the job lays against one of its card, where it is set up otherwise; 1 where nothing of that is known. */
export const setUpFactor = (card: CardRow | null, plan: JobPlan, mixId: string): number =>
  card ? planAgainstCard(setUpOf(card), plan, mixId).reduce((f, d) => f * (d.lays ?? 1), 1) : 1;

/** What is looked at: a place of some areas of an object, or a rung of a card. */
export type Place =
  | {
      readonly objectId: string;
      readonly areaIds: readonly string[];
      readonly spot: string;
      /** See {@link setUpFactor}. */
      readonly setUp: number;
    }
  | { readonly cardId: string; readonly areaId: string };

/**
 * Film at a place, in counts of the nominal hand in the pick's own style, as every tap of the log laid it.
 * @param style of the pick
 */
export function filmAt(
  hidden: Hidden,
  plan: JobPlan,
  state: JobState,
  { layerIds, style }: { readonly layerIds: readonly string[]; readonly style: StyleId },
  place: Place,
): number {
  const ofCard = 'cardId' in place;
  const areas = ofCard ? [place.areaId] : place.areaIds;
  const setUp = ofCard ? 1 : place.setUp;
  const films = areas.map((areaId) => {
    const laid = laidOn(state, layerIds, areaId, ofCard ? '' : place.spot);
    const coats = ofCard ? cardCoats(hidden, place.cardId, laid.length) : jobCoats(hidden, place.objectId, laid.length);
    const area = ofCard ? 1 : Math.exp(AREA_SD * normal(createRandom(seedOf(hidden.seed, 'area', areaId))));
    return laid.reduce((sum, { cell }, i) => {
      // A full coat of another style lays another film; parts of one lay their part.
      const layer = plan.layers.find((l) => l.id === cell.layerId);
      const against = STYLES[layer?.style ?? style].film / STYLES[style].film;
      return sum + hidden.hand * setUp * area * coats[i]! * cell.coats * against;
    }, 0);
  });
  return films.length ? films.reduce((s, f) => s + f, 0) / films.length : 0;
}
