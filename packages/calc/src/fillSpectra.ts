/**
 * `npm run fill-spectra`: fits what is missing of a spectrum known at some wavelengths, and writes it to the core's table.
 * @see fillSpectrum in the core's colour room
 */
import { reflectanceToXyz } from '@steady-gleam/core/colour';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { Matrix, solve } from 'ml-matrix';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomStacks } from './randomStacks';

/** Where a spectrum is known: dense in the violet, where dye, oxide and interference meet; chosen by the worst of 3,000 other films. */
const FROM = [1, 2, 3, 4, 5, 7, 9, 11, 13, 15, 17, 19, 21, 23, 25, 27, 28];
const [STACKS, SEED] = [9000, 12] as const;
const PLACES = 31;
/** Darker than this share of white counts no more for its darkness. */
const DARK = 0.004;
/** Keeps the sums short where places tell the same. */
const RIDGE = 1e-7;

const shop = prepareLibrary();
const model = shop.model(FIVE_ANGLES);
const spectra = randomStacks(SEED, STACKS, shop).flatMap(({ ground, coats }) => {
  const factors = model.evaluate(ground, coats);
  return FIVE_ANGLES.map((_, g) => factors.slice(g * PLACES, (g + 1) * PLACES));
});
const roots = spectra.map((s) => s.map((v) => Math.sqrt(Math.max(0, v))));
/** What a change of one factor is seen by: lightness goes by the cube root of Y. */
const seen = spectra.map((s) => Math.max(DARK, reflectanceToXyz(s)[1] / 100) ** (-2 / 3));

/** Constant and factors of the known roots for one missing place, by weighted least squares. */
function fit(place: number): number[] {
  const size = FROM.length + 1;
  const normal = Matrix.zeros(size, size);
  const right = Matrix.zeros(size, 1);
  roots.forEach((root, n) => {
    // An error of the root is seen by twice the root.
    const weight = (2 * root[place]! * seen[n]!) ** 2;
    const row = [1, ...FROM.map((i) => root[i]!)];
    for (let p = 0; p < size; p++) {
      right.set(p, 0, right.get(p, 0) + weight * row[p]! * root[place]!);
      for (let q = 0; q < size; q++) normal.set(p, q, normal.get(p, q) + weight * row[p]! * row[q]!);
    }
  });
  for (let p = 0; p < size; p++) normal.set(p, p, normal.get(p, p) + RIDGE * spectra.length);
  return solve(normal, right).to1DArray();
}

const missing = Array.from({ length: PLACES }, (_, i) => i).filter((i) => !FROM.includes(i));
const rows = missing.map((place) => fit(place).map((v) => Number(v.toFixed(5))));
writeFileSync(
  join(import.meta.dirname, '../../core/src/colour/tables/fill.ts'),
  `/** Made by \`npm run fill-spectra\`; see fillSpectrum. */
export const FILL_FROM: readonly number[] = [${FROM.join(', ')}];

/** For every other place a constant and a factor of each root that is known. */
// prettier-ignore
export const FILL_MATRIX: readonly number[] = [
${rows.map((row) => `  ${row.join(', ')},`).join('\n')}
];
`,
);
