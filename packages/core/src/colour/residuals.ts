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

/** How the scatter of a reading grows with its lightness, Lab units on each axis: its shape, a steady instrument lies below. Common practice (no source). */
export const scatterShape = (lightness: number): number => 0.3 + 0.01 * Math.max(0, lightness);
/** How much a reading's scatter counts beside what is seen of a difference; ours, by what finds hidden mixes most often. */
const BY_SCATTER = 2 / 3;

/**
 * Weights for what a reading may have been: what is read surely counts for more than what scatters, two parts to one of what is seen
 * of a difference. Bright angles scatter most. On the mean of the angles squares add up to about that of CIEDE2000.
 */
export function readingWeights(target: readonly Coloured[]): number[][] {
  const seen = differenceWeights(target);
  const sure = target.map(({ lab }) => 1 / scatterShape(lab[0]));
  const mean = (of: readonly number[]): number => of.reduce((sum, v) => sum + v, 0) / of.length;
  const scale = mean(seen.flat()) / mean(sure);
  return seen.map((axes, g) => axes.map((v) => v ** (1 - BY_SCATTER) * (scale * sure[g]!) ** BY_SCATTER));
}

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
