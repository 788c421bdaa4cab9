/** Standard normal distribution function (Abramowitz and Stegun 7.1.26 for erf, absolute error below 1.5e-7). */
export function normalCdf(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const poly = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const erf = 1 - poly * Math.exp(-x * x);
  return z >= 0 ? (1 + erf) / 2 : (1 - erf) / 2;
}

/** Gauss-Hermite quadrature for a standard normal, three nodes: value and weight (Abramowitz and Stegun 25.10, scaled). */
export const THREE_NODES = [
  [0, 2 / 3],
  [Math.sqrt(3), 1 / 6],
  [-Math.sqrt(3), 1 / 6],
] as const;
