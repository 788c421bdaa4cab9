import type { ReadingSet, VerdictEvent } from '@steady-gleam/contracts';
import {
  averageReadings,
  countByEye,
  de2000,
  interpolateLabs,
  type Assessment,
  type LiveState,
  type SpotEvidence,
  type SpotState,
  type TargetAngle,
} from '@steady-gleam/core';
import { sayCoats } from '../../shared/jobModel';

/** How sure a reading on the job is of the film there, as a fraction; ours. */
const READING_SD = 0.05;

/** How sure a comparison of contrast patches is of the film, as a fraction; ours. */
const PATCH_SD = 0.08;

/** Coats of the card a reading looks like: the place on the ladder nearest to it over all angles read. */
export function looksLike(set: ReadingSet, assessment: Assessment, target: readonly TargetAngle[]): number {
  const averaged = averageReadings(set.readings);
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

/** Everything that was seen on the job, newest of each spot: readings by the card's ladder, verdicts by eye against the best count. */
export function evidenceOf(
  spots: readonly ReadingSet[],
  verdicts: readonly VerdictEvent[],
  assessment: Assessment | null,
  target: readonly TargetAngle[],
  best: number,
): SpotEvidence[] {
  const read = assessment
    ? spots.map((s): SpotEvidence & { at: string } => ({
        spot: s.label,
        sprayed: s.rungCoats ?? 0,
        looksLike: looksLike(s, assessment, target),
        sd: READING_SD,
        at: s.takenAt,
      }))
    : [];
  const groups = new Map<string, VerdictEvent[]>();
  for (const v of verdicts.filter((e) => e.place === 'job' && e.verdict)) {
    const key = `${v.spot}/${v.coats}`;
    groups.set(key, [...(groups.get(key) ?? []), v]);
  }
  // A verdict says how many coats of the card the place is off the target; its own count lies that far from the best.
  const seen = [...groups.values()].map((events) => {
    const p = countByEye(events.map((e) => ({ coats: best, view: e.view, verdict: e.verdict! })));
    const film = Math.max(0.1, best + (best - p.best));
    return {
      spot: events[0]!.spot,
      sprayed: events[0]!.coats,
      looksLike: film,
      sd: p.sd / Math.max(0.5, best),
      at: events[0]!.takenAt,
    };
  });
  // A patch that looks like a rung's is a reading of the tinted film itself.
  const patched = verdicts
    .filter((v) => v.place === 'job' && v.patch !== null)
    .map((v) => ({ spot: v.spot, sprayed: v.coats, looksLike: v.patch!, sd: PATCH_SD, at: v.takenAt }));
  return [...read, ...seen, ...patched]
    .sort((a, b) => a.at.localeCompare(b.at))
    .map(({ spot, sprayed, looksLike: like, sd }) => ({ spot, sprayed, looksLike: like, sd }));
}

const ZONES: Record<SpotState['zone'], string> = {
  light: 'light',
  even: 'as the rest',
  dark: 'dark',
  over: 'over the window',
};

/** A spot in a line: where it stands and what may still be done there. */
export function saySpot(s: SpotState): string {
  const stands = `${ZONES[s.zone]}: like ${s.film.toFixed(1)} coats`;
  if (s.zone === 'over')
    return `${stands}. Nothing sprayed on takes that back: re-ground to a break, or richen what lies beside it.`;
  if (s.spray <= 0) return `${stands}; leave it.`;
  return s.zone === 'light'
    ? `${stands}; a faded coat there, up to ${sayCoats(s.spray)} more.`
    : `${stands}; up to ${sayCoats(s.spray)} more.`;
}

/** What to do now, in one sentence and its reason. */
export function sayLive(
  state: LiveState,
  sprayed: number,
  first: number,
  best: number,
): { answer: string; why: string } {
  if (sprayed <= 0)
    return first > 0
      ? {
          answer: `Spray ${sayCoats(first)}, then look.`,
          why: `The card says ${best.toFixed(1)}. One coat is always needed, so it can go on before you are sure.`,
        }
      : { answer: 'Even half a coat may be too much.', why: 'Thin the mix or lay it lighter, and spray another card.' };
  const hand = `You are laying ${Math.abs(Math.round((state.session - 1) * 100))} % ${state.session >= 1 ? 'more' : 'less'} than on the card, give or take ${Math.round(state.sessionSd * 100)} %.`;
  const over = state.spots.filter((s) => s.zone === 'over');
  if (over.length === state.spots.length && over.length)
    return {
      answer: 'Stop. It is over the window.',
      why: 'Nothing sprayed on makes it lighter: re-ground to a break, or richen the neighbours if they are yours.',
    };
  if (state.spray <= 0)
    return state.left > 0.2
      ? {
          answer: 'Stop here, or mist the light places only.',
          why: `${hand} ${state.left.toFixed(1)} would be left, but another mist coat over all has more than one chance in twenty of going over.`,
        }
      : {
          answer: 'Stop. It is there.',
          why: `${hand} Check it in a second light before clear; a coat too many can’t be taken back.`,
        };
  const next = Math.min(0.5, state.spray);
  return {
    answer: `${next >= 0.5 ? 'Half a coat' : 'A mist coat'} more, then look.`,
    why: `${hand} About ${Math.max(0, state.left).toFixed(1)} is left to the best count.${over.length ? ` Keep off ${over.map((s) => s.spot).join(' and ')}: over the window already.` : ''}`,
  };
}
