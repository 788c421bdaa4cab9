import { createRandom, normal, seedOf } from '../numeric/random';
import type { Weighed } from './scaleLines';

/** A scale with a cup on it, and a can held over it. */
export interface SimulatedScale {
  readonly seed: number;
  /** ms since it was switched on. */
  readonly at: number;
  /** What is on it in truth, g. */
  readonly grams: number;
  /** g/s that run now. */
  readonly flow: number;
  /** What it creeps by, g. */
  readonly drift: number;
  /** ms since anything ran. */
  readonly rests: number;
  readonly resolution: number;
}

/** How a can is held over the cup. */
export type Held = 'up' | 'drip' | 'pour';

/** g/s a can runs at when it is tilted, and when it drips; how fast it comes, and how long it dribbles after, ms. Ours. */
const [FULL, DRIP, COMES, DRIBBLES] = [12, 0.9, 900, 180] as const;
/** It says that it rests after so long, ms; it trembles by so much while something runs, g; creeps by so much in a minute, g. */
const [SETTLES, TREMBLES, CREEPS] = [700, 0.3, 0.05] as const;

export const createScale = (seed: number, cup = 0): SimulatedScale => ({
  ...{ seed, at: 0, grams: cup, flow: 0, drift: 0, rests: 60_000, resolution: 0.1 },
});

/** What is there some ms later. @param held how the can was held meanwhile */
export function later(scale: SimulatedScale, ms: number, held: Held): SimulatedScale {
  const wanted = held === 'pour' ? FULL : held === 'drip' ? DRIP : 0;
  const over = held === 'up' ? DRIBBLES : COMES;
  const flow = wanted + (scale.flow - wanted) * Math.exp(-ms / over);
  const ran = flow < 0.02 && held === 'up' ? 0 : flow;
  const at = scale.at + ms;
  const random = createRandom(seedOf(scale.seed, 'creep', Math.floor(at / 1000)));
  return {
    ...scale,
    at,
    flow: ran,
    grams: scale.grams + ((scale.flow + ran) / 2) * (ms / 1000),
    drift: scale.drift + CREEPS * (ms / 60_000) * normal(random),
    rests: ran > 0 ? 0 : scale.rests + ms,
  };
}

/** What it shows. */
export function shows(scale: SimulatedScale): Weighed {
  const random = createRandom(seedOf(scale.seed, 'tremble', scale.at));
  const off = scale.flow > 0 ? TREMBLES * normal(random) : 0;
  const shown = Math.round((scale.grams + scale.drift + off) / scale.resolution) * scale.resolution;
  return { at: scale.at, grams: Number(shown.toFixed(2)), stable: scale.rests >= SETTLES };
}
