import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import type { TargetAngle } from '../matching/target';
import { choleskyOf, solveLower } from '../numeric/linear';
import { noiseAt, type Noise } from './readings';
import { labsAt, LADDER_LAST, LADDER_STEP, type Ladder } from './fittedLadder';

/** What is to be matched, and how it was read. */
export interface TargetRead {
  readonly angles: readonly TargetAngle[];
  /** Spots that were averaged. */
  readonly spots: number;
  /** Read with the instrument the card is read with. */
  readonly sameInstrument: boolean;
  /** Scatter of one spot. */
  readonly noise: Noise;
}

/** What another instrument adds: an offset common to all angles, one at each, Lab; the error of an angle, degrees. */
const [OFFSET_COMMON, OFFSET_ANGLE, ANGLE_ERROR] = [0.5, 0.3, 1.5] as const;
/** At the end toward the mirror colour changes faster than the last difference says. */
const END_STEEPER = 1.4;
/** How far a match may miss by what no count mends, dE00 on each axis. */
export const MISMATCH = 0.7;
/** How far a count may be from the nominal one before it costs: ln. Stops a flat ladder from running away. */
const NOMINAL_PULL = 0.5;

/** CIEDE2000 of one unit on every Lab axis at a colour. */
export const axisWeights = (lab: Lab): readonly [number, number, number] => [
  de2000(lab, [lab[0] + 1, lab[1], lab[2]]),
  de2000(lab, [lab[0], lab[1] + 1, lab[2]]),
  de2000(lab, [lab[0], lab[1], lab[2] + 1]),
];

/** How the target changes by a degree of its aspecular angle, one Lab a geometry; 0 where it has no neighbour. */
export function byAngle(angles: readonly TargetAngle[]): Lab[] {
  return angles.map((t, g): Lab => {
    const others = angles
      .map((a, i) => ({ i, at: a.aspecular, same: a.incidence === t.incidence }))
      .filter((a) => a.same)
      .sort((a, b) => a.at - b.at);
    const k = others.findIndex((a) => a.i === g);
    const [low, high] = [others[k - 1] ?? others[k]!, others[k + 1] ?? others[k]!];
    if (low.i === high.i) return [0, 0, 0];
    const steeper = k === 0 ? END_STEEPER : 1;
    const slope = (c: 0 | 1 | 2) => (steeper * (angles[high.i]!.lab[c] - angles[low.i]!.lab[c])) / (high.at - low.at);
    return [slope(0), slope(1), slope(2)];
  });
}

/** A target made ready to be looked for on many ladders. */
export interface TargetSought {
  readonly read: TargetRead;
  readonly labs: readonly Lab[];
  /** dE00 of one unit, by output. */
  readonly weights: Float64Array;
  /** Standard deviation of the averaged target on a Lab axis, by output: noise alone. */
  readonly sd: Float64Array;
  readonly byAngle: readonly Lab[];
  /** Lower factor of the covariance of u = w (T - M); null with one instrument. */
  readonly covariance: number[][] | null;
}

export function seekTarget(read: TargetRead): TargetSought {
  const labs = read.angles.map((t) => t.lab);
  const weights = Float64Array.from(labs.flatMap(axisWeights));
  const sd = Float64Array.from(
    labs.flatMap((lab, g) => {
      const one = noiseAt(read.noise, g, lab[0]) / Math.sqrt(Math.max(1, read.spots));
      return [one, one, one];
    }),
  );
  const q = byAngle(read.angles);
  const size = weights.length;
  const covariance = read.sameInstrument
    ? null
    : choleskyOf(
        Array.from({ length: size }, (_, i) =>
          Array.from({ length: size }, (_, j) => {
            const [g, c, h, d] = [Math.floor(i / 3), i % 3, Math.floor(j / 3), j % 3] as [number, 0, number, 0];
            let b = c === d ? OFFSET_COMMON ** 2 : 0;
            if (i === j) b += OFFSET_ANGLE ** 2 + sd[i]! ** 2;
            if (g === h) b += ANGLE_ERROR ** 2 * q[g]![c] * q[g]![d];
            return (i === j ? MISMATCH ** 2 : 0) + weights[i]! * weights[j]! * b;
          }),
        ),
      );
  return { read, labs, weights, sd, byAngle: q, covariance };
}

