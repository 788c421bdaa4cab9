import { WAVELENGTH_COUNT, WAVELENGTHS_NM, type Spectrum } from '../colour/spectrum';
import { CoreError } from '../errors';
import { thinFilmPower } from './thinFilm';

export type SpectrumOrNumber = Spectrum | number;

/** A layer whose index may vary over wavelength. */
export interface SpectralLayer {
  readonly n: SpectrumOrNumber;
  readonly k: SpectrumOrNumber;
  readonly nm: number;
}

/**
 * How one flake sends light back and through.
 * `scalar`: the same at every angle. `thinFilm`: layers from the binder inward onto `exit`; with `twoSided` a transparent
 * core carries the same film on both faces, added incoherently over the core; otherwise the core is opaque.
 * `lacquered`: a metal seen twice through a dyed lacquer of the given napierian depth at normal incidence.
 */
export type FlakeOptics =
  | { readonly kind: 'scalar'; readonly reflectance: SpectrumOrNumber; readonly transmittance: SpectrumOrNumber }
  | {
      readonly kind: 'thinFilm';
      readonly layers: readonly SpectralLayer[];
      readonly exit: { readonly n: SpectrumOrNumber; readonly k: SpectrumOrNumber };
      readonly twoSided?: boolean;
    }
  | {
      readonly kind: 'lacquered';
      readonly lacquerDepth: SpectrumOrNumber;
      readonly metal: { readonly n: SpectrumOrNumber; readonly k: SpectrumOrNumber };
    };

/** Value of a spectrum or of a plain number at wavelength index i. */
export function at(value: SpectrumOrNumber, i: number): number {
  return typeof value === 'number' ? value : value[i]!;
}

/** Reflectance and transmittance of a transparent core with the same film on both faces, by polarisation. */
function bothFaces(
  n0: number,
  layers: readonly { n: number; k: number; nm: number }[],
  core: number,
  cosine: number,
  nm: number,
): { r: number; t: number } {
  const front = thinFilmPower(n0, layers, { n: core, k: 0 }, cosine, nm);
  const sineCore2 = (n0 / core) ** 2 * (1 - cosine * cosine);
  if (sineCore2 >= 1) return { r: 1, t: 0 };
  const back = thinFilmPower(core, [...layers].reverse(), { n: n0, k: 0 }, Math.sqrt(1 - sineCore2), nm);
  const sum = (rf: number, tf: number, rb: number): { r: number; t: number } => {
    const loop = 1 - rb * rb;
    if (loop <= 1e-12) return { r: rf, t: 0 };
    return { r: rf + (tf * tf * rb) / loop, t: (tf * tf) / loop };
  };
  const s = sum(front.rs, front.ts, back.rs);
  const p = sum(front.rp, front.tp, back.rp);
  return { r: (s.r + p.r) / 2, t: (s.t + p.t) / 2 };
}

/**
 * Power reflectance and straight transmittance of a flake in a binder, unpolarised.
 * @param i wavelength index 0..30. @param cosine at the flake, 0..1. @param n0 index of the binder.
 */
export function flakePower(optics: FlakeOptics, i: number, cosine: number, n0: number): { r: number; t: number } {
  if (optics.kind === 'scalar') return { r: at(optics.reflectance, i), t: at(optics.transmittance, i) };
  const nm = WAVELENGTHS_NM[i]!;
  if (optics.kind === 'lacquered') {
    const metal = { n: at(optics.metal.n, i), k: at(optics.metal.k, i) };
    const bare = thinFilmPower(n0, [], metal, cosine, nm);
    return { r: bare.r * Math.exp((-2 * at(optics.lacquerDepth, i)) / Math.max(cosine, 0.05)), t: 0 };
  }
  const layers = optics.layers.map((l) => ({ n: at(l.n, i), k: at(l.k, i), nm: l.nm }));
  const exit = { n: at(optics.exit.n, i), k: at(optics.exit.k, i) };
  if (optics.twoSided) return bothFaces(n0, layers, exit.n, cosine, nm);
  return { r: thinFilmPower(n0, layers, exit, cosine, nm).r, t: 0 };
}

