import { shiftSpectrum } from '../colour/spectrum';
import type { Lab } from '../colour/lab';
import { D65_10 } from '../colour/tristimulus';
import { STYLES, type StyleId } from '../finishes/styles';
import { shiftGround } from '../letdown/variation';
import { effectCoats, factorsToLabs, type EffectCoats } from '../matching/ladder';
import { interpolateLabs } from '../matching/stopWindow';
import { findGround } from '../materials/grounds';
import { findPigment } from '../materials/effectPigments';
import type { PreparedLibrary } from '../materials/shop';
import { findMix } from '../materials/mixes';
import { normal } from '../numeric/random';
import { adjustCoat, prepareCoat, thickenFlakes, type PreparedCoat } from '../optics/coat';
import { FIVE_ANGLES } from '../optics/geometry';
import type { PreparedGround } from '../optics/preparedGround';
import { evaluateReference } from '../optics/stack';
import { drawForeign, sightOf, wantedFilm } from './foreign';

/** Kinds of finish that are studied; the first four are jobs of every day. */
export const KINDS = [
  'pearl with dye',
  'plain pearl',
  'candy dye',
  'tinted clear',
  'metal flake',
  'shift',
  'solid',
] as const;
export type Kind = (typeof KINDS)[number];
export const CORE_KINDS: readonly Kind[] = KINDS.slice(0, 4);

/** A painter's true ladder and what he has to match; the fit is only given `ground` and `recipe`. */
export interface World {
  readonly kind: Kind;
  readonly ground: PreparedGround;
  readonly recipe: EffectCoats;
  /** True colours at a film, in counts of the nominal hand. */
  readonly ladder: (film: number) => Lab[];
  /** True colours of what is matched. */
  readonly wanted: readonly Lab[];
  /** The same through an instrument whose angles are off by some degrees. */
  readonly wantedAt: (angleErrors: readonly number[]) => Lab[];
}

const GROUNDS: Readonly<Record<Kind, readonly string[]>> = {
  'pearl with dye': ['aqua-pastel', 'white', 'grey-74'],
  'plain pearl': ['cream-pastel', 'white', 'ticket-red', 'grey-63'],
  'candy dye': ['silver-fine', 'gold', 'silver-coarse', 'copper'],
  'tinted clear': ['gold', 'silver-fine', 'cream-pastel'],
  'metal flake': ['silver-coarse', 'black', 'gold'],
  shift: ['black', 'grey-31'],
  solid: ['grey-52', 'grey-74', 'white'],
};
const STYLES_OF: Readonly<Record<Kind, readonly StyleId[]>> = {
  'pearl with dye': ['wet', 'medium'],
  'plain pearl': ['wet', 'medium'],
  'candy dye': ['light', 'wet'],
  'tinted clear': ['wet'],
  'metal flake': ['medium', 'wet'],
  shift: ['medium', 'light'],
  solid: ['wet', 'medium'],
};
const MIX: Readonly<Partial<Record<Kind, string>>> = {
  'pearl with dye': 'lagoon-pearl',
  'plain pearl': 'moonmilk-pearl',
  'candy dye': 'cinder-candy',
  'tinted clear': 'smoke-tea-clear',
};

const FLAKES = {
  shift: ['tideline-shift', 'kelp-shift', 'ember-shift'],
  'metal flake': ['silver-flake-100', 'silver-flake-200', 'red-flake-400', 'blue-flake-600'],
} as const;

const pick = <T>(of: readonly T[], random: () => number): T => of[Math.floor(random() * of.length)]!;

/** What the program is told: ground, coat and style. */
function told(shop: PreparedLibrary, kind: Kind, random: () => number): Pick<World, 'ground' | 'recipe'> {
  const ground = shop.ground(findGround(pick(GROUNDS[kind], random)));
  const strength = 0.75 + 0.6 * random();
  const mix = MIX[kind];
  let coat: PreparedCoat;
  if (mix) coat = shop.coat(findMix(mix), strength);
  else if (kind === 'shift' || kind === 'metal flake') {
    const pigment = findPigment(pick(FLAKES[kind], random), shop.library.pigments);
    coat = prepareCoat(shop.film, {
      flakes: { cover: 1 - 0.62 ** strength, tilt: pigment.tilt, edge: pigment.edge, optics: pigment.optics },
    });
  } else {
    const centre = 460 + 160 * random();
    const band = Float64Array.from(
      { length: 31 },
      (_, i) => 0.02 + 0.5 * Math.exp(-(((400 + 10 * i - centre) / 60) ** 2)),
    );
    coat = prepareCoat(shop.film, { pigment: { k: band, s: 0.25, thickness: strength } });
  }
  return { ground, recipe: { coat, style: STYLES[pick(STYLES_OF[kind], random)] } };
}

/** Films at which a true ladder is worked out; between them cubic. */
export const KNOTS = [0, 0.4, 0.9, 1.5, 2.2, 3, 4, 5.5, 8] as const;
export const LAST_KNOT = 8;

/**
 * A painter of the program's own kind: the same film model, by its reference tier, with other parameters than the fit starts from.
 */
export function ownWorld(shop: PreparedLibrary, kind: Kind, random: () => number): World {
  const { ground, recipe } = told(shop, kind, random);
  const draw = (sd: number) => sd * normal(random);
  const { optics } = shop.model(FIVE_ANGLES);
  const laid = (spread: number, hue: number, layers: number): PreparedCoat => {
    const dyed = hue ? { ...recipe.coat, a: shiftSpectrum(recipe.coat.a, hue) } : recipe.coat;
    const coat = thickenFlakes(shop.film, dyed, layers);
    return adjustCoat(coat, { tauScale: flake, tiltScale: spread, edgeScale: edge });
  };
  const [flake, edge] = [Math.exp(draw(0.15)), Math.exp(draw(0.3))];
  const [spread, hue, layers] = [Math.exp(draw(0.12)), draw(4), Math.exp(draw(0.03))];
  const moved = shiftGround(ground)([draw(1), draw(1), draw(1)]);
  const at = (coat: PreparedCoat, film: number) =>
    factorsToLabs(
      evaluateReference(optics, moved, [...moved.coats, ...effectCoats({ ...recipe, coat }, film)]),
      D65_10,
    );
  const coat = laid(spread, hue, layers);
  const knots = KNOTS.map((x) => at(coat, x));
  const wanted = at(laid(spread * Math.exp(draw(0.03)), hue, layers), wantedFilm(random));
  return {
    kind,
    ground,
    recipe,
    ladder: (film) => interpolateLabs(KNOTS, knots, Math.min(LAST_KNOT, Math.max(0, film))),
    wanted,
    wantedAt: () => [...wanted],
  };
}

/**
 * A painter of another kind: see {@link drawForeign}.
 * @param rays per evaluation; twice as many halve the squares of what the tracer itself scatters.
 */
export function foreignWorld(shop: PreparedLibrary, kind: Kind, random: () => number, rays: number): World {
  const { ground, recipe } = told(shop, kind, random);
  const sight = sightOf(drawForeign(random), { ground, recipe }, rays);
  const knots = KNOTS.map((x) => sight.at(x));
  const through = (errors: readonly number[]) =>
    sight.made(FIVE_ANGLES.map((g, k) => ({ ...g, aspecular: g.aspecular + (errors[k] ?? 0) })));
  return {
    kind,
    ground,
    recipe,
    ladder: (x) => interpolateLabs(KNOTS, knots, Math.min(LAST_KNOT, Math.max(0, x))),
    wanted: through([]),
    wantedAt: through,
  };
}
