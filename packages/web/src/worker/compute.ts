import {
  assessLadder,
  computeMatchMap,
  createShop,
  factorsToLabs,
  filmFactor,
  findGround,
  findSystem,
  FIVE_ANGLES,
  effectCoats,
  mapCounts,
  STYLES,
  type Assessment,
  type Lab,
  type MatchMap,
  type RungReading,
  type StyleId,
  type TargetAngle,
} from '@steady-gleam/core';

/** What is in the cup and how it is laid. */
export interface Mix {
  readonly systemId: string;
  readonly strength: number;
  readonly style: StyleId;
  readonly controlCoat: boolean;
}

/** Colours of a film section, as seen at 45 degrees from the mirror. */
export interface SectionColours {
  readonly ground: Lab;
  readonly effect: Lab;
  /** Effect film, nominal coats. */
  readonly film: number;
}

/** Everything the screens have computed, off the main thread. */
export interface Compute {
  matchMap(mix: Mix, target: readonly TargetAngle[]): MatchMap;
  assess(
    mix: Mix,
    groundId: string,
    target: readonly TargetAngle[],
    rungs: readonly RungReading[],
    last: number,
  ): Assessment;
  sectionColours(mix: Mix, groundId: string, coats: number): SectionColours;
}

export function createCompute(): Compute {
  const shop = createShop();
  const recipeOf = (mix: Mix) => ({
    coat: shop.coat(findSystem(mix.systemId), mix.strength),
    style: STYLES[mix.style],
    controlCoat: mix.controlCoat,
  });
  return {
    matchMap: (mix, target) => computeMatchMap(shop.model(target), shop.grounds(), recipeOf(mix), mapCounts(), target),
    assess: (mix, groundId, target, rungs, last) =>
      assessLadder(shop.model(target), shop.ground(findGround(groundId)), recipeOf(mix), target, rungs, last),
    sectionColours: (mix, groundId, coats) => {
      const model = shop.model(FIVE_ANGLES);
      const ground = shop.ground(findGround(groundId));
      const recipe = recipeOf(mix);
      const at = (n: number) =>
        factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats(recipe, n)])))[2]!;
      return { ground: at(0), effect: at(coats), film: filmFactor(recipe, coats) };
    },
  };
}
