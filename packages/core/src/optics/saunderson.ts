/** Measured reflectance (specular included) from the internal one. Saunderson 1942. k1 external, k2 internal. */
export function internalToMeasured(internal: number, k1: number, k2: number): number {
  return k1 + ((1 - k1) * (1 - k2) * internal) / (1 - k2 * internal);
}

/** Internal reflectance from the measured one (specular included); inverse of {@link internalToMeasured}. */
export function measuredToInternal(measured: number, k1: number, k2: number): number {
  return (measured - k1) / ((1 - k1) * (1 - k2) + k2 * (measured - k1));
}
