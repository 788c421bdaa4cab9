import { spectrumFromLab } from '../colour/spectrumFromLab';
import type { Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { Optics } from './optics';
import type { Ground } from './preparedGround';

/**
 * An existing finish as the base of a blend: the view furthest from the mirror is taken as its diffuse light, and at every
 * other angle what is read beyond that is its lobe. Readings become spectra by smooth metamers (say so).
 * @param labs one reading per geometry of the optics, in that order.
 */
export function existingFinish(optics: Optics, labs: readonly Lab[], viewing: Viewing = D65_10): Ground {
  const { film, geometries } = optics;
  const factors = labs.map((lab) => spectrumFromLab(lab, viewing).spectrum);
  const flop = geometries.reduce((a, g, i) => (g.geometry.aspecular > geometries[a]!.geometry.aspecular ? i : a), 0);
  const albedo = new Float64Array(WAVELENGTH_COUNT);
  const lobe = new Float64Array(geometries.length * WAVELENGTH_COUNT);
  for (let i = 0; i < WAVELENGTH_COUNT; i++) {
    const read = factors[flop]![i]!;
    albedo[i] = Math.min(0.995, read / (geometries[flop]!.surface + film.internal * read));
    for (let g = 0; g < geometries.length; g++) {
      const diffuse = (geometries[g]!.surface * albedo[i]!) / (1 - film.internal * albedo[i]!);
      lobe[g * WAVELENGTH_COUNT + i] = Math.max(0, factors[g]![i]! - diffuse);
    }
  }
  return { albedo, lobe };
}
