import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const folder = dirname(fileURLToPath(import.meta.url));

/** Rows of a check table, header left out. Only tests use this. */
export function loadTable(name: string): number[][] {
  return readFileSync(join(folder, name), 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(',').map(Number));
}

export interface MonteCarloCase {
  readonly id: string;
  readonly ground: number;
  readonly coats: readonly Record<string, unknown>[];
  readonly geometries: readonly { incidence: number; aspecular: number; factor: number; standardError: number }[];
}

/** Ray-transport cases; see testdata/README.md. */
export function loadMonteCarlo(): MonteCarloCase[] {
  return (JSON.parse(readFileSync(join(folder, 'film-monte-carlo.json'), 'utf8')) as { cases: MonteCarloCase[] }).cases;
}
