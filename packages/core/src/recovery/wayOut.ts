import { de2000 } from '../colour/difference';
import { type Lab } from '../colour/lab';
import type { JobPlan } from '../jobs/planTypes';
import type { JobState } from '../jobs/stateTypes';
import type { WayKind, MendStep } from '../jobs/mendSteps';
import { type CardSaid } from '../letdown/advise';
import { type EyeRead, differenceFrom } from '../letdown/eyeSight';
import { type SpotState } from '../letdown/live';
import { type Chances } from '../letdown/rule';
import { type EyeView, USUAL_CUTS, EYE_VIEWS } from '../letdown/eyeWords';
import { toLabs, labsAt } from '../letdown/fittedLadder';
import { repairChances } from './chances';
import type { FadedPlan } from './faded';
import type { Moment, MendCost } from './steps';

/** A place that is off, with what is known of it. */
export interface WaysAsk {
  readonly plan: JobPlan;
  readonly state: JobState;
  readonly mixId: string;
  readonly objectId: string;
  readonly moment: Moment;
  readonly card: CardSaid;
  readonly read: EyeRead;
  readonly spot: SpotState;
  /** Other places of the object that were looked at, with the areas they lie on. */
  readonly others: readonly (SpotState & { readonly areaIds: readonly string[] })[];
  /** Areas the place lies on. */
  readonly areaIds: readonly string[];
  readonly acrossCm: number;
  readonly atEdge: boolean;
  /** Its word, as it is kept: what was said of it. */
  readonly off: string;
  /** What one control coat does to the look there, Lab per angle of the card; null where it was not worked out. */
  readonly controlShift: readonly Lab[] | null;
  /** How its peel was called, and what lays the peel that is wanted; null where nobody said. */
  readonly peel: { readonly word: string; readonly matchedBy: string } | null;
  /** A length in the units of the shop. */
  readonly say: (cm: number) => string;
}

/** What a way promises where it works out. `inside`: what has to be matched is; `even`: nothing is seen between it and its neighbours. */
export type Promised = 'inside' | 'even';

export interface WayOut {
  readonly kind: WayKind | 'leave';
  readonly name: string;
  /** How it is done, a sentence or two. */
  readonly how: string;
  /** Where its coats end, and what it is held against while they go on. */
  readonly stop: string;
  readonly promise: Promised;
  /** Null where nobody can say. */
  readonly chances: Chances | null;
  /** What is said instead of a chance. */
  readonly unsaid: string;
  /** What it will look like, per angle of the card, and how far from what has to be matched, dE00. */
  readonly labs: readonly Lab[];
  readonly differences: readonly number[];
  /** Places it would still be told from. */
  readonly seen: readonly EyeView[];
  /** What it puts at risk around it. */
  readonly risk: string;
  /** Whether it can be taken back, and until when. */
  readonly back: string;
  readonly cost: MendCost;
  readonly areaIds: readonly string[];
  readonly steps: readonly MendStep[];
  /** Of faded coats. */
  readonly faded: FadedPlan | null;
}

export const TRY_IT = 'nobody can say: try it on the card';
export const NEVER_BACK = 'It can’t be taken back: what is on stays on.';
export const UNTIL_CLEAR = 'Until it is cleared it wipes off the cured clear below; then no more.';
/** How ways are put in order: a chance nobody knows, a minute of work, ending even rather than inside; ours. */
export const [UNKNOWN, A_MINUTE, EVEN] = [0.4, 0.002, 0.1] as const;
/** What a film of the card looks like. */
export const lookAt = (card: CardSaid, film: number): Lab[] => toLabs(labsAt(card.ladder, Math.max(0, film)));
/** Rest of a way that follows from how it looks in the end. */
export function looking(q: WaysAsk, labs: readonly Lab[]) {
  const wanted = q.card.sought.read.angles.map((a) => a.lab);
  const cuts = q.read.cuts ?? USUAL_CUTS;
  return {
    labs,
    differences: labs.map((lab, g) => de2000(wanted[g]!, lab)),
    seen: EYE_VIEWS.filter((v) => differenceFrom(v, q.read.aspecular, labs, wanted) > cuts.little),
  };
}

const free: MendCost = { coats: 0, ml: 0, minutes: 0 };
export function leave(q: WaysAsk): WayOut {
  const look = looking(q, lookAt(q.card, q.spot.film));
  return {
    kind: 'leave',
    name: 'Leave it',
    how: `It was called ${q.off || 'off'}.${look.seen.length ? '' : ' By the card so little film is missing that few eyes tell it.'}`,
    stop: '',
    unsaid: TRY_IT,
    promise: 'inside',
    chances: q.spot.zone === 'unlike' ? null : repairChances(0, q.spot.wanted, q.card.window.inside),
    ...look,
    risk: 'Nothing.',
    back: 'Everything stays open that is open now.',
    cost: free,
    areaIds: q.areaIds,
    steps: [],
    faded: null,
  };
}

/** Places that may be held against while coats go on: those that match, else what has to be matched. */
export const reference = (q: WaysAsk): string => {
  const good = q.others.find((o) => o.zone === 'matched');
  return good ? `Stop when it looks like ${good.spot}` : 'Stop when it looks like what has to be matched';
};
/** Film on what lies beside a place: of the places that match, else what matches by the card. */
export function besideFilm(q: WaysAsk): number {
  const good = q.others.filter((o) => o.zone === 'matched');
  return good.length ? good.reduce((s, o) => s + o.film, 0) / good.length : q.spot.film + q.spot.wanted.film;
}

/** Areas with a place on them that is over: no coat goes on all of one. */
export const overAreas = (q: WaysAsk): ReadonlySet<string> =>
  new Set([
    ...(q.spot.zone === 'over' ? q.areaIds : []),
    ...q.others.flatMap((o) => (o.zone === 'over' ? o.areaIds : [])),
  ]);
