import { de2000 } from './difference';
import type { Lab } from './lab';

/** Something that has a colour. */
interface Coloured {
  readonly lab: Lab;
}

const withAxis = ([l, a, b]: Lab, axis: number, v: number): Lab => [
  axis === 0 ? v : l,
  axis === 1 ? v : a,
  axis === 2 ? v : b,
];

/** CIEDE2000 of one unit on each Lab axis at a target's angles: squares of what is weighted by it add up to about its square. */
export const differenceWeights = (target: readonly Coloured[]): number[][] =>
  target.map(({ lab }) =>
    lab.map((v, c) => de2000(withAxis(lab, c, Math.max(c ? -200 : 0, v - 0.5)), withAxis(lab, c, v + 0.5))),
  );

/** Weighted differences to a target, three an angle. */
export function residuals(
  labs: readonly Lab[],
  target: readonly Coloured[],
  weights: readonly (readonly number[])[],
): Float64Array {
  const r = new Float64Array(3 * target.length);
  target.forEach(({ lab }, g) => {
    for (let c = 0; c < 3; c++) r[3 * g + c] = weights[g]![c]! * (labs[g]![c]! - lab[c]!);
  });
  return r;
}
