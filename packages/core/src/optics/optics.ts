import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { PreparedCoat } from './coat';
import type { Film } from './film';
import { readFlake, type FlakeTable } from './flakeOptics';
import { enterFilm, type FilmGeometry, type Geometry } from './geometry';
import { quickLobeWeights, surfaceTables, type SurfaceTables } from './surfaceTables';

/** R and T of one flake kind read at the angles a set of geometries needs; index [place * 31 + wavelength]. */
export interface FlakeReadings {
  /** Reflectance at the mirroring tilt, by geometry. */
  readonly rLobe: Float64Array;
  /** By direction. */
  readonly rDir: Float64Array;
  readonly tDir: Float64Array;
  /** Diffuse classes, 31 values each. */
  readonly rC: Float64Array;
  readonly tC: Float64Array;
  readonly rT: Float64Array;
  readonly tT: Float64Array;
  /** Normal incidence, for the reference tilt. */
  /** At the critical angle, where mirrors turn light out of one class into the other. */
  readonly rX: Float64Array;
  readonly rNormal: number;
  readonly tNormal: number;
}

/**
 * A film and a set of geometries with everything that can be worked out before any stack is known, and the caches that
 * belong to them. Make one per set of geometries and keep it.
 */
export interface Optics {
  readonly film: Film;
  readonly geometries: readonly FilmGeometry[];
  /** Distinct cosines inside the film of all lamps and views. */
  readonly directions: Float64Array;
  /** Index into `directions`, by geometry. */
  readonly dirIn: Int32Array;
  readonly dirView: Int32Array;
  readonly readings: (table: FlakeTable) => FlakeReadings;
  /** Surface tables at exactly this tilt. */
  readonly exactTables: (tilt: number) => readonly SurfaceTables[];
  /** Surface tables interpolated between cached tilts. */
  readonly quickTables: (tilt: number) => readonly SurfaceTables[];
}

function mean(values: Float64Array): number {
  return values.reduce((s, v) => s + v, 0) / values.length;
}

function readAt(table: FlakeTable, values: 'r' | 't', cosines: ArrayLike<number>): Float64Array {
  const out = new Float64Array(cosines.length * WAVELENGTH_COUNT);
  for (let c = 0; c < cosines.length; c++) {
    for (let i = 0; i < WAVELENGTH_COUNT; i++) {
      out[c * WAVELENGTH_COUNT + i] = readFlake(table, table[values], i, cosines[c]!);
    }
  }
  return out;
}

/** Cosines a class of diffuse light is read at. */
const CLASS_COSINES = 12;

/** Mean over a class of diffuse light: Lambertian flux is even in the square of the cosine. */
function meanAt(table: FlakeTable, values: 'r' | 't', from: number, to: number): Float64Array {
  const cosines = Array.from({ length: CLASS_COSINES }, (_, c) =>
    Math.sqrt(from + ((to - from) * (c + 0.5)) / CLASS_COSINES),
  );
  const all = readAt(table, values, cosines);
  return Float64Array.from({ length: WAVELENGTH_COUNT }, (_, i) => {
    let sum = 0;
    for (let c = 0; c < CLASS_COSINES; c++) sum += all[c * WAVELENGTH_COUNT + i]!;
    return sum / CLASS_COSINES;
  });
}

/** Cached tilts lie on a geometric grid: this many to a factor of e. */
const TILTS_PER_E = 6;

function blend(a: SurfaceTables, b: SurfaceTables, weights: Float64Array, u: number): SurfaceTables {
  const mix = (p: number, q: number) => p + u * (q - p);
  const pair = (k: 'in1' | 'in3' | 'view1' | 'view3') => ({
    f: mix(a[k].f, b[k].f),
    t: mix(a[k].t, b[k].t),
  });
  // i2 varies over orders of magnitude with the tilt, so it is mixed in the logarithm.
  const log = (p: number, q: number) => (p > 0 && q > 0 ? Math.exp(mix(Math.log(p), Math.log(q))) : mix(p, q));
  return {
    weights,
    rL: mix(a.rL, b.rL),
    i2: log(a.i2, b.i2),
    in1: pair('in1'),
    in3: pair('in3'),
    view1: pair('view1'),
    view3: pair('view3'),
  };
}

