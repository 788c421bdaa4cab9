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
import { createFilm, type Film } from '../optics/film';
import { tabulateFlake } from '../optics/flakeOptics';
import { FIVE_ANGLES, type Geometry } from '../optics/geometry';
import type { PreparedGround } from '../optics/preparedGround';
import { evaluateReference } from '../optics/stack';
import { tracedLabs, type TracedFilm, type TracedLayer } from './rays';

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
const KNOTS = [0, 0.4, 0.9, 1.5, 2.2, 3, 4, 5.5, 8] as const;

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
    ladder: (film) => interpolateLabs(KNOTS, knots, Math.min(8, Math.max(0, film))),
    wanted,
    wantedAt: () => [...wanted],
  };
}

const wantedFilm = (random: () => number): number => 1.5 + 2 * random();

/** Thinnest slices of a traced film, counts: what changes from coat to coat changes between them. */
const SLICE = 1;

/**
 * A painter of another kind: light followed ray by ray, flakes in two tilts, another film index, tilt that drifts as coats build,
 * oxide, dye, band and grounds off, the ground not quite hiding, the finish made by someone else.
 * @param rays per evaluation; twice as many halve the squares of what the tracer itself scatters.
 */
export function foreignWorld(shop: PreparedLibrary, kind: Kind, random: () => number, rays: number): World {
  const { ground, recipe } = told(shop, kind, random);
  const draw = (sd: number) => sd * normal(random);
  const film = createFilm(1.47 + 0.09 * random());
  const seed = Math.floor(random() * 2 ** 31);
  const style = recipe.style!;
  const pot = { hue: draw(4), band: Math.exp(draw(0.06)), dye: Math.exp(draw(0.1)), layers: Math.exp(draw(0.03)) };
  const hand = {
    spread: Math.exp(draw(0.12)),
    edge: Math.exp(draw(0.3)),
    drift: draw(0.03),
    wide: 0.15 + 0.2 * random(),
  };
  const shade: Lab = [draw(1.1), draw(1.1), draw(1.1)];
  const shows = 0.02 * random();
  const under = {
    tilt: Math.exp(draw(0.1)),
    edge: Math.exp(draw(0.25)),
    cover: Math.exp(draw(0.12)),
    tint: Math.exp(draw(0.1)),
  };

  const groundAt = (more: Lab): Pick<TracedFilm, 'albedo' | 'layers'> => {
    const moved = shiftGround(ground)([shade[0] + more[0], shade[1] + more[1], shade[2] + more[2]]);
    return {
      albedo: moved.albedo.map((v) => v * (1 - shows) + 0.4 * shows),
      layers: ground.coats.map((c) =>
        layerOf(retabulated(c, film, 1), c.factor, {
          spread: under.tilt,
          edge: under.edge,
          flake: under.cover,
          dye: under.tint,
          wide: hand.wide,
        }),
      ),
    };
  };
  const effect = (
    film0: number,
    o: { hue: number; band: number; dye: number; layers: number; spread: number },
  ): TracedLayer[] => {
    if (film0 <= 0) return [];
    const { coat } = recipe;
    const shifted = o.hue ? shiftSpectrum(coat.a, o.hue) : coat.a;
    const most = shifted.reduce((m, v) => Math.max(m, v), 0);
    const a = most > 0 ? shifted.map((v) => most * (v / most) ** (1 / o.band)) : shifted;
    const dyed = retabulated({ ...coat, a }, film, o.layers);
    const layers: TracedLayer[] = [];
    for (let from = 0; from < film0 - 1e-9; from += SLICE) {
      const part = Math.min(SLICE, film0 - from);
      layers.push(
        layerOf(dyed, part * style.film, {
          spread: style.spread * o.spread * (1 + hand.drift * (from + part / 2 - 1)),
          edge: hand.edge,
          flake: 1,
          dye: o.dye,
          wide: hand.wide,
        }),
      );
    }
    return layers;
  };
  const at = (x: number, o: Parameters<typeof effect>[1], shift: Lab, geometries: readonly Geometry[]): Lab[] => {
    const base = groundAt(shift);
    return tracedLabs(
      { n: film.n, albedo: base.albedo, layers: [...base.layers, ...effect(x, o)] },
      geometries,
      rays,
      seed,
    );
  };
  const own = { ...pot, spread: hand.spread };
  const knots = KNOTS.map((x) => at(x, own, [0, 0, 0], FIVE_ANGLES));
  const made = {
    hue: pot.hue + draw(1),
    band: pot.band,
    dye: pot.dye * Math.exp(draw(0.04)),
    layers: pot.layers,
    spread: hand.spread * Math.exp(draw(0.05)),
  };
  const [count, off] = [wantedFilm(random), [draw(0.5), draw(0.4), draw(0.4)] as const];
  const through = (errors: readonly number[]) =>
    at(
      count,
      made,
      off,
      FIVE_ANGLES.map((g, k) => ({ ...g, aspecular: g.aspecular + (errors[k] ?? 0) })),
    );
  return {
    kind,
    ground,
    recipe,
    ladder: (x) => interpolateLabs(KNOTS, knots, Math.min(8, Math.max(0, x))),
    wanted: through([]),
    wantedAt: through,
  };
}

/** A coat with its flakes tabulated in another binder, their layers thicker by a ratio. */
function retabulated(coat: PreparedCoat, film: Film, layers: number): PreparedCoat {
  const thick = thickenFlakes(film, coat, layers);
  return { ...thick, flakes: thick.flakes.map((f) => ({ ...f, table: tabulateFlake(f.optics, film.n) })) };
}

function layerOf(
  coat: PreparedCoat,
  factor: number,
  o: {
    readonly spread: number;
    readonly edge: number;
    readonly flake: number;
    readonly dye: number;
    readonly wide: number;
  },
): TracedLayer {
  const scaled = (v: Float64Array, by: number) => v.map((x) => x * by * factor);
  const hasPigment = coat.k.some((v) => v > 0) || coat.s.some((v) => v > 0);
  return {
    dye: scaled(coat.a, o.dye),
    pigment: hasPigment ? { k: scaled(coat.k, o.dye), s: scaled(coat.s, 1) } : null,
    flakes: coat.flakes.map((f) => {
      const sigma = f.tilt * o.spread;
      return {
        tau: f.tau * factor * o.flake,
        edge: Math.min(0.9, f.edge * o.edge),
        // Rms of the two is the hand's own.
        tilts: [
          { share: 1 - o.wide, sigma: sigma * Math.sqrt((1 - o.wide * 1.9) / (1 - o.wide)) },
          { share: o.wide, sigma: sigma * Math.sqrt(1.9) },
        ],
        table: f.table,
      };
    }),
  };
}
