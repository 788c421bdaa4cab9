import { ALL_WAVELENGTHS } from '../colour/fewWavelengths';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { PreparedCoat } from './coat';
import type { DiffuseState } from './closure';
import type { Optics } from './optics';
import { edgeBorn, edgeSource, edgeThrough, PER_RATE_DIRECTION, RATE, ratesLength, writeRates } from './rates';

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

const PER_DIRECTION = 14;

/** Offsets within a direction's part of a block. */
const D = { r: 0, t: 1, ru: 2, tu: 4, rw: 6, tw: 8, through: 10, first: 11, edgeThrough: 12, edge: 13 } as const;

export function slabBlock(optics: Optics): number {
  return 8 + PER_DIRECTION * optics.directions.length + 2 * optics.geometries.length;
}

/** Thinnest start of the doubling: largest extinction of the first slice. */
const THIN = 1 / 10;

/** Scratch of the adding of one slab onto another: fields between the two, per unit source. */
interface Between {
  readonly dLobe: Float64Array;
  readonly uLobe: Float64Array;
  readonly dD: Float64Array;
  readonly uD: Float64Array;
}

function createBetween(optics: Optics): Between {
  const d = optics.directions.length;
  return {
    dLobe: new Float64Array(d),
    uLobe: new Float64Array(d),
    dD: new Float64Array(2 * d),
    uD: new Float64Array(2 * d),
  };
}

function startThin(optics: Optics, rates: Float64Array, z: number, s: Float64Array, o: number): void {
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

/** Adds a slab onto states: `state` becomes the state of slab over what it was. Made once per optics; allocates nothing after. */
export function createAdding(optics: Optics): (slab: Slab, i: number, state: DiffuseState) => void {
  const f = createBetween(optics);
  const nd = optics.directions.length;
  const ng = optics.geometries.length;
  const { dirIn, dirView } = optics;
  return (slab, i, state) => {
    const s = slab.data;
    const o = i * slab.block;
    const { rm, h, h1, b, w, q: Q, edge } = state;
    const r0 = s[o]!,
      r1 = s[o + 1]!,
      r2 = s[o + 2]!,
      r3 = s[o + 3]!;
    const t0 = s[o + 4]!,
      t1 = s[o + 5]!,
      t2 = s[o + 6]!,
      t3 = s[o + 7]!;
    const g0 = rm[0]!,
      g1 = rm[1]!,
      g2 = rm[2]!,
      g3 = rm[3]!;
    const n0 = 1 - (r0 * g0 + r1 * g2),
      n1 = -(r0 * g1 + r1 * g3),
      n2 = -(r2 * g0 + r3 * g2),
      n3 = 1 - (r2 * g1 + r3 * g3);
    const det = 1 / (n0 * n3 - n1 * n2);
    const m0 = n3 * det,
      m1 = -n1 * det,
      m2 = -n2 * det,
      m3 = n0 * det;
    const d0 = m0 * t0 + m1 * t2,
      d1 = m0 * t1 + m1 * t3,
      d2 = m2 * t0 + m3 * t2,
      d3 = m2 * t1 + m3 * t3;
    const u0 = g0 * d0 + g1 * d2,
      u1 = g0 * d1 + g1 * d3,
      u2 = g2 * d0 + g3 * d2,
      u3 = g2 * d1 + g3 * d3;
    for (let d = 0; d < nd; d++) {
      const p = o + 8 + PER_DIRECTION * d;
      const r = s[p]!,
        t = s[p + 1]!;
      const dl = t / (1 - r * h[d]!),
        ul = h[d]! * dl;
      f.dLobe[d] = dl;
      f.uLobe[d] = ul;
      const a0 = s[p + D.ru]!,
        a1 = s[p + D.ru + 1]!;
      const b0 = b[2 * d]!,
        b1 = b[2 * d + 1]!;
      const c0 = s[p + D.tu]! + a0 * ul + (r0 * b0 + r1 * b1) * dl;
      const c1 = s[p + D.tu + 1]! + a1 * ul + (r2 * b0 + r3 * b1) * dl;
      const x0 = m0 * c0 + m1 * c1,
        x1 = m2 * c0 + m3 * c1;
      f.dD[2 * d] = x0;
      f.dD[2 * d + 1] = x1;
      f.uD[2 * d] = g0 * x0 + g1 * x1 + b0 * dl;
      f.uD[2 * d + 1] = g2 * x0 + g3 * x1 + b1 * dl;
    }
    for (let g = 0; g < ng; g++) {
      const di = dirIn[g]!,
        dv = dirView[g]!;
      const pv = o + 8 + PER_DIRECTION * dv;
      const qAt = o + 8 + PER_DIRECTION * nd + 2 * g;
      const r = s[pv]!,
        t = s[pv + 1]!,
        hv = h[dv]!;
      const x0 = f.dD[2 * di]!,
        x1 = f.dD[2 * di + 1]!,
        y0 = f.uD[2 * di]!,
        y1 = f.uD[2 * di + 1]!;
      const dl = f.dLobe[di]!,
        ul = f.uLobe[di]!;
      const back = w[2 * dv]! * x0 + w[2 * dv + 1]! * x1 + Q[g]! * dl;
      const dvw = (s[qAt + 1]! + s[pv + D.rw]! * y0 + s[pv + D.rw + 1]! * y1 + s[qAt]! * ul + r * back) / (1 - r * hv);
      const uvw = back + hv * dvw;
      Q[g] = s[qAt]! + t * uvw + s[pv + D.tw]! * y0 + s[pv + D.tw + 1]! * y1 + s[qAt + 1]! * ul;
    }
    for (let d = 0; d < nd; d++) {
      const p = o + 8 + PER_DIRECTION * d;
      const r = s[p]!,
        t = s[p + 1]!,
        hd = h[d]!;
      const w0 = w[2 * d]!,
        w1 = w[2 * d + 1]!;
      const v0 = s[p + D.tw]!,
        v1 = s[p + D.tw + 1]!;
      const k = 1 / (1 - r * hd);
      const b0 = w0 * d0 + w1 * d2,
        b1 = w0 * d1 + w1 * d3;
      const x0 = (v0 + s[p + D.rw]! * u0 + s[p + D.rw + 1]! * u2 + r * b0) * k;
      const x1 = (v1 + s[p + D.rw]! * u1 + s[p + D.rw + 1]! * u3 + r * b1) * k;
      w[2 * d] = s[p + D.rw]! + t * (b0 + hd * x0) + v0 * u0 + v1 * u2;
      w[2 * d + 1] = s[p + D.rw + 1]! + t * (b1 + hd * x1) + v0 * u1 + v1 * u3;
      const y0 = f.uD[2 * d]!,
        y1 = f.uD[2 * d + 1]!,
        ul = f.uLobe[d]!;
      b[2 * d] = s[p + D.ru]! + t0 * y0 + t1 * y1 + s[p + D.tu]! * ul;
      b[2 * d + 1] = s[p + D.ru + 1]! + t2 * y0 + t3 * y1 + s[p + D.tu + 1]! * ul;
      h[d] = r + t * ul;
      h1[d] = h1[d]! * s[p + D.through]! + s[p + D.first]!;
      edge[d] = edgeBorn(edge[d]!, s[p + D.edgeThrough]!, s[p + D.edge]!, h[d]!);
    }
    rm[0] = r0 + t0 * u0 + t1 * u2;
    rm[1] = r1 + t0 * u1 + t1 * u3;
    rm[2] = r2 + t2 * u0 + t3 * u2;
    rm[3] = r3 + t2 * u1 + t3 * u3;
  };
}
