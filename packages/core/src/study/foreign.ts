import { shiftSpectrum } from '../colour/spectrum';
import type { Lab } from '../colour/lab';
import { shiftGround } from '../letdown/variation';
import type { EffectCoats } from '../matching/ladder';
import { normal } from '../numeric/random';
import { thickenFlakes, type PreparedCoat } from '../optics/coat';
import { createFilm, type Film } from '../optics/film';
import { tabulateFlake } from '../optics/flakeOptics';
import { FIVE_ANGLES, type Geometry } from '../optics/geometry';
import type { PreparedGround } from '../optics/preparedGround';
import { tracedLabs, type TracedFilm, type TracedLayer } from './rays';

/** Thinnest slices of a traced film, counts: what changes from coat to coat changes between them. */
const SLICE = 1;

/** What dye, flakes and pigments of one pot are against the library's. */
interface Pot {
  /** nm. */
  readonly hue: number;
  readonly band: number;
  readonly dye: number;
  readonly layers: number;
  /** Tilt of its flakes as they lie. */
  readonly spread: number;
}

/**
 * What a painter of another kind has that nobody told the program: light followed ray by ray, flakes in two tilts, another film index,
 * tilt that drifts as coats build, oxide, dye, band and grounds off, the ground not quite hiding, the finish made by someone else.
 */
export interface ForeignTruth {
  readonly film: Film;
  readonly seed: number;
  readonly pot: Pot;
  readonly lay: { readonly edge: number; readonly drift: number; readonly wide: number };
  /** Of the ground, Lab units, and the share of what is under it that shows. */
  readonly shade: Lab;
  readonly shows: number;
  /** Of a metallic ground. */
  readonly under: { readonly tilt: number; readonly edge: number; readonly cover: number; readonly tint: number };
  /** The finish that is matched: its pot, film in counts, and how its ground was off besides. */
  readonly made: { readonly pot: Pot; readonly film: number; readonly off: Lab };
}

export const wantedFilm = (random: () => number): number => 1.5 + 2 * random();

export function drawForeign(random: () => number): ForeignTruth {
  const draw = (sd: number) => sd * normal(random);
  const film = createFilm(1.47 + 0.09 * random());
  const seed = Math.floor(random() * 2 ** 31);
  const mixed = { hue: draw(4), band: Math.exp(draw(0.06)), dye: Math.exp(draw(0.1)), layers: Math.exp(draw(0.03)) };
  const pot: Pot = { ...mixed, spread: Math.exp(draw(0.12)) };
  const lay = { edge: Math.exp(draw(0.3)), drift: draw(0.03), wide: 0.15 + 0.2 * random() };
  const shade: Lab = [draw(1.1), draw(1.1), draw(1.1)];
  const shows = 0.02 * random();
  const under = {
    tilt: Math.exp(draw(0.1)),
    edge: Math.exp(draw(0.25)),
    cover: Math.exp(draw(0.12)),
    tint: Math.exp(draw(0.1)),
  };
  const made: Pot = {
    hue: pot.hue + draw(1),
    band: pot.band,
    dye: pot.dye * Math.exp(draw(0.04)),
    layers: pot.layers,
    spread: pot.spread * Math.exp(draw(0.05)),
  };
  return {
    ...{ film, seed, pot, lay, shade, shows, under },
    made: { pot: made, film: wantedFilm(random), off: [draw(0.5), draw(0.4), draw(0.4)] },
  };
}

/** What is laid over a ground, as the program is told it. */
export interface Told {
  readonly ground: PreparedGround;
  readonly recipe: EffectCoats;
}

/**
 * Colours that what was told has in truth.
 * @param rays per evaluation; twice as many halve the squares of what the tracer itself scatters. @returns `at`: of the painter's own
 * film, in counts of the nominal hand; `made`: of the finish that is matched, where it was made so, or another film of it
 */
export function sightOf(truth: ForeignTruth, { ground, recipe }: Told, rays: number) {
  const { film, lay, shade, under } = truth;
  const style = recipe.style ?? { film: 1, spread: 1 };
  const groundAt = (more: Lab): Pick<TracedFilm, 'albedo' | 'layers'> => {
    const moved = shiftGround(ground)([shade[0] + more[0], shade[1] + more[1], shade[2] + more[2]]);
    return {
      albedo: moved.albedo.map((v) => v * (1 - truth.shows) + 0.4 * truth.shows),
      layers: ground.coats.map((c) =>
        layerOf(retabulated(c, film, 1), c.factor, {
          spread: under.tilt,
          edge: under.edge,
          flake: under.cover,
          dye: under.tint,
          wide: lay.wide,
        }),
      ),
    };
  };
  const effect = (film0: number, pot: Pot): TracedLayer[] => {
    if (film0 <= 0) return [];
    const { coat } = recipe;
    const shifted = pot.hue ? shiftSpectrum(coat.a, pot.hue) : coat.a;
    const most = shifted.reduce((m, v) => Math.max(m, v), 0);
    const a = most > 0 ? shifted.map((v) => most * (v / most) ** (1 / pot.band)) : shifted;
    const dyed = retabulated({ ...coat, a }, film, pot.layers);
    const layers: TracedLayer[] = [];
    for (let from = 0; from < film0 - 1e-9; from += SLICE) {
      const part = Math.min(SLICE, film0 - from);
      layers.push(
        layerOf(dyed, part * style.film, {
          spread: style.spread * pot.spread * (1 + lay.drift * (from + part / 2 - 1)),
          edge: lay.edge,
          flake: 1,
          dye: pot.dye,
          wide: lay.wide,
        }),
      );
    }
    return layers;
  };
  const trace = (x: number, pot: Pot, shift: Lab, geometries: readonly Geometry[]): Lab[] => {
    const base = groundAt(shift);
    const layers = [...base.layers, ...effect(x, pot)];
    return tracedLabs({ n: film.n, albedo: base.albedo, layers }, geometries, rays, truth.seed);
  };
  return {
    at: (x: number, geometries: readonly Geometry[] = FIVE_ANGLES) => trace(x, truth.pot, [0, 0, 0], geometries),
    made: (geometries: readonly Geometry[] = FIVE_ANGLES, x: number = truth.made.film) =>
      trace(x, truth.made.pot, truth.made.off, geometries),
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
