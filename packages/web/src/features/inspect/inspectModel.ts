import { FAMILIES, type FinishFamily } from '@steady-gleam/core/finishes';
import { sayList, type JobPlan, type SeenSpot, type Unseen } from '@steady-gleam/core/jobs';
import {
  EYE_VIEWS,
  sayFrom,
  type EyeView,
  type LiveState,
  type SpotState,
  type Verdict,
} from '@steady-gleam/core/letdown';
import type { Moment } from '@steady-gleam/core/recovery';
import { capital } from '../../shared/capital';

/** A place that is inspected: its name, and the areas it lies on. */
export interface Place {
  readonly name: string;
  readonly areaIds: readonly string[];
}

/** Places to look at on an object: its areas, and whatever else was looked at or read. */
export function placesOf(
  plan: JobPlan,
  areaIds: readonly string[],
  seen: readonly SeenSpot[],
  read: readonly string[] = [],
): Place[] {
  const areas = plan.areas.filter((a) => areaIds.includes(a.id)).map((a): Place => ({ name: a.name, areaIds: [a.id] }));
  const more = new Map<string, readonly string[]>();
  for (const s of seen)
    if (!areas.some((a) => a.name === s.spot))
      more.set(
        s.spot,
        s.areaIds.filter((a) => areaIds.includes(a)),
      );
  for (const name of read) if (!areas.some((a) => a.name === name) && !more.has(name)) more.set(name, []);
  return [...areas, ...[...more].map(([name, own]): Place => ({ name, areaIds: own.length ? own : areaIds }))];
}

/** Places that are easily missed, that no one has named yet: edges, joints, the tail of a blend, what was not painted. */
export function suggestedPlaces(plan: JobPlan, areaIds: readonly string[], known: readonly Place[]): Place[] {
  const own = plan.areas.filter((a) => areaIds.includes(a.id));
  const first = own[0];
  if (!first) return [];
  const tails = own.filter((a) => plan.cells.some((c) => c.areaId === a.id && c.reach.kind === 'blend'));
  const loose = own.filter((a) => a.loose);
  return [
    { name: 'front edge', areaIds: [first.id] },
    { name: 'edges', areaIds },
    ...loose.map((a): Place => ({ name: `where ${a.name} meets`.slice(0, 40), areaIds: [a.id] })),
    ...tails.map((a): Place => ({ name: `tail on ${a.name}`.slice(0, 40), areaIds: [a.id] })),
    { name: 'beside what was not painted', areaIds },
  ].filter((p) => !known.some((k) => k.name === p.name));
}

/** What stands in a cell of the table: a mark, the word in the family's own, and whether it is off. */
export function sayVerdict(
  family: FinishFamily,
  verdict: Verdict,
): { readonly mark: string; readonly word: string; readonly off: boolean } {
  const { less, more } = FAMILIES[family].byEye;
  switch (verdict) {
    case 'match':
      return { mark: '=', word: 'match', off: false };
    case 'lighter':
      return { mark: '▲', word: less, off: true };
    case 'much lighter':
      return { mark: '▲▲', word: less, off: true };
    case 'darker':
      return { mark: '▼', word: more, off: true };
    case 'much darker':
      return { mark: '▼▼', word: more, off: true };
  }
}

/** Columns of the table, as they are headed. */
export const VIEW_NAMES: Readonly<Record<EyeView, string>> = {
  'sun face': 'sun, face',
  'sun flop': 'sun, flop',
  shade: 'open shade',
  'low light': 'dusk or low light',
  lamp: 'lamp, lights off',
  'shop light': 'shop light',
};
export const VIEWS: readonly EyeView[] = EYE_VIEWS;

const MOMENTS: Readonly<Record<Moment, string>> = {
  'under way': 'Under way, between effect coats.',
  'last chance': 'Last chance: nothing is cleared yet.',
  finished: 'Finished, under clear.',
};
export const sayMoment = (moment: Moment): string => MOMENTS[moment];

/** Looks in force at a place at what is on there now. */
export const looksAt = (seen: readonly SeenSpot[], place: Place, coats: number): SeenSpot[] =>
  seen.filter((s) => s.spot === place.name && Math.abs(s.coats - coats) < 1e-9);

