import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';

/** One reading of one spot at one angle. */
export interface Reading {
  readonly spot: string;
  /** Lamp, degrees from the normal. */
  readonly incidence: number;
  /** View, degrees from the mirror direction toward the lamp. */
  readonly aspecular: number;
  readonly l: number;
  readonly a: number;
  readonly b: number;
}

/** Several spots at one angle, averaged. */
export interface AveragedAngle {
  readonly incidence: number;
  readonly aspecular: number;
  readonly lab: Lab;
  readonly spots: number;
  /** Largest CIEDE2000 of a spot from the average; 0 for a single spot. */
  readonly spread: number;
}

/** Bounds of a believable reading; metallics exceed L* 100 near the mirror. */
export const READING_LIMITS = {
  lMin: 0,
  lMax: 200,
  abMax: 200,
  aspecularMin: -60,
  aspecularMax: 130,
  incidenceMax: 80,
} as const;

/** Averages readings spot by spot at each lamp and view, sorted by lamp, then view. */
export function averageReadings(readings: readonly Reading[]): AveragedAngle[] {
  const groups = new Map<string, Reading[]>();
  for (const r of readings) {
    const key = `${r.incidence}/${r.aspecular}`;
    groups.set(key, [...(groups.get(key) ?? []), r]);
  }
  return [...groups.values()]
    .map((group): AveragedAngle => {
      const mean = (k: 'l' | 'a' | 'b') => group.reduce((s, r) => s + r[k], 0) / group.length;
      const lab: Lab = [mean('l'), mean('a'), mean('b')];
      const spread = group.length > 1 ? Math.max(...group.map((r) => de2000([r.l, r.a, r.b], lab))) : 0;
      return { incidence: group[0]!.incidence, aspecular: group[0]!.aspecular, lab, spots: group.length, spread };
    })
    .sort((p, q) => p.incidence - q.incidence || p.aspecular - q.aspecular);
}

/** Spots of a set: as many as its angle with the fewest has; 0 without readings. */
export const spotsOf = (readings: readonly Reading[]): number => {
  const averaged = averageReadings(readings);
  return averaged.length ? Math.min(...averaged.map((a) => a.spots)) : 0;
};

/** Colours of every spot of a set, in the order of its averaged angles; null where a spot was not read at one. */
export function spotLabsOf(readings: readonly Reading[]): (Lab | null)[][] {
  const angles = averageReadings(readings);
  return [...new Set(readings.map((r) => r.spot))].map((spot) =>
    angles.map(({ incidence, aspecular }): Lab | null => {
      const own = readings.find((r) => r.spot === spot && r.incidence === incidence && r.aspecular === aspecular);
      return own ? [own.l, own.a, own.b] : null;
    }),
  );
}
