import type { Lab } from '../colour/lab';
import { flatSpectrum } from '../colour/spectrum';
import { findGround } from '../materials/grounds';
import { findPigment } from '../materials/effectPigments';
import type { PreparedLibrary } from '../materials/shop';
import { effectCoats, factorsToLabs, filmFactor } from '../matching/ladder';
import { prepareCoat } from '../optics/coat';
import { FIVE_ANGLES, type Geometry } from '../optics/geometry';
import { coatsOfMix, type Mix } from './mixCoats';

/** Where a colour is told as one swatch: away from the mirror and before the flop. */
export const SWATCH_ANGLE: readonly Geometry[] = [{ incidence: 45, aspecular: 45 }];
/** Of the five angles the one at 45 degrees. */
const SWATCH = 2;
/** Internal albedos of a black and a grey patch, of a white card and a black one. */
const [BLACK_PATCH, GREY_PATCH, WHITE_CARD, BLACK_CARD] = [0.03, 0.2, 0.9, 0.02] as const;
/** Coats of a dye that are shown. */
const DYE_COATS = [0.5, 1, 2, 3, 4] as const;

/** Colours of a film section, as seen at 45 degrees from the mirror. */
export interface SectionColours {
  readonly ground: Lab;
  readonly effect: Lab;
  /** Effect film, nominal coats. */
  readonly film: number;
}

/** A contrast patch stuck on the ground, seen through tinted clear at 45 degrees. */
export interface PatchLook {
  readonly coats: number;
  readonly ground: Lab;
  readonly black: Lab;
  readonly grey: Lab;
}

/** A pigment alone over white and over black, from face to flop. */
export function pigmentLook(shop: PreparedLibrary, pigmentId: string, cover: number) {
  const model = shop.model(FIVE_ANGLES);
  const p = findPigment(pigmentId, shop.library.pigments);
  const coat = prepareCoat(shop.film, { flakes: { cover, tilt: p.tilt, edge: p.edge, optics: p.optics } });
  const over = (albedo: number) => factorsToLabs(model.evaluate({ albedo: flatSpectrum(albedo) }, [coat]));
  return { white: over(WHITE_CARD), black: over(BLACK_CARD) };
}

/** A dye over white: half a coat to four coats. */
export function dyeLook(shop: PreparedLibrary, dyeId: string): Lab[] {
  const model = shop.model(SWATCH_ANGLE);
  const depth = shop.library.dyes.find((d) => d.id === dyeId)?.depth ?? flatSpectrum(0);
  const ground = { albedo: flatSpectrum(WHITE_CARD) };
  return DYE_COATS.map(
    (n) => factorsToLabs(model.evaluate(ground, [prepareCoat(shop.film, { dye: depth, factor: n })]))[0]!,
  );
}

/** Patches under tinted clear: the ground, a black and a grey patch, each under n coats. */
export function patchLooks(shop: PreparedLibrary, mix: Mix, groundId: string, counts: readonly number[]): PatchLook[] {
  const model = shop.model(SWATCH_ANGLE);
  const ground = shop.ground(findGround(groundId, shop.library.grounds));
  const recipe = coatsOfMix(shop, mix);
  return counts.map((coats) => {
    const effects = effectCoats(recipe, coats);
    const bare = model.pile(effects);
    const over = (albedo: number) => factorsToLabs(model.over({ albedo: flatSpectrum(albedo) }, bare))[0]!;
    return {
      coats,
      ground: factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effects])))[0]!,
      black: over(BLACK_PATCH),
      grey: over(GREY_PATCH),
    };
  });
}

/** Ground and finish of a mix as swatches, and its film. */
export function sectionColours(shop: PreparedLibrary, mix: Mix, groundId: string, coats: number): SectionColours {
  const model = shop.model(FIVE_ANGLES);
  const ground = shop.ground(findGround(groundId, shop.library.grounds));
  const recipe = coatsOfMix(shop, mix);
  const at = (n: number) =>
    factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats(recipe, n)])))[SWATCH]!;
  return { ground: at(0), effect: at(coats), film: filmFactor(recipe, coats) };
}

/** The look of every ground by its id. */
export function groundColours(shop: PreparedLibrary): Readonly<Record<string, Lab>> {
  const model = shop.model(SWATCH_ANGLE);
  return Object.fromEntries(
    shop.library.grounds.map((g) => {
      const ground = shop.ground(g);
      return [g.id, factorsToLabs(model.over(ground, model.pile([...ground.coats])))[0]!];
    }),
  );
}
