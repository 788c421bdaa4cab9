import { de2000 } from '../colour/difference';
import { averageReadings, type Reading } from '../formats/readings';
import type { JobEvent } from './events';
import { interpolateLabs } from '../matching/stopWindow';
import type { TargetAngle } from '../matching/target';
import type { Assessment } from '../letdown/assess';
import { countByEye, type EyeView, type Verdict } from '../letdown/eye';
import { wordOfVerdicts, type SpotEvidence } from '../letdown/live';

/** How sure a reading on the job is of the film there, as a fraction; ours. */
const READING_SD = 0.05;

/** How sure a comparison of contrast patches is of the film, as a fraction; ours. */
const PATCH_SD = 0.08;

/** A place on the job that was read. */
export interface ReadSpot {
  readonly spot: string;
  /** Coats on when it was read. */
  readonly coats: number;
  readonly readings: readonly Reading[];
  /** ms since 1970. */
  readonly at: number;
}

/** A look at a place on the job, in force. */
export interface SeenSpot {
  readonly spot: string;
  readonly coats: number;
  readonly view: EyeView;
  readonly verdict: Verdict | null;
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
    const { spot, view, verdict, patch } = e.look;
    const coats = e.coats ?? 0;
    newest.set(JSON.stringify([spot, coats, patch === null ? view : 'patch']), {
      spot,
      coats,
      view,
      verdict,
      patch,
      at: e.at,
    });
  }
  return [...newest.values()].filter((s) => s.verdict !== null || s.patch !== null).sort((a, b) => a.at - b.at);
}

/** Coats of the card a reading looks like: the place on the ladder nearest to it over all angles read. */
export function looksLike(
  readings: readonly Reading[],
  assessment: Assessment,
  target: readonly TargetAngle[],
): number {
  const averaged = averageReadings(readings);
  const { counts, labs } = assessment;
  let best = { n: 0, off: Infinity };
  for (let n = 0.1; n <= counts.at(-1)!; n += 0.05) {
    const at = interpolateLabs(counts, labs, n);
    let off = 0;
    target.forEach((t, g) => {
      const read = averaged.find((a) => a.incidence === t.incidence && a.aspecular === t.aspecular);
      if (read) off += de2000(read.lab, at[g]!) ** 2;
    });
    if (off < best.off) best = { n, off };
  }
  return best.n;
}

/**
 * Everything that was seen on the job, oldest first: readings by the card's ladder, verdicts by eye against the best count,
 * patches as readings of the tinted film itself.
 */
export function evidenceOf(
  read: readonly ReadSpot[],
  seen: readonly SeenSpot[],
  assessment: Assessment | null,
  target: readonly TargetAngle[],
  best: number,
): SpotEvidence[] {
  type Timed = SpotEvidence & { readonly at: number };
  const byReading = assessment
    ? read.map(({ spot, coats, readings, at }): Timed => ({
        spot,
        sprayed: coats,
        looksLike: looksLike(readings, assessment, target),
        sd: READING_SD,
        at,
      }))
    : [];
  const groups: SeenSpot[][] = [];
  for (const s of seen.filter((e) => e.verdict)) {
    const group = groups.find(([first]) => first!.spot === s.spot && first!.coats === s.coats);
    if (group) group.push(s);
    else groups.push([s]);
  }
  // A verdict says how many coats of the card the place is off the target; its own count lies that far from the best.
  const byEye = groups.map((list): Timed => {
    const word = wordOfVerdicts(list.map((e) => e.verdict!));
    const p = countByEye(list.map((e) => ({ coats: best, view: e.view, verdict: e.verdict! })));
    // A match is the best count by its own word, not pulled towards anything.
    const film = word === 'matched' ? best : Math.max(0.1, best + (best - p.best));
    return {
      spot: list[0]!.spot,
      sprayed: list[0]!.coats,
      looksLike: film,
      sd: p.sd / Math.max(0.5, film),
      word,
      at: Math.max(...list.map((e) => e.at)),
    };
  });
  const byPatch = seen
    .filter((s) => s.patch !== null)
    .map((s): Timed => ({ spot: s.spot, sprayed: s.coats, looksLike: s.patch!, sd: PATCH_SD, at: s.at }));
  return [...byReading, ...byEye, ...byPatch]
    .sort((a, b) => a.at - b.at)
    .map(({ spot, sprayed, looksLike: like, sd, word }) => ({
      spot,
      sprayed,
      looksLike: like,
      sd,
      ...(word ? { word } : {}),
    }));
}
