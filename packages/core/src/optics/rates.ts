import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { PreparedCoat } from './coat';
import { flakeClasses } from './flakeClasses';
import type { Optics } from './optics';

/** Places in the rates of a coat at one wavelength; see section 4 of docs/optics.md. Matrices are row-major, row = out. */
export const RATE = {
  /** Backscatter matrix. */
  B: 0,
  /** Extinction less forward scatter. */
  E: 4,
  hC: 8,
  hT: 9,
  /** Largest extinction, for step sizes. */
  max: 10,
  /** Then for each direction: al, S, h, and the part of h that flake edges scatter. */
  direction: 11,
} as const;

/** Rates of one direction. */
export const PER_RATE_DIRECTION = 4;

/** Length of a rates buffer for these optics. */
export function ratesLength(optics: Optics): number {
  return RATE.direction + PER_RATE_DIRECTION * optics.directions.length;
}

/**
 * Writes the rates of one coat (times its film factor) at wavelength i into `out`.
 * @param mTDye mean 1/cosine of the trapped class for dye, from the dye of the whole stack at this wavelength.
 */
export function writeRates(optics: Optics, coat: PreparedCoat, i: number, mTDye: number, out: Float64Array): void {
  const { film } = optics;
  const fl = optics.readings(coat.table);
  const f = coat.factor;
  const tau = coat.tau * f;
  const a = coat.a[i]! * f;
  const k = coat.k[i]! * f;
  const s = coat.s[i]! * f;
  const { edge } = coat;
  const rC = fl.rC[i]!;
  const tC = fl.tC[i]!;
  const rT = fl.rT[i]!;
  const tT = fl.tT[i]!;
  const { x, xt, fw, gT } = flakeClasses(coat.tilt, film.fC);
  const hC = tau * edge * (rC + tC) + s * film.mC;
  const hT = gT * tau * edge * (rT + tT) + s * film.mT0;
  const flat = tau * (1 - edge);
  const gCC = 0.5 * film.qC * hC;
  const gCT = 0.5 * film.qC * hT;
  const gTC = 0.5 * film.qT * hC;
  const gTT = 0.5 * film.qT * hT;
  const xC = tau * (1 - (1 - edge) * tC) + (a + k + s) * film.mC;
  const xT = tau * (gT * (1 - (1 - edge) * tT) - (1 - edge) * rT * fw) + a * mTDye + (k + s) * film.mT0;
  out[RATE.B] = flat * rC * (1 - x) + gCC;
  out[RATE.B + 1] = flat * rT * xt + gCT;
  out[RATE.B + 2] = flat * rC * x + gTC;
  out[RATE.B + 3] = flat * rT * (gT - xt - fw) + gTT;
  out[RATE.E] = xC - gCC;
  out[RATE.E + 1] = -gCT;
  out[RATE.E + 2] = -gTC;
  out[RATE.E + 3] = xT - gTT;
  out[RATE.hC] = hC;
  out[RATE.hT] = hT;
  let max = Math.max(xC, xT);
  for (let d = 0; d < optics.directions.length; d++) {
    const cosine = optics.directions[d]!;
    const r = fl.rDir[d * WAVELENGTH_COUNT + i]!;
    const t = fl.tDir[d * WAVELENGTH_COUNT + i]!;
    const at = RATE.direction + PER_RATE_DIRECTION * d;
    const al = tau * (1 - (1 - edge) * t) + (a + k + s) / cosine;
    out[at] = al;
    out[at + 1] = flat * r;
    out[at + 3] = tau * edge * (r + t);
    out[at + 2] = out[at + 3]! + s / cosine;
    if (al > max) max = al;
  }
  out[RATE.max] = max;
}

/** Share of unscattered light of a beam that leaves upward as class T after one edge, over what was there below. */
export function edgeThrough(rates: Float64Array, d: number): number {
  return Math.exp(-(rates[RATE.direction + PER_RATE_DIRECTION * d]! + rates[RATE.E + 3]!));
}

/** Up flux of class T that the edges of one coat scatter out of a unit beam, attenuated on its way down and up. */
export function edgeSource(optics: Optics, rates: Float64Array, d: number): number {
  const at = RATE.direction + PER_RATE_DIRECTION * d;
  const depth = rates[at]! + rates[RATE.E + 3]!;
  const mean = depth > 1e-9 ? (1 - Math.exp(-depth)) / depth : 1;
  return 0.5 * optics.film.qT * rates[at + 3]! * mean;
}

/**
 * The edge-born flux above a coat from that below it. The flakes' mirrors send the beam past the edges once more, and turn
 * upward what the edges sent down: each adds about the lobe's flux reflectance.
 * @param lobe flux reflectance of the lobe with this coat.
 */
export function edgeBorn(below: number, through: number, source: number, lobe: number): number {
  return below * through + source * (1 + lobe) * (1 + lobe);
}
