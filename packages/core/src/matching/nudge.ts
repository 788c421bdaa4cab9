import { strengthenCoat } from '../optics/coat';
import { type Lab } from '../colour/lab';
import { de2000 } from '../colour/difference';
import type { Dye } from '../materials/dyes';
import { boundedLeastSquares } from '../numeric/bounded';
import { boundedGaussNewton } from '../numeric/gaussNewton';
import type { FastModel } from '../optics/stack';
import { effectCoats, factorsToLabs, type EffectCoats } from './ladder';
import { type PreparedGround } from '../optics/preparedGround';
import { scoreMatch, type TargetAngle } from './target';
import { type Remark, AMOUNT } from './remark';

/** One toner of an advice. */
export interface TonerDose {
  readonly dyeId: string;
  /** Optical depth of one nominal coat, in units of the dye's spectrum. */
  readonly depth: number;
}

/** A step: toners to add, or the strength of all that colours; one of both. */
export interface NudgeStep {
  readonly doses: readonly TonerDose[];
  /** Factor on all that colours: above 1 more colour (or coats) of its own, below 1 let down with carrier; 1 where toners do it. */
  readonly strength: number;
  /** Predicted colour of the corrected card per angle. */
  readonly labs: readonly Lab[];
  readonly rmsDe: number;
  readonly toleranceRatio: number;
}

export interface Nudge {
  /** How the card stands now. */
  readonly before: { readonly rmsDe: number; readonly toleranceRatio: number };
  /** Half of what is advised: what to add first. */
  readonly half: NudgeStep;
  readonly full: NudgeStep;
}

export interface NudgeInput {
  readonly model: FastModel;
  readonly ground: PreparedGround;
  readonly recipe: EffectCoats;
  readonly coats: number;
  readonly target: readonly TargetAngle[];
  /** The sprayed card, read or described, in the target's order. */
  readonly card: readonly Lab[];
  readonly toners: readonly Dye[];
  /**
   * How far the card was called weaker, CIELAB units; below zero for stronger, 0 where neither was said; null looks at toners
   * only.
   */
  readonly weaker?: number | null;
}

/** How far a card was called weaker and nothing else, CIELAB units; below zero for stronger; 0 where neither was said. */
export function weakerBy(remarks: readonly Remark[]): number {
  const most = Math.max(0, ...remarks.map((r) => AMOUNT[r.amount]));
  if (remarks.every((r) => r.off === 'weaker')) return most;
  return remarks.every((r) => r.off === 'stronger') ? -most : 0;
}

/** Strengths looked at on either side, as a factor; beyond them it is another mix. */
const STRONGEST_NUDGE = 1.6;

/** Depth at which a toner's effect is linearised. */
const PROBE_DEPTH = 0.02;
/** More of a toner than this is another mix: depth in a nominal coat. */
const MOST_DOSE = 2.5;
/** A second toner must take away this share of what the first leaves. */
const WORTH_A_SECOND = 0.15;
/** Candidates of each number of toners that are worked out with the full model, and rounds of it. */
const REFINED = 5;
const ROUNDS = 4;
/** Better than nothing by less than this share of the rms difference is no advice. */
const WORTH_ADDING = 0.15;

/**
 * What brings a sprayed card to its target: toners, or more or less of the mix's own colour. A card that is too weak gets more
 * of it, one that is too strong is let down; never the other way. For toners the stack is linearised in each, every one and
 * every pair is solved by least squares with no negative parts, and the nearest of them are refined with the full model, by the
 * solver that looks for whole mixes. What the model gets wrong about the card is carried over unchanged.
 * @returns null when nothing helps
 */
export function nudge(input: NudgeInput): Nudge | null {
  const { weaker = 0 } = input;
  if (weaker) return wordNudge(input, weaker);
  const ownColour = weaker === null ? null : strengthNudge(input);
  const toner = tonerNudge(input);
  if (!ownColour || !toner) return ownColour ?? toner;
  return ownColour.full.rmsDe <= toner.full.rmsDe ? ownColour : toner;
}

/** Strengths tried on both sides, nearest to 1 first. */
const TRIED = Array.from({ length: 24 }, (_, i) => STRONGEST_NUDGE ** ((i + 1) / 24));

/** The recipe's colours with all that colours at a factor. */
function atStrength({ model, ground, recipe, coats }: NudgeInput, factor: number): Lab[] {
  const coat = strengthenCoat(recipe.coat, factor);
  return factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats({ ...recipe, coat }, coats)])));
}

/** Colours moved by what lies between two predictions, `base` and `then`. */
const moved = (from: readonly Lab[], base: readonly Lab[], then: readonly Lab[]): Lab[] =>
  then.map(([l, a, b], g) => {
    const [start, was] = [from[g]!, base[g]!];
    return [start[0] + l - was[0], start[1] + a - was[1], start[2] + b - was[2]];
  });

/** More or less of the mix's own colour against a card of which something else was said or read; null when it does not help. */
function strengthNudge(input: NudgeInput): Nudge | null {
  const { target, card } = input;
  const base = atStrength(input, 1);
  const step = (strength: number): NudgeStep => {
    const labs = moved(card, base, atStrength(input, strength));
    const { rmsDe, toleranceRatio } = scoreMatch(target, labs);
    return { doses: [], strength, labs, rmsDe, toleranceRatio };
  };
  const before = scoreMatch(target, card);
  const full = [...TRIED, ...TRIED.map((s) => 1 / s)].map(step).reduce((a, b) => (b.rmsDe < a.rmsDe ? b : a));
  if (full.rmsDe > before.rmsDe * (1 - WORTH_ADDING)) return null;
  return {
    before: { rmsDe: before.rmsDe, toleranceRatio: before.toleranceRatio },
    half: step(1 + (full.strength - 1) / 2),
    full,
  };
}

