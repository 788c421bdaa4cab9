export { createRandom, normal, seedOf } from './random';
export { choleskyOf, halfLogDet, quantile, solveCholesky, solveLower, solveUpper, timesLower } from './linear';
export { normalCdf } from './normal';
export { boundedLeastSquares } from './bounded';
