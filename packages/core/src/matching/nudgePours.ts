import { type EffectMix } from '../materials/effectMix';
import { type Dye } from '../materials/dyes';
import { partsForDepth } from '../materials/mixStrength';
import type { NudgeStep, TonerDose } from './nudge';

/** Something added to a cup. */
export interface NudgePour {
  readonly name: string;
  /** To one part of the carrier; to one part of the whole mix where its parts are not known. */
  readonly ratio: number;
  /** g/ml; null where it is not known. */
  readonly density: number | null;
}

/** Density of a toner that stands in no mix of the library, g/ml: usual; ours. */
const TONER_DENSITY = 0.97;
/** A drop from a pipette, ml; common practice (no source). */
export const DROP_ML = 0.05;
/** What a step adds to the cup: toners, the mix's own colours, or carrier to let it down. */
export function nudgePours(system: EffectMix, step: NudgeStep, dyes: readonly Dye[]): NudgePour[] {
  const [carrier, ...colours] = system.parts;
  if (step.doses.length)
    return step.doses.map((d) => ({
      name: dyes.find((m) => m.id === d.dyeId)?.name.toLowerCase() ?? 'toner',
      ratio: tonerParts(system, d) / 100,
      density: system.parts.find((p) => p.colourId === d.dyeId)?.density ?? TONER_DENSITY,
    }));
  if (!carrier) {
    // Only the whole is known: more of its colours by the painter's own formula, or carrier.
    return step.strength > 1
      ? [{ name: 'its colours, by your formula', ratio: step.strength - 1, density: null }]
      : [{ name: 'its carrier', ratio: 1 / step.strength - 1, density: null }];
  }
  if (step.strength > 1)
    return colours.map((p) => ({
      name: p.name,
      ratio: (p.parts * (step.strength - 1)) / carrier.parts,
      density: p.density ?? null,
    }));
  const all = system.parts.reduce((sum, p) => sum + p.parts, 0);
  return [
    { name: carrier.name, ratio: (all * (1 / step.strength - 1)) / carrier.parts, density: carrier.density ?? null },
  ];
}

/** Parts of a toner to a hundred parts of the mix's carrier for a depth in one nominal coat. */
export function tonerParts(system: EffectMix, dose: TonerDose): number {
  const known = system.dyes.find((d) => d.dyeId === dose.dyeId);
  const carrier = system.parts[0]?.parts;
  const inCup = system.parts.find((p) => p.colourId === dose.dyeId)?.parts;
  // A dye that is already in the mix is counted in the mix's own parts.
  if (known && inCup && carrier) return ((dose.depth / known.depth) * inCup * 100) / carrier;
  return 100 * partsForDepth(dose.depth, system.filmUm);
}
