import {
  findPigment,
  flatSpectrum,
  prepareCoat,
  type OwnMaterial,
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
  /** Tells the worker of the shop's own materials; what is asked afterwards knows them. */
  setMaterials(own: readonly OwnMaterial[]): void;
  /** A pigment alone over white and over black, from face to flop. */
  pigmentLook(pigmentId: string, cover: number): { white: readonly Lab[]; black: readonly Lab[] };
  /** A dye over white: half a coat to four coats. */
  dyeLook(dyeId: string): readonly Lab[];
  matchMap(mix: Mix, target: readonly TargetAngle[]): MatchMap;
  assess(
    mix: Mix,
    groundId: string,
    target: readonly TargetAngle[],
    rungs: readonly RungReading[],
    last: number,
    handHeld: boolean,
  ): Assessment;
  sectionColours(mix: Mix, groundId: string, coats: number): SectionColours;
}

export function createCompute(): Compute {
  let shop = createShop();
  const recipeOf = (mix: Mix) => ({
    coat: shop.coat(findSystem(mix.systemId, shop.library.systems), mix.strength),
    style: STYLES[mix.style],
    controlCoat: mix.controlCoat,
  });
  return {
    setMaterials: (own) => {
      shop = createShop(own);
    },
    pigmentLook: (pigmentId, cover) => {
      const model = shop.model(FIVE_ANGLES);
      const p = findPigment(pigmentId, shop.library.pigments);
      const coat = prepareCoat(shop.film, { flakes: { cover, tilt: p.tilt, edge: p.edge, optics: p.optics } });
      const over = (albedo: number) => factorsToLabs(model.evaluate({ albedo: flatSpectrum(albedo) }, [coat]));
      return { white: over(0.9), black: over(0.02) };
    },
    dyeLook: (dyeId) => {
      const model = shop.model([{ incidence: 45, aspecular: 45 }]);
      const depth = shop.library.dyes.find((d) => d.id === dyeId)?.depth ?? flatSpectrum(0);
      const ground = { albedo: flatSpectrum(0.9) };
      return [0.5, 1, 2, 3, 4].map(
        (n) => factorsToLabs(model.evaluate(ground, [prepareCoat(shop.film, { dye: depth, factor: n })]))[0]!,
      );
    },
    matchMap: (mix, target) => {
      const map = computeMatchMap(shop.model(target), shop.grounds(), recipeOf(mix), mapCounts(), target);
      // The curves stay here: the map shows windows only, and copying them would cost more than drawing.
      return { ...map, rows: map.rows.map((row) => ({ ...row, stop: { ...row.stop, curve: [] } })) };
    },
    assess: (mix, groundId, target, rungs, last, handHeld) =>
      assessLadder(
        shop.model(target),
        shop.ground(findGround(groundId, shop.library.grounds)),
        recipeOf(mix),
        target,
        rungs,
        last,
        handHeld,
      ),
    sectionColours: (mix, groundId, coats) => {
      const model = shop.model(FIVE_ANGLES);
      const ground = shop.ground(findGround(groundId, shop.library.grounds));
      const recipe = recipeOf(mix);
      const at = (n: number) =>
        factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats(recipe, n)])))[2]!;
      return { ground: at(0), effect: at(coats), film: filmFactor(recipe, coats) };
    },
  };
}
