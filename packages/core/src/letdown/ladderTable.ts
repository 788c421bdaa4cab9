import type { Viewing } from '../colour/tristimulus';
import { effectCoats, factorsToLabs, type EffectCoats } from '../matching/ladder';
import type { PreparedGround } from '../optics/preparedGround';
import type { FastModel } from '../optics/stack';
import { createVariation, type Believed } from './variation';

/** What a ladder is of: coats over a ground, seen at the model's geometries. */
export interface LadderOf {
  readonly model: FastModel;
  readonly ground: PreparedGround;
  readonly recipe: EffectCoats;
  readonly viewing: Viewing;
}

/** Counts at which the film model itself is asked; between them cubic. */
const KNOTS = [0, 0.2, 0.4, 0.7, 1, 1.4, 1.8, 2.3, 2.8, 3.4, 4, 5, 6.2, 8, 10] as const;
/** Step of the table, counts. */
const STEP = 0.05;
const POINTS = Math.round(KNOTS.at(-1)! / STEP) + 1;
/** Step of the numeric derivative, in standard deviations of what is believed. */
const DERIVATIVE_STEP = 0.4;

/**
 * Lab of a ladder over the film x (in counts of the nominal hand), and its derivative by every variation in units of what is
 * believed of it (t = (value - mean) / sd): L(x, t) = L0(x) + sum_p J_p(x) (t_p - t0_p).
 */
export interface LadderTable {
  readonly believed: readonly Believed[];
  /** Where the derivatives were taken, one a variation. */
  readonly t0: readonly number[];
  /** Three outputs a geometry: L*, a*, b*. */
  readonly outputs: number;
  /** [(variation + 1) * points + point] * outputs + output; variation 0 is L0 itself. */
  readonly values: Float64Array;
}

/** Slopes of a curve through unequal knots: of the parabola through three of them, also at the ends. */
function slopesOf(y: (k: number) => number): number[] {
  const last = KNOTS.length - 1;
  const h = (k: number) => KNOTS[k + 1]! - KNOTS[k]!;
  const d = (k: number) => (y(k + 1) - y(k)) / h(k);
  return KNOTS.map((_, k) => {
    if (k === 0) return d(0) + ((d(0) - d(1)) * h(0)) / (h(0) + h(1));
    if (k === last) return d(last - 1) + ((d(last - 1) - d(last - 2)) * h(last - 1)) / (h(last - 1) + h(last - 2));
    return (d(k - 1) * h(k) + d(k) * h(k - 1)) / (h(k - 1) + h(k));
  });
}

/** Where a table's point lies between knots: the knot below and the four weights of the cubic Hermite form. */
const PLACES = Array.from({ length: POINTS }, (_, i) => {
  const x = i * STEP;
  const found = KNOTS.findIndex((knot) => knot > x + 1e-9);
  const k = found < 0 ? KNOTS.length - 2 : found - 1;
  const h = KNOTS[k + 1]! - KNOTS[k]!;
  const u = Math.min(1, (x - KNOTS[k]!) / h);
  const [u2, u3] = [u * u, u * u * u];
  return { k, w: [2 * u3 - 3 * u2 + 1, (u3 - 2 * u2 + u) * h, 3 * u2 - 2 * u3, (u3 - u2) * h] as const };
});

/**
 * Asks the film model at every knot, nominal and with every variation moved.
 * @param t0 where, one a variation; zeros for what is believed.
 */
export function tabulateLadder(of: LadderOf, believed: readonly Believed[], t0: readonly number[]): LadderTable {
  const { model, recipe, viewing } = of;
  const vary = createVariation(model.optics.film, of.ground, recipe.coat, believed);
  const outputs = 3 * model.optics.geometries.length;
  const values = new Float64Array((believed.length + 1) * POINTS * outputs);
  const valuesAt = (t: readonly number[]) => t.map((v, p) => believed[p]!.mean + v * believed[p]!.sd);
  const knotsAt = (t: readonly number[]): number[][] => {
    const { ground, coat } = vary(valuesAt(t));
    return KNOTS.map((x) => {
      const pile = model.pile([...ground.coats, ...effectCoats({ ...recipe, coat }, x)]);
      return factorsToLabs(model.over(ground, pile), viewing).flat();
    });
  };
  const fill = (block: number, knots: readonly (readonly number[])[]) => {
    for (let o = 0; o < outputs; o++) {
      const slopes = slopesOf((k) => knots[k]![o]!);
      PLACES.forEach(({ k, w }, i) => {
        values[(block * POINTS + i) * outputs + o] =
          w[0] * knots[k]![o]! + w[1] * slopes[k]! + w[2] * knots[k + 1]![o]! + w[3] * slopes[k + 1]!;
      });
    }
  };
  const base = knotsAt(t0);
  fill(0, base);
  believed.forEach((_, p) => {
    const moved = knotsAt(t0.map((v, q) => (q === p ? v + DERIVATIVE_STEP : v)));
    fill(
      p + 1,
      moved.map((labs, k) => labs.map((v, o) => (v - base[k]![o]!) / DERIVATIVE_STEP)),
    );
  });
  return { believed, t0, outputs, values };
}

/**
 * Reads a table: Lab at film x and variations t into `out`, and when asked its derivatives.
 * @param slope receives dLab/dx. @param byVariation receives dLab/dt_p at [p * outputs + o].
 */
export function readLadder(
  table: LadderTable,
  x: number,
  t: ArrayLike<number>,
  out: Float64Array,
  slope?: Float64Array,
  byVariation?: Float64Array,
): void {
  const { outputs, values, t0, believed } = table;
  const p = Math.min(POINTS - 1 - 1e-9, Math.max(0, x / STEP));
  const low = Math.floor(p);
  const u = p - low;
  const base = low * outputs;
  for (let o = 0; o < outputs; o++) {
    const a = values[base + o]!;
    const b = values[base + outputs + o]!;
    out[o] = a + u * (b - a);
    if (slope) slope[o] = (b - a) / STEP;
  }
  for (let q = 0; q < believed.length; q++) {
    const at = ((q + 1) * POINTS + low) * outputs;
    const d = t[q]! - t0[q]!;
    if (d === 0 && !byVariation) continue;
    for (let o = 0; o < outputs; o++) {
      const a = values[at + o]!;
      const b = values[at + outputs + o]!;
      const j = a + u * (b - a);
      out[o]! += d * j;
      if (slope) slope[o]! += (d * (b - a)) / STEP;
      if (byVariation) byVariation[q * outputs + o] = j;
    }
  }
}
