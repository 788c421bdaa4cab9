import { averageReadings, spotsOf, type Reading } from '../formats/readings';
import { effectOn } from './effect';
import type { JobEvent } from './events';
import type { JobPlan } from './planTypes';
import { coatsAt } from './whatIsOn';
import { type JobState } from './stateTypes';
import { sayLooks, type CardSaid } from '../letdown/advise';
import type { EyeRead } from '../letdown/eyeSight';
import { brighterFrom } from '../letdown/eyeSight';
import { missingViews, type LookedAt, type EyeView, type RungVerdict, type Verdict } from '../letdown/eyeWords';
import { sayEyeLook, sayPatch, wordOfVerdicts, type SpotLook } from '../letdown/live';

/** A place on the job that was read. */
export interface ReadSpot {
  readonly spot: string;
  /** Coats on when it was read. */
  readonly coats: number;
  readonly readings: readonly Reading[];
  /** Read before it was dry and cleared. */
  readonly wet: boolean;
  /** ms since 1970. */
  readonly at: number;
}

/** A look at a place on the job, in force. */
export interface SeenSpot {
  readonly spot: string;
  readonly coats: number;
  readonly view: EyeView;
  readonly verdict: Verdict | null;
  readonly hue?: string | null;
  readonly patch: number | null;
  /** Another place it was held against; null for what has to be matched. */
  readonly against: string | null;
  readonly photos: readonly string[];
  /** Areas it was said of. */
  readonly areaIds: readonly string[];
  readonly at: number;
}

/**
 * Looks in force of a log: the newest of a place, count and view, unless it takes back what was said.
 * @param history in the order of time. @param concerns whether a look is at what is asked about
 */
function seenSpots(history: readonly JobEvent[], concerns: (event: JobEvent) => boolean): SeenSpot[] {
  const newest = new Map<string, SeenSpot>();
  for (const e of history) {
    if (e.kind !== 'look' || !e.look || !concerns(e)) continue;
    const { spot, view, verdict, patch, hue = null, against = null, photos = null } = e.look;
    const coats = e.coats ?? 0;
    const key = JSON.stringify([spot, coats, patch === null ? view : 'patch', against]);
    const before = newest.get(key);
    const areaIds = e.cells.map((c) => c.areaId);
    // Photos go beside what was said, and take nothing back.
    newest.set(
      key,
      verdict === null && patch === null && photos?.length && before
        ? { ...before, photos, at: e.at }
        : { spot, coats, view, verdict, hue, patch, against, photos: photos ?? [], areaIds, at: e.at },
    );
  }
  return [...newest.values()]
    .filter((s) => s.verdict !== null || s.patch !== null || s.photos.length)
    .sort((a, b) => a.at - b.at);
}

/** Looks in force at one object; where it is the only one, at the job. */
export const seenOf = (plan: JobPlan, state: JobState, objectId: string): SeenSpot[] =>
  seenSpots(
    state.history,
    (e) =>
      plan.objects.length === 1 ||
      e.cells.some((c) => plan.areas.find((a) => a.id === c.areaId)?.objectId === objectId),
  );

/** An object that may not be called matched yet, and what no eye has seen of what lies on it now. */
export interface Unseen {
  readonly objectId: string;
  readonly name: string;
  readonly missing: readonly LookedAt[];
}

/** Coats of the job's own mix on a place that was looked at: of its areas, and what went on there alone. */
export function onThere(
  plan: JobPlan,
  state: JobState,
  objectId: string,
  { spot, areaIds }: Pick<SeenSpot, 'spot' | 'areaIds'>,
): number {
  const mixId = plan.finishes[0]?.mixId ?? '';
  const effect = effectOn(plan, state, mixId, objectId);
  const own = areaIds.filter((a) => effect.areaIds.includes(a));
  return coatsAt(state, effect.layerIds, own.length ? own : effect.areaIds, spot);
}

/** What is still to be looked at before a job's own finish may be called matched, by object: those that have its effect on. */
export function unseenOf(plan: JobPlan, state: JobState): Unseen[] {
  const finish = plan.finishes[0];
  const family = finish?.family;
  if (!family) return [];
  return plan.objects.flatMap(({ id, name }) => {
    const { most } = effectOn(plan, state, finish.mixId, id);
    if (most <= 0) return [];
    const views = seenOf(plan, state, id)
      .filter((s) => s.verdict !== null && s.against === null && s.coats >= onThere(plan, state, id, s) - 1e-9)
      .map((s) => s.view);
    const missing = missingViews(family, views);
    return missing.length ? [{ objectId: id, name, missing }] : [];
  });
}

/**
 * Everything that was seen on the job, oldest first: readings walked along the card's ladder, verdicts by eye as differences read
 * through it, patches as readings of the tinted film itself.
 * @param eye ladders and angles the verdicts are read through
 */
export function looksOf(
  read: readonly ReadSpot[],
  seen: readonly SeenSpot[],
  card: CardSaid,
  eye: EyeRead,
): SpotLook[] {
  type Timed = SpotLook & { readonly at: number };
  const byReading = read.flatMap(({ spot, coats, readings, wet, at }): Timed[] => {
    const averaged = averageReadings(readings);
    const labs = card.sought.read.angles.map(
      (t) => averaged.find((a) => a.incidence === t.incidence && a.aspecular === t.aspecular)?.lab ?? null,
    );
    const [says] = sayLooks(card, [{ sprayed: coats, labs, wet, spots: Math.max(1, spotsOf(readings)) }]);
    return says ? [{ spot, says, at }] : [];
  });
  const groups: SeenSpot[][] = [];
  // Held against a place that matches itself, it is as good as held against the target.
  const matches = (spot: string): boolean => {
    const own = seen.filter((e) => e.spot === spot && e.against === null && e.verdict !== null);
    const coats = Math.max(...own.map((e) => e.coats));
    return own.length > 0 && own.every((e) => e.coats < coats - 1e-9 || e.verdict === 'match');
  };
  for (const s of seen.filter((e) => e.verdict && (e.against === null || matches(e.against)))) {
    const group = groups.find(([first]) => first!.spot === s.spot && first!.coats === s.coats);
    if (group) group.push(s);
    else groups.push([s]);
  }
  const byEye = groups.map((list): Timed => {
    const verdicts = list.map((e): RungVerdict => ({
      ...{ coats: e.coats, view: e.view, verdict: e.verdict! },
      hue: e.hue ?? null,
    }));
    const word = wordOfVerdicts(
      verdicts.map((v) => v.verdict),
      verdicts.map((v) => (brighterFrom(eye, v.view, card.best) ? 'lighter' : 'darker')),
      verdicts.map((v) => v.view),
    );
    return {
      spot: list[0]!.spot,
      says: sayEyeLook(card, eye, verdicts, list[0]!.coats, word),
      word,
      at: Math.max(...list.map((e) => e.at)),
    };
  });
  const byPatch = seen
    .filter((s) => s.patch !== null)
    .map((s): Timed => ({ spot: s.spot, says: sayPatch(card, s.patch!, s.coats), at: s.at }));
  return [...byReading, ...byEye, ...byPatch]
    .sort((a, b) => a.at - b.at)
    .map(({ spot, says, word }) => ({ spot, says, ...(word ? { word } : {}) }));
}
