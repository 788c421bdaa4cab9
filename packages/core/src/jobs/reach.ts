/** What a reach is of: its size, and the length along which a blend ends, cm. */
export interface ReachedArea {
  readonly areaM2: number;
  readonly lengthCm: number;
}

/** How far a coat goes on an area. */
export type Reach =
  | { readonly kind: 'all' }
  | { readonly kind: 'none' }
  /** Only where it is needed, m2. */
  | { readonly kind: 'spot'; readonly m2: number }
  /**
   * Ends at so many cm from where it starts, fading over the last of them. `stepCm`: each coat of the layer goes so much further
   * than the one below it; the end is the last one's.
   */
  | {
      readonly kind: 'blend';
      readonly endCm: number;
      readonly fadeCm: number;
      readonly stepCm: number;
      readonly from: string;
    }
  /** About one place, whole for so many cm across and fading all round beyond them; the m2 are all it is laid on. */
  | {
      readonly kind: 'fan';
      readonly acrossCm: number;
      readonly fadeCm: number;
      readonly m2: number;
      readonly from: string;
    };

export const ALL = { kind: 'all' } as const satisfies Reach;
export const NONE = { kind: 'none' } as const satisfies Reach;

/** m2 that a coat of such a reach is laid on: whole up to where it fades, half of the fade. */
export function reachM2(reach: Reach, area: ReachedArea): number {
  switch (reach.kind) {
    case 'all':
      return area.areaM2;
    case 'none':
      return 0;
    case 'spot':
    case 'fan':
      return Math.min(reach.m2, area.areaM2);
    case 'blend':
      return area.areaM2 * Math.min(1, Math.max(0, reach.endCm - reach.fadeCm / 2) / area.lengthCm);
  }
}

/** What a reach can't be on an area: `limit` in cm, or m2. */
export type ReachRule = 'beyond' | 'longFade' | 'wholeArea';

/** Rules that a reach breaks on an area: a blend ends on it and fades on its own length, a spot is smaller than it. */
export function reachFaults(reach: Reach, area: ReachedArea): { readonly rule: ReachRule; readonly limit: number }[] {
  if (reach.kind === 'spot') return reach.m2 > area.areaM2 ? [{ rule: 'wholeArea', limit: area.areaM2 }] : [];
  if (reach.kind !== 'blend') return [];
  return [
    ...(reach.endCm > area.lengthCm ? [{ rule: 'beyond' as const, limit: area.lengthCm }] : []),
    ...(reach.fadeCm > reach.endCm ? [{ rule: 'longFade' as const, limit: reach.endCm }] : []),
  ];
}
