import { andControl, countsControl, type FinishFamily } from '@steady-gleam/core/finishes';
import { sayList } from '@steady-gleam/core/jobs';
import {
  DROP_ML,
  nudgePours,
  USUAL_SEARCH,
  type Nudge,
  type NudgePour,
  type RatedRecipe,
} from '@steady-gleam/core/matching';
import { findGround, type EffectMix, type Library } from '@steady-gleam/core/materials';
import { countCoats } from '../../shared/jobModel';

/** How many recipes a search over these grounds looks at. */
export function searched(grounds: number, family: FinishFamily): number {
  // Where control coats are counted they are no choice of their own.
  const control = countsControl(family) ? 1 : USUAL_SEARCH.controlCoats.length;
  return grounds * USUAL_SEARCH.strengths.length * USUAL_SEARCH.counts.length * control;
}

/** A recipe in a few words: ground, strength, coats. */
export function sayRecipe(r: RatedRecipe, library: Library): string {
  return `${findGround(r.groundId, library.grounds).name} at ${Number(r.strength.toFixed(3))}×, ${countCoats(r.coats)}${andControl(r.controlCoats)}`;
}

/** Matches this near to each other look alike, CIEDE2000; ours. */
const ALIKE = 0.3;

/** Of the recipes whose match no eye can tell from the best one's, the safest; then the one with the fewest coats. */
export function recommended(found: readonly RatedRecipe[]): RatedRecipe {
  const best = found[0]!;
  const alike = found.filter((r) => r.window !== null && r.rmsDe <= best.rmsDe + ALIKE);
  return alike.reduce(
    (a, b) => (b.risk < a.risk - 1e-9 || (b.risk <= a.risk + 1e-9 && b.coats < a.coats) ? b : a),
    best,
  );
}

/** What a search found, in one sentence and its reason. */
export function saySearch(found: readonly RatedRecipe[], library: Library): { answer: string; why: string } {
  const best = found[0];
  if (!best) return { answer: 'Nothing was searched.', why: '' };
  if (!best.window)
    return {
      answer: `No recipe reaches it. Closest: ${sayRecipe(best, library)}.`,
      why: `It stays ${best.rmsDe.toFixed(1)} dE00 off over all angles, at any ground, strength and count. Another mix, or a ground of its own colour, is needed.`,
    };
  const pick = recommended(found);
  const chance = (r: RatedRecipe) => `${Math.round((1 - r.risk) * 100)} in 100`;
  const nearest =
    pick === best
      ? 'Nothing matches better'
      : `${sayRecipe(best, library)} reads ${(pick.rmsDe - best.rmsDe).toFixed(1)} nearer, less than an eye can tell, and only ${chance(best)} end inside`;
  return {
    answer: `${sayRecipe(pick, library)}.`,
    why: `${chance(pick)} such jobs end inside the window. ${nearest}. Each line below is best in something: match, safety or coats.`,
  };
}

/** What a step adds to a cup: "4.2 g (88 drops) of lagoon blue"; ml where a density is not known. */
export function sayPours(pours: readonly NudgePour[], carrierMl: number): string {
  const said = pours.map((p) => {
    const ml = p.ratio * carrierMl;
    const drops = Math.round(ml / DROP_ML);
    const amount = p.density === null ? `${ml.toFixed(1)} ml` : `${(ml * p.density).toFixed(1)} g`;
    // Fewer than three drops are none, more than a hundred are not counted.
    return `${amount}${drops >= 3 && drops <= 100 ? ` (${drops} drops)` : ''} of ${p.name}`;
  });
  return sayList(said);
}

/**
 * What to do about a card that is off, in one sentence and its reason.
 * @param carrierMl carrier in the cup that stands there, or the cup meant. @param coats effect coats of the card
 */
export function sayNudge(
  nudge: Nudge | null,
  system: EffectMix,
  library: Library,
  carrierMl: number,
  coats: number,
): { answer: string; why: string } {
  if (!nudge)
    return {
      answer: 'Neither toner nor strength helps here.',
      why: 'A dye can only take light away. Try another ground, style or mix on the map, and make another card.',
    };
  const { before, half, full } = nudge;
  const pours = sayPours(nudgePours(system, half, library.dyes), carrierMl);
  const steps = `That is half. Predicted: dE00 ${before.rmsDe.toFixed(1)} now, ${half.rmsDe.toFixed(1)} after the first half, ${full.rmsDe.toFixed(1)} after as much again.`;
  if (full.strength > 1)
    return {
      answer: `It wants more colour: add ${pours}, or lay ${((full.strength - 1) * coats).toFixed(1)} coats more in all.`,
      why: `${steps} One way or the other, not both.`,
    };
  if (full.strength < 1)
    return {
      answer: `It is too strong: let it down with ${pours}, or lay ${((1 - full.strength) * coats).toFixed(1)} coats fewer.`,
      why: `${steps} What is on a piece already can’t be taken back.`,
    };
  return { answer: `Add ${pours}, then look.`, why: steps };
}
