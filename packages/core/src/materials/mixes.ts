import { CoreError } from '../errors';
import type { Coat } from '../optics/coat';
import type { FinishFamily } from '../finishes/families';
import { DEMO_MIXES } from './demoMixes';
import { dyeDepth } from './dyes';
import { findPigment } from './effectPigments';
import type { Library } from './ownMaterials';
import { solidsInFilm, type SolidShare } from './solids';

/** What is in the cup: an effect mix, per nominal full coat. Any number of kinds of flakes, dyes and base colours lie in it. */
export interface EffectMix {
  readonly id: string;
  readonly name: string;
  readonly family: FinishFamily;
  readonly carrierId: string;
  /** Parts at strength 1, as they are written on the sheet, the carrier first; none where they are not known. */
  readonly parts: readonly {
    readonly name: string;
    readonly parts: number;
    /** g/ml, where it is known. */
    readonly density?: number;
    /** Pigment, dye or base colour this part is the concentrate of; left out for the carrier. */
    readonly colourId?: string;
  }[];
  /** Cover of a nominal coat by each kind, 0..1. */
  readonly flakes: readonly { readonly pigmentId: string; readonly cover: number }[];
  /** Depth of a nominal coat, in units of the dye's spectrum. */
  readonly dyes: readonly { readonly dyeId: string; readonly depth: number }[];
  readonly solids: readonly SolidShare[];
  /** Dry film of a nominal full coat, um. */
  readonly filmUm: number;
  /** Flash at 20 C between coats, minutes. */
  readonly flashMinutes: number;
  readonly pricePerLitre: number;
}

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
  mix.flakes.some((f) => library.pigments.find((p) => p.id === f.pigmentId)?.kind === 'metal-flake');

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
  return {
    dye,
    flakes: mix.flakes.map(({ pigmentId, cover }) => {
      const { tilt, edge, optics } = findPigment(pigmentId, library.pigments);
      return { cover, tilt, edge, optics };
    }),
    ...(mix.solids.length ? { pigment: { ...solidsInFilm(mix.solids, library.solids), thickness: mix.filmUm } } : {}),
  };
}
