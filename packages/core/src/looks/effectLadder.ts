import type { Lab } from '../colour/lab';
import { STYLES } from '../finishes/styles';
import type { StackLayer } from '../finishes/layers';
import { findMix } from '../materials/mixes';
import type { PreparedLibrary } from '../materials/shop';
import { effectCoats, factorsToLabs, type EffectCoats } from '../matching/ladder';
import { interpolateLabs } from '../matching/stopWindow';
import type { PreparedCoat } from '../optics/coat';
import { FIVE_ANGLES, type Geometry } from '../optics/geometry';
import type { MapGround } from '../optics/preparedGround';
import { opticalStack } from './layerLooks';

/** Steps of a ladder of effect film, and of one of ground film. */
const [EFFECT_STEPS, GROUND_STEPS] = [36, 24] as const;
/** No film at all has no style; so much of a coat has. */
const LEAST_COATS = 0.05;

/** Looks of a growing film at the five angles; films in nominal full coats, ascending. */
export interface LookLadder {
  readonly films: readonly number[];
  readonly labs: readonly (readonly Lab[])[];
}

/** Lab at each of the five angles where a ladder's film is so thick. */
export const lookAt = ({ films, labs }: LookLadder, film: number): Lab[] => interpolateLabs(films, labs, film);

/** The effect film of a stack: what it lies on, one full coat of it, and how widely its flakes lie. */
export interface EffectFilm {
  readonly ground: MapGround;
  readonly coat: PreparedCoat;
  readonly spread: number;
}

/** Of a stack the film of a mix; as strong and as wet as its first layer. */
export function effectFilm(shop: PreparedLibrary, layers: readonly StackLayer[], mixId: string): EffectFilm {
  const first = layers.findIndex((l) => l.kind === 'effect' && l.materialId === mixId);
  const { ground } = opticalStack(shop, layers.slice(0, Math.max(0, first)));
  const layer = layers[first];
  return {
    ground,
    coat: shop.coat(findMix(mixId, shop.library.systems), layer?.strength ?? 1),
    spread: STYLES[layer?.style ?? 'wet'].spread,
  };
}

/** Effect coats given as film and not as coats that were counted. */
export const asFilm = ({ coat, spread }: EffectFilm): EffectCoats => ({
  coat,
  style: { ...STYLES.wet, film: 1, spread },
});

const stepped = (most: number, steps: number) => Array.from({ length: steps + 1 }, (_, i) => (most * i) / steps);

/** Looks of a growing effect film. @param most film in nominal coats */
export function effectLadder(shop: PreparedLibrary, of: EffectFilm, most: number): LookLadder {
  const model = shop.model(FIVE_ANGLES);
  const films = stepped(most, EFFECT_STEPS);
  const labs = films.map((n) =>
    factorsToLabs(model.over(of.ground, model.pile([...of.ground.coats, ...effectCoats(asFilm(of), n)]))),
  );
  return { films, labs };
}

/**
 * Looks of a ground whose film is uneven, under the effect coats as they are planned: a metallic is laid thicker or thinner over its
 * solid, a solid lets what is below it through. @param coats planned of the ground @param most film in nominal coats
 */
export function groundLadder(
  shop: PreparedLibrary,
  layers: readonly StackLayer[],
  coats: readonly number[],
  most: number,
): LookLadder {
  const { coats: all, ground } = opticalStack(shop, layers);
  const effects = all.slice(ground.coats.length);
  const firstGround = layers.findIndex((l) => l.kind === 'ground');
  const below = opticalStack(shop, layers.slice(0, firstGround)).ground.albedo;
  const material = shop.library.grounds.find((g) => g.id === ground.id);
  const planned = coats.reduce((a, b) => a + b, 0);
  const model = shop.model(FIVE_ANGLES);
  const films = stepped(most, GROUND_STEPS);
  const labs = films.map((n) => {
    // A metallic looks as it was planned at its planned film, and thicker or thinner by its unevenness.
    const laid = material ? shop.groundOver(material, n, below) : ground;
    const flakes = ground.coats.map((c) => ({ ...c, factor: (c.factor * n) / Math.max(1e-6, planned) }));
    return factorsToLabs(model.over(laid, model.pile([...flakes, ...effects])));
  });
  return { films, labs };
}

/** What one control coat changes of so many coats of a mix, Lab per angle. */
export function controlShift(
  shop: PreparedLibrary,
  layers: readonly StackLayer[],
  mixId: string,
  coats: number,
  angles: readonly Geometry[],
): Lab[] {
  const { ground, coat } = effectFilm(shop, layers, mixId);
  const style = STYLES[layers.find((l) => l.kind === 'effect' && l.materialId === mixId)?.style ?? 'wet'];
  const model = shop.model(angles);
  const at = (controlCoats: number) => {
    const effects = effectCoats({ coat, style, controlCoats }, Math.max(LEAST_COATS, coats));
    return factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effects])));
  };
  const [without, withOne] = [at(0), at(1)];
  return without.map(([l, a, b], g): Lab => [withOne[g]![0] - l, withOne[g]![1] - a, withOne[g]![2] - b]);
}
