/** How a repaired part meets the rest: side by side at an edge, or faded into it. */
export type Meeting = 'edge' | 'blend';
export const MEETINGS: readonly Meeting[] = ['edge', 'blend'];

/** Limits of a match by aspecular angle, edge to edge, CIEDE2000. Common practice (no source), edited per job. */
export const DEFAULT_TOLERANCES: Readonly<Record<number, number>> = {
  [-15]: 1.8,
  15: 1.6,
  25: 1.4,
  45: 1.2,
  75: 1.4,
  110: 1.8,
};
const ELSEWHERE = 1.5;
/** A blend hides this much more. Common practice (no source). */
export const BLEND_WIDER = 1.5;
export const USUAL_LIMIT_SOURCE = 'common practice (no source)';

/** What a job's painter set of its limits. */
export interface MatchLimits {
  readonly meeting: Meeting;
  /** Edge to edge, by angle; those not named are the family's. */
  readonly own: readonly { readonly aspecular: number; readonly limit: number }[];
  /** Where they come from: a customer's sheet, a standard, a habit. */
  readonly source: string;
}

export function defaultTolerance(aspecular: number): number {
  return DEFAULT_TOLERANCES[aspecular] ?? ELSEWHERE;
}

/** A family's limits with what the shop set of them. @param own the shop's; null while it set none */
export const familyTable = (
  usual: Readonly<Record<number, number>>,
  own: MatchLimits['own'] | null,
): Readonly<Record<number, number>> => ({
  ...usual,
  ...Object.fromEntries((own ?? []).map((o) => [o.aspecular, o.limit])),
});

/**
 * Largest CIEDE2000 that passes at an angle: the job's own limit or its family's, wider where it is blended.
 * @param usual the family's limits, see {@link familyTable}
 */
export function limitAt(
  aspecular: number,
  usual: Readonly<Record<number, number>>,
  limits: MatchLimits | null,
): number {
  const own = limits?.own.find((o) => o.aspecular === aspecular)?.limit ?? usual[aspecular] ?? ELSEWHERE;
  return own * (limits?.meeting === 'blend' ? BLEND_WIDER : 1);
}
