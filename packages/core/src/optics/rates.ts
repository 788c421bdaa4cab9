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
  const { film, directions } = optics;
  const { factor } = coat;
  const a = coat.a[i]! * factor;
  const k = coat.k[i]! * factor;
  const s = coat.s[i]! * factor;
  // Pigment first; every kind of flakes adds to it.
  let hC = s * film.mC;
  let hT = s * film.mT0;
  let xC = (a + k + s) * film.mC;
  let xT = a * mTDye + (k + s) * film.mT0;
  let bCC = 0;
  let bCT = 0;
  let bTC = 0;
  let bTT = 0;
  for (let d = 0; d < directions.length; d++) {
    const at = RATE.direction + PER_RATE_DIRECTION * d;
    out[at] = (a + k + s) / directions[d]!;
    out[at + 1] = 0;
    out[at + 3] = 0;
  }
  for (const kind of coat.flakes) {
    const fl = optics.readings(kind.table);
    const tau = kind.tau * factor;
    const { edge } = kind;
    const flat = tau * (1 - edge);
    const rC = fl.rC[i]!;
    const tC = fl.tC[i]!;
    const rT = fl.rT[i]!;
    const tT = fl.tT[i]!;
    const { x, xt, fw, gT } = flakeClasses(kind.tilt, film.fC);
    hC += tau * edge * (rC + tC);
    hT += gT * tau * edge * (rT + tT);
    xC += tau * (1 - (1 - edge) * tC);
    xT += tau * (gT * (1 - (1 - edge) * tT) - (1 - edge) * rT * fw);
    // No more is turned into the other class than mirrors send back; both ways are alike (xt fT = x fC).
    const turned = Math.min(fl.rX[i]!, rC / x);
    bCC += flat * (rC - turned * x);
    bCT += flat * turned * xt;
    bTC += flat * turned * x;
    bTT += flat * Math.max(0, rT * (gT - fw) - turned * xt);
    for (let d = 0; d < directions.length; d++) {
      const at = RATE.direction + PER_RATE_DIRECTION * d;
      const r = fl.rDir[d * WAVELENGTH_COUNT + i]!;
      const t = fl.tDir[d * WAVELENGTH_COUNT + i]!;
      out[at]! += tau * (1 - (1 - edge) * t);
      out[at + 1]! += flat * r;
      out[at + 3]! += tau * edge * (r + t);
    }
  }
  const gCC = 0.5 * film.qC * hC;
  const gCT = 0.5 * film.qC * hT;
  const gTC = 0.5 * film.qT * hC;
  const gTT = 0.5 * film.qT * hT;
  out[RATE.B] = bCC + gCC;
  out[RATE.B + 1] = bCT + gCT;
  out[RATE.B + 2] = bTC + gTC;
  out[RATE.B + 3] = bTT + gTT;
  out[RATE.E] = xC - gCC;
  out[RATE.E + 1] = -gCT;
  out[RATE.E + 2] = -gTC;
  out[RATE.E + 3] = xT - gTT;
  out[RATE.hC] = hC;
  out[RATE.hT] = hT;
  let max = Math.max(xC, xT);
  for (let d = 0; d < directions.length; d++) {
    const at = RATE.direction + PER_RATE_DIRECTION * d;
    out[at + 2] = out[at + 3]! + s / directions[d]!;
    if (out[at]! > max) max = out[at]!;
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
