import type { Lab } from '../colour/lab';
import type { StackLayer } from '../finishes/layers';
import { findPigment } from '../materials/effectPigments';
import type { EffectMix } from '../materials/effectMix';
import { findMix } from '../materials/mixes';
import type { PreparedLibrary } from '../materials/shop';
import { factorsToLabs } from '../matching/ladder';
import type { TargetAngle } from '../matching/target';
import { flakeDepth, type PreparedCoat } from '../optics/coat';
import { FIVE_ANGLES } from '../optics/geometry';
import { evenTable, sampleGeometries, sampleTable, targetTable } from '../optics/sampleTable';
import { sparkleIndex } from '../optics/sparkle';
import { opticalStack } from './layerLooks';

/** What a curved sample is drawn from; tables as `evenTable` lays them out. */
export interface SampleLook {
  readonly prediction: Float32Array;
  /** The target guessed between its readings; null without readings. */
  readonly target: Float32Array | null;
  /** Predicted Lab at the target's angles, or at the usual five. */
  readonly labs: readonly Lab[];
  /** Sparkle index of the topmost flakes, and their size; null without flakes. */
  readonly grain: { readonly index: number; readonly sizeUm: number } | null;
}

/** Sparkle of the flakes of a mix in some coats, by those that cover most; null without flakes. */
export function grainOf(
  { library }: PreparedLibrary,
  mix: EffectMix,
  coats: readonly PreparedCoat[],
): SampleLook['grain'] {
  if (!mix.flakes.length) return null;
  const most = mix.flakes.reduce((a, b) => (b.cover > a.cover ? b : a));
  const { sizeUm, tilt } = findPigment(most.pigmentId, library.pigments);
  const depth = coats.reduce((sum, c) => sum + flakeDepth(c) * c.factor, 0);
  return { index: sparkleIndex(sizeUm, -Math.expm1(-depth), tilt), sizeUm };
}

/** A stack on a curved body, beside its target. */
export function sampleSeen(
  shop: PreparedLibrary,
  layers: readonly StackLayer[],
  target: readonly TargetAngle[],
): SampleLook {
  const { ground, coats } = opticalStack(shop, layers);
  const table = sampleTable(shop.model(sampleGeometries(shop.film)), ground, coats);
  const model = shop.model(target.length ? target : FIVE_ANGLES);
  const labs = factorsToLabs(model.over(ground, model.pile(coats)));
  const top = layers.findLast((l) => l.kind === 'effect' && l.materialId);
  const flaked = coats.findLast((c) => c.flakes.length > 0);
  return {
    prediction: evenTable(table),
    target: target.length ? evenTable(targetTable(shop.film, table, target, labs)) : null,
    labs,
    grain: top && flaked ? grainOf(shop, findMix(top.materialId!, shop.library.systems), [flaked]) : null,
  };
}
