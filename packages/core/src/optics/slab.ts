import { ALL_WAVELENGTHS } from '../colour/fewWavelengths';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { PreparedCoat } from './coat';
import type { Optics } from './optics';
import { edgeSource, edgeThrough, PER_RATE_DIRECTION, RATE, ratesLength, writeRates } from './rates';
import { type Between, PER_DIRECTION, D, slabBlock, type Slab, createBetween, THIN, startThin } from './thinSlab';

function double(optics: Optics, f: Between, s: Float64Array, o: number): void {
  const r0 = s[o]!,
    r1 = s[o + 1]!,
    r2 = s[o + 2]!,
    r3 = s[o + 3]!;
  const t0 = s[o + 4]!,
    t1 = s[o + 5]!,
    t2 = s[o + 6]!,
    t3 = s[o + 7]!;
  const n0 = 1 - (r0 * r0 + r1 * r2),
    n1 = -(r0 * r1 + r1 * r3),
    n2 = -(r2 * r0 + r3 * r2),
    n3 = 1 - (r2 * r1 + r3 * r3);
  const det = 1 / (n0 * n3 - n1 * n2);
  const m0 = n3 * det,
    m1 = -n1 * det,
    m2 = -n2 * det,
    m3 = n0 * det;
  const d0 = m0 * t0 + m1 * t2,
    d1 = m0 * t1 + m1 * t3,
    d2 = m2 * t0 + m3 * t2,
    d3 = m2 * t1 + m3 * t3;
  const u0 = r0 * d0 + r1 * d2,
    u1 = r0 * d1 + r1 * d3,
    u2 = r2 * d0 + r3 * d2,
    u3 = r2 * d1 + r3 * d3;
  const nd = optics.directions.length;
  const q = o + 8 + PER_DIRECTION * nd;
  for (let d = 0; d < nd; d++) {
    const p = o + 8 + PER_DIRECTION * d;
    const r = s[p]!,
      t = s[p + 1]!;
    const dl = t / (1 - r * r),
      ul = r * dl;
    f.dLobe[d] = dl;
    f.uLobe[d] = ul;
    const a0 = s[p + D.ru]!,
      a1 = s[p + D.ru + 1]!;
    const c0 = s[p + D.tu]! + a0 * ul + (r0 * a0 + r1 * a1) * dl;
    const c1 = s[p + D.tu + 1]! + a1 * ul + (r2 * a0 + r3 * a1) * dl;
    const x0 = m0 * c0 + m1 * c1,
      x1 = m2 * c0 + m3 * c1;
    f.dD[2 * d] = x0;
    f.dD[2 * d + 1] = x1;
    f.uD[2 * d] = r0 * x0 + r1 * x1 + a0 * dl;
    f.uD[2 * d + 1] = r2 * x0 + r3 * x1 + a1 * dl;
  }
  for (let g = 0; g < optics.geometries.length; g++) {
    const di = optics.dirIn[g]!,
      dv = optics.dirView[g]!;
    const pv = o + 8 + PER_DIRECTION * dv;
    const r = s[pv]!,
      t = s[pv + 1]!;
    const R = s[q + 2 * g]!,
      T = s[q + 2 * g + 1]!;
    const w0 = s[pv + D.rw]!,
      w1 = s[pv + D.rw + 1]!,
      v0 = s[pv + D.tw]!,
      v1 = s[pv + D.tw + 1]!;
    const x0 = f.dD[2 * di]!,
      x1 = f.dD[2 * di + 1]!,
      y0 = f.uD[2 * di]!,
      y1 = f.uD[2 * di + 1]!;
    const dl = f.dLobe[di]!,
      ul = f.uLobe[di]!;
    const back = w0 * x0 + w1 * x1 + R * dl;
    const dvw = (T + w0 * y0 + w1 * y1 + R * ul + r * back) / (1 - r * r);
    const uvw = back + r * dvw;
    s[q + 2 * g] = R + t * uvw + v0 * y0 + v1 * y1 + T * ul;
    s[q + 2 * g + 1] = t * dvw + v0 * x0 + v1 * x1 + T * dl;
  }
  for (let d = 0; d < nd; d++) {
    const p = o + 8 + PER_DIRECTION * d;
    const r = s[p]!,
      t = s[p + 1]!;
    const w0 = s[p + D.rw]!,
      w1 = s[p + D.rw + 1]!,
      v0 = s[p + D.tw]!,
      v1 = s[p + D.tw + 1]!;
    const k = 1 / (1 - r * r);
    const b0 = w0 * d0 + w1 * d2,
      b1 = w0 * d1 + w1 * d3;
    const x0 = (v0 + w0 * u0 + w1 * u2 + r * b0) * k,
      x1 = (v1 + w0 * u1 + w1 * u3 + r * b1) * k;
    s[p + D.rw] = w0 + t * (b0 + r * x0) + v0 * u0 + v1 * u2;
    s[p + D.rw + 1] = w1 + t * (b1 + r * x1) + v0 * u1 + v1 * u3;
    s[p + D.tw] = t * x0 + v0 * d0 + v1 * d2;
    s[p + D.tw + 1] = t * x1 + v0 * d1 + v1 * d3;
    const dl = f.dLobe[d]!,
      ul = f.uLobe[d]!;
    const g0 = s[p + D.tu]!,
      g1 = s[p + D.tu + 1]!;
    const y0 = f.uD[2 * d]!,
      y1 = f.uD[2 * d + 1]!,
      z0 = f.dD[2 * d]!,
      z1 = f.dD[2 * d + 1]!;
    s[p + D.ru]! += t0 * y0 + t1 * y1 + g0 * ul;
    s[p + D.ru + 1]! += t2 * y0 + t3 * y1 + g1 * ul;
    s[p + D.tu] = t0 * z0 + t1 * z1 + g0 * dl;
    s[p + D.tu + 1] = t2 * z0 + t3 * z1 + g1 * dl;
    s[p] = r + t * ul;
    s[p + 1] = t * dl;
  }
  s[o] = r0 + t0 * u0 + t1 * u2;
  s[o + 1] = r1 + t0 * u1 + t1 * u3;
  s[o + 2] = r2 + t2 * u0 + t3 * u2;
  s[o + 3] = r3 + t2 * u1 + t3 * u3;
  s[o + 4] = t0 * d0 + t1 * d2;
  s[o + 5] = t0 * d1 + t1 * d3;
  s[o + 6] = t2 * d0 + t3 * d2;
  s[o + 7] = t2 * d1 + t3 * d3;
}

