import type { FlakeClasses } from './flakeClasses';
import type { Optics } from './optics';
import type { SurfaceTables } from './surfaceTables';

/** Diffuse state of a stack at one wavelength, below the film surface. Matrices row-major, row = out, classes C, T. */
export interface DiffuseState {
  /** Diffuse reflectance, 2 x 2. */
  readonly rm: Float64Array;
  /** By direction: lobe flux reflectance, its first-order part. */
  readonly h: Float64Array;
  readonly h1: Float64Array;
  /** By direction: up flux (C, T) excited by a unit beam. */
  readonly b: Float64Array;
  /** By direction: up flux of class T that flake edges scattered out of the beam and that met nothing since. */
  readonly edge: Float64Array;
  /** By direction: factor toward that direction per unit down flux (C, T). */
  readonly w: Float64Array;
  /** By geometry: factor beam to view through diffusers. */
  readonly q: Float64Array;
}

export function createDiffuseState(optics: Optics): DiffuseState {
  const d = optics.directions.length;
  return {
    rm: new Float64Array(4),
    h: new Float64Array(d),
    h1: new Float64Array(d),
    b: new Float64Array(2 * d),
    edge: new Float64Array(d),
    w: new Float64Array(2 * d),
    q: new Float64Array(optics.geometries.length),
  };
}

/** Figures of a state, to be kept in one row. */
export const sizeOfState = ({ rm, h, h1, b, edge, w, q }: DiffuseState): number =>
  rm.length + h.length + h1.length + b.length + edge.length + w.length + q.length;

const partsOf = ({ rm, h, h1, b, edge, w, q }: DiffuseState): readonly Float64Array[] => [rm, h, h1, b, edge, w, q];

/** Keeps a state in a row. */
export function keepState(state: DiffuseState, row: Float64Array, from: number): void {
  let at = from;
  for (const part of partsOf(state)) {
    row.set(part, at);
    at += part.length;
  }
}

/** Takes a kept state out again. */
export function takeState(row: Float64Array, from: number, state: DiffuseState): void {
  let at = from;
  for (const part of partsOf(state)) for (let j = 0; j < part.length; j++) part[j] = row[at++]!;
}

/** Starts a state at a Lambertian ground of internal albedo rho. */
export function startAtGround(optics: Optics, rho: number, state: DiffuseState): void {
  const { fC, fT } = optics.film;
  state.rm[0] = state.rm[1] = rho * fC;
  state.rm[2] = state.rm[3] = rho * fT;
  state.h.fill(0);
  state.h1.fill(0);
  state.edge.fill(0);
  for (let d = 0; d < optics.directions.length; d++) {
    state.b[2 * d] = rho * fC;
    state.b[2 * d + 1] = rho * fT;
    state.w[2 * d] = state.w[2 * d + 1] = rho;
  }
  state.q.fill(rho);
}

/**
 * Radiance at the critical angle of trapped light that edges scattered, against Lambertian light of the same flux: flux even in
 * the cosine has 1 / muC per unit of it there, Lambert's 2 muC / fT; as muC^2 = fT, that is half for every film.
 */
const EDGE_RADIANCE = 0.5;

/** How much wider chains of flakes and surface spread with every turn, in squares of the tilt; fitted to ray transport. */
const [FIRST_SPREAD, SPREAD_A_TURN] = [6, 19] as const;
/** Chains of widely tilted flakes carry more than the two classes tell: so much more per radian of tilt beyond this, from this chance on. */
const [WIDE_FROM, WIDE_GAIN, WIDE_CHANCE] = [0.12, 7.5, 0.15] as const;

/**
 * Where light of long flake-surface chains leaves, against evenly: on the side of the mirror after few turns, evenly after many
 * (film equations, section 5). @param again chance that trapped light comes back to the surface trapped
 */
function chainShare({ film }: Optics, sine: number, s: number, again: number): number {
  const turns = again / (1 - again);
  const width = s * Math.sqrt(FIRST_SPREAD + SPREAD_A_TURN * turns);
  const wide = 1 + WIDE_GAIN * Math.max(0, s - WIDE_FROM) * Math.min(1, again / WIDE_CHANCE);
  return wide * film.chainSide(sine, width);
}

/**
 * Closes the diffuse light at the film surface (film equations, section 5).
 * @param classes of the reference tilt. @returns diffuse part of the radiance factor of geometry g, outside the film.
 */
export function closeDiffuse(
  optics: Optics,
  state: DiffuseState,
  classes: FlakeClasses,
  tables: readonly SurfaceTables[],
  g: number,
): number {
  const { film } = optics;
  const { fC, fT, rC } = film;
  const table = tables[g]!;
  const di = optics.dirIn[g]!;
  const dv = optics.dirView[g]!;
  const hi = state.h[di]!;
  const hv = state.h[dv]!;
  const yi = hi > 0 ? Math.min(1, state.h1[di]! / hi) : 1;
  const yv = hv > 0 ? Math.min(1, state.h1[dv]! / hv) : 1;
  const fi = yi * table.in1.f + (1 - yi) * table.in3.f;
  const ti = yi * table.in1.t + (1 - yi) * table.in3.t;
  const tv = yv * table.view1.t + (1 - yv) * table.view3.t;
  const { rm } = state;
  // D = (I - r Rm)^-1 [ r Bv + H (F, T) ]
  const s0 = rC * state.b[2 * di]! + hi * fi;
  const s1 = state.b[2 * di + 1]! + hi * ti;
  const m00 = 1 - rC * rm[0]!;
  const m01 = -rC * rm[1]!;
  const m10 = -rm[2]!;
  const m11 = 1 - rm[3]!;
  const det = m00 * m11 - m01 * m10;
  const d0 = (m11 * s0 - m01 * s1) / det;
  const d1 = (m00 * s1 - m10 * s0) / det;
  const l0 = (hv * (1 - tv)) / fC;
  // What edges scatter has its flux even in the cosine: next to the critical angle, where flakes tip trapped light into the
  // view, its radiance is less than Lambert's.
  const trapped = state.b[2 * di + 1]! + hi * ti;
  const even = trapped > 0 ? Math.min(1, state.edge[di]! / trapped) : 0;
  const l1 = ((hv * tv) / fT) * (1 - (1 - EDGE_RADIANCE) * even);
  let factor = state.q[g]! + (state.w[2 * dv]! + l0) * d0 + (state.w[2 * dv + 1]! + l1) * d1 - hi * (l0 * fi + l1 * ti);
  if (hi > 0 && hv > 0) {
    const h = Math.sqrt(hi * hv);
    const c = classes;
    const p00 = 1 - rC * h * (1 - c.x);
    const p01 = -rC * h * c.xt;
    const p10 = -h * c.x;
    const p11 = 1 - h * (1 - c.xt - c.fw);
    const detP = p00 * p11 - p01 * p10;
    const e0 = hi * fi;
    const e1 = hi * ti;
    const dp0 = (p11 * e0 - p01 * e1) / detP;
    const dp1 = (p00 * e1 - p10 * e0) / detP;
    const share = chainShare(optics, optics.geometries[g]!.sinView, c.s, Math.min(0.99, 1 - p11));
    factor += (share - 1) * (l0 * (dp0 - e0) + l1 * (dp1 - e1));
  }
  // The chain correction may overdraw by rounding where hardly any light is left.
  return optics.geometries[g]!.surface * Math.max(0, factor);
}
