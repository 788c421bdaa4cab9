import { ALL_WAVELENGTHS } from '../colour/fewWavelengths';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { closeDiffuse, createDiffuseState, keepState, sizeOfState, startAtGround, takeState } from './closure';
import type { Ground, PreparedGround } from './preparedGround';
import type { PreparedCoat } from './coat';
import { flakeClasses } from './flakeClasses';
import { createImbedding } from './imbedding';
import { writeLobe } from './lobe';
import { referenceTilt, type Optics } from './optics';
import { buildSlab } from './slab';
import { type Slab } from './thinSlab';
import { createAdding } from './adding';

/** How much sooner slopes are forgotten than light is turned once, and how much a mirror turns by its tilt; fitted to ray transport. */
const [FORGETS, TURN_OF_TILT] = [12, 3] as const;

/**
 * Dye depth that trapped light meets at one slope, 31 values: what it crosses before edges, pigment or mirrors give it another. The
 * path of the trapped class for dye is longer the sooner that is, for grazing light is born anew (film equations, section 4).
 */
function dyeAtOneSlope(optics: Optics, coats: readonly PreparedCoat[]): Float64Array {
  const total = new Float64Array(WAVELENGTH_COUNT);
  const turned = new Float64Array(WAVELENGTH_COUNT);
  for (const { factor, a, s, flakes } of coats) {
    for (let i = 0; i < WAVELENGTH_COUNT; i++) {
      total[i]! += factor * a[i]!;
      turned[i]! += factor * s[i]! * optics.film.mT0;
    }
    for (const { table, tau, edge, tilt } of flakes) {
      const { rT, tT } = optics.readings(table);
      const mirror = (1 - edge) * Math.min(1, TURN_OF_TILT * tilt);
      for (let i = 0; i < WAVELENGTH_COUNT; i++)
        turned[i]! += factor * tau * (edge * (rT[i]! + tT[i]!) + mirror * rT[i]!);
    }
  }
  for (let i = 0; i < WAVELENGTH_COUNT; i++) {
    const forgotten = FORGETS * turned[i]!;
    if (forgotten > 1e-6) total[i]! *= -Math.expm1(-forgotten) / forgotten;
  }
  return total;
}

const sameFlakes = (a: PreparedCoat['flakes'], b: PreparedCoat['flakes']): boolean =>
  a === b ||
  (a.length === b.length &&
    a.every((f, i) => {
      const o = b[i]!;
      return f.table === o.table && f.tau === o.tau && f.tilt === o.tilt && f.edge === o.edge;
    }));

/** Neighbouring coats of the same kind are one slab: n coats are n times the depths. */
export function mergeCoats(coats: readonly PreparedCoat[]): PreparedCoat[] {
  const merged: PreparedCoat[] = [];
  for (const coat of coats) {
    const last = merged.at(-1);
    if (last && last.a === coat.a && last.k === coat.k && last.s === coat.s && sameFlakes(last.flakes, coat.flakes)) {
      merged[merged.length - 1] = { ...last, factor: last.factor + coat.factor };
    } else if (coat.factor > 0) merged.push(coat);
  }
  return merged;
}

/**
 * Reference tier: radiance factors of a stack, all orders, surface tables at the exact tilt, imbedding by Runge-Kutta.
 * @param coats ground side first. @returns [geometry * 31 + wavelength], perfect diffuser = 1.
 */
export function evaluateReference(optics: Optics, ground: Ground, coats: readonly PreparedCoat[]): Float64Array {
  const stack = mergeCoats(coats);
  const tilt = referenceTilt(optics, stack);
  const tables = optics.exactTables(tilt);
  const out = new Float64Array(optics.geometries.length * WAVELENGTH_COUNT);
  writeLobe(optics, stack, tilt, tables, ground.lobe ?? null, out);
  const dye = dyeAtOneSlope(optics, stack);
  const state = createDiffuseState(optics);
  const imbed = createImbedding(optics);
  const classes = flakeClasses(tilt, optics.film.fC);
  for (let i = 0; i < WAVELENGTH_COUNT; i++) {
    const mT = optics.film.mT(dye[i]!);
    startAtGround(optics, ground.albedo[i]!, state);
    for (const coat of stack) imbed(state, coat, i, mT);
    for (let g = 0; g < optics.geometries.length; g++) {
      out[g * WAVELENGTH_COUNT + i]! += closeDiffuse(optics, state, classes, tables, g);
    }
  }
  return out;
}

/** A pile of coats made ready for many grounds: slabs, lobe and tables are worked out once. */
export interface Pile {
  readonly coats: readonly PreparedCoat[];
  readonly slabs: readonly Slab[];
  readonly tilt: number;
  /** Lobe factors over a ground without a lobe, [geometry * 31 + wavelength]. */
  readonly lobe: Float64Array;
}

