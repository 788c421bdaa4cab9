import { Matrix, solve } from 'ml-matrix';
import type { Film } from './film';
import { internalReflectance } from './film';
import type { FilmGeometry } from './geometry';

/** Nodes of the transverse-frequency sum: values of the flake tilt transform. */
export const LOBE_NODES: readonly number[] = [1, 0.985, 0.95, 0.88, 0.75, 0.55, 0.3];

/** Lobe light met at the film surface: returned by Fresnel inside the cone, and beyond the critical angle. */
export interface SurfacePair {
  readonly f: number;
  readonly t: number;
}

/** Everything that depends on a geometry and the reference tilt, never on wavelength. */
export interface SurfaceTables {
  readonly weights: Float64Array;
  /** Mean internal reflectance of the widened lobe. */
  readonly rL: number;
  /** First reflection, surface, first reflection. */
  readonly i2: number;
  /** Lobe of the lamp at the surface after one reflection and after three; the same for the view. */
  readonly in1: SurfacePair;
  readonly in3: SurfacePair;
  readonly view1: SurfacePair;
  readonly view3: SurfacePair;
}

/** Spreads at which the node sum is fitted, and their least-squares weights (film equations, section 3). */
const KAPPAS: readonly number[] = Array.from({ length: 61 }, (_, j) => 1.8 * 1.06 ** j).filter((k) => k < 60);

/** Solution operator of the weighted least squares, [node * KAPPAS + kappa]: it does not depend on x. */
const WEIGHT_OPERATOR: Float64Array = (() => {
  const powers = new Matrix(KAPPAS.map((kappa) => LOBE_NODES.map((node) => node ** kappa)));
  const weights = KAPPAS.map((kappa) => kappa * (Math.exp(-kappa / 5) + 0.01) ** 2);
  const weighted = powers.transpose();
  weights.forEach((w, k) => weighted.mulColumn(k, w));
  const normal = weighted.mmul(powers);
  for (let q = 0; q < LOBE_NODES.length; q++) normal.set(q, q, normal.get(q, q) * (1 + 1e-9));
  return Float64Array.from(solve(normal, weighted).to1DArray());
})();

/** Weights W_q(x) with sum_q W_q N_q^kappa near exp(-x^2 / 2 kappa) / (2 pi kappa), by weighted least squares over kappa. */
export function lobeWeights(x: number): Float64Array {
  const n = KAPPAS.length;
  const out = new Float64Array(LOBE_NODES.length);
  for (let k = 0; k < n; k++) {
    const kappa = KAPPAS[k]!;
    const target = Math.exp((-x * x) / (2 * kappa)) / (2 * Math.PI * kappa);
    for (let q = 0; q < out.length; q++) out[q]! += WEIGHT_OPERATOR[q * n + k]! * target;
  }
  return out;
}

/** Weights are tabulated to this x at this step; beyond, they are summed. */
const [WEIGHTS_TO, WEIGHT_STEP] = [24, 1 / 64] as const;
let weightTable: readonly Float64Array[] | null = null;

/** {@link lobeWeights} from a table made when first asked for: cubic between its places, within 1e-8. */
export function quickLobeWeights(x: number): Float64Array {
  const at = Math.abs(x) / WEIGHT_STEP;
  const i = Math.floor(at);
  if (Math.abs(x) >= WEIGHTS_TO) return lobeWeights(x);
  weightTable ??= Array.from({ length: WEIGHTS_TO / WEIGHT_STEP + 3 }, (_, k) => lobeWeights((k - 1) * WEIGHT_STEP));
  const [a, b, c, d] = [weightTable[i]!, weightTable[i + 1]!, weightTable[i + 2]!, weightTable[i + 3]!];
  const u = at - i;
  // Lagrange's cubic through the places -1, 0, 1 and 2.
  const wa = (-u * (u - 1) * (u - 2)) / 6;
  const wb = ((u + 1) * (u - 1) * (u - 2)) / 2;
  const wc = (-(u + 1) * u * (u - 2)) / 2;
  const wd = ((u + 1) * u * (u - 1)) / 6;
  const out = new Float64Array(a.length);
  for (let q = 0; q < out.length; q++) out[q] = wa * a[q]! + wb * b[q]! + wc * c[q]! + wd * d[q]!;
  return out;
}

