import { de2000 } from '@steady-gleam/core/colour';
import { STYLES } from '@steady-gleam/core/finishes';
import { effectCoats, factorsToLabs } from '@steady-gleam/core/matching';
import { findGround, prepareLibrary } from '@steady-gleam/core/materials';
import { evaluateReference, FIVE_ANGLES, type PreparedCoat } from '@steady-gleam/core/optics';
import { traceFilm, type TracedLayer } from '@steady-gleam/core/study';

/** A prepared coat as the ray tracer takes it. */
const layerOf = (coat: PreparedCoat): TracedLayer => {
  const times = (v: Float64Array) => v.map((x) => x * coat.factor);
  return {
    dye: times(coat.a),
    pigment: coat.s.some((v) => v > 0) || coat.k.some((v) => v > 0) ? { k: times(coat.k), s: times(coat.s) } : null,
    flakes: coat.flakes.map((f) => ({ ...f, tau: f.tau * coat.factor, tilts: [{ share: 1, sigma: f.tilt }] })),
  };
};

export interface ColourError {
  readonly mixId: string;
  readonly groundId: string;
  readonly coats: number;
  /** CIEDE2000 of the reference tier against followed rays, by angle. */
  readonly off: readonly number[];
  /** CIEDE2000 of the rays against as many others: what of `off` is only their scatter. */
  readonly scatter: readonly number[];
}

/** Grounds and counts every mix is traced over: a bright, a middle and a dark one. */
const OVER = [
  ['white', 2],
  ['grey-52', 3],
  ['black', 4],
] as const;

/**
 * What the film error means as colour: the library's own mixes by the reference tier against ray transport at all 31 wavelengths.
 * @param rays of each trace; two are made, and their mean is what the model is measured by
 */
export function colourErrors(rays: number): ColourError[] {
  const shop = prepareLibrary();
  const { optics } = shop.model(FIVE_ANGLES);
  return shop.library.systems.flatMap((mix) =>
    OVER.map(([wanted, coats]): ColourError => {
      const ground = shop.ground(findGround(wanted));
      const film = [...ground.coats, ...effectCoats({ coat: shop.coat(mix, 1), style: STYLES.wet }, coats)];
      const model = factorsToLabs(evaluateReference(optics, ground, film));
      const layers = film.map(layerOf);
      const [one, two] = [11, 29].map((seed) =>
        traceFilm({ n: 1.5, albedo: ground.albedo, layers }, FIVE_ANGLES, rays, seed),
      );
      const mean = factorsToLabs(one!.map((v, i) => (v + two![i]!) / 2));
      const [first, second] = [factorsToLabs(one!), factorsToLabs(two!)];
      return {
        ...{ mixId: mix.id, groundId: ground.id, coats },
        off: model.map((lab, g) => de2000(lab, mean[g]!)),
        scatter: first.map((lab, g) => de2000(lab, second[g]!) / 2),
      };
    }),
  );
}
