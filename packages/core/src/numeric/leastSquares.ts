import { Matrix, solve, inverse } from 'ml-matrix';

export interface LeastSquaresResult {
  readonly parameters: number[];
  /** Sum of squared residuals at the parameters. */
  readonly residual: number;
  readonly iterations: number;
  readonly status: 'converged' | 'stalled' | 'iterationLimit' | 'nonFinite';
  /** Inverse of J'J at the solution: posterior covariance when priors are among the residuals. */
  readonly covariance: number[][];
}

export interface LeastSquaresOptions {
  readonly maxIterations?: number;
  /** Relative change of the sum of squares that counts as no change. */
  readonly tolerance?: number;
  /** Step of the numeric derivative, absolute. */
  readonly step?: number;
}

const sumSquares = (r: readonly number[]): number => r.reduce((s, v) => s + v * v, 0);

/**
 * Levenberg-Marquardt on residuals already divided by their standard deviations; a Gaussian prior is a residual like any
 * other. Derivatives are forward differences on the way and central ones for the covariance. Source: Marquardt 1963.
 */
export function levenbergMarquardt(
  residuals: (parameters: readonly number[]) => number[],
  start: readonly number[],
  { maxIterations = 60, tolerance = 1e-6, step = 1e-3 }: LeastSquaresOptions = {},
): LeastSquaresResult {
  let x = [...start];
  let r = residuals(x);
  let cost = sumSquares(r);
  let damping = 1e-2;
  let status: LeastSquaresResult['status'] = 'iterationLimit';
  let iterations = 0;
  const jacobian = (at: readonly number[], here: readonly number[], central: boolean): Matrix => {
    const j = Matrix.zeros(here.length, at.length);
    at.forEach((_, p) => {
      const shifted = (d: number) => residuals(at.map((v, q) => (q === p ? v + d : v)));
      const up = shifted(step);
      const down = central ? shifted(-step) : here;
      for (let i = 0; i < here.length; i++) j.set(i, p, (up[i]! - down[i]!) / (central ? 2 * step : step));
    });
    return j;
  };
  let j = jacobian(x, r, false);
  for (; iterations < maxIterations; iterations++) {
    if (!Number.isFinite(cost)) {
      status = 'nonFinite';
      break;
    }
    const jt = j.transpose();
    const normal = jt.mmul(j);
    const gradient = jt.mmul(Matrix.columnVector(r));
    const damped = normal.clone();
    for (let p = 0; p < x.length; p++) damped.set(p, p, normal.get(p, p) * (1 + damping) + 1e-12);
    const delta = solve(damped, gradient).to1DArray();
    const next = x.map((v, p) => v - delta[p]!);
    const nextR = residuals(next);
    const nextCost = sumSquares(nextR);
    if (nextCost < cost) {
      const gain = (cost - nextCost) / Math.max(cost, 1e-300);
      x = next;
      r = nextR;
      cost = nextCost;
      damping = Math.max(damping / 8, 1e-9);
      if (gain < tolerance) {
        status = 'converged';
        break;
      }
      j = jacobian(x, r, false);
    } else {
      if (damping > 1e8) {
        // No downhill step exists at any damping: a minimum to rounding if the step has vanished.
        status = Math.max(...delta.map(Math.abs)) < 1e-6 ? 'converged' : 'stalled';
        break;
      }
      damping *= 8;
    }
  }
  j = jacobian(x, r, true);
  const normal = j.transpose().mmul(j);
  for (let p = 0; p < x.length; p++) normal.set(p, p, normal.get(p, p) + 1e-12);
  return { parameters: x, residual: cost, iterations, status, covariance: inverse(normal).to2DArray() };
}