/** Prepares a film for a set of geometries. */
export function createOptics(film: Film, geometries: readonly Geometry[]): Optics {
  const inside = geometries.map((g) => enterFilm(film, g));
  const directions: number[] = [];
  const indexOf = (cosine: number): number => {
    const found = directions.findIndex((d) => Math.abs(d - cosine) < 1e-12);
    return found >= 0 ? found : directions.push(cosine) - 1;
  };
  const dirIn = Int32Array.from(inside, (g) => indexOf(g.cosIn));
  const dirView = Int32Array.from(inside, (g) => indexOf(g.cosView));

  const readingCache = new WeakMap<FlakeTable, FlakeReadings>();
  const read = (table: FlakeTable): FlakeReadings => ({
    rLobe: readAt(
      table,
      'r',
      inside.map((g) => g.cosFlake),
    ),
    rDir: readAt(table, 'r', directions),
    tDir: readAt(table, 't', directions),
    rC: meanAt(table, 'r', film.muC ** 2, 1),
    tC: meanAt(table, 't', film.muC ** 2, 1),
    rT: meanAt(table, 'r', 0, film.muC ** 2),
    tT: meanAt(table, 't', 0, film.muC ** 2),
    rX: readAt(table, 'r', [film.muC]),
    rNormal: mean(readAt(table, 'r', [1])),
    tNormal: mean(readAt(table, 't', [1])),
  });
  const readings = (table: FlakeTable): FlakeReadings => {
    let known = readingCache.get(table);
    if (!known) readingCache.set(table, (known = read(table)));
    return known;
  };

  const exactTables = (tilt: number) => inside.map((g) => surfaceTables(film, g, tilt));
  const gridCache = new Map<number, readonly SurfaceTables[]>();
  const onGrid = (step: number): readonly SurfaceTables[] => {
    let known = gridCache.get(step);
    if (!known)
      gridCache.set(step, (known = inside.map((g) => surfaceTables(film, g, Math.exp(step / TILTS_PER_E), 32))));
    return known;
  };
  const recent = new Map<number, readonly SurfaceTables[]>();
  const quickTables = (tilt: number): readonly SurfaceTables[] => {
    const known = recent.get(tilt);
    if (known) return known;
    const p = Math.log(tilt) * TILTS_PER_E;
    const low = Math.floor(p);
    const below = onGrid(low);
    const above = onGrid(low + 1);
    const made = inside.map((g, j) => blend(below[j]!, above[j]!, quickLobeWeights(g.tiltNeeded / tilt), p - low));
    if (recent.size > 400) recent.clear();
    recent.set(tilt, made);
    return made;
  };
  return {
    film,
    geometries: inside,
    directions: Float64Array.from(directions),
    dirIn,
    dirView,
    readings,
    exactTables,
    quickTables,
  };
}

/**
 * Reference tilt of a stack: rms of the coats' tilts weighted by their first-order strength at normal incidence with band
 * means (film equations, section 7). 0.1 rad without flakes.
 */
export function referenceTilt(optics: Optics, coats: readonly PreparedCoat[]): number {
  let up = 1;
  let weight = 0;
  let total = 0;
  for (let j = coats.length - 1; j >= 0; j--) {
    const coat = coats[j]!;
    let al = coat.factor * (mean(coat.a) + mean(coat.k) + mean(coat.s));
    for (const f of coat.flakes) {
      al += f.tau * coat.factor * (1 - (1 - f.edge) * optics.readings(f.table).tNormal);
    }
    const shade = al > 1e-12 ? (1 - Math.exp(-2 * al)) / (2 * al) : 1;
    for (const f of coat.flakes) {
      const strength = f.tau * coat.factor * (1 - f.edge) * optics.readings(f.table).rNormal * shade;
      weight += up * strength;
      total += up * strength * f.tilt * f.tilt;
    }
    up *= Math.exp(-2 * al);
  }
  return weight > 1e-15 ? Math.sqrt(total / weight) : 0.1;
}
