import type { SpectrumInput } from './fields';
import { flatSpectrum } from '@steady-gleam/core/colour';
import type { SpectrumOrNumber } from '@steady-gleam/core/optics';

/** A validated spectrum of a request as 31 values. */
export function toSpectrum(input: SpectrumInput): Float64Array {
  return typeof input === 'number' ? flatSpectrum(input) : Float64Array.from(input.values);
}

/** A validated spectrum or number for the core; 0 when missing. */
export function toValue(input: SpectrumInput | undefined): SpectrumOrNumber {
  return input === undefined ? 0 : typeof input === 'number' ? input : Float64Array.from(input.values);
}
