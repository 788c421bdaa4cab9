import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { CoreError } from '../errors';
import type { Film } from './film';
import { at, tabulateFlake, type FlakeOptics, type FlakeTable, type SpectrumOrNumber } from './flakeOptics';

/** Flakes of one kind in a coat. */
export interface Flakes {
  /** Chance that a normal ray meets at least one flake in a nominal full coat, 0..0.999. */
  readonly cover: number;
  /** Rms tilt per axis, degrees, 0.5..25. */
  readonly tilt: number;
  /** Share of hits scattered isotropically by edges, 0..1. */
  readonly edge: number;
  readonly optics: FlakeOptics;
}

/** Kubelka-Munk pigment: absorption and scattering per um, and the dry film in um. */
export interface Pigment {
  readonly k: SpectrumOrNumber;
  readonly s: SpectrumOrNumber;
  readonly thickness: number;
}

/** What one nominal full coat holds; every part optional. `factor` scales the film (1 = full coat, 0.5 = half). */
export interface Coat {
  /** Napierian optical depth at normal incidence. */
  readonly dye?: SpectrumOrNumber;
  /** One kind, or several that lie among one another. */
  readonly flakes?: Flakes | readonly Flakes[];
  readonly pigment?: Pigment;
  readonly factor?: number;
}

/** Flakes of one kind: depth `tau` = -ln(1 - cover) of a nominal full coat, lie and look. */
export interface PreparedFlakes {
  readonly tau: number;
  /** Rms tilt per axis, radians. */
  readonly tilt: number;
  readonly edge: number;
  readonly table: FlakeTable;
  /** What the table was made from. */
  readonly optics: FlakeOptics;
}

/**
 * A coat in depths of one nominal full coat: dye `a`, volume absorption `k` and isotropic scattering `s`, and every kind of flakes
 * in it. A film factor f multiplies a, k, s and each tau; nothing else changes.
 */
export interface PreparedCoat {
  readonly a: Float64Array;
  readonly k: Float64Array;
  readonly s: Float64Array;
  readonly flakes: readonly PreparedFlakes[];
  readonly factor: number;
}

const MAX_COVER = 0.9999;

function check(ok: boolean, message: string): void {
  if (!ok) throw new CoreError('badStack', message);
}

/**
 * Turns a coat into depths on the wavelength grid and tabulates its flake.
 * @throws CoreError `badStack` for negative depths, cover outside 0..1, tilt outside 0.3..30 degrees.
 */
export function prepareCoat(film: Film, coat: Coat): PreparedCoat {
  const factor = coat.factor ?? 1;
  check(factor >= 0 && Number.isFinite(factor), 'A coat factor must be 0 or more.');
  const a = new Float64Array(WAVELENGTH_COUNT);
  const k = new Float64Array(WAVELENGTH_COUNT);
  const s = new Float64Array(WAVELENGTH_COUNT);
  for (let i = 0; i < WAVELENGTH_COUNT; i++) {
    if (coat.dye !== undefined) a[i] = at(coat.dye, i);
    if (coat.pigment) {
      k[i] = (at(coat.pigment.k, i) * coat.pigment.thickness) / 2;
      s[i] = (4 / 3) * at(coat.pigment.s, i) * coat.pigment.thickness;
    }
    check(a[i]! >= 0 && k[i]! >= 0 && s[i]! >= 0, 'Dye and pigment depths must be 0 or more at every wavelength.');
  }
  const { flakes = [] } = coat;
  const kinds = Array.isArray(flakes) ? (flakes as readonly Flakes[]) : [flakes as Flakes];
  for (const { cover, tilt, edge } of kinds) {
    check(cover >= 0 && cover < 1, 'Flake cover must be at least 0 and below 1.');
    check(tilt >= 0.3 && tilt <= 30, 'Flake tilt must be between 0.3 and 30 degrees.');
    check(edge >= 0 && edge <= 1, 'The edge share must be between 0 and 1.');
  }
  const laid = kinds.filter(({ cover }) => cover > 0);
  return {
    a,
    k,
    s,
    flakes: laid.map(({ cover, tilt, edge, optics }) => ({
      tau: -Math.log(1 - Math.min(cover, MAX_COVER)),
      tilt: (tilt * Math.PI) / 180,
      edge,
      table: tabulateFlake(optics, film.n),
      optics,
    })),
    factor,
  };
}

/** Depth of all flakes of a nominal full coat; 0 without any. */
export const flakeDepth = (coat: PreparedCoat): number => coat.flakes.reduce((sum, f) => sum + f.tau, 0);

/** The same coat with its flakes' depth, spread and edges changed by factors; the flake tables are shared. */
export function adjustCoat(
  coat: PreparedCoat,
  change: { factor?: number; dyeScale?: number; tauScale?: number; tiltScale?: number; edgeScale?: number },
): PreparedCoat {
  const scale = change.dyeScale ?? 1;
  return {
    ...coat,
    a: scale === 1 ? coat.a : coat.a.map((v) => v * scale),
    flakes: coat.flakes.map((f) => ({
      ...f,
      tau: f.tau * (change.tauScale ?? 1),
      tilt: Math.min(0.52, Math.max(0.006, f.tilt * (change.tiltScale ?? 1))),
      edge: Math.min(1, f.edge * (change.edgeScale ?? 1)),
    })),
    factor: change.factor ?? coat.factor,
  };
}

/** The same coat at another mix strength: all that colours scales, the film does not. */
export function strengthenCoat(coat: PreparedCoat, strength: number): PreparedCoat {
  if (strength === 1) return coat;
  const times = (v: Float64Array) => v.map((x) => x * strength);
  return {
    ...coat,
    a: times(coat.a),
    k: times(coat.k),
    s: times(coat.s),
    flakes: coat.flakes.map((f) => ({ ...f, tau: f.tau * strength })),
  };
}

/** The same coat with every layer on its flakes thicker by a ratio; a flake that has none stays as it is. */
export function thickenFlakes(film: Film, coat: PreparedCoat, ratio: number): PreparedCoat {
  if (ratio === 1) return coat;
  const thicken = (flakes: PreparedFlakes): PreparedFlakes => {
    const { optics } = flakes;
    if (optics.kind === 'scalar') return flakes;
    const thick: FlakeOptics =
      optics.kind === 'lacquered'
        ? { ...optics, lacquerDepth: scaled(optics.lacquerDepth, ratio) }
        : { ...optics, layers: optics.layers.map((l) => ({ ...l, nm: l.nm * ratio })) };
    return { ...flakes, optics: thick, table: tabulateFlake(thick, film.n) };
  };
  return { ...coat, flakes: coat.flakes.map(thicken) };
}

const scaled = (value: SpectrumOrNumber, ratio: number): SpectrumOrNumber =>
  typeof value === 'number' ? value * ratio : Float64Array.from(value, (v) => v * ratio);
