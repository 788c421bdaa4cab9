import type { PreparedCoat } from './coat';
import type { DiffuseState } from './closure';
import type { Optics } from './optics';
import { edgeBorn, edgeSource, edgeThrough, PER_RATE_DIRECTION, RATE, ratesLength, writeRates } from './rates';

/** Flattened state: Rm (4), then per direction H, B (2), W (2), then Q per geometry. */
function layout(optics: Optics): { size: number; q: number } {
  const q = 4 + 5 * optics.directions.length;
  return { size: q + optics.geometries.length, q };
}

function derivative(optics: Optics, r: Float64Array, y: Float64Array, dy: Float64Array, qAt: number): void {
  const { qC, qT } = optics.film;
  const b0 = r[0]!,
    b1 = r[1]!,
    b2 = r[2]!,
    b3 = r[3]!;
  const e0 = r[4]!,
    e1 = r[5]!,
    e2 = r[6]!,
    e3 = r[7]!;
  const hC = r[RATE.hC]!,
    hT = r[RATE.hT]!;
  const m0 = y[0]!,
    m1 = y[1]!,
    m2 = y[2]!,
    m3 = y[3]!;
  // P = B Rm - E; Rm' = B - E Rm + Rm P.
  const p0 = b0 * m0 + b1 * m2 - e0,
    p1 = b0 * m1 + b1 * m3 - e1;
  const p2 = b2 * m0 + b3 * m2 - e2,
    p3 = b2 * m1 + b3 * m3 - e3;
  dy[0] = b0 - (e0 * m0 + e1 * m2) + m0 * p0 + m1 * p2;
  dy[1] = b1 - (e0 * m1 + e1 * m3) + m0 * p1 + m1 * p3;
  dy[2] = b2 - (e2 * m0 + e3 * m2) + m2 * p0 + m3 * p2;
  dy[3] = b3 - (e2 * m1 + e3 * m3) + m2 * p1 + m3 * p3;
  const count = optics.directions.length;
  for (let d = 0; d < count; d++) {
    const al = r[RATE.direction + PER_RATE_DIRECTION * d]!,
      s = r[RATE.direction + PER_RATE_DIRECTION * d + 1]!,
      hd = r[RATE.direction + PER_RATE_DIRECTION * d + 2]!;
    const at = 4 + 5 * d;
    const h = y[at]!,
      u0 = y[at + 1]!,
      u1 = y[at + 2]!,
      w0 = y[at + 3]!,
      w1 = y[at + 4]!;
    const keep = s * h - al;
    dy[at] = s - 2 * al * h + s * h * h;
    const g = 0.5 * hd * (1 + h);
    const x0 = qC * g + b0 * u0 + b1 * u1,
      x1 = qT * g + b2 * u0 + b3 * u1;
    dy[at + 1] = keep * u0 - (e0 * u0 + e1 * u1) + qC * g + m0 * x0 + m1 * x1;
    dy[at + 2] = keep * u1 - (e2 * u0 + e3 * u1) + qT * g + m2 * x0 + m3 * x1;
    const k = (1 + h) / (4 * optics.directions[d]!);
    dy[at + 3] = keep * w0 + k * (hC + hC * m0 + hT * m2) + w0 * p0 + w1 * p2;
    dy[at + 4] = keep * w1 + k * (hT + hC * m1 + hT * m3) + w0 * p1 + w1 * p3;
  }
  for (let g = 0; g < optics.geometries.length; g++) {
    const di = optics.dirIn[g]!,
      dv = optics.dirView[g]!;
    const ai = RATE.direction + PER_RATE_DIRECTION * di,
      av = RATE.direction + PER_RATE_DIRECTION * dv;
    const hi = y[4 + 5 * di]!,
      hv = y[4 + 5 * dv]!;
    const u0 = y[5 + 5 * di]!,
      u1 = y[6 + 5 * di]!,
      w0 = y[7 + 5 * dv]!,
      w1 = y[8 + 5 * dv]!;
    const hd = r[ai + 2]!;
    const gi = 0.5 * hd * (1 + hi);
    const x0 = qC * gi + b0 * u0 + b1 * u1,
      x1 = qT * gi + b2 * u0 + b3 * u1;
    const keep = r[av + 1]! * hv - r[av]! + r[ai + 1]! * hi - r[ai]!;
    dy[qAt + g] =
      keep * y[qAt + g]! +
      ((1 + hv) / (4 * optics.directions[dv]!)) * (hd * (1 + hi) + hC * u0 + hT * u1) +
      w0 * x0 +
      w1 * x1;
  }
}

