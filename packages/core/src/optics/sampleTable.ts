import { labToXyz, labOf, type Lab } from '../colour/lab';
import { xyzToLinearSrgb } from '../colour/screen';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { D65_10, reflectanceToXyz, whitePoint, type Xyz } from '../colour/tristimulus';
import type { PreparedCoat } from './coat';
import type { Film } from './film';
import type { Geometry } from './geometry';
import type { Ground } from './preparedGround';
import type { FastModel } from './stack';

const RAD = Math.PI / 180;

/** Lamp angles of the table, degrees from the normal. */
export const SAMPLE_INCIDENCES: readonly number[] = [0, 15, 30, 45, 60, 75];
/** Flake tilts of the table, degrees: half the angle between lamp and view inside the film. */
export const SAMPLE_TILTS: readonly number[] = [0, 1.5, 3, 4.5, 6, 8, 10, 12.5, 15, 18, 22, 27, 33, 40];
/** Views lower than this are taken at this, degrees from the normal. */
const LOWEST_VIEW = 78;

/** Angle from the mirror at which a flake of this tilt lights up, lamp and view in one plane; degrees. */
export function aspecularOf(film: Film, incidence: number, tilt: number): number {
  const inside = Math.asin(Math.sin(incidence * RAD) / film.n);
  const lowest = Math.asin(Math.sin(LOWEST_VIEW * RAD) / film.n);
  const view = Math.max(-lowest, inside - 2 * tilt * RAD);
  return incidence - Math.asin(film.n * Math.sin(view)) / RAD;
}

/** The tilt that lights up at an angle from the mirror; inverse of {@link aspecularOf}. */
export function tiltOf(film: Film, { incidence, aspecular }: Geometry): number {
  const inside = (deg: number) => Math.asin(Math.sin(deg * RAD) / film.n);
  return Math.abs(inside(incidence) - inside(incidence - aspecular)) / 2 / RAD;
}

export function sampleGeometries(film: Film): Geometry[] {
  return SAMPLE_INCIDENCES.flatMap((incidence) =>
    SAMPLE_TILTS.map((tilt) => ({ incidence, aspecular: aspecularOf(film, incidence, tilt) })),
  );
}

/**
 * Look of a finish over lamp angle and flake tilt as XYZ, [(incidence * tilts + tilt) * 3 + axis]; the perfect diffuser has
 * Y = 100. Lamp and view out of one plane are looked up by the flake tilt they need, the nearest thing in the plane.
 * @param model its geometries are {@link sampleGeometries}.
 */
export function sampleTable(model: FastModel, ground: Ground, coats: readonly PreparedCoat[]): Float64Array {
  const factors = model.over(ground, model.pile(coats));
  const out = new Float64Array(SAMPLE_INCIDENCES.length * SAMPLE_TILTS.length * 3);
  for (let g = 0; g * 3 < out.length; g++) {
    out.set(reflectanceToXyz(factors.subarray(g * WAVELENGTH_COUNT, (g + 1) * WAVELENGTH_COUNT)), g * 3);
  }
  return out;
}

/** Linear interpolation through ascending points, ends held. */
function between(xs: readonly number[], ys: readonly number[], x: number): number {
  if (x <= xs[0]!) return ys[0]!;
  const j = xs.findIndex((v) => v >= x);
  if (j < 0) return ys.at(-1)!;
  const u = (x - xs[j - 1]!) / (xs[j]! - xs[j - 1]!);
  return ys[j - 1]! * (1 - u) + ys[j]! * u;
}

/**
 * A target known at a few angles as such a table: what it was read to be, over what the predicted finish is at the same
 * angles, interpolated between them by flake tilt and carried to every lamp angle. A guess between the readings; say so.
 * @param predicted table of the finish that is compared with it.
 */
export function targetTable(
  film: Film,
  predicted: Float64Array,
  read: readonly (Geometry & { readonly lab: Lab })[],
  predictedLabs: readonly Lab[],
): Float64Array {
  const xyzOf = (lab: Lab): Xyz => labToXyz(lab, whitePoint(D65_10));
  const points = read
    .map((r, g) => {
      const [want, have] = [xyzOf(r.lab), xyzOf(predictedLabs[g]!)];
      return { tilt: tiltOf(film, r), ratio: want.map((v, k) => v / Math.max(1e-3, have[k]!)) };
    })
    .sort((a, b) => a.tilt - b.tilt);
  const tilts = points.map((p) => p.tilt);
  return predicted.map((v, i) => {
    const tilt = SAMPLE_TILTS[Math.floor(i / 3) % SAMPLE_TILTS.length]!;
    const ratios = points.map((p) => Math.min(4, p.ratio[i % 3]!));
    return v * between(tilts, ratios, tilt);
  });
}

/** Size of a table laid out evenly for a picture: square root of the tilt by lamp angle. */
export const EVEN = { tilts: 48, incidences: 24 } as const;
export const LARGEST_TILT = SAMPLE_TILTS.at(-1)!;
export const LARGEST_INCIDENCE = SAMPLE_INCIDENCES.at(-1)!;

/** A table as linear sRGB (1 = perfect diffuser) on the even grid of {@link EVEN}: rows are lamp angles 0..75, columns are sqrt(tilt / 40). [(row * tilts + column) * 3]. */
export function evenTable(table: Float64Array): Float32Array {
  const out = new Float32Array(EVEN.tilts * EVEN.incidences * 3);
  const columns = Array.from({ length: SAMPLE_TILTS.length }, (_, t) => t);
  for (let r = 0; r < EVEN.incidences; r++) {
    const incidence = (r / (EVEN.incidences - 1)) * LARGEST_INCIDENCE;
    const atTilts = [0, 1, 2].map((k) =>
      columns.map((t) =>
        between(
          SAMPLE_INCIDENCES,
          SAMPLE_INCIDENCES.map((_, i) => table[(i * SAMPLE_TILTS.length + t) * 3 + k]!),
          incidence,
        ),
      ),
    );
    for (let c = 0; c < EVEN.tilts; c++) {
      const tilt = (c / (EVEN.tilts - 1)) ** 2 * LARGEST_TILT;
      const xyz = labOf(atTilts.map((values) => between(SAMPLE_TILTS, values, tilt)));
      out.set(
        xyzToLinearSrgb(xyz).map((v) => Math.max(0, v)),
        (r * EVEN.tilts + c) * 3,
      );
    }
  }
  return out;
}
