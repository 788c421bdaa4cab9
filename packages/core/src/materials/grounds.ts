import { spectrumFromLab } from '../colour/spectrumFromLab';
import { flatSpectrum } from '../colour/spectrum';
import type { Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import type { Coat } from '../optics/coat';
import type { Film } from '../optics/film';
import { fresnel } from '../optics/fresnel';
import { CoreError } from '../coreError';
import { dyeDepth, type Dye } from './dyes';
import { findPigment, type EffectPigment } from './effectPigments';

/** A ground coat: a solid colour known by its look under clear, or a metallic laid over a solid. */
export interface GroundMaterial {
  readonly id: string;
  readonly name: string;
  /** Short mark for a map row. */
  readonly mark: string;
  /** Look of the cleared solid at 45 degrees in, seen from the normal, D65/10. */
  readonly lab: Lab;
  readonly flakes?: { readonly pigmentId: string; readonly cover: number; readonly tint?: readonly [string, number] };
  /** Price of a litre ready to spray, in the shop's currency. Invented for the demo. */
  readonly pricePerLitre: number;
}

/**
 * Internal albedo of a Lambertian ground from the look it has under bare film, lamp at 45 degrees, seen from the normal:
 * factor = B rho / (1 - k2 rho), inverted; B is Fresnel twice over n^2. Kept within 0..0.995.
 */
export function lookToAlbedo(film: Film, factor: number): number {
  const cos45 = Math.SQRT1_2;
  const b = ((1 - fresnel(1, film.n, cos45).r) * (1 - fresnel(1, film.n, 1).r)) / (film.n * film.n);
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

const value = (id: string, name: string, mark: string, l: number): GroundMaterial => ({
  id,
  name,
  mark,
  lab: [l, 0, 0],
  pricePerLitre: 24,
});

/** Ground shades of the demo shop, light to dark, then coloured, then metallic. Names and prices are invented. */
export const GROUNDS: readonly GroundMaterial[] = [
  { id: 'white', name: 'Bright white', mark: 'W', lab: [96, -0.6, 1.6], pricePerLitre: 28 },
  value('value-8', 'Value 8 grey', 'V8', 84),
  value('value-7', 'Value 7 grey', 'V7', 74),
  value('value-6', 'Value 6 grey', 'V6', 63),
  value('value-5', 'Value 5 grey', 'V5', 52),
  value('value-4', 'Value 4 grey', 'V4', 41),
  value('value-3', 'Value 3 grey', 'V3', 31),
  { id: 'black', name: 'Deep black', mark: 'K', lab: [8, 0, 0], pricePerLitre: 26 },
  { id: 'aqua-pastel', name: 'Aqua pastel', mark: 'aqua', lab: [82, -18, -8], pricePerLitre: 34 },
  { id: 'cream-pastel', name: 'Cream pastel', mark: 'cream', lab: [88, 1, 17], pricePerLitre: 34 },
  { id: 'ticket-red', name: 'Ticket red', mark: 'red', lab: [41, 56, 34], pricePerLitre: 46 },
  {
    id: 'silver-fine',
    name: 'Fine silver',
    mark: 'silver',
    lab: [52, 0, 0],
    flakes: { pigmentId: 'aluminium-fine', cover: 0.95 },
    pricePerLitre: 52,
  },
  {
    id: 'silver-coarse',
    name: 'Coarse silver',
    mark: 'coarse',
    lab: [52, 0, 0],
    flakes: { pigmentId: 'aluminium-coarse', cover: 0.92 },
    pricePerLitre: 52,
  },
  {
    id: 'gold',
    name: 'Gold',
    mark: 'gold',
    lab: [50, 6, 24],
    flakes: { pigmentId: 'aluminium-fine', cover: 0.93, tint: ['marsh-gold', 0.9] },
    pricePerLitre: 58,
  },
  {
    id: 'copper',
    name: 'Copper',
    mark: 'copper',
    lab: [38, 20, 24],
    flakes: { pigmentId: 'aluminium-fine', cover: 0.9, tint: ['ember-orange', 1.1] },
    pricePerLitre: 58,
  },
];

/** @throws CoreError `notFound` */
export function findGround(id: string, grounds: readonly GroundMaterial[] = GROUNDS): GroundMaterial {
  const found = grounds.find((g) => g.id === id);
  if (!found) throw new CoreError('notFound', `There is no ground called ${id}.`);
  return found;
}

/** The coats of a ground above its solid base: none for a solid, one sprayed-out coat for a metallic. */
export function groundCoats(
  ground: GroundMaterial,
  dyes?: readonly Dye[],
  pigments?: readonly EffectPigment[],
): Coat[] {
  if (!ground.flakes) return [];
  const { pigmentId, cover, tint } = ground.flakes;
  const pigment = findPigment(pigmentId, pigments);
  return [
    {
      dye: tint ? dyeDepth(tint[0], dyes).map((v) => v * tint[1]) : flatSpectrum(0),
      flakes: { cover, tilt: pigment.tilt, edge: pigment.edge, optics: pigment.optics },
    },
  ];
}
