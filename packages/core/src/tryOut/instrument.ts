import type { Lab } from '../colour/lab';
import type { InstrumentAnswer } from '../devices/instrument';
import type { Reading } from '../formats/readings';
import { noiseAt, noiseOf } from '../letdown/readings';
import { createRandom, normal, seedOf } from '../numeric/random';
import { FIVE_ANGLES, type Geometry } from '../optics/geometry';
import { SCATTER } from '../study/painterFigures';
import type { Hidden, Sight } from './hidden';

/** What the simulated instrument is held on. */
export type HeldOn =
  | { readonly kind: 'target' }
  | { readonly kind: 'chip'; readonly label: string }
  /** `coats` as it is called; 0 for the bare ground. */
  | { readonly kind: 'rung'; readonly coats: number; readonly film: number }
  | { readonly kind: 'spot'; readonly film: number };

/** It asks for its white tile after so many readings; ours. */
const WHITE_EVERY = 30;
/** Chance that it was moved while it read, and that it stood askew by some degrees; ours. */
const [MOVED, ASKEW] = [0.02, 0.03] as const;
/** Degrees. */
const ASKEW_BY = 5;
/** What it reads all colours off by, Lab units; the same for everything it reads. */
const BIAS_SD = 0.2;
/** Wet film gleams otherwise than cleared film, Lab units. */
const WET_SD = 0.3;
/** Film under the few spots of a look against the film of the place, ln. */
const LOCAL = { wet: 0.03, cleared: 0.015 } as const;
/** Places that are read of each. */
const SPOTS = { target: 3, chip: 3, rung: 3, wet: 3, cleared: 9 } as const;
/** A chip is another batch of the same finish: its film against that of what is matched, ln. */
const CHIP_SD = 0.1;

/**
 * What the simulated instrument says: a reading with its noise, its own bias and, now and then, a wrong angle; that it wants its
 * white tile; or that it was moved. The same for the same number of asking.
 * @param nth how many times it was asked before. @param white after how many of these its tile was read last; null for never
 */
export function simulatedRead(
  hidden: Hidden,
  sight: Sight,
  held: HeldOn,
  state: 'wet' | 'cleared',
  nth: number,
  white: number | null,
): InstrumentAnswer {
  if (white === null || nth - white >= WHITE_EVERY) return { is: 'wants white' };
  const random = createRandom(seedOf(hidden.seed, 'read', nth));
  const draw = (sd: number) => sd * normal(random);
  const chance = random();
  if (chance < MOVED) return { is: 'failed', why: 'moved' };
  const askew = chance < MOVED + ASKEW ? Math.floor(random() * FIVE_ANGLES.length) : -1;
  const seen = FIVE_ANGLES.map((g, k) => (k === askew ? { ...g, aspecular: g.aspecular + ASKEW_BY } : g));
  const labs = colours(sight, held, state, seen, draw, hidden);
  const own = createRandom(seedOf(hidden.seed, 'bias'));
  const bias = FIVE_ANGLES.map(() => [0, 1, 2].map(() => BIAS_SD * normal(own)));
  const wet = state === 'wet' && held.kind === 'spot' ? [draw(WET_SD), draw(WET_SD), draw(WET_SD)] : [0, 0, 0];
  const noise = noiseOf(null, []);
  const spots = held.kind === 'spot' ? SPOTS[state] : SPOTS[held.kind];
  const readings: Reading[] = [];
  for (let spot = 1; spot <= spots; spot++)
    labs.forEach((lab, g) => {
      const sd = noiseAt(noise, g, lab[0]);
      const [l, a, b] = lab.map((v, c) => Number((v + bias[g]![c]! + wet[c]! + draw(sd)).toFixed(2)));
      readings.push({ spot: String(spot), ...FIVE_ANGLES[g]!, l: Math.max(0, l!), a: a!, b: b! });
    });
  return { is: 'read', readings };
}

function colours(
  sight: Sight,
  held: HeldOn,
  state: 'wet' | 'cleared',
  geometries: readonly Geometry[],
  draw: (sd: number) => number,
  hidden: Hidden,
): Lab[] {
  switch (held.kind) {
    case 'target':
      return sight.made(geometries);
    case 'chip': {
      const off = CHIP_SD * normal(createRandom(seedOf(hidden.seed, 'chip', held.label)));
      return sight.made(geometries, hidden.truth.made.film * Math.exp(off));
    }
    case 'rung': {
      const spot = hidden.hand * draw(Math.hypot(SCATTER.spotShare * held.coats, SCATTER.spotCount));
      return sight.at(held.coats > 0 ? Math.max(0, held.film + spot) : 0, geometries);
    }
    case 'spot':
      return sight.at(held.film * Math.exp(draw(LOCAL[state])), geometries);
  }
}