/** Flake normals per steradian at tilt t, rms s per axis, over the mean cosine of the tilt. */
export function tiltDensity(t: number, s: number): number {
  const ratio = t < 1e-9 ? 1 : t / Math.sin(t);
  return ((ratio * Math.exp((-t * t) / (2 * s * s))) / (2 * Math.PI * s * s)) * (1 + s * s);
}

function meanInternalReflectance(film: Film, centre: number, width: number): number {
  const n = 40;
  const half = 4;
  let total = 0;
  let norm = 0;
  for (let i = 0; i < n; i++) {
    const dx = half * ((2 * (i + 0.5)) / n - 1);
    for (let j = 0; j < n; j++) {
      const dy = half * ((2 * (j + 0.5)) / n - 1);
      const w = Math.exp(-(dx * dx + dy * dy) / 2);
      const u2 = (centre + width * dx) ** 2 + (width * dy) ** 2;
      total += w * (u2 >= 1 ? 1 : internalReflectance(film, Math.sqrt(1 - u2)));
      norm += w;
    }
  }
  return total / norm;
}

function twoReflections(film: Film, g: FilmGeometry, s: number, n: number): number {
  const half = 4.5 * Math.SQRT2 * s;
  const centre = (g.sinIn + g.sinView) / 2;
  const step = (2 * half) / n;
  let total = 0;
  for (let i = 0; i < n; i++) {
    const ux = centre - half + (i + 0.5) * step;
    for (let j = 0; j < n; j++) {
      const uy = -half + (j + 0.5) * step;
      const u2 = ux * ux + uy * uy;
      if (u2 >= 1) continue;
      const mu = Math.sqrt(1 - u2);
      const t1 = Math.atan2(Math.hypot(ux - g.sinIn, uy), mu + g.cosIn);
      const t2 = Math.atan2(Math.hypot(g.sinView - ux, uy), mu + g.cosView);
      const rate = Math.sqrt(mu * mu + (2 / Math.PI) * s * s * u2) / mu;
      const kk = 2 / (1 + rate);
      total += (internalReflectance(film, mu) * tiltDensity(t1, s) * tiltDensity(t2, s) * kk * kk) / (4 * mu * mu);
    }
  }
  return total * step * step;
}

/** Sum over flake tilts, weighted by |w.m|, of a beam at `cosine` sent up to the surface. */
function lobeAtSurface(film: Film, sine: number, cosine: number, s: number, n: number): SurfacePair {
  const half = 4 * s;
  let f = 0;
  let t = 0;
  let norm = 0;
  for (let i = 0; i < n; i++) {
    const tx = half * ((2 * (i + 0.5)) / n - 1);
    for (let j = 0; j < n; j++) {
      const ty = half * ((2 * (j + 0.5)) / n - 1);
      const tilt = Math.hypot(tx, ty);
      const st = tilt < 1e-9 ? 1 : Math.sin(tilt) / tilt;
      const mx = tx * st;
      const mz = Math.cos(tilt);
      // Beam going up toward the viewer of the reversed path: w = (-sine, 0, cosine); reflected 2 (w.m) m - w.
      const dot = -sine * mx + cosine * mz;
      const weight = Math.exp(-(tilt * tilt) / (2 * s * s)) * Math.abs(dot);
      const up = 2 * dot * mz - cosine;
      norm += weight;
      if (up <= 0) t += weight;
      else if (up <= film.muC) t += weight;
      else f += weight * internalReflectance(film, up);
    }
  }
  return { f: f / norm, t: t / norm };
}

/**
 * Tables of one geometry at one reference tilt.
 * @param s reference tilt, radians rms per axis. @param grid points a side of the sums (48 for reports).
 */
export function surfaceTables(film: Film, g: FilmGeometry, s: number, grid = 48): SurfaceTables {
  const wide = Math.sqrt(3) * s;
  const beam = (sine: number, cosine: number, tilt: number) => lobeAtSurface(film, sine, cosine, tilt, grid);
  return {
    weights: lobeWeights(g.tiltNeeded / s),
    rL: meanInternalReflectance(film, (g.sinIn + g.sinView) / 2, 2 * s * g.cosFlake),
    i2: twoReflections(film, g, s, grid),
    in1: beam(g.sinIn, g.cosIn, s),
    in3: beam(g.sinIn, g.cosIn, wide),
    view1: beam(g.sinView, g.cosView, s),
    view3: beam(g.sinView, g.cosView, wide),
  };
}
