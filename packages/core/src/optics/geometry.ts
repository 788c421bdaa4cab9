import type { Film } from './film';
import { fresnel } from './fresnel';
import { CoreError } from '../errors';

/** A lamp and a view in one plane: incidence from the normal in air, aspecular from the mirror toward the lamp; degrees. */
export interface Geometry {
  readonly incidence: number;
  readonly aspecular: number;
}

/** The five views of the multi-angle convention, lamp at 45 degrees (ASTM E2194, DIN 6175-2). */
export const FIVE_ANGLES: readonly Geometry[] = [15, 25, 45, 75, 110].map((aspecular) => ({
  incidence: 45,
  aspecular,
}));

/** A geometry with the cosines and angles inside the film. Angles in radians; the view is signed, + on the mirror side. */
export interface FilmGeometry {
  readonly geometry: Geometry;
  readonly cosIn: number;
  readonly cosView: number;
  readonly sinIn: number;
  readonly sinView: number;
  /** Flake tilt that mirrors the lamp into the view. */
  readonly tiltNeeded: number;
  /** Cosine of the light at such a flake. */
  readonly cosFlake: number;
  /** Mean path factor of the way in and out. */
  readonly path: number;
  /** Fresnel twice and the n^2 law: radiance inside to radiance factor outside. */
  readonly surface: number;
}

const RAD = Math.PI / 180;

/**
 * Refracts a geometry into the film.
 * @throws CoreError `badGeometry` when lamp or view would lie at or beyond 90 degrees.
 */
export function enterFilm(film: Film, geometry: Geometry): FilmGeometry {
  const thetaIn = geometry.incidence * RAD;
  const thetaView = (geometry.incidence - geometry.aspecular) * RAD;
  if (!(thetaIn >= 0 && thetaIn < 89.9 * RAD) || !(Math.abs(thetaView) < 89.9 * RAD)) {
    throw new CoreError(
      'badGeometry',
      `A lamp at ${geometry.incidence} degrees seen at ${geometry.aspecular} from the mirror is below the surface.`,
    );
  }
  const sinIn = Math.sin(thetaIn) / film.n;
  const sinView = Math.sin(thetaView) / film.n;
  const cosIn = Math.sqrt(1 - sinIn * sinIn);
  const cosView = Math.sqrt(1 - sinView * sinView);
  const inside = Math.asin(sinIn);
  const out = Math.asin(sinView);
  const through = (cosine: number) => 1 - fresnel(1, film.n, cosine).r;
  return {
    geometry,
    cosIn,
    cosView,
    sinIn,
    sinView,
    tiltNeeded: Math.abs(inside - out) / 2,
    cosFlake: Math.cos((inside + out) / 2),
    path: (1 / cosIn + 1 / cosView) / 2,
    surface: (through(Math.cos(thetaIn)) * through(Math.cos(thetaView))) / (film.n * film.n),
  };
}
