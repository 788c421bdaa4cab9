import type { Lab } from '../colour/lab';
import type { CoatStyle } from '../finishes/styles';
import type { Dye } from '../materials/dyes';
import type { EffectPigment } from '../materials/effectPigments';
import { BINDER_HAZE } from '../materials/mixes';
import type { TargetAngle } from '../matching/target';
import { prepareCoat, type PreparedCoat, type PreparedFlakes } from '../optics/coat';
import type { Film } from '../optics/film';
import type { MapGround } from '../optics/preparedGround';
import type { FastModel } from '../optics/stack';

/** What a mix may be made of. */
export interface Shelf {
  readonly grounds: readonly MapGround[];
  readonly pigments: readonly EffectPigment[];
  readonly dyes: readonly Dye[];
}

export interface FormulateInput {
  readonly film: Film;
  /** At the target's angles, in their order. */
  readonly model: FastModel;
  readonly shelf: Shelf;
  readonly target: readonly TargetAngle[];
  readonly style: CoatStyle;
  /** Dry film of a nominal full coat, um. */
  readonly filmUm: number;
  /** Kinds of effect pigment and of dye a mix may hold: 0 to 2 each. */
  readonly mostPigments: number;
  readonly mostDyes: number;
  /** Counts of coats that may be advised; half ones too. */
  readonly counts: readonly number[];
}

/** What can still be sprayed well: cover by one kind and depth of one dye, of a nominal full coat. Ours. */
export const MOST_COVER = 0.75;
export const MOST_DEPTH = 2.5;

/** A mix over a ground, by the amounts of a nominal full coat. */
export interface Formula {
  readonly groundId: string;
  /** Depth of flakes, -ln(1 - cover). */
  readonly pigments: readonly { readonly pigmentId: string; readonly tau: number }[];
  /** In units of the dye's spectrum. */
  readonly dyes: readonly { readonly dyeId: string; readonly depth: number }[];
  readonly coats: number;
}

/** A formula with what it looks like. */
export interface Rated extends Formula {
  readonly labs: readonly Lab[];
  /** CIEDE2000 over the angles: rms, largest, and largest over its tolerance. */
  readonly rmsDe: number;
  readonly maxDe: number;
  readonly toleranceRatio: number;
}

/** Makes films of amounts over a whole film, without preparing anything twice. */
export function filmMaker({ film, shelf, style, filmUm }: Pick<FormulateInput, 'film' | 'shelf' | 'style' | 'filmUm'>) {
  const none = prepareCoat(film, {});
  const flakes: readonly PreparedFlakes[] = shelf.pigments.map(({ tilt, edge, optics }) => {
    const [f] = prepareCoat(film, { flakes: { cover: 0.5, tilt, edge, optics } }).flakes;
    return { ...f!, tilt: Math.min(0.52, Math.max(0.006, f!.tilt * style.spread)) };
  });
  /**
   * @param pigments by their place on the shelf, depth of flakes in all. @param dye absorption in all, 31 values
   * @param coats nominal ones, for the haze of their binder
   */
  return (pigments: readonly (readonly [number, number])[], dye: Float64Array, coats: number): PreparedCoat => {
    const laid = pigments.filter(([, tau]) => tau > 1e-5);
    const haze = laid.length ? (4 / 3) * BINDER_HAZE * filmUm * coats * style.film : 0;
    return {
      ...{ a: dye, k: none.k, s: haze ? none.s.map(() => haze) : none.s, factor: 1 },
      flakes: laid.map(([place, tau]) => ({ ...flakes[place]!, tau })),
    };
  };
}