/** Fast tier for one set of geometries. Keep one and reuse it: it owns its scratch and caches. */
export interface FastModel {
  readonly optics: Optics;
  /**
   * Prepares coats (ground side first). @param known slabs to share between piles. A shared slab keeps the trapped class's
   * path of the pile it was first built for, so share only between piles whose dye above is alike or absent.
   */
  readonly pile: (coats: readonly PreparedCoat[], known?: SlabCache) => Pile;
  /** Radiance factors of a pile over a ground, [geometry * 31 + wavelength]; written into `out` when given. */
  readonly over: (ground: Ground, pile: Pile, out?: Float64Array) => Float64Array;
  readonly evaluate: (ground: Ground, coats: readonly PreparedCoat[]) => Float64Array;
  /** Factors of a ground with its own coats and nothing on it, kept for the next time; its slabs are laid to those that are shared. */
  readonly bare: (ground: PreparedGround, known: SlabCache) => Float64Array;
}

export type SlabCache = Map<PreparedCoat, Slab>;

/**
 * Fast tier: the reference's equations solved by doubling and adding, with slabs shared between stacks and surface tables
 * interpolated between cached tilts.
 * @param wavelengths places on the grid that are worked out; the others stay 0
 */
export function createFastModel(optics: Optics, wavelengths: readonly number[] = ALL_WAVELENGTHS): FastModel {
  const adding = createAdding(optics);
  const state = createDiffuseState(optics);
  const size = optics.geometries.length * WAVELENGTH_COUNT;
  const stateSize = sizeOfState(state);

  const pile = (coats: readonly PreparedCoat[], known?: SlabCache): Pile => {
    const merged = mergeCoats(coats);
    const dye = dyeAtOneSlope(optics, merged);
    const tilt = referenceTilt(optics, merged);
    const lobe = new Float64Array(size);
    writeLobe(optics, merged, tilt, optics.quickTables(tilt), null, lobe, wavelengths);
    const slabs = merged.map((coat) => {
      const have = known?.get(coat);
      if (have) return have;
      const made = buildSlab(optics, coat, dye, wavelengths);
      known?.set(coat, made);
      return made;
    });
    return { coats: merged, slabs, tilt, lobe };
  };

  /** By the topmost slab of a ground's own: its states under whatever is laid on it, wavelength by wavelength. */
  const bareStates = new WeakMap<
    Slab,
    { readonly ground: Ground; readonly count: number; readonly states: Float64Array }
  >();
  /** Of a pile's slabs those that are a known ground's own, with its states; null where it is none. */
  const ownOf = (ground: Ground, slabs: readonly Slab[]) => {
    for (let j = slabs.length - 1; j >= 0; j--) {
      const known = bareStates.get(slabs[j]!);
      if (known?.ground === ground && known.count === j + 1) return known;
    }
    return null;
  };

  const over = (
    ground: Ground,
    { slabs, tilt, lobe, coats }: Pile,
    out: Float64Array = new Float64Array(size),
  ): Float64Array => {
    const own = ownOf(ground, slabs);
    const tables = optics.quickTables(tilt);
    if (ground.lobe) writeLobe(optics, coats, tilt, tables, ground.lobe, out, wavelengths);
    else out.set(lobe);
    const classes = flakeClasses(tilt, optics.film.fC);
    for (const i of wavelengths) {
      if (own) takeState(own.states, i * stateSize, state);
      else startAtGround(optics, ground.albedo[i]!, state);
      for (let j = own?.count ?? 0; j < slabs.length; j++) adding(slabs[j]!, i, state);
      for (let g = 0; g < optics.geometries.length; g++) {
        out[g * WAVELENGTH_COUNT + i]! += closeDiffuse(optics, state, classes, tables, g);
      }
    }
    return out;
  };
  const keepStates = (ground: Ground, slabs: readonly Slab[]): void => {
    const states = new Float64Array(WAVELENGTH_COUNT * stateSize);
    for (const i of wavelengths) {
      startAtGround(optics, ground.albedo[i]!, state);
      for (const slab of slabs) adding(slab, i, state);
      keepState(state, states, i * stateSize);
    }
    bareStates.set(slabs.at(-1)!, { ground, count: slabs.length, states });
  };
  const grounds = new WeakMap<PreparedGround, { readonly slabs: SlabCache; readonly factors: Float64Array }>();
  const bare: FastModel['bare'] = (ground, known) => {
    let kept = grounds.get(ground);
    if (!kept) {
      const slabs: SlabCache = new Map();
      const own = pile(ground.coats, slabs);
      grounds.set(ground, (kept = { slabs, factors: over(ground, own) }));
      if (own.slabs.length) keepStates(ground, own.slabs);
    }
    for (const [coat, slab] of kept.slabs) known.set(coat, slab);
    return kept.factors;
  };
  return { optics, pile, over, bare, evaluate: (ground, coats) => over(ground, pile(coats)) };
}
