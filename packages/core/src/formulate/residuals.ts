import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import type { TargetAngle } from '../matching/target';

/** CIEDE2000 of one unit on each Lab axis at a target's angles: squares of what is weighted by it add up to about its square. */
export const differenceWeights = (target: readonly TargetAngle[]): number[][] =>
  target.map(({ lab }) =>
    [0, 1, 2].map((c) => {
      const moved = lab.map((v, k) => (k === c ? v + 0.5 : v)) as unknown as Lab;
      const back = lab.map((v, k) => (k === c ? Math.max(c ? -200 : 0, v - 0.5) : v)) as unknown as Lab;
      return de2000(back, moved);
    }),
  );

/** Weighted differences to a target, three an angle. */
export function residuals(
  labs: readonly Lab[],
  target: readonly TargetAngle[],
  weights: readonly (readonly number[])[],
): Float64Array {
  const r = new Float64Array(3 * target.length);
  target.forEach(({ lab }, g) => {
    for (let c = 0; c < 3; c++) r[3 * g + c] = weights[g]![c]! * (labs[g]![c]! - lab[c]!);
  });
  return r;
}