/** R and T of one flake over wavelength (rows) and local cosine (columns, ascending). */
export interface FlakeTable {
  readonly columns: number;
  readonly lowestCosine: number;
  readonly r: Float64Array;
  readonly t: Float64Array;
}

const LOWEST_COSINE = 0.4;
/** Steps of a table for each so many nm of film: what is read between them is within 0.01 of the matrix in light that comes straight in; ours. */
const STEPS = 24;
const NM_A_STEP = 130;

/** A thick film has more orders over the angles, and narrower ones: its table is finer. */
function columnsFor(optics: FlakeOptics): number {
  if (optics.kind === 'scalar') return 1;
  const nm = optics.kind === 'thinFilm' ? optics.layers.reduce((sum, l) => sum + l.nm, 0) : 0;
  return STEPS * (nm <= 2 * NM_A_STEP ? 1 : Math.ceil(nm / NM_A_STEP)) + 1;
}

/** Tables by what they were made from, and the index of the binder. */
const made = new WeakMap<FlakeOptics, Map<number, FlakeTable>>();

/**
 * Tabulates a flake once, so that the matrix method never runs in a hot loop; the same optics are tabulated once a binder.
 * @throws CoreError `badMaterial` when reflectance and transmittance leave 0..1 or add up to more than 1.
 */
export function tabulateFlake(optics: FlakeOptics, n0: number): FlakeTable {
  const known = made.get(optics) ?? new Map<number, FlakeTable>();
  made.set(optics, known);
  let table = known.get(n0);
  if (!table) known.set(n0, (table = tabulated(optics, n0)));
  return table;
}

function tabulated(optics: FlakeOptics, n0: number): FlakeTable {
  const columns = columnsFor(optics);
  const r = new Float64Array(WAVELENGTH_COUNT * columns);
  const t = new Float64Array(WAVELENGTH_COUNT * columns);
  for (let i = 0; i < WAVELENGTH_COUNT; i++) {
    for (let c = 0; c < columns; c++) {
      const cosine = columns === 1 ? 1 : LOWEST_COSINE + ((1 - LOWEST_COSINE) * c) / (columns - 1);
      const p = flakePower(optics, i, cosine, n0);
      if (!(p.r >= 0 && p.t >= 0 && p.r + p.t <= 1 + 1e-9)) {
        throw new CoreError('badMaterial', 'A flake must send back and let through between 0 and all of the light.');
      }
      r[i * columns + c] = p.r;
      t[i * columns + c] = p.t;
    }
  }
  return { columns, lowestCosine: LOWEST_COSINE, r, t };
}

/** Cubic (Catmull-Rom) interpolation of a table row at a cosine, held at its ends and kept within 0..1. */
export function readFlake(table: FlakeTable, values: Float64Array, i: number, cosine: number): number {
  const { columns } = table;
  if (columns === 1) return values[i]!;
  const p = Math.min(
    columns - 1,
    Math.max(0, ((cosine - table.lowestCosine) / (1 - table.lowestCosine)) * (columns - 1)),
  );
  const j = Math.min(columns - 2, Math.floor(p));
  const u = p - j;
  const row = i * columns;
  const p1 = values[row + j]!;
  const p2 = values[row + j + 1]!;
  const p0 = j > 0 ? values[row + j - 1]! : 2 * p1 - p2;
  const p3 = j + 2 < columns ? values[row + j + 2]! : 2 * p2 - p1;
  const v = p1 + 0.5 * u * (p2 - p0 + u * (2 * p0 - 5 * p1 + 4 * p2 - p3 + u * (3 * (p1 - p2) + p3 - p0)));
  return Math.min(1, Math.max(0, v));
}
