import type { Product } from '../products/products';
import { cupFor, roundUpBatch } from './batch';
import { mixByParts, type MixedPart } from './mix';
import type { Need } from './needs';
import type { Pour } from './pours';
import { potLifeAt } from './voc';
import { vocOfMix } from './voc';

export interface BatchPlan {
  readonly ml: number;
  readonly parts: readonly MixedPart[];
  /** Null when none of the usual cups holds it. */
  readonly cup: number | null;
  readonly voc: { readonly actual: number; readonly coating: number } | null;
  readonly cost: number | null;
  /** Null for what does not set. */
  readonly potMinutes: number | null;
}

/**
 * The batch of a cup.
 * @param asked this much instead of what is needed, ml, and this cup, ml; null for what is needed, and the smallest that holds it
 */
export function planBatch(
  pours: readonly Pour[],
  need: Need,
  asked: { readonly ml: number | null; readonly cupMl: number | null },
  product: Product | null,
  temperatureC: number,
): BatchPlan {
  const ml = asked.ml ?? roundUpBatch(need.ml);
  const parts = mixByParts(pours, { total: ml }).parts;
  const known = pours.every((p) => p.vocGPerL !== null);
  const priced = pours.every((p) => p.pricePerLitre !== null);
  return {
    ml,
    parts,
    cup: asked.cupMl ?? cupFor(ml),
    voc: known ? vocOfMix(parts.map((p, i) => ({ ...pours[i]!, ml: p.ml, vocGPerL: pours[i]!.vocGPerL! }))) : null,
    cost: priced ? parts.reduce((sum, p, i) => sum + (p.ml / 1000) * pours[i]!.pricePerLitre!, 0) : null,
    potMinutes: product?.potLifeMinutes ? potLifeAt(product.potLifeMinutes, temperatureC) : null,
  };
}
