import { averageReadings, spotsOf, type Reading } from '../formats/readings';
import type { JobEvent } from './events';
import { sayLooks, type CardSaid } from '../letdown/advise';
import { brighterFrom, type EyeRead, type EyeView, type RungVerdict, type Verdict } from '../letdown/eye';
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
  readonly at: number;
}

/**
 * Looks in force of a log: the newest of a place, count and view, unless it takes back what was said.
 * @param history in the order of time. @param concerns whether a look is at what is asked about
 */
export function seenSpots(history: readonly JobEvent[], concerns: (event: JobEvent) => boolean): SeenSpot[] {
  const newest = new Map<string, SeenSpot>();
  for (const e of history) {
    if (e.kind !== 'look' || !e.look || !concerns(e)) continue;
    const { spot, view, verdict, patch, hue = null } = e.look;
    const coats = e.coats ?? 0;
    newest.set(JSON.stringify([spot, coats, patch === null ? view : 'patch']), {
      spot,
      coats,
      view,
      verdict,
      hue,
      patch,
      at: e.at,
    });
  }
  return [...newest.values()].filter((s) => s.verdict !== null || s.patch !== null).sort((a, b) => a.at - b.at);
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
  for (const s of seen.filter((e) => e.verdict)) {
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
