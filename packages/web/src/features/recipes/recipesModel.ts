import {
  andControl,
  findGround,
  tonerParts,
  USUAL_SEARCH,
  type EffectSystem,
  type Library,
  type Nudge,
  type NudgeStep,
  type RatedRecipe,
} from '@steady-gleam/core';
import { countCoats } from '../../shared/jobModel';

/** How many recipes a search over these grounds looks at. */
export function searched(grounds: number): number {
  return grounds * USUAL_SEARCH.strengths.length * USUAL_SEARCH.counts.length * USUAL_SEARCH.controlCoats.length;
}

/** A recipe in a few words: ground, strength, coats. */
export function sayRecipe(r: RatedRecipe, library: Library): string {
  return `${findGround(r.groundId, library.grounds).name} at ${Number(r.strength.toFixed(3))}×, ${countCoats(r.coats)}${andControl(r.controlCoats)}`;
}

/** What a search found, in one sentence and its reason. */
export function saySearch(found: readonly RatedRecipe[], library: Library): { answer: string; why: string } {
  const best = found[0];
  if (!best) return { answer: 'Nothing was searched.', why: '' };
  if (!best.window)
    return {
      answer: `No recipe reaches it. Closest: ${sayRecipe(best, library)}.`,
      why: `It stays ${best.meanDe.toFixed(1)} dE00 off over all angles, at any ground, strength and count. Another mix, or a ground of its own colour, is needed.`,
    };
  const safest = found.reduce((a, b) => (b.risk < a.risk ? b : a));
  const chance = `${Math.round((1 - safest.risk) * 100)} in 100`;
  return {
    answer: `${sayRecipe(best, library)}.`,
    why:
      safest === best
        ? `It matches best and is the safest: ${chance} such jobs end inside the window. ${found.length === 1 ? 'No other beats it in anything.' : 'The others below need fewer coats.'}`
        : `Safest is ${sayRecipe(safest, library)}: ${chance} such jobs end inside the window. Each line below is best in something: match, safety or coats.`,
  };
}

/** Toners of a step as they are weighed in. */
export function sayDoses(step: NudgeStep, system: EffectSystem, library: Library): string {
  return step.doses
    .map((d) => {
      const parts = tonerParts(system, d);
      const name = library.dyes.find((m) => m.id === d.dyeId)?.name.toLowerCase() ?? 'toner';
      return `${parts < 0.95 ? parts.toFixed(2) : parts.toFixed(1)} parts of ${name}`;
    })
    .join(' and ');
}

export function sayNudge(nudge: Nudge | null, system: EffectSystem, library: Library): { answer: string; why: string } {
  if (!nudge)
    return {
      answer: 'No toner helps here.',
      why: 'A dye can only take light away. Spray lighter, fewer coats, or let the mix down with carrier, and make another card.',
    };
  return {
    answer: `Add ${sayDoses(nudge.half, system, library)} to 100 of ${system.parts[0]!.name}, then look.`,
    why: `That is half. Predicted: dE00 ${nudge.before.meanDe.toFixed(1)} now, ${nudge.half.meanDe.toFixed(1)} after the first half, ${nudge.full.meanDe.toFixed(1)} after as much again.`,
  };
}
