import { layersOf, type PieceStack, type StackLayer } from '../finishes/layers';
import type { Recipe } from '../finishes/recipe';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import type { Library } from '../materials/ownMaterials';

/** The one stack that follows from a pick. @throws CoreError where ground or mix are not in the library */
export function stacksOfPick(mixId: string, pick: Recipe, library: Library): readonly PieceStack[] {
  const ground = findGround(pick.groundId, library.grounds);
  const mix = findMix(mixId, library.systems);
  return [{ id: 'main', name: 'whole piece', layers: layersOf(ground, mix, pick) }];
}

/** Dry film of a layer that is on and that is planned, um; the mean over the areas that get it, grip and tack coats with it. */
export interface LayerFilm {
  readonly finishId: string;
  readonly layer: StackLayer;
  readonly onUm: number;
  readonly plannedUm: number;
}

/**
 * The stacks a film section shows: what is laid, tone by tone (of a stripe only its own, since what lies below and over all belongs to the
 * base), else as they are planned.
 */
export function shownStacks(
  film: readonly LayerFilm[] | null,
  planned: readonly Pick<PieceStack, 'id' | 'layers'>[],
): readonly Pick<PieceStack, 'id' | 'layers'>[] {
  if (!film) return planned;
  return [...new Set(film.map((f) => f.finishId))].map((id) => ({
    id,
    layers: film.flatMap((f) => (f.finishId === id ? [f.layer] : [])),
  }));
}