/** Standard deviation of a target's own colours by angle, as a difference, dE00: what repeated spots leave open. */
export const targetNoise = (read: TargetRead): number[] => {
  const { weights, sd, labs } = seekTarget({ ...read, sameInstrument: true });
  return labs.map((_, g) => Math.hypot(...[0, 1, 2].map((c) => weights[3 * g + c]! * sd[3 * g + c]!)));
};

/** A target drawn as it could truly be, given how it was read. @param normal standard normal numbers */
export function drawTarget(sought: TargetSought, normal: () => number): TargetSought {
  const { labs, sd, byAngle: q, weights, read } = sought;
  const other = !read.sameInstrument;
  const common = [normal(), normal(), normal()];
  const drawn = labs.map((lab, g): Lab => {
    const angle = normal();
    const at = (c: 0 | 1 | 2): number => {
      const o = 3 * g + c;
      let v = lab[c] + sd[o]! * normal();
      if (other) {
        v += OFFSET_COMMON * common[c]! + OFFSET_ANGLE * normal() + ANGLE_ERROR * angle * q[g]![c];
        v += ((MISMATCH / 2) * normal()) / Math.max(0.05, weights[o]!);
      }
      return v;
    };
    return [Math.max(0, at(0)), at(1), at(2)];
  });
  return { ...sought, labs: drawn };
}

/** How far colours are from a target, in squares of dE00: the differences, or what they come to where instruments differ. */
export function missOf(sought: TargetSought, labs: ArrayLike<number>): number {
  if (!sought.covariance) {
    let sum = 0;
    sought.labs.forEach((lab, g) => {
      sum += de2000(lab, [Math.max(0, labs[3 * g]!), labs[3 * g + 1]!, labs[3 * g + 2]!]) ** 2;
    });
    return sum;
  }
  const u = sought.weights.map((w, o) => w * (sought.labs[Math.floor(o / 3)]![(o % 3) as 0] - labs[o]!));
  return MISMATCH ** 2 * solveLower(sought.covariance, u).reduce((s, v) => s + v * v, 0);
}

/** Penalty of a count far from the nominal one. */
const pull = (n: number, nominal: number): number =>
  MISMATCH ** 2 * (Math.log(Math.max(n, LADDER_STEP) / nominal) / NOMINAL_PULL) ** 2;

/** Least of a function on equally spaced points, refined by the parabola through three of them. */
export function leastOf(from: number, to: number, step: number, f: (n: number) => number): number {
  const count = Math.max(1, Math.round((to - from) / step));
  const values = Array.from({ length: count + 1 }, (_, i) => f(from + i * step));
  const i = values.reduce((least, v, k) => (v < values[least]! ? k : least), 0);
  const [a, b, c] = [values[i - 1], values[i]!, values[i + 1]];
  if (a === undefined || c === undefined) return from + i * step;
  const bend = a - 2 * b + c;
  return from + (i + (bend > 1e-12 ? (a - c) / (2 * bend) : 0)) * step;
}

/**
 * Count at which colours match a target best.
 * @param colours Lab by count. @param nominal count of the nominal hand, which a flat ladder is held near; null for none.
 * @param range counts looked at
 */
export function bestCount(
  colours: (n: number) => ArrayLike<number>,
  sought: TargetSought,
  nominal: number | null,
  [from, to]: readonly [number, number] = [LADDER_STEP, LADDER_LAST],
  step = LADDER_STEP,
): number {
  return leastOf(from, to, step, (n) => missOf(sought, colours(n)) + (nominal === null ? 0 : pull(n, nominal)));
}

/** Colours of a ladder by count, for {@link bestCount}. */
export function coloursOf(ladder: Ladder): (n: number) => Float64Array {
  const labs = new Float64Array(ladder.outputs);
  return (n) => labsAt(ladder, n, labs);
}
