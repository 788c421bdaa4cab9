import type { GroundMaterial } from './materials/grounds';
import type { EffectSystem } from './materials/systems';

export type LayerKind = 'sealer' | 'ground' | 'effect' | 'clear';

/** One block of the film section. */
export interface FilmLayer {
  readonly kind: LayerKind;
  readonly name: string;
  readonly coats: number;
  /** Dry film of one coat, um. */
  readonly filmUm: number;
}

/** Dry film per coat, um; common practice (no source). */
export const USUAL_FILM_UM = { sealer: 25, ground: 12, clear: 28 } as const;

/**
 * Layers of a job from substrate to clear, with the dry film of the painter's own hand.
 * @param filmScale film per coat against nominal (style times hand).
 */
export function filmSection(ground: GroundMaterial, system: EffectSystem, coats: number, filmScale = 1): FilmLayer[] {
  const ofTintedClear = system.family === 'tinted-clear';
  return [
    { kind: 'sealer', name: 'sealer', coats: 1, filmUm: USUAL_FILM_UM.sealer },
    { kind: 'ground', name: ground.name, coats: ground.flakes ? 2 : 3, filmUm: USUAL_FILM_UM.ground },
    { kind: 'effect', name: system.name, coats, filmUm: system.filmUm * filmScale },
    { kind: 'clear', name: 'clear', coats: ofTintedClear ? 1 : 2, filmUm: USUAL_FILM_UM.clear },
  ];
}

/** Total dry film of a section, um. */
export function totalFilmUm(layers: readonly FilmLayer[]): number {
  return layers.reduce((sum, l) => sum + l.coats * l.filmUm, 0);
}