function pack(state: DiffuseState, y: Float64Array, qAt: number): void {
  y.set(state.rm, 0);
  for (let d = 0; d < state.h.length; d++) {
    y[4 + 5 * d] = state.h[d]!;
    y.set(state.b.subarray(2 * d, 2 * d + 2), 5 + 5 * d);
    y.set(state.w.subarray(2 * d, 2 * d + 2), 7 + 5 * d);
  }
  y.set(state.q, qAt);
}

function unpack(y: Float64Array, state: DiffuseState, qAt: number): void {
  state.rm.set(y.subarray(0, 4));
  for (let d = 0; d < state.h.length; d++) {
    state.h[d] = y[4 + 5 * d]!;
    state.b.set(y.subarray(5 + 5 * d, 7 + 5 * d), 2 * d);
    state.w.set(y.subarray(7 + 5 * d, 9 + 5 * d), 2 * d);
  }
  state.q.set(y.subarray(qAt));
}

/** A coat that only absorbs is exact: every path through it is an exponential. */
function absorb(optics: Optics, state: DiffuseState, rates: Float64Array): void {
  const c = Math.exp(-rates[RATE.E]!);
  const t = Math.exp(-rates[RATE.E + 3]!);
  state.rm[0]! *= c * c;
  state.rm[1]! *= c * t;
  state.rm[2]! *= c * t;
  state.rm[3]! *= t * t;
  const through = Float64Array.from(optics.directions, (_, d) =>
    Math.exp(-rates[RATE.direction + PER_RATE_DIRECTION * d]!),
  );
  for (let d = 0; d < through.length; d++) {
    const e = through[d]!;
    state.h[d]! *= e * e;
    state.h1[d]! *= e * e;
    state.edge[d]! *= e * t;
    state.b[2 * d]! *= c * e;
    state.b[2 * d + 1]! *= t * e;
    state.w[2 * d]! *= c * e;
    state.w[2 * d + 1]! *= t * e;
  }
  for (let g = 0; g < state.q.length; g++) state.q[g]! *= through[optics.dirIn[g]!]! * through[optics.dirView[g]!]!;
}

/**
 * Carries diffuse light through coats by integrating the imbedding equations (film equations, section 4) with classical
 * Runge-Kutta; the reference tier. The fast tier does the same by doubling and adding, and the two check each other.
 * @returns a function that adds one coat at wavelength i onto a state, in place.
 */
export function createImbedding(
  optics: Optics,
): (state: DiffuseState, coat: PreparedCoat, i: number, mTDye: number) => void {
  const { size, q } = layout(optics);
  const rates = new Float64Array(ratesLength(optics));
  const [y, k1, k2, k3, k4, mid] = Array.from({ length: 6 }, () => new Float64Array(size)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  return (state, coat, i, mTDye) => {
    writeRates(optics, coat, i, mTDye, rates);
    if (!coat.flakes.length && coat.s[i] === 0) {
      absorb(optics, state, rates);
      return;
    }
    const steps = Math.max(4, Math.ceil(4 * rates[RATE.max]!));
    const dz = 1 / steps;
    pack(state, y, q);
    for (let n = 0; n < steps; n++) {
      derivative(optics, rates, y, k1, q);
      for (let j = 0; j < size; j++) mid[j] = y[j]! + (dz / 2) * k1[j]!;
      derivative(optics, rates, mid, k2, q);
      for (let j = 0; j < size; j++) mid[j] = y[j]! + (dz / 2) * k2[j]!;
      derivative(optics, rates, mid, k3, q);
      for (let j = 0; j < size; j++) mid[j] = y[j]! + dz * k3[j]!;
      derivative(optics, rates, mid, k4, q);
      for (let j = 0; j < size; j++) y[j]! += (dz / 6) * (k1[j]! + 2 * k2[j]! + 2 * k3[j]! + k4[j]!);
    }
    unpack(y, state, q);
    for (let d = 0; d < state.h1.length; d++) {
      const al = rates[RATE.direction + PER_RATE_DIRECTION * d]!;
      const s = rates[RATE.direction + PER_RATE_DIRECTION * d + 1]!;
      state.edge[d] = edgeBorn(state.edge[d]!, edgeThrough(rates, d), edgeSource(optics, rates, d), state.h[d]!);
      const through = Math.exp(-2 * al);
      state.h1[d] = state.h1[d]! * through + s * (al > 1e-9 ? (1 - through) / (2 * al) : 1);
    }
  };
}
