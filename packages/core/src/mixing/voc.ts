/** What a part brings into the cup. */
export interface VocPart {
  readonly ml: number;
  /** Mass of VOC in a litre of the part, g. */
  readonly vocGPerL: number;
  /** Water and exempt solvent, fractions of its volume. */
  readonly waterShare: number;
  readonly exemptShare: number;
}

/**
 * VOC content of a mix, g/l, by mass balance after the definition of ASTM D3960: mass of VOC over the volume of the mix
 * (`actual`), and over that volume less water and exempt solvents (`coating`). Volumes are taken to add.
 */
export function vocOfMix(parts: readonly VocPart[]): { readonly actual: number; readonly coating: number } {
  let grams = 0;
  let ml = 0;
  let counted = 0;
  for (const p of parts) {
    grams += (p.vocGPerL * p.ml) / 1000;
    ml += p.ml;
    counted += p.ml * Math.max(0, 1 - p.waterShare - p.exemptShare);
  }
  return { actual: ml > 0 ? (1000 * grams) / ml : 0, coating: counted > 0 ? (1000 * grams) / counted : 0 };
}

/** Pot life at a temperature, minutes: halves for every 10 C warmer. Common practice (no source); the sheet rules. */
export function potLifeAt(minutesAt20: number, temperature: number): number {
  return minutesAt20 * 2 ** ((20 - temperature) / 10);
}

export type PotState = 'fresh' | 'soon' | 'over' | 'no limit';

/** Warn when this share of a pot life is left, or ten minutes, whichever is more; ours. */
const SOON_SHARE = 0.2;
const SOON_MINUTES = 10;

/** Where a mixed cup stands. @param potMinutes null for what does not set. */
export function potState(
  mixedAtMs: number,
  potMinutes: number | null,
  nowMs: number,
): { readonly state: PotState; readonly minutesLeft: number | null } {
  if (potMinutes === null) return { state: 'no limit', minutesLeft: null };
  // A clock read in steps may lie before the mixing; no more is left than there was.
  const minutesLeft = Math.min(potMinutes, potMinutes - (nowMs - mixedAtMs) / 60_000);
  if (minutesLeft <= 0) return { state: 'over', minutesLeft };
  return { state: minutesLeft <= Math.max(SOON_MINUTES, SOON_SHARE * potMinutes) ? 'soon' : 'fresh', minutesLeft };
}
