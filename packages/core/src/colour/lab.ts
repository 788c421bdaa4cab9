import type { Spectrum } from './spectrum';
import { reflectanceToXyz, whitePoint, D65_10, type Viewing, type Xyz } from './tristimulus';

/** CIE L*, a*, b*. L* of bright metallics exceeds 100 near the mirror. */
export type Lab = readonly [number, number, number];

/** Three figures as a colour; those that are missing are none. */
export const labOf = (values: readonly number[]): Lab => [values[0] ?? NaN, values[1] ?? NaN, values[2] ?? NaN];
/** CIE L*, C*ab, hab in degrees 0..360. */
export type Lch = readonly [number, number, number];

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

const f = (t: number): number => (t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116);
const inverse = (v: number): number => (v ** 3 > EPSILON ? v ** 3 : (116 * v - 16) / KAPPA);

/** XYZ to CIELAB against a white point (CIE 15:2004, with the exact rational constants). */
export function xyzToLab(xyz: Xyz, white: Xyz): Lab {
  const fx = f(xyz[0] / white[0]);
  const fy = f(xyz[1] / white[1]);
  const fz = f(xyz[2] / white[2]);
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}

/** CIELAB to XYZ against a white point; inverse of {@link xyzToLab}. */
export function labToXyz(lab: Lab, white: Xyz): Xyz {
  const fy = (lab[0] + 16) / 116;
  return [white[0] * inverse(fy + lab[1] / 500), white[1] * inverse(fy), white[2] * inverse(fy - lab[2] / 200)];
}

/** CIELAB of a reflectance (or radiance factor) spectrum under a viewing condition. */
export function reflectanceToLab(reflectance: Spectrum, viewing: Viewing = D65_10): Lab {
  return xyzToLab(reflectanceToXyz(reflectance, viewing), whitePoint(viewing));
}

/** Lightness, chroma and hue angle (degrees, 0 for a neutral). */
export function labToLch(lab: Lab): Lch {
  const c = Math.hypot(lab[1], lab[2]);
  const h = (Math.atan2(lab[2], lab[1]) * 180) / Math.PI;
  return [lab[0], c, c === 0 ? 0 : (h + 360) % 360];
}
