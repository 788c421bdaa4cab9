import { CoreError } from '../errors';
import type { Coat } from '../optics/coat';
import { DEMO_MIXES } from './demoMixes';
import { dyeDepth } from './dyes';
import type { EffectMix } from './effectMix';
import { findPigment } from './effectPigments';
import type { Library } from './ownMaterials';
import { solidsInFilm } from './solids';

/** The mixes every shop starts with. */
export const MIXES: readonly EffectMix[] = DEMO_MIXES;

/** @throws CoreError `notFound` */
export function findMix(id: string, systems: readonly EffectMix[] = MIXES): EffectMix {
  const found = systems.find((s) => s.id === id);
  if (!found) throw new CoreError('notFound', `There is no mix called ${id}.`);
  return found;
}

/** Whether flakes large enough to be seen one by one lie in a mix. */
export const holdsFlake = (mix: Pick<EffectMix, 'flakes'>, library: Pick<Library, 'pigments'>): boolean =>
  mix.flakes.some((f) => library.pigments.find((p) => p.id === f.pigmentId)?.kind === 'foil');

/** Scattering of a binder that flakes are dispersed in, per um: over black it is dark in the flop, not black; ours. */
export const BINDER_HAZE = 0.002;

/**
 * One nominal full coat of a mix at strength 1; see `strengthenCoat` for others.
 * @throws CoreError `notFound` for a colour the library has not
 */
export function mixCoat(
  mix: Pick<EffectMix, 'flakes' | 'dyes' | 'solids' | 'filmUm'>,
  library: Pick<Library, 'dyes' | 'pigments' | 'solids'>,
): Coat {
  const dye = new Float64Array(31);
  for (const { dyeId, depth } of mix.dyes) {
    dyeDepth(dyeId, library.dyes).forEach((v, i) => (dye[i]! += v * depth));
  }
  // A dye lies in clear binder; what is dispersed in it hazes it a little.
  const hazed = mix.flakes.length > 0;
  const { k, s } = solidsInFilm(mix.solids, library.solids);
  const pigment = { k, s: hazed ? s.map((v) => v + BINDER_HAZE) : s, thickness: mix.filmUm };
  return {
    dye,
    ...(hazed || mix.solids.length ? { pigment } : {}),
    flakes: mix.flakes.map(({ pigmentId, cover }) => {
      const { tilt, edge, optics } = findPigment(pigmentId, library.pigments);
      return { cover, tilt, edge, optics };
    }),
  };
}
