import type { ProductKind } from '../finishes/families';
import type { StackLayer } from '../finishes/layers';
import { findCarrier } from '../materials/carriers';
import type { Library } from '../materials/ownMaterials';
import { findMix } from '../materials/mixes';
import type { Gun } from '../products/guns';
import type { Product } from '../products/products';
import { USUAL_CUPS } from './batch';
import { needOf, type Need } from './needs';

/** What has to be mixed of one stuff. */
export interface MixGroup {
  /** Of its first layer. */
  readonly id: string;
  readonly name: string;
  readonly kind: StackLayer['kind'];
  readonly productKind: ProductKind;
  readonly materialId: string | null;
  readonly strength: number;
  /** On the area that gets most of them. */
  readonly coats: number;
  /** m2 it is laid on. */
  readonly areaM2: number;
  /** Dry film of all its cells x their area, um m2, that is ml of solids. */
  readonly solidMl: number;
}

/** Volume solids of a group ready to spray: the product's, else the carrier's, else what is usual: common practice (no source). */
export function solidsOf(group: MixGroup, product: Product | null, library: Library): number {
  if (product) return product.volumeSolids;
  if (group.kind === 'effect' && group.materialId)
    return findCarrier(findMix(group.materialId, library.systems).carrierId, library.carriers).volumeSolids;
  return { primer: 0.42, sealer: 0.36, ground: 0.25, lock: 0.22, clear: 0.44, effect: 0.2 }[group.kind];
}

export function needFor(
  group: Pick<MixGroup, 'solidMl'>,
  solids: number,
  gun: Pick<Gun, 'lossMl'>,
  transfer: { readonly mean: number; readonly sd: number },
): Need {
  return needOf(
    {
      area: 1,
      coats: 1,
      dryFilm: group.solidMl,
      volumeSolids: solids,
      transferEfficiency: transfer.mean,
      loss: gun.lossMl,
    },
    transfer.sd,
  );
}

/** What cup, strainer and gun keep when no gun is named, ml; common practice (no source). */
export const USUAL_LOSS_ML = 40;

/** Largest usual cup as full as it is filled, ml. */
export const MOST_IN_A_CUP = Math.max(...USUAL_CUPS) * 0.95;

/** Whether a group's coats come out of one batch, in words; null when they do. @param coatMinutes to spray one coat. */
export function whyNotOneBatch(
  ml: number,
  coats: number,
  coatMinutes: number,
  potMinutes: number | null,
  flashMinutes: number,
): string | null {
  if (ml > MOST_IN_A_CUP)
    return `more than a cup of ${Math.max(...USUAL_CUPS)} ml holds; pour the parts together first`;
  const minutes = Math.ceil(coats) * coatMinutes + (Math.ceil(coats) - 1) * flashMinutes;
  return potMinutes !== null && minutes > potMinutes
    ? `it sets after ${Math.round(potMinutes)} min, its coats take about ${Math.round(minutes)}`
    : null;
}
