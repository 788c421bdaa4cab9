import type { Weighed } from './scaleLines';

/** A part of a batch on the scale. */
export interface ScalePart {
  readonly name: string;
  /** As planned. */
  readonly grams: number;
}

/** A cup on the scale, as it is kept: what is in it of every part, whatever the page or the cable did since. */
export interface OnScale {
  /** What the scale showed with the empty cup, g. */
  readonly zero: number;
  /** Grams of each part that are in the cup, as they last rested. */
  readonly poured: readonly number[];
  /** The part that is being poured. */
  readonly index: number;
}

/** `lifted`: less is on the scale than was in the cup; `done`: every part is in. */
export type PourPhase = 'pour' | 'slow' | 'there' | 'over' | 'lifted' | 'done';

/** Where a pour stands: what the page shows and calls. */
export interface PourStands {
  readonly phase: PourPhase;
  /** Grams of the part that is being poured, and what it is to come to. */
  readonly shown: number;
  readonly meant: number;
  /** What the scale is to show then, and what is in the cup in all, g. */
  readonly mark: number;
  readonly total: number;
  /** Grams every part comes to now: the plan's, or more where one went over and the others follow. */
  readonly allMeant: readonly number[];
  /** The batch against its plan; above 1 after a rescue. */
  readonly grown: number;
}

/** From this share of a part on it is poured slowly; and what counts as being there: of the part, and at least, g. Ours. */
const [SLOW_FROM, WITHIN, LEAST_WITHIN] = [0.9, 0.01, 0.15] as const;
/** Less than this is no weight at all, g. */
const LEAST = 0.005;
/** So much less than was in the cup and it was lifted or tared, g. */
const LIFTED = 3;

/** How much may be missing of a part of so many grams for it to be there, g. */
export const pouredWithin = (grams: number): number => Math.max(LEAST_WITHIN, WITHIN * grams);
const sumOf = (of: readonly number[]): number => of.reduce((s, v) => s + v, 0);

/** An empty cup on a scale that shows something. */
export const startPour = (parts: readonly ScalePart[], zero: number): OnScale => ({
  zero,
  poured: parts.map(() => 0),
  index: 0,
});

/**
 * What every part comes to with what is in the cup: as planned, or all of them by as much more as the one that went furthest over
 * its share. Nothing comes out of a cup again, so the others are brought up to it.
 */
export function meantNow(
  parts: readonly ScalePart[],
  poured: readonly number[],
): { readonly grown: number; readonly meant: readonly number[] } {
  const grown = Math.max(
    1,
    ...parts.map((p, i) => (poured[i]! > p.grams + pouredWithin(p.grams) && p.grams > 0 ? poured[i]! / p.grams : 1)),
  );
  return { grown, meant: parts.map((p) => p.grams * grown) };
}

/** The first part that is still short, from some part on and then from the start; null when all are in. */
function shortFrom(parts: readonly ScalePart[], poured: readonly number[], from: number): number | null {
  const { meant } = meantNow(parts, poured);
  const order = parts.map((_, i) => (from + i) % parts.length);
  return order.find((i) => poured[i]! < meant[i]! - pouredWithin(meant[i]!)) ?? null;
}

/**
 * Takes a weight in. Only what rests is kept as poured; what moves is only shown. A scale that creeps down a little is followed.
 * @returns what is kept now, and where the pour stands
 */
export function weigh(
  parts: readonly ScalePart[],
  on: OnScale,
  { grams, stable }: Pick<Weighed, 'grams' | 'stable'>,
): { readonly on: OnScale; readonly stands: PourStands } {
  const before = sumOf(on.poured);
  const live = grams - on.zero - before;
  const lifted = live < -LIFTED;
  let kept = on;
  if (stable && !lifted) {
    if (live > LEAST) kept = { ...on, poured: on.poured.map((v, i) => (i === on.index ? v + live : v)) };
    else if (live < -LEAST) kept = { ...on, zero: on.zero + live };
  }
  const moving = kept === on && !lifted ? Math.max(0, live) : 0;
  const shown = kept.poured[kept.index]! + moving;
  const there = kept.poured.map((v, i) => (i === kept.index ? shown : v));
  // What still moves makes no batch grow: only what rests does.
  const { grown, meant } = meantNow(parts, kept.poured);
  const own = meant[kept.index]!;
  // A part that made the batch grow is itself what was meant now.
  const planned = parts[kept.index]!.grams * meantNow(parts, without(kept)).grown;
  const phase: PourPhase = lifted
    ? 'lifted'
    : shown > planned + pouredWithin(planned)
      ? 'over'
      : shown >= planned - pouredWithin(planned)
        ? shortFrom(parts, there, kept.index) === null
          ? 'done'
          : 'there'
        : shown >= SLOW_FROM * planned
          ? 'slow'
          : 'pour';
  const total = sumOf(there);
  return {
    on: kept,
    stands: {
      phase: phase === 'over' && stable && shortFrom(parts, kept.poured, kept.index) === null ? 'done' : phase,
      shown,
      meant: phase === 'over' ? planned : own,
      mark: total - shown + (phase === 'over' ? planned : own),
      total,
      allMeant: meant,
      grown,
    },
  };
}

/** What is in the cup of the others: what the part that is being poured is measured by. */
const without = (on: OnScale): number[] => on.poured.map((v, i) => (i === on.index ? 0 : v));

/** The next part that is short, those above what was poured last first; the same where none is. */
export const nextPart = (parts: readonly ScalePart[], on: OnScale): OnScale => ({
  ...on,
  index: shortFrom(parts, on.poured, (on.index + 1) % parts.length) ?? on.index,
});

/** The scale was tared or another cup is under it: what it shows now is what was in the cup. */
export const goOnFrom = (on: OnScale, grams: number): OnScale => ({ ...on, zero: grams - sumOf(on.poured) });

/** What is kept of a cup fits a batch only with as many parts and figures that can be. */
export function isOnScale(given: unknown, parts: number): given is OnScale {
  const on = given as OnScale | null;
  return (
    typeof on === 'object' &&
    on !== null &&
    Number.isFinite(on.zero) &&
    Number.isInteger(on.index) &&
    on.index >= 0 &&
    on.index < parts &&
    Array.isArray(on.poured) &&
    on.poured.length === parts &&
    on.poured.every((v) => Number.isFinite(v) && v >= 0)
  );
}