/** What was said of a place from where, in a clause: "lighter at dusk". */
export function sayOff(family: FinishFamily, looks: readonly SeenSpot[]): string {
  const off = looks.filter((l) => l.verdict !== null && (l.verdict !== 'match' || l.hue));
  const words = off.map((l) => {
    const { word } = sayVerdict(family, l.verdict!);
    const much = l.verdict!.startsWith('much') ? 'clearly ' : '';
    const said = [l.verdict === 'match' ? '' : `${much}${word}`, l.hue ?? ''].filter(Boolean).join(' and ');
    return `${said} ${l.against ? `than ${l.against} ` : ''}${sayFrom(l.view)}`;
  });
  return sayList([...new Set(words)]);
}

/** What its readings say of a place that was not judged by eye; empty where they match, or there are none. */
export function sayRead(spot: SpotState | null | undefined): string {
  if (!spot || spot.byEye) return '';
  const words: Partial<Record<SpotState['zone'], string>> = {
    short: 'short by its readings',
    over: 'over by its readings',
    unlike: 'off by its readings',
    matched: '',
  };
  return words[spot.zone] ?? '';
}

/** Places to stand from which it is looked at when it is mended: where it was off, and the flop. */
export const viewsAfter = (looks: readonly SeenSpot[]): EyeView[] =>
  [
    ...new Set([
      ...looks.filter((l) => l.verdict !== null && l.verdict !== 'match').map((l) => l.view),
      'sun flop' as const,
    ]),
  ].slice(0, 3);

/** The page's sentence and its reason. */
export function sayInspect(q: {
  readonly family: FinishFamily;
  readonly moment: Moment | null;
  readonly live: LiveState | null;
  readonly places: readonly (Place & { readonly looks: readonly SeenSpot[] })[];
  readonly unseen: Unseen | undefined;
}): { readonly answer: string; readonly why: string } {
  const { family, moment, live, places, unseen } = q;
  if (moment === null)
    return {
      answer: 'Nothing of the effect is on yet.',
      why: 'There is something to inspect after the first effect coat.',
    };
  const when = sayMoment(moment);
  const of = (zone: SpotState['zone']) => live?.spots.filter((s) => s.zone === zone) ?? [];
  const reason = (name: string) => {
    const looks = places.find((p) => p.name === name)?.looks ?? [];
    const off = sayOff(family, looks) || sayRead(live?.spots.find((s) => s.spot === name));
    const good = looks.filter((l) => l.verdict === 'match' && !l.hue && !l.against).map((l) => sayFrom(l.view));
    return `${capital(name)}: ${[off, good.length ? `it matches ${sayList(good)}` : ''].filter(Boolean).join('; ') || 'nothing is said of it now'}.`;
  };
  const [over] = of('over');
  if (over)
    return {
      answer: `${capital(over.spot)} is ${over.left <= -0.1 ? `about ${Math.abs(over.left).toFixed(1)} coats ` : ''}over. No coat there takes it back.`,
      why: `${when} ${reason(over.spot)}`,
    };
  const [unlike] = of('unlike');
  if (unlike)
    return {
      answer: `${capital(unlike.spot)} is too light from one side and too dark from another.`,
      why: `${when} ${reason(unlike.spot)} No number of coats mends both.`,
    };
  const [short] = of('short').sort((a, b) => b.left - a.left);
  if (short) {
    const looks = places.find((p) => p.name === short.spot)?.looks ?? [];
    const how =
      short.left >= 0.1
        ? `about ${short.left.toFixed(1)} coats short`
        : sayOff(family, looks) || 'a little short by its readings';
    return {
      answer: `${capital(short.spot)} is ${how}. ${moment === 'finished' ? 'It can be mended through the clear.' : 'It can be mended.'}`,
      why: `${when} ${reason(short.spot)}`,
    };
  }
  const off = places.find((p) => p.looks.some((l) => l.verdict !== null && (l.verdict !== 'match' || l.hue)));
  if (off)
    return { answer: `${capital(off.name)} is ${sayOff(family, off.looks)}.`, why: `${when} ${reason(off.name)}` };
  const again = of('again');
  if (again.length)
    return {
      answer: `Look at ${sayList(again.map((s) => s.spot))} again.`,
      why: `${when} Coats went on since it was looked at.`,
    };
  const seen = places.filter((p) => p.looks.length || live?.spots.some((s) => s.spot === p.name));
  if (unseen)
    return {
      answer: seen.length
        ? `It matches where it was looked at. Not to be called matched yet: look ${sayList(unseen.missing)}.`
        : `Look ${sayList(unseen.missing)}.`,
      why: `${when} Tap where you stand, at the place you look at, and say what you see.`,
    };
  return {
    answer: 'It matches from everywhere it has to be looked at.',
    why: `${when} ${seen.length} of ${places.length} places were looked at.`,
  };
}
