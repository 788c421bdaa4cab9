import type { Lab } from '@steady-gleam/core/colour';
import { FAMILIES, type FinishFamily } from '@steady-gleam/core/finishes';
import type { Pourable } from '@steady-gleam/core/formulate';
import { describeDifference, type TargetAngle } from '@steady-gleam/core/matching';
import type { Library, OwnSystem } from '@steady-gleam/core/materials';
import { sayCoats } from '../../shared/jobModel';
import type { FormulateAsk } from '../../worker/computeTypes';
import type { Formulating } from './useFormulate';

/** What a family's mixes are made of: kinds of pigment and dye at most, and the film of a coat, as its own mixes have them. */
export function familyAsks(family: FinishFamily, library: Library) {
  const own = library.systems.filter((m) => m.family === family);
  return {
    mostPigments: own.some((m) => m.flakes.length) ? 2 : 0,
    mostDyes: 2,
    filmUm: own[0]?.filmUm ?? 9,
    style: FAMILIES[family].start.style,
    carrierId: own[0]?.carrierId ?? library.carriers[0]!.id,
    flashMinutes: own[0]?.flashMinutes ?? 10,
    pricePerLitre: own[0]?.pricePerLitre ?? 0,
  };
}

/** Counts that are advised. */
const COUNTS = [1.5, 2, 2.5, 3, 4];

/** What is asked of the search for a family's mixes. */
export function askOf(family: FinishFamily, target: readonly TargetAngle[], library: Library): FormulateAsk {
  const { mostPigments, mostDyes, filmUm, style } = familyAsks(family, library);
  return { target, style, filmUm, mostPigments, mostDyes, counts: COUNTS };
}

/** The sentence of a search while it runs and after it. */
export function saySearch(
  { found, step }: Pick<Formulating, 'found' | 'step'>,
  target: readonly TargetAngle[],
  library: Library,
): { readonly answer: string; readonly why: string } {
  if (step)
    return {
      answer: step.best ? `Best so far ${step.best.maxDe.toFixed(1)} dE00 off at its worst angle.` : 'Looking …',
      why: `${Math.round(100 * step.done)} % of the shelf was looked at.`,
    };
  return found
    ? sayFound(found.mixes[0], target, library)
    : { answer: 'The search was stopped.', why: 'Begin it again, or read it again.' };
}

/** Whether mixes of a family are found here: of flakes that tint, and dyes. */
export const isFound = (family: FinishFamily, library: Library): boolean =>
  FAMILIES[family].wanted !== 'cover' &&
  library.systems.some((m) => m.family === family && !m.solids.length && (m.flakes.length || m.dyes.length));

/** The page's sentence, and its reason. */
export function sayFound(
  best: Pourable | undefined,
  target: readonly TargetAngle[],
  library: Library,
): { readonly answer: string; readonly why: string } {
  if (!best)
    return {
      answer: 'Nothing on this shelf comes near.',
      why: 'Add grounds, pigments or dyes under Materials, or allow more of them.',
    };
  const ground = (library.grounds.find((g) => g.id === best.groundId)?.name ?? best.groundId).toLowerCase();
  const over = `${sayCoats(best.coats)} coats over ${ground}`;
  if (best.toleranceRatio <= 1)
    return {
      answer: `Found: ${over}, within ${best.maxDe.toFixed(1)} dE00 at every angle.`,
      why: best.window
        ? `Every angle passes from ${best.window[0].toFixed(1)} to ${best.window[1].toFixed(1)} coats. Half of the colours first: a card has the last word.`
        : 'Half of the colours first: a card has the last word.',
    };
  return {
    answer: `Nothing on this shelf reaches it; ${over} come closest, ${best.maxDe.toFixed(1)} dE00 off.`,
    why: sayLacks(best.labs, target),
  };
}

/** What the closest one lacks where it is furthest off. */
export function sayLacks(labs: readonly Lab[], target: readonly TargetAngle[]): string {
  const off = (g: number) => {
    const [l, a, b] = labs[g]!;
    const t = target[g]!;
    return Math.hypot(l - t.lab[0], a - t.lab[1], b - t.lab[2]) / t.tolerance;
  };
  const worst = target.reduce((w, _, g) => (off(g) > off(w) ? g : w), 0);
  return `At ${target[worst]!.aspecular}° what is missing is ${describeDifference(labs[worst]!, target[worst]!.lab).text}. A ground of that colour, or a pigment or dye that turns it there, would open it.`;
}

/** A found mix as one of the shop's own. */
export function systemOf(
  id: string,
  name: string,
  family: FinishFamily,
  mix: Pick<Pourable, 'parts' | 'pigments' | 'dyes'>,
  of: ReturnType<typeof familyAsks>,
): OwnSystem {
  return {
    ...{ kind: 'system', id, name, family, carrierId: of.carrierId, carrierParts: 100 },
    colours: mix.parts.map((p) => ({
      kind: p.kind,
      id: p.id,
      parts: p.parts,
      strength:
        p.kind === 'flake'
          ? mix.pigments.find((x) => x.pigmentId === p.id)!.cover
          : mix.dyes.find((x) => x.dyeId === p.id)!.depth,
    })),
    ...{ strengthFrom: 'typed', drawdown: null, filmUm: of.filmUm },
    ...{ flashMinutes: of.flashMinutes, pricePerLitre: of.pricePerLitre },
  };
}
