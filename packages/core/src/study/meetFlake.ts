import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { readFlake, type FlakeTable } from '../optics/flakeOptics';

/** Flakes of one kind in a traced layer; their normals are a mixture of Gaussian tilts. */
export interface TracedFlakes {
  /** Flakes a vertical ray meets. */
  readonly tau: number;
  readonly edge: number;
  /** Share and rms tilt per axis, radians. */
  readonly tilts: readonly { readonly share: number; readonly sigma: number }[];
  readonly table: FlakeTable;
}

export type Vector = readonly [number, number, number];
/** Mean of |w . m| and of m_z over a tilt mixture, by quadrature over tilt and azimuth. */
export function meanCrossing(tilts: TracedFlakes['tilts'], cosine: number): number {
  const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
  let sum = 0;
  let weight = 0;
  for (const { share, sigma } of tilts) {
    for (let i = 0; i < 24; i++) {
      const t = sigma * Math.sqrt(-2 * Math.log(1 - (i + 0.5) / 24));
      if (t > 1.5) continue;
      for (let j = 0; j < 12; j++) {
        const phi = (Math.PI * (j + 0.5)) / 12;
        sum += share * Math.abs(cosine * Math.cos(t) + sine * Math.sin(t) * Math.cos(phi));
        weight += share;
      }
    }
  }
  return sum / weight;
}

/** Density of flake normals per steradian at a tilt. */
export function normalDensity(tilts: TracedFlakes['tilts'], t: number): number {
  let sum = 0;
  for (const { share, sigma } of tilts)
    sum += (share * Math.exp((-t * t) / (2 * sigma * sigma))) / (2 * Math.PI * sigma * sigma);
  return t > 1e-6 ? (sum * t) / Math.sin(t) : sum;
}

export const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export function anyDirection(random: () => number): Vector {
  const z = 2 * random() - 1;
  const phi = 2 * Math.PI * random();
  const s = Math.sqrt(Math.max(0, 1 - z * z));
  const safe = Math.abs(z) < 1e-6 ? 1e-6 : z;
  return [s * Math.cos(phi), s * Math.sin(phi), safe];
}

/** A candidate meeting with a flake: what it mirrors to the views is added; then the ray passes by, or is met. */
export function meetFlake(
  l: TracedFlakes,
  layer: number,
  depth: number,
  d: Vector,
  w: Float64Array,
  r: Float64Array,
  t: Float64Array,
  random: () => number,
  send: (
    layer: number,
    depth: number,
    strength: (v: { readonly direction: Vector }) => number,
    by: ArrayLike<number> | null,
  ) => void,
): Vector {
  const flake = l.table;
  // Toward the views: the flake whose normal halves the way.
  send(
    layer,
    depth,
    (v) => {
      const h: Vector = [v.direction[0] - d[0], v.direction[1] - d[1], v.direction[2] - d[2]];
      const length = Math.hypot(...h);
      if (length < 1e-9) return 0;
      const cosine = Math.abs(dot(d, h)) / length;
      for (let i = 0; i < WAVELENGTH_COUNT; i++) r[i] = readFlake(flake, flake.r, i, cosine);
      return ((1 - l.edge) * normalDensity(l.tilts, Math.acos(Math.min(1, Math.abs(h[2]) / length)))) / 4;
    },
    r,
  );
  // A flake from the population; it is met by the share of it the ray sees.
  const pick = random();
  let sum = 0;
  let sigma = l.tilts[0]!.sigma;
  for (const tilt of l.tilts) {
    sum += tilt.share;
    if (pick <= sum) {
      ({ sigma } = tilt);
      break;
    }
  }
  const tilt = Math.min(1.5, sigma * Math.sqrt(-2 * Math.log(1 - random())));
  const phi = 2 * Math.PI * random();
  const m: Vector = [Math.sin(tilt) * Math.cos(phi), Math.sin(tilt) * Math.sin(phi), Math.cos(tilt)];
  const meets = dot(d, m);
  const cosine = Math.abs(meets);
  if (random() >= cosine) return d;
  for (let i = 0; i < WAVELENGTH_COUNT; i++) {
    r[i] = readFlake(flake, flake.r, i, cosine);
    t[i] = readFlake(flake, flake.t, i, cosine);
  }
  if (random() < l.edge) {
    for (let i = 0; i < WAVELENGTH_COUNT; i++) w[i]! *= r[i]! + t[i]!;
    send(layer, depth, () => 1 / (4 * Math.PI), null);
    return anyDirection(random);
  }
  let [mirrored, passed] = [1e-9, 1e-9];
  for (let i = 0; i < WAVELENGTH_COUNT; i++) {
    mirrored += w[i]! * r[i]!;
    passed += w[i]! * t[i]!;
  }
  const chance = mirrored / (mirrored + passed);
  if (random() < chance) {
    for (let i = 0; i < WAVELENGTH_COUNT; i++) w[i]! *= r[i]! / chance;
    const z = d[2] - 2 * meets * m[2];
    return [d[0] - 2 * meets * m[0], d[1] - 2 * meets * m[1], Math.abs(z) < 1e-6 ? 1e-6 : z];
  }
  for (let i = 0; i < WAVELENGTH_COUNT; i++) w[i]! *= t[i]! / (1 - chance);
  return d;
}
