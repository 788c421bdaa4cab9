import { type Lab } from '../colour/lab';
import { de2000 } from '../colour/difference';
import { leastOf } from '../letdown/bestCount';
import type { Kind } from './world';

/** How the study's painters scatter: hand and session of a card, edges, coats, spots. Not what the fit believes of them. */
export const SCATTER = {
  hand: 0.2,
  session: 0.06,
  edges: 0.04,
  firstCoat: 0.15,
  coat: 0.08,
  jobShared: 0.4,
  spotShare: 0.02,
  spotCount: 0.05,
} as const;
/** One painter's figures. */
export interface PainterFigures {
  readonly kind: Kind;
  readonly otherInstrument: boolean;
  /** dE00 of rungs 3 and 4 predicted from 1 and 2. */
  readonly predicted: readonly number[];
  readonly predictedByLines: readonly number[];
  /** Count from the card less the count a perfect reader of it would say: four rungs, two rungs, lines through four and two. */
  readonly four: number;
  readonly two: number;
  readonly linesFour: number;
  readonly linesTwo: number;
  readonly nearestRung: number;
  readonly cardHolds: boolean;
  readonly objectHolds: boolean;
  readonly twoHolds: boolean;
  /** Rungs named although the card was right. */
  readonly blamed: boolean;
  /** Of a card with two rungs exchanged: named. */
  readonly exchangedNamed: boolean;
  readonly advised: boolean;
  /** Jobs of finishes that can be reached: how they end, wet looks and dry ones; and the width of the true window. */
  readonly jobs: readonly {
    readonly wet: boolean;
    readonly end: JobEnd;
    readonly blind: JobEnd;
    readonly width: number;
  }[];
  readonly fitMs: number;
  /** By eye alone, four rungs from three places: count, whether nine in ten holds, and how jobs judged by eye end. */
  readonly eye: { readonly error: number; readonly holds: boolean; readonly ends: readonly JobEnd[] };
}

export type JobEnd = 'in' | 'over' | 'short';

export const LAST = 8;
/** Least rms count on true colours. */
export const bestOf = (colours: (n: number) => readonly Lab[], wanted: readonly Lab[]): number =>
  leastOf(0.05, 7, 0.05, (n) => colours(n).reduce((s, lab, g) => s + de2000(wanted[g]!, lab) ** 2, 0));
