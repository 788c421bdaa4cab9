import { reflectanceToXyz } from '../colour/tristimulus';
import { WAVELENGTH_COUNT, flatSpectrum } from '../colour/spectrum';
import type { PreparedCoat } from './coat';
import type { FastModel } from './stack';

/** Contrast ratio at and above which a ground counts as hidden (usual criterion; method of ISO 6504-3). */
export const HIDDEN_FROM = 0.98;

/** Internal albedos of a usual contrast card, black and white (common practice, no source). */
const CARD = { black: 0.02, white: 0.9 } as const;

/**
 * Contrast ratio of coats over black and white, Y over black / Y over white, by geometry of the model.
 * 1 when nothing of the ground shows.
 */
export function contrastRatio(model: FastModel, coats: readonly PreparedCoat[]): number[] {
  const pile = model.pile(coats);
  const y = (albedo: number): number[] => {
    const factors = model.over({ albedo: flatSpectrum(albedo) }, pile);
    return model.optics.geometries.map(
      (_, g) => reflectanceToXyz(factors.subarray(g * WAVELENGTH_COUNT, (g + 1) * WAVELENGTH_COUNT))[1],
    );
  };
  const black = y(CARD.black);
  const white = y(CARD.white);
  return black.map((v, g) => v / white[g]!);
}