/**
 * A card that was called weaker or stronger is the mix itself at another strength: the one that looks as far from the target
 * as was said. What brings it back is the same factor the other way.
 */
function wordNudge(input: NudgeInput, weaker: number): Nudge {
  const { target } = input;
  const base = atStrength(input, 1);
  const off = (labs: readonly Lab[]): number =>
    labs.reduce((sum, lab, g) => sum + Math.hypot(...lab.map((v, k) => v - base[g]![k]!)), 0) / labs.length;
  const sides = TRIED.map((s) => (weaker > 0 ? 1 / s : s));
  const is = sides.find((s) => off(atStrength(input, s)) >= Math.abs(weaker)) ?? sides.at(-1)!;
  const step = (strength: number): NudgeStep => {
    const labs = moved(
      target.map((t) => t.lab),
      base,
      atStrength(input, is * strength),
    );
    const { rmsDe, toleranceRatio } = scoreMatch(target, labs);
    return { doses: [], strength, labs, rmsDe, toleranceRatio };
  };
  const { rmsDe, toleranceRatio } = step(1);
  return { before: { rmsDe, toleranceRatio }, half: step(1 + (1 / is - 1) / 2), full: step(1 / is) };
}

function tonerNudge(input: NudgeInput): Nudge | null {
  const { model, ground, recipe, coats, target, card, toners } = input;
  const labsWith = (doses: readonly TonerDose[]): Lab[] => {
    const a = Float64Array.from(recipe.coat.a);
    for (const { dyeId, depth } of doses) {
      toners.find((t) => t.id === dyeId)!.depth.forEach((v, i) => (a[i]! += v * depth));
    }
    const coat = { ...recipe.coat, a };
    return factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats({ ...recipe, coat }, coats)])));
  };
  const base = labsWith([]);
  const predicted = (doses: readonly TonerDose[]): Lab[] => moved(card, base, labsWith(doses));
  // Differences are weighted so that a CIELAB unit counts as what it is in CIEDE2000 over the tolerance there.
  const weight = target.map((t, g) => {
    const distance = Math.hypot(...t.lab.map((v, k) => v - card[g]![k]!));
    return (distance > 1e-6 ? de2000(t.lab, card[g]!) / distance : 1) / t.tolerance;
  });
  const flat = (labs: readonly Lab[], from: readonly Lab[], scale = 1): Float64Array =>
    Float64Array.from({ length: labs.length * 3 }, (_, i) => {
      const g = Math.floor(i / 3);
      return ((labs[g]![i % 3]! - from[g]![i % 3]!) * weight[g]!) / scale;
    });
  const wanted = flat(
    target.map((t) => t.lab),
    card,
  );
  const columns = toners.map((t) => flat(labsWith([{ dyeId: t.id, depth: PROBE_DEPTH }]), base, PROBE_DEPTH));
  const leftBy = (depths: readonly number[], of: readonly Float64Array[]): number =>
    wanted.reduce((sum, v, k) => sum + (v - of.reduce((t, c, i) => t + c[k]! * depths[i]!, 0)) ** 2, 0);
  // What the straight lines leave for every toner and every pair of them.
  const candidates: Candidate[] = [];
  const straight = (places: readonly number[]) => {
    const own = places.map((i) => columns[i]!);
    const depths = boundedLeastSquares(
      own,
      wanted,
      own.map(() => 0),
      own.map(() => MOST_DOSE),
    );
    // A toner of which nothing is wanted is none.
    if (depths.every((d) => d > 0))
      candidates.push({ toners: places.map((i) => toners[i]!), depths, left: leftBy(depths, own) });
  };
  toners.forEach((_, i) => {
    straight([i]);
    for (let j = i + 1; j < toners.length; j++) straight([i, j]);
  });
  const dosesOf = (c: Candidate): TonerDose[] => c.toners.map((t, i) => ({ dyeId: t.id, depth: c.depths[i]! }));
  /** From the straight line's answer on with the model: dyes bend away from it. */
  const refined = (start: Candidate): Candidate => {
    const { x, squares } = boundedGaussNewton(
      {
        residuals: (depths) =>
          flat(
            target.map((t) => t.lab),
            predicted(dosesOf({ ...start, depths })),
          ),
        lo: start.depths.map(() => 0),
        hi: start.depths.map(() => MOST_DOSE),
        step: () => PROBE_DEPTH,
      },
      start.depths,
      ROUNDS,
    );
    return { ...start, depths: x, left: squares };
  };
  const nearest = (count: number): Candidate | null =>
    candidates
      .filter((c) => c.toners.length === count)
      .sort((a, b) => a.left - b.left)
      .slice(0, REFINED)
      .map(refined)
      .sort((a, b) => a.left - b.left)[0] ?? null;
  const [one, two] = [nearest(1), nearest(2)];
  const chosen = two && (!one || two.left < one.left * (1 - WORTH_A_SECOND)) ? two : one;
  if (!chosen) return null;
  const step = (share: number): NudgeStep => {
    const doses = dosesOf(chosen).map((d) => ({ ...d, depth: d.depth * share }));
    const labs = predicted(doses);
    const { rmsDe, toleranceRatio } = scoreMatch(target, labs);
    return { doses, strength: 1, labs, rmsDe, toleranceRatio };
  };
  const before = scoreMatch(target, card);
  const full = step(1);
  if (full.rmsDe > before.rmsDe * (1 - WORTH_ADDING)) return null;
  return { before: { rmsDe: before.rmsDe, toleranceRatio: before.toleranceRatio }, half: step(0.5), full };
}

interface Candidate {
  readonly toners: readonly Dye[];
  readonly depths: readonly number[];
  /** Weighted sum of squares that stays. */
  readonly left: number;
}
