import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { CoreError } from '../errors';
import type { Film } from './film';
import { at, readFlake, tabulateFlake, type FlakeOptics, type FlakeTable, type SpectrumOrNumber } from './flakeOptics';

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
  readonly flakes?: Flakes;
  readonly pigment?: Pigment;
  readonly factor?: number;
}

/**
 * A coat in depths of one nominal full coat: dye `a`, volume absorption `k` and isotropic scattering `s`, flake depth
 * `tau` = -ln(1 - cover), and the flake table. A film factor f multiplies a, k, s and tau; nothing else changes.
 */
export interface PreparedCoat {
  readonly a: Float64Array;
  readonly k: Float64Array;
  readonly s: Float64Array;
  readonly tau: number;
  /** Rms tilt per axis, radians. */
  readonly tilt: number;
  readonly edge: number;
  readonly table: FlakeTable | null;
  /** What the table was made from. */
  readonly optics: FlakeOptics | null;
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
  const { flakes } = coat;
  if (flakes) {
    check(flakes.cover >= 0 && flakes.cover < 1, 'Flake cover must be at least 0 and below 1.');
    check(flakes.tilt >= 0.3 && flakes.tilt <= 30, 'Flake tilt must be between 0.3 and 30 degrees.');
    check(flakes.edge >= 0 && flakes.edge <= 1, 'The edge share must be between 0 and 1.');
  }
  const hasFlakes = flakes !== undefined && flakes.cover > 0;
  return {
    a,
    k,
    s,
    tau: hasFlakes ? -Math.log(1 - Math.min(flakes.cover, MAX_COVER)) : 0,
    tilt: flakes ? (flakes.tilt * Math.PI) / 180 : 0.1,
    edge: flakes?.edge ?? 0,
    table: hasFlakes ? tabulateFlake(flakes.optics, film.n) : null,
    optics: hasFlakes ? flakes.optics : null,
    factor,
  };
}

/** What one nominal full coat holds when several kinds of flakes lie in it. */
export interface MixedCoat extends Omit<Coat, 'flakes'> {
  readonly flakes?: Flakes | readonly Flakes[];
}

/**
 * Kinds of flakes of one coat, each with its share of dye and pigment, to be laid among one another by {@link interleave}. A coat
 * with one kind or none is that coat itself.
 * @throws CoreError `badStack` as {@link prepareCoat}
 */
export function prepareClasses(film: Film, coat: MixedCoat): PreparedCoat[] {
  const { flakes, ...rest } = coat;
  const kinds = flakes === undefined ? [] : Array.isArray(flakes) ? (flakes as readonly Flakes[]) : [flakes as Flakes];
  const lying = kinds.filter((k) => k.cover > 0);
  // All are checked, also those that nothing is laid of.
  const prepared = kinds.map((k) => prepareCoat(film, { ...rest, flakes: k }));
  if (lying.length <= 1) return [prepared[kinds.indexOf(lying[0]!)] ?? prepareCoat(film, rest)];
  const share = (v: Float64Array) => v.map((x) => x / lying.length);
  return prepared
    .filter((_, i) => kinds[i]!.cover > 0)
    .map((c) => ({ ...c, a: share(c.a), k: share(c.k), s: share(c.s) }));
}

/** Thin layers a coat of several kinds is laid as: more of them change the look by less than a thousandth. */
const SLICES = 6;

/**
 * Kinds of flakes that lie among one another, as thin layers laid there and back (A B B A A B ...), which come to the mixture as
 * they get thinner (the symmetric splitting of Strang 1968). @param factor film of all of it, nominal full coats
 */
export function interleave(classes: readonly PreparedCoat[], factor: number, slices = SLICES): PreparedCoat[] {
  const [only] = classes;
  if (classes.length <= 1) return only ? [{ ...only, factor: only.factor * factor }] : [];
  const thin = classes.map((c) => ({ ...c, factor: (c.factor * factor) / slices }));
  return Array.from({ length: slices }, (_, i) => (i % 2 ? [...thin].reverse() : thin)).flat();
}

/** The same coat with its flake depth and spread changed; the flake table is shared. */
export function adjustCoat(
  coat: PreparedCoat,
  change: { factor?: number; dyeScale?: number; tauScale?: number; tiltScale?: number; edge?: number },
): PreparedCoat {
  const scale = change.dyeScale ?? 1;
  return {
    ...coat,
    a: scale === 1 ? coat.a : coat.a.map((v) => v * scale),
    tau: coat.tau * (change.tauScale ?? 1),
    tilt: Math.min(0.52, Math.max(0.006, coat.tilt * (change.tiltScale ?? 1))),
    edge: Math.min(1, change.edge ?? coat.edge),
    factor: change.factor ?? coat.factor,
  };
}

/** The same coat with every layer on its flakes thicker by a ratio; a flake that has none stays as it is. */
export function thickenFlakes(film: Film, coat: PreparedCoat, ratio: number): PreparedCoat {
  const { optics } = coat;
  if (ratio === 1 || !optics || optics.kind === 'scalar') return coat;
  const thick: FlakeOptics =
    optics.kind === 'lacquered'
      ? { ...optics, lacquerDepth: scaled(optics.lacquerDepth, ratio) }
      : { ...optics, layers: optics.layers.map((l) => ({ ...l, nm: l.nm * ratio })) };
  return { ...coat, optics: thick, table: tabulateFlake(thick, film.n) };
}

const scaled = (value: SpectrumOrNumber, ratio: number): SpectrumOrNumber =>
  typeof value === 'number' ? value * ratio : Float64Array.from(value, (v) => v * ratio);

/** Flake reflectance at wavelength i and a local cosine; 0 without flakes. */
export function coatReflectance(coat: PreparedCoat, i: number, cosine: number): number {
  return coat.table ? readFlake(coat.table, coat.table.r, i, cosine) : 0;
}

/** Flake transmittance at wavelength i and a local cosine; 0 without flakes. */
export function coatTransmittance(coat: PreparedCoat, i: number, cosine: number): number {
  return coat.table ? readFlake(coat.table, coat.table.t, i, cosine) : 0;
}
