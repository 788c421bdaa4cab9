import { reflectanceToXyz } from '../colour/tristimulus';
import { WAVELENGTH_COUNT, flatSpectrum } from '../colour/spectrum';
import type { PreparedCoat } from './coat';
import type { Film } from './film';
import { kubelkaMunkOver } from './kubelkaMunk';
import type { FastModel } from './stack';

/** Contrast ratio at and above which a ground counts as hidden (usual criterion; method of ISO 6504-3). */
export const HIDDEN_FROM = 0.98;

/** Internal albedos of a usual contrast card, black and white (common practice, no source). */
const CARD = { black: 0.02, white: 0.9 } as const;

/**
 * Contrast ratio of coats over black and white, Y over black / Y over white, by geometry of the model.
 * 1 when nothing of the ground shows.
 */
export function contrastRatio(model: FastModel, coats: readonly PreparedCoat[]): number[] {
  const pile = model.pile(coats);
  const y = (albedo: number): number[] => {
    const factors = model.over({ albedo: flatSpectrum(albedo) }, pile);
    return model.optics.geometries.map(
      (_, g) => reflectanceToXyz(factors.subarray(g * WAVELENGTH_COUNT, (g + 1) * WAVELENGTH_COUNT))[1],
    );
  };
  const black = y(CARD.black);
  const white = y(CARD.white);
  return black.map((v, g) => v / white[g]!);
}

/** Kubelka-Munk figures of one full coat of a solid: absorption by wavelength and scattering, times its film. */
export interface HidingCoat {
  readonly k: Float64Array;
  readonly s: Float64Array;
}

/** Albedos nearer to 0 or 1 than this have no finite absorption. */
const WITHIN = [0.003, 0.99] as const;

/** Internal reflectance of some coats over an internal reflectance, by wavelength; Kubelka-Munk. */
export function coatsOver(coat: HidingCoat, coats: number, below: ArrayLike<number>): Float64Array {
  return Float64Array.from({ length: WAVELENGTH_COUNT }, (_, i) =>
    kubelkaMunkOver(coat.k[i]!, coat.s[i]!, coats, below[i]!),
  );
}

/** Y of an internal reflectance as it is seen through the film's surface, but for a factor. */
const seenY = (film: Film, inside: Float64Array): number =>
  reflectanceToXyz(inside.map((r) => ((1 - film.internal) * r) / (1 - film.internal * r)))[1];

const onCard = (film: Film, coat: HidingCoat, coats: number, card: number): number =>
  seenY(film, coatsOver(coat, coats, flatSpectrum(card)));

/** Contrast ratio of some coats of a solid over a black and white card, Y over Y (method of ISO 6504-3), under the film. */
export function contrastOfCoats(film: Film, coat: HidingCoat, coats: number): number {
  return onCard(film, coat, coats, CARD.black) / onCard(film, coat, coats, CARD.white);
}

/** Share of a difference below some coats that is still seen through them, 1 for none of them: of Y over a black and white card. */
export function showsThrough(film: Film, coat: HidingCoat, coats: number): number {
  const apart = (n: number) => onCard(film, coat, n, CARD.white) - onCard(film, coat, n, CARD.black);
  return apart(coats) / apart(0);
}

/** Most coats that are looked at before a solid is said not to hide. */
const MOST_COATS = 60;

/** Coats until a solid hides: the least at which the contrast ratio reaches {@link HIDDEN_FROM}; null when none do. */
export function coatsToHide(film: Film, coat: HidingCoat): number | null {
  const ratio = (n: number) => contrastOfCoats(film, coat, n);
  let [lo, hi] = [0, MOST_COATS];
  if (ratio(hi) < HIDDEN_FROM) return null;
  for (let i = 0; i < 40; i++) {
    const mid = (lo + hi) / 2;
    if (ratio(mid) < HIDDEN_FROM) lo = mid;
    else hi = mid;
  }
  return hi;
}

/**
 * One full coat of a solid that looks as it does when it hides, and hides in so many coats: K/S follows from the look, scattering,
 * taken as even over the wavelengths, from the coats.
 * @param albedo internal reflectance when it hides, 31 values. @param hidesIn full coats to {@link HIDDEN_FROM}
 */
export function hidingCoat(film: Film, albedo: ArrayLike<number>, hidesIn: number): HidingCoat {
  const ratio = Float64Array.from({ length: WAVELENGTH_COUNT }, (_, i) => {
    const r = Math.min(WITHIN[1], Math.max(WITHIN[0], albedo[i]!));
    return (1 - r) ** 2 / (2 * r);
  });
  const at = (log: number): HidingCoat => {
    const s = Math.exp(log);
    return { k: ratio.map((v) => v * s), s: flatSpectrum(s) };
  };
  let [lo, hi] = [Math.log(1e-5), Math.log(200)];
  for (let i = 0; i < 48; i++) {
    const mid = (lo + hi) / 2;
    if (contrastOfCoats(film, at(mid), hidesIn) < HIDDEN_FROM) lo = mid;
    else hi = mid;
  }
  return at(hi);
}
