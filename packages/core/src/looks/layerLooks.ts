import type { Lab } from '../colour/lab';
import type { StackLayer } from '../finishes/layers';
import { STYLES } from '../finishes/styles';
import { findGround } from '../materials/grounds';
import type { PreparedLibrary } from '../materials/shop';
import { findMix } from '../materials/mixes';
import { effectCoats, factorsToLabs } from '../matching/ladder';
import type { MapGround } from '../optics/preparedGround';
import type { PreparedCoat } from '../optics/coat';
import type { Geometry } from '../optics/geometry';
import type { FastModel } from '../optics/stack';
import { SWATCH_ANGLE } from './swatches';

/** Bare substrate under a stack without a ground: the mid grey of a sealer, internal albedo. */
const BARE: MapGround = { id: 'bare', albedo: new Float64Array(31).fill(0.35), coats: [] };

/** The optical stack up to a layer: grounds hide by their coats what lies below, primers and clears have no colour. */
export function opticalStack(
  shop: PreparedLibrary,
  layers: readonly StackLayer[],
): { ground: MapGround; coats: PreparedCoat[] } {
  let ground = BARE;
  let coats: PreparedCoat[] = [];
  let laid = { id: '', film: 0, below: ground.albedo };
  for (const l of layers) {
    if ((l.kind === 'ground' || l.kind === 'sealer') && l.materialId) {
      // Layers of one ground are one film.
      if (laid.id !== l.materialId) laid = { id: l.materialId, film: 0, below: ground.albedo };
      laid = { ...laid, film: laid.film + l.coats * STYLES[l.style].film };
      ground = shop.groundOver(findGround(l.materialId, shop.library.grounds), laid.film, laid.below);
      coats = [...ground.coats];
    } else if (l.kind === 'effect' && l.materialId) {
      const coat = shop.coat(findMix(l.materialId, shop.library.systems), l.strength);
      coats.push(...effectCoats({ coat, style: STYLES[l.style] }, l.coats));
    }
  }
  return { ground, coats };
}

/** The look after each layer, from substrate to clear: Lab per geometry of the model. */
export function layerLooks(shop: PreparedLibrary, model: FastModel, layers: readonly StackLayer[]): Lab[][] {
  return layers.map((_, i) => {
    const { ground, coats } = opticalStack(shop, layers.slice(0, i + 1));
    return factorsToLabs(model.over(ground, model.pile(coats)));
  });
}

/** The same for stacks whose layers look alike. */
export const looksKey = (layers: readonly StackLayer[]): string =>
  layers.map((l) => [l.kind, l.materialId ?? '', l.coats, l.style, l.strength].join(' ')).join('; ');

/** The look after each layer as one swatch, from substrate to clear. */
export const layerColours = (shop: PreparedLibrary, layers: readonly StackLayer[]): Lab[] =>
  layerLooks(shop, shop.model(SWATCH_ANGLE), layers).map((labs) => labs[0]!);

/** A whole stack at some angles. */
export function stackLook(shop: PreparedLibrary, layers: readonly StackLayer[], angles: readonly Geometry[]): Lab[] {
  const { ground, coats } = opticalStack(shop, layers);
  const model = shop.model(angles);
  return factorsToLabs(model.over(ground, model.pile(coats)));
}