function exactDye(optics: Optics, rates: Float64Array, s: Float64Array, o: number): void {
  s.fill(0, o, o + slabBlock(optics));
  s[o + 4] = Math.exp(-rates[RATE.E]!);
  s[o + 7] = Math.exp(-rates[RATE.E + 3]!);
  for (let d = 0; d < optics.directions.length; d++) {
    s[o + 8 + PER_DIRECTION * d + D.t] = Math.exp(-rates[RATE.direction + PER_RATE_DIRECTION * d]!);
  }
}

/**
 * Operators of one coat (times its film factor) at all wavelengths, by doubling from a thin slice.
 * @param totalDye dye depth of the whole stack it will lie in, 31 values; it sets the trapped class's path.
 * @param wavelengths places on the grid that are worked out
 */
export function buildSlab(
  optics: Optics,
  coat: PreparedCoat,
  totalDye: Float64Array,
  wavelengths: readonly number[] = ALL_WAVELENGTHS,
): Slab {
  const block = slabBlock(optics);
  const data = new Float64Array(block * WAVELENGTH_COUNT);
  const rates = new Float64Array(ratesLength(optics));
  const between = createBetween(optics);
  for (const i of wavelengths) {
    writeRates(optics, coat, i, optics.film.mT(totalDye[i]!), rates);
    const o = i * block;
    if (!coat.flakes.length && coat.s[i] === 0) {
      exactDye(optics, rates, data, o);
    } else {
      const doublings = Math.max(0, Math.ceil(Math.log2(rates[RATE.max]! / THIN)));
      startThin(optics, rates, 2 ** -doublings, data, o);
      for (let n = 0; n < doublings; n++) double(optics, between, data, o);
    }
    for (let d = 0; d < optics.directions.length; d++) {
      const p = o + 8 + PER_DIRECTION * d;
      const al = rates[RATE.direction + PER_RATE_DIRECTION * d]!;
      const through = Math.exp(-2 * al);
      data[p + D.through] = through;
      data[p + D.edgeThrough] = edgeThrough(rates, d);
      data[p + D.edge] = edgeSource(optics, rates, d);
      data[p + D.first] =
        rates[RATE.direction + PER_RATE_DIRECTION * d + 1]! * (al > 1e-9 ? (1 - through) / (2 * al) : 1);
    }
  }
  return { block, data };
}
