import type { Lab } from '../colour/lab';
import { strengthenCoat, type PreparedCoat } from '../optics/coat';
import type { FastModel, Pile, SlabCache } from '../optics/stack';
import { effectCoats, factorsToLabs, ladderLabs } from './ladder';
import type { MapGround } from '../optics/preparedGround';
import { chancesAt, DEFAULT_SCATTER, type Scatter } from './risk';
import { findStopWindow, interpolateLabs } from './stopWindow';
import type { Recipe } from '../finishes/recipe';
import type { CoatStyle } from '../finishes/styles';
import { scoreMatch, type TargetAngle } from './target';

export interface RatedRecipe extends Recipe {
  readonly labs: readonly Lab[];
  /** Rms CIEDE2000 over the angles, and the worst difference over its tolerance. */
  readonly rmsDe: number;
  readonly toleranceRatio: number;
  /** Coats at which every angle passes on this ground and strength; null when there are none. */
  readonly window: readonly [number, number] | null;
  /** Chance of ending outside the window when this count is sprayed; 1 without a window. */
  readonly risk: number;
}

export interface SearchSpace {
  readonly strengths: readonly number[];
  readonly counts: readonly number[];
  /** 0, and 1 where a control coat is tried too. */
  readonly controlCoats: readonly (0 | 1)[];
}

/** 13 strengths, 13 half-step counts, with and without a control coat: 338 recipes a ground. */
export const USUAL_SEARCH: SearchSpace = {
  strengths: Array.from({ length: 13 }, (_, i) => 0.5 + i * 0.125),
  counts: Array.from({ length: 13 }, (_, i) => (i + 1) / 2),
  controlCoats: [0, 1],
};

export interface SearchInput {
  readonly model: FastModel;
  readonly grounds: readonly MapGround[];
  /** One nominal coat of the mix at strength 1. */
  readonly coat: PreparedCoat;
  readonly style: CoatStyle;
  /** Style of the coats above some count, which are counted with the others; see `thenLaid`. */
  readonly then?: { readonly after: number; readonly style: CoatStyle } | null;
  readonly target: readonly TargetAngle[];
  readonly space?: SearchSpace;
  readonly scatter?: Scatter;
}

/** Strengths at which a ladder with control coats is worked out; between them colour is interpolated. */
const CONTROL_STRENGTHS = [0.5, 0.9, 1.4, 2] as const;

/** Knots of the effect amount (coats times strength): fine where the first coats change the look most. */
function amountKnots(last: number): number[] {
  const knots = [0, 0.125];
  while (knots.at(-1)! < last) {
    const x = knots.at(-1)!;
    knots.push(x + (x < 0.5 ? 0.125 : x < 1.5 ? 0.25 : x < 4 ? 0.5 : x < 7 ? 1 : 2));
  }
  return knots;
}

/**
 * A search over all recipes of a space, one ground a call. Without a control coat the film's optics
 * depend on coats times strength only, so one ladder serves every strength; with one, and where control coats are counted, ladders
 * at four strengths do. Colours
 * between knots are interpolated (within a quarter unit of the model, tested); what is kept is worked out exactly by {@link rateExactly}.
 */
export function createSearch(input: SearchInput): (ground: MapGround) => RatedRecipe[] {
  const { model, coat, style, then, space = USUAL_SEARCH } = input;
  const knots = amountKnots(Math.max(...space.counts) * (then ? 1 : Math.max(...space.strengths)));
  const plainCoats = knots.map((x) => effectCoats({ coat, style }, x));
  // Zero effect coats under a control coat are not a recipe; the smallest amount stands in for the first knot.
  const controlledCoats =
    then || space.controlCoats.some((n) => n > 0)
      ? CONTROL_STRENGTHS.map((s) => {
          const strong = { coat: strengthenCoat(coat, s), style };
          return knots.map((x) =>
            then
              ? effectCoats({ ...strong, then }, x)
              : effectCoats({ ...strong, controlCoats: 1 }, Math.max(x, 0.02) / s),
          );
        })
      : [];
  // Layer operators are shared by all grounds, whole piles by the grounds without coats of their own.
  const slabs: SlabCache = new Map();
  const shared = new Map<readonly PreparedCoat[], Pile>();
  const labsOver = (ground: MapGround, effects: readonly PreparedCoat[]): Lab[] => {
    if (ground.coats.length) return factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effects], slabs)));
    let pile = shared.get(effects);
    if (!pile) shared.set(effects, (pile = model.pile(effects, slabs)));
    return factorsToLabs(model.over(ground, pile));
  };
  return (ground) => {
    const plain = then ? [] : plainCoats.map((effects) => labsOver(ground, effects));
    const controlled = controlledCoats.map((list) => list.map((effects) => labsOver(ground, effects)));
    return rateLadders(input, ground.id, knots, plain, controlled);
  };
}

