import { de2000 } from '../colour/difference';
import type { Illuminant } from '../colour/tristimulus';
import { withCount } from '../finishes/recipe';
import { findCarrier } from '../materials/carriers';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import type { PreparedLibrary } from '../materials/shop';
import { recipeFigures, type RecipeFigures } from '../matching/figures';
import { effectCoats, factorsToLabs } from '../matching/ladder';
import { lookUnder, type SecondLook } from '../matching/light';
import type { TargetAngle } from '../matching/target';
import { flakeDepth } from '../optics/coat';
import { contrastRatio } from '../optics/hiding';
import { coatsOfMix, type Mix } from './mixCoats';
import { grainOf } from './sampleSeen';

/** Film at an edge against that on the flat; ours. */
const EDGE_FILM = 0.6;

/** One place on the map, looked at closely. */
export interface ProbeLook {
  readonly figures: RecipeFigures;
  /** The match under the second light. */
  readonly second: SecondLook;
  /** Contrast ratio of the effect coats over black and white at 45 degrees from the mirror. */
  readonly contrast: number;
  /** The same where the film is thin, at an edge. */
  readonly atEdge: number;
  /** How far one coat more moves it, CIEDE2000 at the angle where it moves most. */
  readonly oneMore: number;
  /** Cover of the flakes, 0..1; null without any. */
  readonly cover: number | null;
  /** Sparkle index of the effect coats; null without flakes. */
  readonly sparkle: number | null;
}

/** What can be said of one place on the map beyond the map's own figures. */
export function probeLook(
  shop: PreparedLibrary,
  mix: Mix,
  groundId: string,
  coats: number,
  target: readonly TargetAngle[],
  light: Illuminant,
): ProbeLook {
  const system = findMix(mix.mixId, shop.library.systems);
  const material = findGround(groundId, shop.library.grounds);
  const ground = shop.ground(material);
  const recipe = coatsOfMix(shop, mix);
  const model = shop.model(target);
  const factorsAt = (n: number) => model.over(ground, model.pile([...ground.coats, ...effectCoats(recipe, n)]));
  const [now, then] = [factorsAt(coats), factorsAt(coats + 1)];
  const after = factorsToLabs(then);
  const contrastAt = (n: number) =>
    contrastRatio(shop.model([{ incidence: 45, aspecular: 45 }]), effectCoats(recipe, n))[0]!;
  const effects = effectCoats(recipe, coats);
  const depth = effects.reduce((sum, c) => sum + flakeDepth(c) * c.factor, 0);
  return {
    figures: recipeFigures(
      material,
      system,
      findCarrier(system.carrierId, shop.library.carriers),
      withCount(system.family, { ...mix, coats: 0 }, coats),
    ),
    second: lookUnder(target, now, light),
    contrast: contrastAt(coats),
    atEdge: contrastAt(coats * EDGE_FILM),
    oneMore: Math.max(...factorsToLabs(now).map((lab, g) => de2000(lab, after[g]!))),
    cover: depth > 0 ? -Math.expm1(-depth) : null,
    sparkle: grainOf(shop, system, effects)?.index ?? null,
  };
}
