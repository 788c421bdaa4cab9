import type { Spectrum } from './spectrum';
import { WEIGHTS } from './tables/weights';

export type Illuminant = keyof typeof WEIGHTS;
export type Observer = '2' | '10';
export type Xyz = readonly [number, number, number];

export const ILLUMINANTS = Object.keys(WEIGHTS) as Illuminant[];
export const OBSERVERS: readonly Observer[] = ['2', '10'];

/** An illuminant with an observer: everything that turns a spectrum into a colour. */
export interface Viewing {
  readonly illuminant: Illuminant;
  readonly observer: Observer;
}

/** D65 with the 10 degree observer (CIE 15), the default of the program. */
export const D65_10: Viewing = { illuminant: 'D65', observer: '10' };

interface WeightSet {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
  readonly white: Xyz;
}

const sum = (a: Float64Array): number => a.reduce((s, v) => s + v, 0);

function prepare(viewing: Viewing): WeightSet {
  const raw = WEIGHTS[viewing.illuminant][viewing.observer];
  const x = Float64Array.from(raw.x);
  const y = Float64Array.from(raw.y);
  const z = Float64Array.from(raw.z);
  return { x, y, z, white: [sum(x), sum(y), sum(z)] };
}

const PREPARED = new Map<string, WeightSet>(
  ILLUMINANTS.flatMap((illuminant) =>
    OBSERVERS.map((observer) => [`${illuminant}/${observer}`, prepare({ illuminant, observer })] as const),
  ),
);

/** The weights of a viewing condition as typed arrays, 31 values an axis; Y of the perfect diffuser is 100. */
export function weightsOf(viewing: Viewing): WeightSet {
  return PREPARED.get(`${viewing.illuminant}/${viewing.observer}`)!;
}

/** XYZ of the perfect diffuser, Y = 100, from the same weights as every other colour. */
export function whitePoint(viewing: Viewing): Xyz {
  return weightsOf(viewing).white;
}

/**
 * Tristimulus values of a reflectance (or radiance factor) spectrum.
 * @param reflectance 31 fractions; above 1 allowed. @returns XYZ with the perfect diffuser at Y = 100.
 * Source: ASTM E308 weighted sum.
 */
export function reflectanceToXyz(reflectance: Spectrum, viewing: Viewing = D65_10): Xyz {
  const w = weightsOf(viewing);
  let x = 0;
  let y = 0;
  let z = 0;
  for (let i = 0; i < w.x.length; i++) {
    const r = reflectance[i]!;
    x += r * w.x[i]!;
    y += r * w.y[i]!;
    z += r * w.z[i]!;
  }
  return [x, y, z];
}
