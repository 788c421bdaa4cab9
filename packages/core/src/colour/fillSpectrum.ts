import { WAVELENGTH_COUNT } from './spectrum';
import { FILL_FROM, FILL_MATRIX } from './tables/fill';

/** Places on the wavelength grid that are worked out while something moves; the others are filled from them. */
export const MOVING_WAVELENGTHS: readonly number[] = FILL_FROM;

const FILLED = Int32Array.from({ length: WAVELENGTH_COUNT }, (_, i) => i).filter((i) => !FILL_FROM.includes(i));
const [KNOWN, MISSING] = [FILL_FROM.length, FILLED.length];
const MATRIX = Float64Array.from(FILL_MATRIX);
const roots = new Float64Array(KNOWN);

/**
 * Fills a spectrum that is known at {@link MOVING_WAVELENGTHS} only, in its place: the square root of what is missing is a sum of
 * the square roots of what is known. The sums are fitted to films of the library (`npm run fill-spectra`); of 1,000 others none is
 * 0.15 dE00 off, docs/accuracy.md has the figures.
 * @param values radiance factors or reflectances, 31 from `from` on
 */
export function fillSpectrum(values: Float64Array, from = 0): void {
  const [r, m] = [roots, MATRIX];
  for (let j = 0; j < KNOWN; j++) r[j] = Math.sqrt(Math.max(0, values[from + FILL_FROM[j]!]!));
  for (let place = 0, at = 0; place < MISSING; place++) {
    let root = m[at++]!;
    for (let j = 0; j < KNOWN; j++) root += m[at + j]! * r[j]!;
    at += KNOWN;
    values[from + FILLED[place]!] = root > 0 ? root * root : 0;
  }
}
