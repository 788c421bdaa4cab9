import type { EffectMix } from '../materials/effectMix';
import type { Library } from '../materials/ownMaterials';
import type { FlakeSize } from './flake';

/** Depth of all flakes in a nominal full coat of a mix; 0 without any. */
export const flakeDepthOf = (mix: Pick<EffectMix, 'flakes'>): number =>
  mix.flakes.reduce((sum, f) => sum - Math.log1p(-f.cover), 0);

/** Cover of some coats, 0..1; Poisson. @param film of a coat against a nominal full one, the mix's strength with it */
export const coverAfter = (mix: Pick<EffectMix, 'flakes'>, film: number, coats: number): number =>
  -Math.expm1(-flakeDepthOf(mix) * film * coats);

/** Coats that give a cover; null for a mix without flakes. @param cover 0..1, below 1 */
export function coatsForCover(mix: Pick<EffectMix, 'flakes'>, film: number, cover: number): number | null {
  const depth = flakeDepthOf(mix) * film;
  return depth > 0 ? -Math.log1p(-cover) / depth : null;
}

/** Sizes of the flakes of a mix, in parts by weight: what each covers times what it weighs for that. */
export function flakeSizesOf(mix: Pick<EffectMix, 'flakes'>, library: Pick<Library, 'pigments'>): FlakeSize[] {
  return mix.flakes.flatMap(({ pigmentId, cover }) => {
    const p = library.pigments.find((o) => o.id === pigmentId);
    if (!p) return [];
    const { sizeUm, thicknessUm, densityGPerCm3: density } = p;
    return [{ sizeUm, thicknessUm, density, parts: -Math.log1p(-cover) * thicknessUm * density }];
  });
}
