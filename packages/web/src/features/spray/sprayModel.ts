import type { ReadingSet, VerdictEvent } from '@steady-gleam/contracts';
import {
  averageReadings,
  countByEye,
  de2000,
  interpolateLabs,
  isUnsure,
  liveAdvice,
  type Assessment,
  type LiveState,
  type SpotEvidence,
  type SpotState,
  wordOfVerdicts,
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
  const groups: VerdictEvent[][] = [];
  for (const v of verdicts.filter((e) => e.place === 'job' && e.verdict)) {
    const group = groups.find(([first]) => first!.spot === v.spot && first!.coats === v.coats);
    if (group) group.push(v);
    else groups.push([v]);
  }
  // A verdict says how many coats of the card the place is off the target; its own count lies that far from the best.
  const seen = groups.map((events) => {
    const word = wordOfVerdicts(events.map((e) => e.verdict!));
    const p = countByEye(events.map((e) => ({ coats: best, view: e.view, verdict: e.verdict! })));
    // A match is the best count by its own word, not pulled towards anything.
    const film = word === 'matched' ? best : Math.max(0.1, best + (best - p.best));
    return {
      spot: events[0]!.spot,
      sprayed: events[0]!.coats,
      looksLike: film,
      sd: p.sd / Math.max(0.5, film),
      word,
      at: events
        .map((e) => e.takenAt)
        .sort()
        .at(-1)!,
    };
  });
  // A patch that looks like a rung's is a reading of the tinted film itself.
  const patched = verdicts
    .filter((v) => v.place === 'job' && v.patch !== null)
    .map((v) => ({ spot: v.spot, sprayed: v.coats, looksLike: v.patch!, sd: PATCH_SD, at: v.takenAt }));
  const all: (SpotEvidence & { readonly at: string })[] = [...read, ...seen, ...patched];
  return all
    .sort((a, b) => a.at.localeCompare(b.at))
    .map(({ spot, sprayed, looksLike: like, sd, word }) => ({
      spot,
      sprayed,
      looksLike: like,
      sd,
      ...(word ? { word } : {}),
    }));
}

const ZONES: Record<SpotState['zone'], string> = {
  short: 'short',
  matched: 'matches',
  over: 'over',
  unlike: 'too light from one side, too dark from another',
  again: 'not looked at since the last coat',
};

/** A spot in a line: where it stands and what may still be done there. */
export function saySpot(s: SpotState): string {
  const stands = `${ZONES[s.zone]}: like ${s.film.toFixed(1)} coats`;
  switch (s.zone) {
    case 'over':
      return `${stands}. Nothing sprayed on takes that back: re-ground to a break, or richen what lies beside it.`;
    case 'unlike':
      return `${stands}. No coat mends both: look at how the flakes lie before anything goes on.`;
    case 'again':
      return `${stands}. Look there before anything else.`;
    case 'matched':
      return `${stands}; leave it.`;
    case 'short':
      return s.spray > 0
        ? `${stands}; up to ${sayCoats(s.spray)} more.`
        : isUnsure(s)
          ? `${stands}; that is too unsure to lay on. Look from another place, or read it.`
          : `${stands}; less is missing than a mist coat lays. A quarter coat of the mix let down 1:1 is half of that.`;
  }
}

const names = (spots: readonly SpotState[]): string =>
  spots.length > 1
    ? `${spots
        .slice(0, -1)
        .map((s) => s.spot)
        .join(', ')} and ${spots.at(-1)!.spot}`
    : (spots[0]?.spot ?? '');
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const sayAmount = (coats: number): string => (coats >= 0.5 ? 'half coat' : 'mist coat');

/**
 * What to do now, in one sentence and its reason; from the worst spot first.
 * @param first coats to spray before the first look. @param inside whether the card has a window, or only counts that come closest
 */
export function sayLive(
  state: LiveState,
  sprayed: number,
  first: number,
  best: number,
  inside = true,
): { answer: string; why: string } {
  const card = inside
    ? `The card says ${best.toFixed(1)}.`
    : `No count passes at every angle; ${best.toFixed(1)} comes closest.`;
  if (!state.spots.length) {
    if (first <= 0)
      return { answer: 'Even a mist coat may be too much.', why: 'Let the mix down, and spray another card.' };
    if (sprayed <= 0)
      return {
        answer: `Spray ${sayCoats(first)}, then look.`,
        why: `${card} One coat is always needed, so it can go on before you are sure.`,
      };
    const more = first - sprayed;
    return more >= 0.25
      ? { answer: `Spray ${sayCoats(more)} more, then look.`, why: `${card} Look after ${sayCoats(first)}.` }
      : { answer: 'Look before the next coat.', why: `${card} What is on decides what follows, not the count.` };
  }
  const percent = Math.round((state.session - 1) * 100);
  const than =
    percent === 0
      ? 'as much as on the card'
      : `${Math.abs(percent)} % ${percent > 0 ? 'more' : 'less'} than on the card`;
  const hand = `You are laying ${than}, give or take ${Math.round(state.sessionSd * 100)} %.`;
  const { kind, amount, on, keepOff } = liveAdvice(state);
  const over = state.spots.filter((s) => s.zone === 'over');
  const missing = on.length ? `About ${Math.max(...on.map((s) => s.left)).toFixed(1)} is missing there.` : '';
  const lay = `${sayAmount(amount)} on ${names(on)} only, then look`;
  switch (kind) {
    case 'over':
      return over.length === state.spots.length
        ? {
            answer: 'Stop. It is over the window.',
            why: 'Nothing sprayed on takes that back: re-ground to a break, or richen the neighbours if they are yours.',
          }
        : {
            answer: `${capital(names(over))} ${over.length > 1 ? 'are' : 'is'} over: stop there.${on.length ? ` A faded ${lay}.` : ''}`,
            why: `Nothing sprayed on takes ${names(over)} back: re-ground to a break, or richen what lies beside it. ${missing}`.trim(),
          };
    case 'look':
      return {
        answer: `Look at ${names(state.spots.filter((s) => s.zone === 'again'))} again before the next coat.`,
        why: `Coats went on since. ${hand}`,
      };
    case 'coat':
      return {
        answer: `${amount >= 0.5 ? 'Half a coat' : 'A mist coat'} more, then look.`,
        why: `${hand} ${missing.replace(' there', '')} Never beyond the best count: what is too much can’t be taken back.`,
      };
    case 'faded':
      return {
        answer: `A faded ${lay}.`,
        why: `${missing} Keep off ${names(keepOff)}: point the gun away from ${keepOff.length > 1 ? 'them' : 'it'}.`,
      };
    case 'unlike':
      return {
        answer: 'Stop and look at how it lies.',
        why: `${capital(names(state.spots.filter((s) => s.zone === 'unlike')))}: too light from one side and too dark from another, which no coat mends. A control coat from further away lifts the face and darkens the flop; try it on the card first.`,
      };
    case 'unsure':
      return {
        answer: `Look at ${names(state.spots.filter(isUnsure))} from another place before the next coat.`,
        why: `Something is missing there, but what was seen is too unsure: another coat has more than one chance in twenty of going over. A second light, or a reading, settles it.`,
      };
    case 'rest':
      return {
        answer: 'Stop here: less is missing than can be laid.',
        why: `${hand} Another mist coat would go beyond the best count or risk it. If it has to be nearer, let the mix down 1:1 and mist that.`,
      };
    case 'there':
      return {
        answer: 'Stop. It is there.',
        why: `${hand} Check it in a second light before clear; a coat too many can’t be taken back.`,
      };
  }
}
