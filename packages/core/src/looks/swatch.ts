import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import { LAYER_FILM_UM, type StackLayer } from '../finishes/layers';
import { opticalStack } from './layerLooks';
import type { StyleId } from '../finishes/styles';
import type { FastModel } from '../optics/stack';
import type { PreparedLibrary } from '../materials/shop';

/** A layer as it is asked for: a ground or a mix of the library, by its id. */
export interface SwatchLayer {
  readonly kind: 'ground' | 'effect';
  readonly id: string;
  readonly coats: number;
  /** Of a mix; 1 when left out. */
  readonly strength?: number | undefined;
  /** Full wet when left out. */
  readonly style?: StyleId | undefined;
}

/**
 * Radiance factors [geometry * 31 + wavelength] of layers over the usual sealer, cleared: the same working-out as every swatch,
 * the map and the sample. @throws CoreError `notFound` for a ground or mix the library has not
 */
export function swatchFactors(shop: PreparedLibrary, model: FastModel, layers: readonly SwatchLayer[]): Float64Array {
  const stack = layers.map((l, i): StackLayer => {
    const material = l.kind === 'ground' ? findGround(l.id, shop.library.grounds) : findMix(l.id, shop.library.systems);
    return {
      id: String(i),
      kind: l.kind,
      materialId: material.id,
      coats: l.coats,
      style: l.style ?? 'wet',
      strength: l.strength ?? 1,
      filmUm: LAYER_FILM_UM[l.kind],
    };
  });
  const { ground, coats } = opticalStack(shop, stack);
  return model.over(ground, model.pile(coats));
}
