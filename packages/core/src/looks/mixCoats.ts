import { thenLaid } from '../finishes/recipe';
import { STYLES, type StyleId } from '../finishes/styles';
import { findMix } from '../materials/mixes';
import type { PreparedLibrary } from '../materials/shop';
import type { EffectCoats } from '../matching/ladder';

/** What is in the cup and how it is laid. */
export interface Mix {
  readonly mixId: string;
  readonly strength: number;
  readonly style: StyleId;
  readonly controlCoats: number;
}

/** The effect coats of a mix as it is laid. @throws CoreError `notFound` for a mix the library has not */
export function coatsOfMix(shop: PreparedLibrary, mix: Mix): EffectCoats {
  const system = findMix(mix.mixId, shop.library.systems);
  return {
    coat: shop.coat(system, mix.strength),
    style: STYLES[mix.style],
    controlCoats: mix.controlCoats,
    then: thenLaid(system.family),
  };
}
