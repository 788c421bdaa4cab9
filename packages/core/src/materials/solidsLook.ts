import type { Lab } from '../colour/lab';
import { LAYER_FILM_UM } from '../finishes/layers';
import type { Film } from '../optics/film';
import { coatsToHide } from '../optics/hiding';
import { kubelkaMunkInfinite } from '../optics/kubelkaMunk';
import { albedoToLab } from './grounds';
import { solidsInFilm, type SolidPigment } from './solids';

/** What base colours come to when they are mixed into a ground or a sealer. */
export interface SolidsLook {
  /** Hiding and cleared, 45 degrees in, seen from the normal. */
  readonly lab: Lab;
  /** Full coats of a ground until it hides; null when it never does. */
  readonly hidesIn: number | null;
}

/**
 * Look and hiding of base colours mixed by volume parts: K and S add by their shares, an endless film closed by the clear's surface
 * (Kubelka-Munk 1931, Duncan 1940).
 */
export function solidsLook(
  film: Film,
  parts: readonly { readonly solidId: string; readonly parts: number }[],
  solids?: readonly SolidPigment[],
): SolidsLook {
  const all = parts.reduce((sum, p) => sum + p.parts, 0);
  const { k, s } = solidsInFilm(
    parts.map((p) => ({ solidId: p.solidId, share: p.parts / all })),
    solids,
  );
  const um = LAYER_FILM_UM.ground;
  return {
    lab: albedoToLab(
      film,
      k.map((v, i) => kubelkaMunkInfinite(v, s[i]!)),
    ),
    hidesIn: coatsToHide(film, { k: k.map((v) => v * um), s: s.map((v) => v * um) }),
  };
}
