import type { JobDetail } from '@steady-gleam/contracts';
import {
  coatsAt,
  effectOn,
  looksOf,
  seenOf,
  type EffectOn,
  type JobPlan,
  type JobState,
  type SeenSpot,
} from '@steady-gleam/core/jobs';
import { liveState, type LiveState } from '@steady-gleam/core/letdown';
import { ofObject } from '../../shared/useJob';
import { useCardCount, type CardCount } from '../card/useCardCount';
import { sayLive } from './sprayModel';

/** What one object of a job is at: what is on of its effect, what was seen there, and what that comes to. */
export interface Live extends EffectOn {
  readonly objectId: string;
  readonly count: CardCount;
  readonly seen: readonly SeenSpot[];
  /** Coats on at one place: of its areas, and what went on there alone. */
  readonly at: (spot: string) => number;
  /** Areas a place lies on, as it was looked at; all that get the effect where nobody said. */
  readonly areasOf: (spot: string) => readonly string[];
  /** Null while the card has not spoken. */
  readonly state: LiveState | null;
  readonly said: { readonly answer: string; readonly why: string } | null;
}

/** Works out where one object stands; its page and the look in the booth ask alike. */
export function useLive(detail: JobDetail, plan: JobPlan, state: JobState, objectId: string): Live {
  const count = useCardCount(ofObject(detail, objectId));
  const { job } = detail;
  const laid = effectOn(plan, state, job.mixId, objectId);
  const { layerIds, areaIds } = laid;
  const only = plan.objects.length === 1;
  const read = detail.spots
    .filter((s) => only || s.objectId === objectId)
    .map((s) => ({
      spot: s.label,
      coats: s.rungCoats ?? 0,
      readings: s.readings,
      wet: s.state === 'wet',
      at: new Date(s.takenAt).getTime(),
    }));
  const seen = seenOf(plan, state, objectId);
  // A log that holds looks alone: they say how much was on.
  const told = laid.most > 0 ? 0 : Math.max(0, ...read.map((r) => r.coats), ...seen.map((s) => s.coats));
  const [least, most] = [Math.max(laid.least, told), Math.max(laid.most, told)];
  const { advice, answer } = count;
  const areasOf = (spot: string): readonly string[] => {
    const here = seen.findLast((s) => s.spot === spot)?.areaIds ?? [];
    const own = here.filter((a) => areaIds.includes(a));
    return own.length ? own : areaIds;
  };
  const at = (spot: string): number => Math.max(told, coatsAt(state, layerIds, areasOf(spot), spot));
  const live = answer ? liveState(answer.card, most, looksOf(read, seen, answer.card, answer.read), at) : null;
  return {
    objectId,
    count,
    layerIds,
    areaIds,
    least,
    most,
    seen,
    at,
    areasOf,
    state: live,
    said: live && advice && answer ? sayLive(live, most, advice.spray, answer.card) : null,
  };
}
