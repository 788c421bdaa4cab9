import { type Lab } from '../colour/lab';
import { de2000 } from '../colour/difference';
import { normalCdf } from '../numeric/normal';
import { type EyeView, type Verdict, type EyeCuts, VERDICTS } from './eyeWords';
import { labsAt, type Ladder } from './fittedLadder';

/** A ladder as it could be, and how likely. */
export interface PossibleLadder {
  readonly ladder: Ladder;
  readonly weight: number;
}

/** Where verdicts are read: ladders that are possible, the angles of their outputs, and how the rungs were held. */
export interface EyeRead {
  readonly ladders: readonly PossibleLadder[];
  readonly aspecular: readonly number[];
  readonly handHeld?: boolean;
  readonly cuts?: EyeCuts;
  /** Depth of the flakes in a counted coat, where an eye goes by how densely they lie; left out where it goes by lightness. */
  readonly cover?: number;
}

/** How much eyes scatter, dE00: from one place to the next, and in what all looks at one rung share. Common practice (no source). */
export const EYE_SCATTER = {
  stand: { view: 0.6, rung: 0.5 },
  hand: { view: 0.9, rung: 0.8 },
} as const;
/** How often what is said of a rung has nothing to do with it: another rung, another light, a slip. */
export const SLIP = 0.06;
/** A coat brightens from a place when it adds this much lightness, L*. */
const BRIGHTER = 0.5;
/** Aspecular angles a place stands for. */
const VIEW_ANGLES: Readonly<Record<EyeView, readonly number[]>> = {
  'sun face': [15, 25],
  'sun flop': [75, 110],
  shade: [45],
  lamp: [25, 45],
  // What glares in the sun is gone: the side and the flop are what is seen.
  'low light': [45, 75],
  // Tubes overhead, from many sides at once.
  'shop light': [25, 45],
};
/** The geometries nearest to a place to stand. */
export function geometriesOf(view: EyeView, angles: readonly number[]): number[] {
  const nearest = VIEW_ANGLES[view].map((wanted) =>
    angles.reduce((best, a, g) => (Math.abs(a - wanted) < Math.abs(angles[best]! - wanted) ? g : best), 0),
  );
  return [...new Set(nearest)];
}

/** How far colours are from what is wanted, seen from a place, dE00: the mean of the angles it stands for. */
export function differenceFrom(
  view: EyeView,
  aspecular: readonly number[],
  labs: readonly Lab[],
  wanted: readonly Lab[],
): number {
  return seenBetween(labs, wanted, geometriesOf(view, aspecular)).de;
}

/** From this place coats about a count make it lighter, clearly enough to be told; else they make it darker. */
export function brighterFrom(read: EyeRead, view: EyeView, best: number): boolean {
  if (read.cover !== undefined) return false;
  const { ladder } = read.ladders[0]!;
  const [low, high] = [labsAt(ladder, Math.max(0, best - 0.5)), labsAt(ladder, best + 0.5)];
  const geometries = geometriesOf(view, read.aspecular);
  return geometries.reduce((s, g) => s + high[3 * g]! - low[3 * g]!, 0) / geometries.length > BRIGHTER;
}

/** Gauss-Hermite quadrature for a standard normal, five nodes (Abramowitz and Stegun 25.10, scaled). */
export const NODES = [
  [0, 0.533333333],
  [1.35562618, 0.222075922],
  [-1.35562618, 0.222075922],
  [2.856970014, 0.011257411],
  [-2.856970014, 0.011257411],
] as const;
/** How far one colour is from another as an eye tells it: how much, and how surely to the lighter side. */
export interface Seen {
  readonly de: number;
  /** Chance that it is called lighter rather than darker. */
  readonly lighter: number;
  readonly a: number;
  readonly b: number;
}

export function seenBetween(rung: readonly Lab[], target: readonly Lab[], geometries: readonly number[]): Seen {
  let [de, l, a, b] = [0, 0, 0, 0];
  for (const g of geometries) {
    de += de2000(target[g]!, rung[g]!) / geometries.length;
    l += (rung[g]![0] - target[g]![0]) / geometries.length;
    a += (rung[g]![1] - target[g]![1]) / geometries.length;
    b += (rung[g]![2] - target[g]![2]) / geometries.length;
  }
  return { de, lighter: normalCdf(l / (0.15 + 0.3 * de)), a, b };
}

/** Step and reach of the tables of verdicts over a signed difference, dE00. */
const [CELL_STEP, CELL_REACH] = [0.02, 14];
const cellTables = new Map<string, Float64Array>();
/** Chance of a verdict over the difference (darker above 0) when eyes scatter by sd, tabulated once. */
export function cellTable(verdict: Verdict, sd: number, { little, clear }: EyeCuts): Float64Array {
  const key = `${verdict} ${sd} ${little} ${clear}`;
  let table = cellTables.get(key);
  if (!table) {
    const limits = [-Infinity, -clear, -little, little, clear, Infinity];
    const k = VERDICTS.indexOf(verdict);
    const below = (limit: number, signed: number) =>
      limit === Infinity ? 1 : limit === -Infinity ? 0 : normalCdf((limit - signed) / sd);
    table = Float64Array.from({ length: Math.round((2 * CELL_REACH) / CELL_STEP) + 1 }, (_, i) => {
      const signed = i * CELL_STEP - CELL_REACH;
      return Math.max(1e-9, below(limits[k + 1]!, signed) - below(limits[k]!, signed));
    });
    cellTables.set(key, table);
  }
  return table;
}

export const cellAt = (table: Float64Array, signed: number): number =>
  table[Math.min(table.length - 1, Math.max(0, Math.round((signed + CELL_REACH) / CELL_STEP)))]!;
export const HUE_AXIS: Readonly<Record<string, ((s: Seen) => number) | undefined>> = {
  redder: (s) => s.a,
  greener: (s) => -s.a,
  yellower: (s) => s.b,
  bluer: (s) => -s.b,
};
