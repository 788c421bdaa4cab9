import { xyzToLab, type Lab } from '../colour/lab';
import type { FewWeights } from '../colour/fewWavelengths';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { PreparedCoat } from '../optics/coat';
import type { MapGround } from '../optics/preparedGround';
import type { FastModel, Pile, SlabCache } from '../optics/stack';

/** Depths of flakes in all that films are tabulated at, and of a grey dye; the first of each is none. */
export const TAUS = [0, 0.25, 0.8, 2.4] as const;
export const DEPTHS = [0, 0.5, 1.7, 4.5] as const;
export const MOST_TAU = TAUS[TAUS.length - 1]!;
const MOST = DEPTHS[DEPTHS.length - 1]!;

/**
 * One kind of flakes over one ground, under a grey dye: logs of what is seen, [flakes][dye][angle * channels + channel], once by
 * wavelength and once in the three bands of the observer.
 */
export interface FilmTable {
  /** Place on the shelf; -1 for none. */
  readonly place: number;
  readonly light: readonly (readonly Float64Array[])[];
  readonly bands: readonly (readonly Float64Array[])[];
  /** The bands themselves, not their logs. */
  readonly seen: readonly (readonly Float64Array[])[];
}

/** A table as it is read: at a depth of dye for every channel. */
export interface Reading {
  readonly knots: Int32Array;
  readonly shares: Float64Array;
}

const between = (knots: readonly number[], v: number): [number, number] => {
  let k = 0;
  while (k < knots.length - 2 && knots[k + 1]! < v) k++;
  return [k, (v - knots[k]!) / (knots[k + 1]! - knots[k]!)];
};

/** Where the depths of some channels lie among the knots of dye; deeper than the last it goes on as it ends. */
export function readDepths(depths: ArrayLike<number>, into: Reading): Reading {
  for (let c = 0; c < depths.length; c++) {
    const [k, f] = between(DEPTHS, Math.min(2 * MOST, depths[c]!));
    into.knots[c] = k;
    into.shares[c] = f;
  }
  return into;
}

/** Adds what is seen at an angle through a dye to `out`, by channel, times a weight; `tau` of flakes in all. */
export function seenOf(
  table: readonly (readonly Float64Array[])[],
  tau: number,
  angle: number,
  { knots, shares }: Reading,
  out: Float64Array,
  weight: number,
): void {
  const [t, u] = between(TAUS, tau);
  const [low, high] = [table[t]!, table[t + 1] ?? table[t]!];
  const n = knots.length;
  for (let c = 0; c < n; c++) {
    const at = angle * n + c;
    const [k, f] = [knots[c]!, shares[c]!];
    const a = low[k]![at]!;
    const b = high[k]![at]!;
    const atLow = a + f * (low[k + 1]![at]! - a);
    const atHigh = b + f * (high[k + 1]![at]! - b);
    out[c]! += weight * Math.exp(atLow + u * (atHigh - atLow));
  }
}

const TINY = 1e-9;

/**
 * Tabulates kinds of flakes over grounds, slabs shared between them. Light of one wavelength knows only the dye's depth there, so
 * a table under a grey dye holds for every dye.
 * @param model works out the wavelengths of `weights` @param laid a film by the place of its flakes, their depth and a dye
 */
export function createTables(
  model: FastModel,
  weights: FewWeights,
  laid: (place: number, tau: number, dye: Float64Array) => PreparedCoat,
) {
  const angles = model.optics.geometries.length;
  const few = weights.at.length;
  const greys = DEPTHS.map((d) => new Float64Array(WAVELENGTH_COUNT).fill(d));
  const slabs: readonly SlabCache[] = DEPTHS.map(() => new Map());
  const coats = new Map<string, PreparedCoat>();
  const piles = new Map<string, Pile>();
  const out = new Float64Array(angles * WAVELENGTH_COUNT);

  const factorsOf = (ground: MapGround, place: number, tau: number, k: number): Float64Array => {
    const key = `${place}/${tau}/${k}`;
    let coat = coats.get(key);
    if (!coat) coats.set(key, (coat = laid(place, tau, greys[k]!)));
    let pile = ground.coats.length ? undefined : piles.get(key);
    if (!pile) {
      pile = model.pile([...ground.coats, coat], slabs[k]);
      if (!ground.coats.length) piles.set(key, pile);
    }
    out.fill(0);
    model.over(ground, pile, out);
    const some = new Float64Array(angles * few);
    for (let g = 0; g < angles; g++)
      weights.at.forEach((i, c) => (some[g * few + c] = Math.max(0, out[g * WAVELENGTH_COUNT + i]!)));
    return some;
  };
  const bandsOf = (light: Float64Array): Float64Array => {
    const bands = new Float64Array(angles * 3);
    for (let g = 0; g < angles; g++)
      for (let c = 0; c < few; c++) {
        const v = light[g * few + c]!;
        bands[3 * g]! += v * weights.x[c]!;
        bands[3 * g + 1]! += v * weights.y[c]!;
        bands[3 * g + 2]! += v * weights.z[c]!;
      }
    for (let i = 0; i < bands.length; i++) bands[i] = Math.max(TINY, bands[i]!);
    return bands;
  };
  const logs = (of: Float64Array): Float64Array => of.map((v) => Math.log(Math.max(0, v) + TINY));

  return (ground: MapGround, places: readonly number[]): { bare: FilmTable; kinds: FilmTable[] } => {
    const none = greys.map((_, k) => factorsOf(ground, -1, 0, k));
    const tableOf = (place: number, films: readonly (readonly Float64Array[])[]): FilmTable => {
      const seen = films.map((film) => film.map(bandsOf));
      return {
        ...{ place, seen },
        light: films.map((film) => film.map(logs)),
        bands: seen.map((film) => film.map(logs)),
      };
    };
    return {
      bare: tableOf(-1, [none]),
      kinds: places.map((place) =>
        tableOf(place, [none, ...TAUS.slice(1).map((tau) => greys.map((_, k) => factorsOf(ground, place, tau, k)))]),
      ),
    };
  };
}

/** Lab of what is seen by wavelength at one angle. */
export function labOfFew(seen: Float64Array, weights: FewWeights): Lab {
  let [x, y, z] = [0, 0, 0];
  for (let c = 0; c < seen.length; c++) {
    const v = seen[c]!;
    x += v * weights.x[c]!;
    y += v * weights.y[c]!;
    z += v * weights.z[c]!;
  }
  return xyzToLab([Math.max(0, x), Math.max(0, y), Math.max(0, z)], weights.white);
}
