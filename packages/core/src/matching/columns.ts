import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { PreparedCoat } from '../optics/coat';
import { overLambertian } from '../optics/lambertian';
import type { MapGround } from '../optics/preparedGround';
import type { FastModel, MovingModel, Pile, SlabCache } from '../optics/stack';
import { effectCoats, type EffectCoats } from './ladder';

/** Radiance factors of a ground under every count, [geometry * 31 + wavelength] each. */
export type Columns = (ground: MapGround) => readonly Float64Array[];

/**
 * Columns of a map, each worked out. Piles are shared by all grounds without coats of their own; slabs by all: a tinted metallic's
 * own dye is left out of the trapped path of the coats above it.
 */
export function columns(
  model: FastModel,
  recipe: EffectCoats,
  counts: readonly number[],
  slabs: SlabCache,
  over: (ground: MapGround, pile: Pile) => Float64Array,
): Columns {
  const shared = new Map<readonly PreparedCoat[], Pile[]>();
  const none: readonly PreparedCoat[] = [];
  const effects = counts.map((n) => effectCoats(recipe, n));
  return (ground) => {
    const key = ground.coats.length ? ground.coats : none;
    let piles = shared.get(key);
    if (!piles) shared.set(key, (piles = effects.map((above) => model.pile([...key, ...above], slabs))));
    return piles.map((pile) => over(ground, pile));
  };
}

/** Above this many coats only every second count is worked out; ours. */
const EVERY_ONE_TO = 3;
/** Keeps the logarithm of nothing finite; far below what is seen. */
const DARKEST = 1e-6;

/**
 * The same for what is looked at while it moves, the bare ground first: at some wavelengths, over plain grounds by three albedos, and
 * above three coats every second count only; what lies between is on the polynomial through the logarithms of five. Of library mixes all of
 * it together is within 0.15 dE00 of {@link columns} (tested).
 */
export function movingColumns(
  { few, fill, bare }: MovingModel,
  recipe: EffectCoats,
  counts: readonly number[],
): Columns {
  const slabs: SlabCache = new Map();
  const last = counts.length - 1;
  const firstAbove = counts.findIndex((n) => n > EVERY_ONE_TO);
  // What is laid in another style above some count bends there: every count is worked out.
  const isKnot = (c: number) =>
    recipe.then || firstAbove < 0 || c < firstAbove || c === last || (c - firstAbove) % 2 === 1;
  const knots = counts.flatMap((_, c) => (isKnot(c) ? [c] : []));
  const curves = new Map<Pile, ReturnType<typeof overLambertian>>();
  const worked = columns(
    few,
    recipe,
    knots.map((c) => counts[c]!),
    slabs,
    (ground, pile) => {
      if (ground.coats.length || ground.lobe) return few.over(ground, pile);
      let curve = curves.get(pile);
      if (!curve) curves.set(pile, (curve = overLambertian(few, pile)));
      return curve(ground.albedo);
    },
  );
  const blends = counts.map((n, c) => (isKnot(c) ? null : blendAt(knots, counts, n)));
  const size = few.optics.geometries.length * WAVELENGTH_COUNT;
  /** Places of all that is worked out. */
  const places = Int32Array.from({ length: size }, (_, i) => i).filter((i) =>
    few.wavelengths.includes(i % WAVELENGTH_COUNT),
  );
  return (ground) => {
    const alone = bare(ground, slabs);
    const at = worked(ground);
    const logs: (Float64Array | undefined)[] = [];
    const logOf = (k: number): Float64Array => (logs[k] ??= logsAt(places, at[k]!));
    const between = blends.map((blend) => {
      if (!blend) return null;
      const knotLogs = blend.weights.map((_, k) => logOf(blend.from + k));
      const out = new Float64Array(size);
      for (let j = 0; j < places.length; j++) {
        let log = 0;
        for (let k = 0; k < knotLogs.length; k++) log += blend.weights[k]! * knotLogs[k]![j]!;
        out[places[j]!] = Math.exp(log) - DARKEST;
      }
      return out;
    });
    return [alone, ...between.map((factors, c) => fill(factors ?? at[knots.indexOf(c)]!))];
  };
}

function logsAt(places: Int32Array, factors: Float64Array): Float64Array {
  const out = new Float64Array(places.length);
  for (let j = 0; j < places.length; j++) out[j] = Math.log(factors[places[j]!]! + DARKEST);
  return out;
}

/** Knots a count between is taken from. */
const AROUND = 5;

interface Blend {
  /** The first of the knots in a row. */
  readonly from: number;
  readonly weights: readonly number[];
}

/** Lagrange's polynomial through the knots around a count. */
function blendAt(knots: readonly number[], counts: readonly number[], n: number): Blend {
  const above = knots.findIndex((c) => counts[c]! > n);
  const from = Math.max(0, Math.min(knots.length - AROUND, above - 3));
  const xs = knots.slice(from, from + AROUND).map((c) => counts[c]!);
  return { from, weights: xs.map((xi, i) => xs.reduce((p, x, j) => (j === i ? p : (p * (n - x)) / (xi - x)), 1)) };
}
