import { CholeskyDecomposition, Matrix } from 'ml-matrix';

/** Lower factor of a symmetric positive matrix, as rows; only its lower half is read. A little is put on the diagonal of one that is not quite positive. */
export function choleskyOf(matrix: readonly (readonly number[])[]): number[][] {
  const size = matrix.length;
  if (!size) return [];
  for (let more = 0; more < 1; more = more === 0 ? 1e-10 : more * 100) {
    const m = new Matrix(
      matrix.map((row, i) => row.map((v, j) => (i === j ? v * (1 + more) + more : j < i ? v : matrix[j]![i]!))),
    );
    const found = new CholeskyDecomposition(m);
    if (found.isPositiveDefinite()) return found.lowerTriangularMatrix.to2DArray();
  }
  throw new RangeError('A covariance has to be positive.');
}

/** Solves L y = b for the lower factor L. */
export function solveLower(lower: readonly (readonly number[])[], b: ArrayLike<number>): Float64Array {
  const y = new Float64Array(lower.length);
  for (let i = 0; i < lower.length; i++) {
    const row = lower[i]!;
    let sum = b[i]!;
    for (let j = 0; j < i; j++) sum -= row[j]! * y[j]!;
    y[i] = sum / row[i]!;
  }
  return y;
}

/** Solves L' x = b for the lower factor L. */
export function solveUpper(lower: readonly (readonly number[])[], b: ArrayLike<number>): Float64Array {
  const x = new Float64Array(lower.length);
  for (let i = lower.length - 1; i >= 0; i--) {
    let sum = b[i]!;
    for (let j = i + 1; j < lower.length; j++) sum -= lower[j]![i]! * x[j]!;
    x[i] = sum / lower[i]![i]!;
  }
  return x;
}

/** Solves (L L') x = b. */
export const solveCholesky = (lower: readonly (readonly number[])[], b: ArrayLike<number>): Float64Array =>
  solveUpper(lower, solveLower(lower, b));

/** L x for the lower factor L. */
export function timesLower(lower: readonly (readonly number[])[], x: ArrayLike<number>): Float64Array {
  return Float64Array.from(lower, (row, i) => {
    let sum = 0;
    for (let j = 0; j <= i; j++) sum += row[j]! * x[j]!;
    return sum;
  });
}

/** Half the logarithm of the determinant of L L'. */
export const halfLogDet = (lower: readonly (readonly number[])[]): number =>
  lower.reduce((s, row, i) => s + Math.log(row[i]!), 0);

/** Value below which a share q of the numbers lie, linear between neighbours. @throws RangeError without numbers */
export function quantile(values: readonly number[], q: number): number {
  if (!values.length) throw new RangeError('A quantile needs numbers.');
  const sorted = [...values].sort((a, b) => a - b);
  const at = q * (sorted.length - 1);
  const low = Math.floor(at);
  const high = Math.min(sorted.length - 1, low + 1);
  return sorted[low]! + (at - low) * (sorted[high]! - sorted[low]!);
}