/** Rates every recipe of the space from ladders of one ground. */
function rateLadders(
  { target, style, then, space = USUAL_SEARCH, scatter = DEFAULT_SCATTER }: SearchInput,
  groundId: string,
  knots: readonly number[],
  plain: readonly (readonly Lab[])[],
  controlled: readonly (readonly (readonly Lab[])[])[],
): RatedRecipe[] {
  const labsAt = (count: number, strength: number, control: boolean): Lab[] => {
    const amount = then ? count : count * strength;
    if (!control && !then) return interpolateLabs(knots, plain, amount);
    return interpolateLabs(
      CONTROL_STRENGTHS,
      controlled.map((labs) => interpolateLabs(knots, labs, amount)),
      strength,
    );
  };
  const found: RatedRecipe[] = [];
  for (const controlCoats of then ? [0] : space.controlCoats) {
    for (const strength of space.strengths) {
      const labs = space.counts.map((n) => labsAt(n, strength, controlCoats > 0));
      const stop = findStopWindow(target, space.counts, labs, 1.6);
      space.counts.forEach((coats, c) => {
        const score = scoreMatch(target, labs[c]!);
        const { window } = stop;
        found.push({
          groundId,
          strength,
          style: style.id,
          coats: then ? Math.min(coats, then.after) : coats,
          controlCoats: then ? Math.max(0, coats - then.after) : controlCoats,
          labs: labs[c]!,
          rmsDe: score.rmsDe,
          toleranceRatio: score.toleranceRatio,
          window,
          risk: window ? 1 - chancesAt(coats, window, stop.closes, scatter).inside : 1,
        });
      });
    }
  }
  return found;
}

/** The same recipe with its colours from the model itself instead of between knots. */
export function rateExactly(input: SearchInput, ground: MapGround, recipe: RatedRecipe): RatedRecipe {
  const labs = ladderLabs(
    input.model,
    ground,
    { coat: strengthenCoat(input.coat, recipe.strength), style: input.style, controlCoats: recipe.controlCoats },
    [recipe.coats],
  )[0]!;
  const { rmsDe, toleranceRatio } = scoreMatch(input.target, labs);
  return { ...recipe, labs, rmsDe, toleranceRatio };
}

/** Recipes that differ by less than these are as good as each other. */
const LIKE = { rmsDe: 0.1, risk: 0.02 } as const;

/**
 * The recipes no other beats in match, risk and coats together, best match first. Near ties go to fewer coats.
 * Recipes without a window are kept only when nothing passes: then the closest is all there is to say.
 */
export function paretoRecipes(all: readonly RatedRecipe[], most = 12): RatedRecipe[] {
  const passing = all.filter((r) => r.window && r.toleranceRatio <= 1);
  if (!passing.length) {
    const closest = [...all].sort((a, b) => a.rmsDe - b.rmsDe)[0];
    return closest ? [closest] : [];
  }
  const front = passing.filter(
    (r) =>
      !passing.some(
        (o) =>
          o !== r &&
          o.rmsDe <= r.rmsDe &&
          o.risk <= r.risk &&
          o.coats <= r.coats &&
          (o.rmsDe < r.rmsDe || o.risk < r.risk || o.coats < r.coats),
      ),
  );
  const kept: RatedRecipe[] = [];
  for (const r of front.sort((a, b) => a.rmsDe - b.rmsDe || a.coats - b.coats)) {
    const same = kept.some(
      (k) => k.coats <= r.coats && Math.abs(k.rmsDe - r.rmsDe) < LIKE.rmsDe && Math.abs(k.risk - r.risk) < LIKE.risk,
    );
    if (!same) kept.push(r);
  }
  if (kept.length <= most) return kept;
  // The ends of every axis stay; between them, evenly along the match.
  return Array.from({ length: most }, (_, i) => kept[Math.round((i * (kept.length - 1)) / (most - 1))]!);
}
