import { labOf, type Lab } from '../colour/lab';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import { factorsToLabs, effectCoats } from '../matching/ladder';
import { thenLaid } from '../finishes/recipe';
import { STYLES, type Hand, type StyleId } from '../finishes/styles';
import { FIVE_ANGLES, type Geometry } from '../optics/geometry';
import { adjustCoat } from '../optics/coat';
import { evaluateReference } from '../optics/stack';
import { createRandom, normal } from '../numeric/random';

import type { Reading } from '../formats/readings';
import type { PreparedLibrary } from '../materials/shop';

/** Scatter of the demo's readings, Lab units. Invented. */
const readingNoise = (lab: Lab): number => 0.3 + 0.01 * Math.max(0, lab[0]);

/** An invented painter and finish that demo readings are made from; the program's defaults know none of it. */
export interface DemoTruth {
  readonly groundId: string;
  readonly mixId: string;
  readonly strength: number;
  readonly style: StyleId;
  readonly hand: Hand;
  /** Edge share against the pigment's usual one. */
  readonly edgeScale: number;
}

/**
 * Invented readings of a finish at five angles, or under more lamps, several spots, by the reference tier with another hand, another edge share
 * and reading noise than the defaults. Seeded; the same call gives the same readings.
 */
export function demoReadings(
  shop: PreparedLibrary,
  truth: DemoTruth,
  coats: number,
  spots: readonly string[],
  seed: number,
  lamps: readonly number[] = [45],
): Reading[] {
  // The five angles under the usual lamp, the face under any other.
  const angles: Geometry[] = lamps.flatMap((incidence) =>
    incidence === 45 ? [...FIVE_ANGLES] : [15, 25].map((aspecular) => ({ incidence, aspecular })),
  );
  const { optics } = shop.model(angles);
  const ground = shop.ground(findGround(truth.groundId));
  const unit = shop.coat(findMix(truth.mixId), truth.strength);
  const coat = adjustCoat(unit, { edgeScale: truth.edgeScale });
  const then = thenLaid(findMix(truth.mixId).family);
  const recipe = { coat, style: STYLES[truth.style], hand: truth.hand, then };
  const labs = factorsToLabs(evaluateReference(optics, ground, [...ground.coats, ...effectCoats(recipe, coats)]));
  const random = createRandom(seed);
  const round = (v: number) => Math.round(v * 100) / 100;
  return spots.flatMap((spot) =>
    angles.map((g, i): Reading => {
      // Half of the stated repeatability is drawn: it is the instrument's own, the rest is placing it.
      const noisy = labOf(labs[i]!.map((v) => round(v + 0.5 * readingNoise(labs[i]!) * normal(random))));
      return { spot, ...g, l: Math.max(0, noisy[0]), a: noisy[1], b: noisy[2] };
    }),
  );
}
