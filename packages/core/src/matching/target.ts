import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import type { Geometry } from '../optics/geometry';

/** One angle of what is to be matched. */
export interface TargetAngle extends Geometry {
  readonly lab: Lab;
  /** Largest CIEDE2000 that still passes at this angle. */
  readonly tolerance: number;
}

/** Badness (largest difference over its tolerance), and the rms difference over the angles. */
export interface MatchScore {
  readonly toleranceRatio: number;
  readonly rmsDe: number;
  readonly differences: readonly number[];
}

/** Scores a colour per angle against a target, in the target's order. */
export function scoreMatch(target: readonly TargetAngle[], labs: readonly Lab[]): MatchScore {
  let toleranceRatio = 0;
  let squares = 0;
  const differences = target.map((t, g) => {
    const d = de2000(t.lab, labs[g]!);
    toleranceRatio = Math.max(toleranceRatio, d / t.tolerance);
    squares += d * d;
    return d;
  });
  return { toleranceRatio, rmsDe: Math.sqrt(squares / target.length), differences };
}
