import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { FastModel, Pile } from './stack';

/** Albedos a pile is worked out over; between and beyond them it is a curve of three constants. */
const [MIDDLE, BRIGHT] = [0.45, 0.9] as const;

/**
 * A pile over any Lambertian ground, after it was worked out over three: light that came up from the ground n times carries the
 * n-th power of its albedo r, so a factor is a + b r / (1 - c r), whatever lies above (a geometric series, Stokes 1862). What flake
 * edges do to trapped light (film equations, section 5) bends that a little: a quarter per cent of the factor at most, 0.02 dE00; tested.
 * @returns the factors over an albedo, [geometry * 31 + wavelength]
 */
export function overLambertian(model: FastModel, pile: Pile): (albedo: Float64Array) => Float64Array {
  const flat = (r: number) => model.over({ albedo: new Float64Array(WAVELENGTH_COUNT).fill(r) }, pile);
  const [none, middle, bright] = [flat(0), flat(MIDDLE), flat(BRIGHT)];
  const rise = new Float64Array(none.length);
  const again = new Float64Array(none.length);
  for (let i = 0; i < none.length; i++) {
    const low = (middle[i]! - none[i]!) / MIDDLE;
    const high = (bright[i]! - none[i]!) / BRIGHT;
    const bend = BRIGHT * high - MIDDLE * low;
    const c = bend > 1e-12 ? (high - low) / bend : 0;
    again[i] = c;
    rise[i] = low * (1 - c * MIDDLE);
  }
  const { wavelengths } = model;
  return (albedo) => {
    const out = new Float64Array(none.length);
    for (let start = 0; start < none.length; start += WAVELENGTH_COUNT)
      for (const at of wavelengths) {
        const [r, i] = [albedo[at]!, start + at];
        out[i] = none[i]! + (rise[i]! * r) / (1 - again[i]! * r);
      }
    return out;
  };
}
