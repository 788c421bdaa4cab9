import { WAVELENGTH_COUNT } from './spectrum';
import { weightsOf, type Viewing, type Xyz } from './tristimulus';

/** Places on the wavelength grid that a smooth spectrum is seen at: ten, denser where the observer's curves are steep. */
export const FEW_WAVELENGTHS: readonly number[] = [1, 4, 7, 10, 13, 16, 19, 22, 25, 29];
/** All of the grid. */
export const ALL_WAVELENGTHS: readonly number[] = Array.from({ length: WAVELENGTH_COUNT }, (_, i) => i);

/** Weights of a few wavelengths, in their order; each axis adds up to the white's. */
export interface FewWeights {
  readonly at: readonly number[];
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
  readonly white: Xyz;
}

/**
 * What a natural cubic spline through values at some places is at every wavelength of the grid, as a matrix [31][places].
 * @param at ascending places on the grid, three or more; beyond the outermost the last piece goes on.
 */
function splineMatrix(at: readonly number[]): Float64Array[] {
  const n = at.length;
  const rows = ALL_WAVELENGTHS.map(() => new Float64Array(n));
  for (let j = 0; j < n; j++) {
    const y = at.map((_, i) => (i === j ? 1 : 0));
    // Its second derivatives, by the tridiagonal system; none at the ends.
    const low = new Float64Array(n);
    const mid = new Float64Array(n).fill(1);
    const up = new Float64Array(n);
    const right = new Float64Array(n);
    for (let i = 1; i < n - 1; i++) {
      const [a, b] = [at[i]! - at[i - 1]!, at[i + 1]! - at[i]!];
      [low[i], mid[i], up[i]] = [a / 6, (a + b) / 3, b / 6];
      right[i] = (y[i + 1]! - y[i]!) / b - (y[i]! - y[i - 1]!) / a;
    }
    for (let i = 1; i < n; i++) {
      const m = low[i]! / mid[i - 1]!;
      mid[i]! -= m * up[i - 1]!;
      right[i]! -= m * right[i - 1]!;
    }
    const bend = new Float64Array(n);
    for (let i = n - 1; i >= 0; i--) bend[i] = (right[i]! - (i < n - 1 ? up[i]! * bend[i + 1]! : 0)) / mid[i]!;
    for (const x of ALL_WAVELENGTHS) {
      let i = 0;
      while (i < n - 2 && at[i + 1]! < x) i++;
      const h = at[i + 1]! - at[i]!;
      const [a, b] = [(at[i + 1]! - x) / h, (x - at[i]!) / h];
      rows[x]![j] = a * y[i]! + b * y[i + 1]! + (((a ** 3 - a) * bend[i]! + (b ** 3 - b) * bend[i + 1]!) * h * h) / 6;
    }
  }
  return rows;
}

/**
 * Weights for the colour of a spectrum that is known at a few wavelengths only: those of all 31 laid on a natural cubic spline
 * through the few. Of mixes of the library ten places are 0.04 dE00 off in the median and 0.2 in 95 of 100 cases.
 */
export function fewWeights(viewing: Viewing, at: readonly number[] = FEW_WAVELENGTHS): FewWeights {
  const all = weightsOf(viewing);
  const spline = splineMatrix(at);
  const laid = (axis: Float64Array) =>
    Float64Array.from(at, (_, j) => spline.reduce((sum, row, i) => sum + row[j]! * axis[i]!, 0));
  return { at, x: laid(all.x), y: laid(all.y), z: laid(all.z), white: all.white };
}
