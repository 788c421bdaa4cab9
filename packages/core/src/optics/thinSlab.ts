import type { Optics } from './optics';
import { RATE, PER_RATE_DIRECTION } from './rates';

/**
 * Operators of a homogeneous slab at all wavelengths, the same from above and below. Per wavelength, in one block:
 * R (4), T (4); per direction r, t of the lobe, R and T of beam to diffuse (2 + 2), R and T of diffuse to view (2 + 2),
 * what passes twice and what returns of the first order, what passes and what is
 * added of the edge-born trapped light; per geometry R and T of beam to view.
 */
export interface Slab {
  readonly block: number;
  readonly data: Float64Array;
}

export const PER_DIRECTION = 14;
/** Offsets within a direction's part of a block. */
export const D = { r: 0, t: 1, ru: 2, tu: 4, rw: 6, tw: 8, through: 10, first: 11, edgeThrough: 12, edge: 13 } as const;

export function slabBlock(optics: Optics): number {
  return 8 + PER_DIRECTION * optics.directions.length + 2 * optics.geometries.length;
}

/** Thinnest start of the doubling: largest extinction of the first slice. */
export const THIN = 1 / 10;
/** Scratch of the adding of one slab onto another: fields between the two, per unit source. */
export interface Between {
  readonly dLobe: Float64Array;
  readonly uLobe: Float64Array;
  readonly dD: Float64Array;
  readonly uD: Float64Array;
}

export function createBetween(optics: Optics): Between {
  const d = optics.directions.length;
  return {
    dLobe: new Float64Array(d),
    uLobe: new Float64Array(d),
    dD: new Float64Array(2 * d),
    uD: new Float64Array(2 * d),
  };
}

export function startThin(optics: Optics, rates: Float64Array, z: number, s: Float64Array, o: number): void {
  const { qC, qT } = optics.film;
  const b0 = rates[0]! * z,
    b1 = rates[1]! * z,
    b2 = rates[2]! * z,
    b3 = rates[3]! * z;
  const e0 = rates[4]! * z,
    e1 = rates[5]! * z,
    e2 = rates[6]! * z,
    e3 = rates[7]! * z;
  // R = B - (E B + B E) / 2, T = 1 - E + (E E + B B) / 2, to second order in the slice.
  s[o] = b0 - 0.5 * (e0 * b0 + e1 * b2 + b0 * e0 + b1 * e2);
  s[o + 1] = b1 - 0.5 * (e0 * b1 + e1 * b3 + b0 * e1 + b1 * e3);
  s[o + 2] = b2 - 0.5 * (e2 * b0 + e3 * b2 + b2 * e0 + b3 * e2);
  s[o + 3] = b3 - 0.5 * (e2 * b1 + e3 * b3 + b2 * e1 + b3 * e3);
  s[o + 4] = 1 - e0 + 0.5 * (e0 * e0 + e1 * e2 + b0 * b0 + b1 * b2);
  s[o + 5] = -e1 + 0.5 * (e0 * e1 + e1 * e3 + b0 * b1 + b1 * b3);
  s[o + 6] = -e2 + 0.5 * (e2 * e0 + e3 * e2 + b2 * b0 + b3 * b2);
  s[o + 7] = 1 - e3 + 0.5 * (e2 * e1 + e3 * e3 + b2 * b1 + b3 * b3);
  const hC = rates[RATE.hC]! * z,
    hT = rates[RATE.hT]! * z;
  const nd = optics.directions.length;
  for (let d = 0; d < nd; d++) {
    const at = RATE.direction + PER_RATE_DIRECTION * d;
    const al = rates[at]! * z,
      sg = rates[at + 1]! * z,
      h = rates[at + 2]! * z;
    const p = o + 8 + PER_DIRECTION * d;
    s[p + D.r] = sg - al * sg;
    s[p + D.t] = 1 - al + 0.5 * (al * al + sg * sg);
    const g0 = 0.5 * qC * h,
      g1 = 0.5 * qT * h;
    const eg0 = e0 * g0 + e1 * g1,
      eg1 = e2 * g0 + e3 * g1;
    const bg0 = b0 * g0 + b1 * g1,
      bg1 = b2 * g0 + b3 * g1;
    s[p + D.ru] = g0 - 0.5 * (eg0 - g0 * sg - bg0 + g0 * al);
    s[p + D.ru + 1] = g1 - 0.5 * (eg1 - g1 * sg - bg1 + g1 * al);
    s[p + D.tu] = g0 + 0.5 * (bg0 + g0 * sg - eg0 - g0 * al);
    s[p + D.tu + 1] = g1 + 0.5 * (bg1 + g1 * sg - eg1 - g1 * al);
    const k = 1 / (4 * optics.directions[d]!);
    const w0 = k * hC,
      w1 = k * hT;
    const we0 = w0 * e0 + w1 * e2,
      we1 = w0 * e1 + w1 * e3;
    const wb0 = w0 * b0 + w1 * b2,
      wb1 = w0 * b1 + w1 * b3;
    s[p + D.rw] = w0 - 0.5 * (al * w0 - wb0 - sg * w0 + we0);
    s[p + D.rw + 1] = w1 - 0.5 * (al * w1 - wb1 - sg * w1 + we1);
    s[p + D.tw] = w0 + 0.5 * (sg * w0 + wb0 - al * w0 - we0);
    s[p + D.tw + 1] = w1 + 0.5 * (sg * w1 + wb1 - al * w1 - we1);
  }
  const q = o + 8 + PER_DIRECTION * nd;
  for (let g = 0; g < optics.geometries.length; g++) {
    const ai = RATE.direction + PER_RATE_DIRECTION * optics.dirIn[g]!,
      av = RATE.direction + PER_RATE_DIRECTION * optics.dirView[g]!;
    const k = 1 / (4 * optics.directions[optics.dirView[g]!]!);
    const hi = rates[ai + 2]! * z;
    const zq = k * hi;
    const wg = k * hi * 0.5 * (hC * qC + hT * qT);
    const loss = (rates[ai]! + rates[av]!) * z * zq,
      gain = (rates[ai + 1]! + rates[av + 1]!) * z * zq;
    s[q + 2 * g] = zq - 0.5 * (loss - gain - 2 * wg);
    s[q + 2 * g + 1] = zq + 0.5 * (gain + 2 * wg - loss);
  }
}
