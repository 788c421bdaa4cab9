/** Wavelength grid shared by the whole core: 400-700 nm by 10 nm, 31 samples. */
export const WAVELENGTH_START_NM = 400;
export const WAVELENGTH_STEP_NM = 10;
export const WAVELENGTH_COUNT = 31;

export const WAVELENGTHS_NM: readonly number[] = Array.from(
  { length: WAVELENGTH_COUNT },
  (_, i) => WAVELENGTH_START_NM + i * WAVELENGTH_STEP_NM,
);

/** 31 values on {@link WAVELENGTHS_NM}; reflectance as a fraction, or an optical depth (napierian). */
export type Spectrum = ArrayLike<number>;

/** A spectrum with the same value at every wavelength. */
export function flatSpectrum(value: number): Float64Array {
  return new Float64Array(WAVELENGTH_COUNT).fill(value);
}

/** Builds a spectrum from a function of wavelength in nm. */
export function spectrumFrom(valueAt: (nm: number) => number): Float64Array {
  return Float64Array.from(WAVELENGTHS_NM, valueAt);
}

/**
 * Piecewise linear interpolation of a table over wavelength; beyond its ends the end value is held.
 * @param nm ascending wavelengths, nm. @param values same length. @returns 31 values.
 */
export function interpolateTable(nm: readonly number[], values: readonly number[]): Float64Array {
  return spectrumFrom((w) => {
    const last = nm.length - 1;
    if (w <= nm[0]!) return values[0]!;
    if (w >= nm[last]!) return values[last]!;
    let i = 0;
    while (nm[i + 1]! < w) i++;
    const t = (w - nm[i]!) / (nm[i + 1]! - nm[i]!);
    return values[i]! + t * (values[i + 1]! - values[i]!);
  });
}

/** A spectrum moved along the wavelengths, linear between grid points, ends held. @param nm positive moves it to longer ones. */
export function shiftSpectrum(spectrum: Float64Array, nm: number): Float64Array {
  const step = WAVELENGTHS_NM[1]! - WAVELENGTHS_NM[0]!;
  const last = spectrum.length - 1;
  return spectrum.map((_, i) => {
    const p = Math.min(last, Math.max(0, i - nm / step));
    const low = Math.min(last - 1, Math.floor(p));
    return spectrum[low]! + (spectrum[low + 1]! - spectrum[low]!) * (p - low);
  });
}
