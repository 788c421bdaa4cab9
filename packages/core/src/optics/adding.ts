import type { DiffuseState } from './closure';
import type { Optics } from './optics';
import { edgeBorn } from './rates';
import { type Slab, createBetween, PER_DIRECTION, D } from './thinSlab';

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
