import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { limitAt, type MatchLimits } from '../finishes/tolerances';
import { interpolateLabs } from '../matching/stopWindow';
import { FIVE_ANGLES } from '../optics/geometry';
import { bestOf } from '../study/painterFigures';
import { trueWindow } from '../study/eyeRun';
import { KNOTS, LAST_KNOT } from '../study/world';
import type { Hidden, Picked, Sight } from './hidden';

export type End = 'in' | 'over' | 'short' | 'near';

/** How a place ends, on true colours. */
export interface Ended {
  readonly name: string;
  /** Counts of the nominal hand. */
  readonly film: number;
  /** `near`: as near as the finish can be come to, where nothing reaches it. */
  readonly end: End;
  /** True colours at the five angles, and their dE00 to what is matched. */
  readonly labs: readonly Lab[];
  readonly differences: readonly number[];
}

/** What stood behind the curtain, and where it led. */
export interface Curtain {
  /** Film of a coat, of this hand against a nominal one. */
  readonly hand: number;
  /** Of the finish that was matched; its true colours at the five angles. */
  readonly made: Picked & { readonly film: number; readonly labs: readonly Lab[] };
  /** Film from and to which every angle passes, counts of the nominal hand; null where none does with what was picked. */
  readonly window: readonly [number, number] | null;
  /** Film that comes nearest. */
  readonly best: number;
  readonly objects: readonly Ended[];
  /** Where the count of the pick would have ended, sprayed without a look. */
  readonly nominal: Ended & { readonly coats: number };
}

/** So near to the nearest film is as near as can be, where nothing reaches it; ours. */
const NEAR = 0.15;

export interface CurtainAsk {
  readonly picked: Picked & { readonly coats: number };
  /** The job's own; see `limitAt`. */
  readonly usual: Readonly<Record<number, number>>;
  readonly limits: MatchLimits | null;
  /** Film on each object, see `filmAt`. */
  readonly objects: readonly { readonly name: string; readonly film: number }[];
}

/** What has to be traced before the curtain is up: the knots of the true ladder, and what is matched. */
export const CURTAIN_PARTS = KNOTS.length + 1;

/** Traces one of the parts, so that a sight that remembers has it. @param part from 0 */
export function traceCurtain(sight: Sight, part: number): void {
  const knot = KNOTS[part];
  if (knot === undefined) sight.made();
  else sight.at(knot);
}

/** Lifts the curtain: traces the true ladder, some seconds of work where the sight does not remember its parts. */
export function liftCurtain(hidden: Hidden, sight: Sight, { picked, usual, limits, objects }: CurtainAsk): Curtain {
  const knots = KNOTS.map((x) => sight.at(x));
  const wanted = sight.made();
  const ladder = (x: number): Lab[] => interpolateLabs(KNOTS, knots, Math.min(LAST_KNOT, Math.max(0, x)));
  const angles = FIVE_ANGLES.map((g) => ({ tolerance: limitAt(g.aspecular, usual, limits) }));
  const window = trueWindow({ ladder, wanted }, { angles });
  const best = bestOf(ladder, wanted);
  const place = (film: number): End => {
    const [lo, hi] = window ?? [best * (1 - NEAR), best * (1 + NEAR)];
    if (film > hi) return 'over';
    return film < lo ? 'short' : window ? 'in' : 'near';
  };
  const ended = (name: string, film: number): Ended => ({
    name,
    film,
    end: place(film),
    labs: ladder(film),
    differences: ladder(film).map((lab, g) => de2000(wanted[g]!, lab)),
  });
  return {
    hand: hidden.hand,
    made: { ...hidden.wanted, film: hidden.truth.made.film, labs: wanted },
    window,
    best,
    objects: objects.map((o) => ended(o.name, o.film)),
    nominal: { ...ended('the count of the pick', picked.coats * hidden.hand), coats: picked.coats },
  };
}
