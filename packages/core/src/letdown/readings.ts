import type { Lab } from '../colour/lab';
import { scatterShape } from '../colour/residuals';

/** Readings of one rung, in the order of the model's geometries; null where an angle was not read. 0 coats: the ground alone. */
export interface RungReading {
  readonly coats: number;
  readonly labs: readonly (Lab | null)[];
}

/**
 * Standard deviation of one spot on each Lab axis, as the painter's repeated spots show it: one figure, one a geometry, or null
 * where nothing is known of it.
 */
export type SpotNoise = number | readonly number[] | null;

/** Usual repeatability of a spot by its lightness, Lab units. Common practice (no source). */
const usualNoise = (l: number): number => 0.25 + 0.007 * Math.max(0, l);

/** What is known of the scatter of readings, to be asked by geometry and lightness with {@link noiseAt}. */
export interface Noise {
  readonly spot: SpotNoise;
  /** Usual noise of the target's own lightnesses, rms: what a single figure is drawn toward. */
  readonly usual: number;
}

/** @param lightness L* of the target at every geometry; empty where only the usual noise or figures by geometry are used. */
export const noiseOf = (spot: SpotNoise, lightness: readonly number[]): Noise => ({
  spot,
  usual: Math.sqrt(lightness.reduce((s, l) => s + scatterShape(l) ** 2, 0) / Math.max(1, lightness.length)),
});

/**
 * Standard deviation of one spot at a geometry of a given lightness. A single measured figure is drawn half way to the usual ones
 * (few spots tell little of a scatter) and spread over the angles by lightness; figures by geometry are taken as they are.
 */
export function noiseAt({ spot, usual }: Noise, geometry: number, l: number): number {
  if (spot === null) return usualNoise(l);
  if (typeof spot !== 'number') return spot[geometry]!;
  return (0.5 * (spot + usual) * scatterShape(l)) / usual;
}

/** Scatter of repeated spots: pooled standard deviation over all axes of sets that hold more than one; null without any. */
export function noiseOfSpots(sets: readonly (readonly (readonly (Lab | null)[])[])[]): number | null {
  let squares = 0;
  let freedom = 0;
  for (const spots of sets) {
    const geometries = Math.max(0, ...spots.map((s) => s.length));
    for (let g = 0; g < geometries; g++) {
      const here = spots.map((s) => s[g] ?? null).filter((l): l is Lab => l !== null);
      if (here.length < 2) continue;
      for (const c of [0, 1, 2] as const) {
        const mean = here.reduce((s, l) => s + l[c], 0) / here.length;
        squares += here.reduce((s, l) => s + (l[c] - mean) ** 2, 0);
        freedom += here.length - 1;
      }
    }
  }
  return freedom > 0 ? Math.sqrt(squares / freedom) : null;
}

/**
 * Straight lines between neighbouring rungs; beyond the last one its line goes on.
 * @param rows ascending, read at every angle, at least two
 */
export function linesAt(rows: readonly RungReading[], n: number): Lab[] {
  const found = rows.findIndex((r) => r.coats >= n);
  const high = Math.max(1, found < 0 ? rows.length - 1 : found);
  const [a, b] = [rows[high - 1]!, rows[high]!];
  const u = (n - a.coats) / (b.coats - a.coats);
  return a.labs.map((lab, g): Lab => {
    const to = b.labs[g]!;
    return [lab![0] + u * (to[0] - lab![0]), lab![1] + u * (to[1] - lab![1]), lab![2] + u * (to[2] - lab![2])];
  });
}
