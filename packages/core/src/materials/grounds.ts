import { spectrumFromLab } from '../colour/spectrumFromLab';
import { flatSpectrum } from '../colour/spectrum';
import { reflectanceToLab, type Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import type { Coat } from '../optics/coat';
import type { Film } from '../optics/film';
import { fresnel } from '../optics/fresnel';
import { CoreError } from '../errors';
import { dyeDepth, type Dye } from './dyes';
import { findPigment, type EffectPigment } from './effectPigments';

/** A ground coat: a solid colour known by its look under clear, or a metallic laid over a solid. */
export interface GroundMaterial {
  readonly id: string;
  readonly name: string;
  /** Short mark for a map row. */
  readonly mark: string;
  /** What it is in words, where its name is a figure: "a mid grey". */
  readonly words?: string;
  /** Look of the cleared solid at 45 degrees in, seen from the normal, D65/10. */
  readonly lab: Lab;
  /** `tint`: a dye and how many of its nominal coats lie among the flakes; as much lies before them, as it is sprayed. */
  readonly flakes?: { readonly pigmentId: string; readonly cover: number; readonly tint?: readonly [string, number] };
  /** Full coats of it until what lies below is hidden (contrast ratio 0.98); common practice (no source), the drawdown rules. */
  readonly hidesIn: number;
  /** Price of a litre ready to spray, in the shop's currency. Invented for the demo. */
  readonly pricePerLitre: number;
}

/** What the surface passes of light that comes in at 45 degrees and leaves along the normal. */
const surfaceOf = (film: Film): number =>
  ((1 - fresnel(1, film.n, Math.SQRT1_2).r) * (1 - fresnel(1, film.n, 1).r)) / (film.n * film.n);

/** Cleared look, 45 degrees in, seen from the normal, of a ground of some internal albedo; inverse of {@link labToAlbedo}. */
export function albedoToLab(film: Film, albedo: Float64Array): Lab {
  const b = surfaceOf(film);
  return reflectanceToLab(albedo.map((r) => (b * r) / (1 - film.internal * r)));
}

/**
 * Internal albedo of a Lambertian ground from the look it has under bare film, lamp at 45 degrees, seen from the normal:
 * factor = B rho / (1 - k2 rho), inverted; B is Fresnel twice over n^2. Kept within 0..0.995.
 */
export function lookToAlbedo(film: Film, factor: number): number {
  const b = surfaceOf(film);
  return Math.min(0.995, Math.max(0, factor / (b + film.internal * factor)));
}

/** Internal albedo spectrum of a ground whose cleared look (45 degrees in, seen from the normal) is a CIELAB colour. */
export function labToAlbedo(film: Film, lab: Lab, viewing: Viewing = D65_10): Float64Array {
  const { spectrum, status } = spectrumFromLab(lab, viewing);
  if (status !== 'converged') {
    throw new CoreError('badMaterial', `No reflectance has the colour L* ${lab[0]}, a* ${lab[1]}, b* ${lab[2]}.`);
  }
  return spectrum.map((v) => lookToAlbedo(film, v));
}

/** A neutral grey of a lightness L*, named by its step in words: "pale grey". */
const grey = (l: number, step: string): GroundMaterial => ({
  id: `grey-${l}`,
  name: `${step.charAt(0).toUpperCase()}${step.slice(1)}`,
  mark: step,
  words: `a ${step}`,
  lab: [l, 0, 0],
  hidesIn: l > 60 ? 2.5 : 2,
  pricePerLitre: 24,
});

/** Ground shades of the demo shop, light to dark, then coloured, then metallic. Names and prices are invented. */
export const GROUNDS: readonly GroundMaterial[] = [
  { id: 'white', name: 'Bright white', mark: 'white', lab: [96, -0.6, 1.6], hidesIn: 3, pricePerLitre: 28 },
  grey(84, 'pale grey'),
  grey(74, 'light grey'),
  grey(63, 'mid grey'),
  grey(52, 'full mid grey'),
  grey(41, 'dark grey'),
  grey(31, 'deep grey'),
  { id: 'black', name: 'Deep black', mark: 'black', lab: [8, 0, 0], hidesIn: 1.5, pricePerLitre: 26 },
  { id: 'aqua-pastel', name: 'Aqua pastel', mark: 'aqua', lab: [82, -18, -8], hidesIn: 2.5, pricePerLitre: 34 },
  { id: 'cream-pastel', name: 'Cream pastel', mark: 'cream', lab: [88, 1, 17], hidesIn: 3, pricePerLitre: 34 },
  { id: 'ticket-red', name: 'Ticket red', mark: 'red', lab: [41, 56, 34], hidesIn: 3, pricePerLitre: 46 },
  { id: 'signal-rose', name: 'Signal rose', mark: 'rose', lab: [58, 52, 6], hidesIn: 3, pricePerLitre: 44 },
  {
    id: 'silver-fine',
    name: 'Fine silver',
    mark: 'silver',
    lab: [52, 0, 0],
    hidesIn: 2,
    flakes: { pigmentId: 'aluminium-fine', cover: 0.95 },
    pricePerLitre: 52,
  },
  {
    id: 'silver-coarse',
    name: 'Coarse silver',
    mark: 'coarse',
    lab: [52, 0, 0],
    hidesIn: 2,
    flakes: { pigmentId: 'aluminium-coarse', cover: 0.92 },
    pricePerLitre: 52,
  },
  {
    id: 'gold',
    name: 'Gold',
    mark: 'gold',
    lab: [50, 6, 24],
    hidesIn: 2,
    flakes: { pigmentId: 'aluminium-fine', cover: 0.93, tint: ['gilt-gold', 1] },
    pricePerLitre: 58,
  },
  {
    id: 'copper',
    name: 'Copper',
    mark: 'copper',
    lab: [38, 20, 24],
    hidesIn: 2,
    flakes: { pigmentId: 'aluminium-fine', cover: 0.9, tint: ['penny-copper', 1] },
    pricePerLitre: 58,
  },
];

/** @throws CoreError `notFound` */
export function findGround(id: string, grounds: readonly GroundMaterial[] = GROUNDS): GroundMaterial {
  const found = grounds.find((g) => g.id === id);
  if (!found) throw new CoreError('notFound', `There is no ground called ${id}.`);
  return found;
}

/**
 * The coats of a ground above its solid base: none for a solid; for a metallic one sprayed-out coat, and where it is tinted the
 * tint before the flakes as well as among them. Tint among them alone would show little: they lie close, and most light meets
 * the upper ones.
 */
export function groundCoats(
  ground: GroundMaterial,
  dyes?: readonly Dye[],
  pigments?: readonly EffectPigment[],
): Coat[] {
  if (!ground.flakes) return [];
  const { pigmentId, cover, tint } = ground.flakes;
  const pigment = findPigment(pigmentId, pigments);
  const flakes = { cover, tilt: pigment.tilt, edge: pigment.edge, optics: pigment.optics };
  if (!tint) return [{ dye: flatSpectrum(0), flakes }];
  const dye = dyeDepth(tint[0], dyes).map((v) => v * tint[1]);
  return [{ dye, flakes }, { dye }];
}
