/** Tolerances by aspecular angle; our choice, editable per job. */
export const DEFAULT_TOLERANCES: Readonly<Record<number, number>> = {
  [-15]: 1.8,
  15: 1.6,
  25: 1.4,
  45: 1.2,
  75: 1.4,
  110: 1.8,
};

export function defaultTolerance(aspecular: number): number {
  return DEFAULT_TOLERANCES[aspecular] ?? 1.5;
}
