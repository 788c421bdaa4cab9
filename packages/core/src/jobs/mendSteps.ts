import type { StyleId } from '../finishes/styles';
import type { EyeView } from '../letdown/eyeWords';
import type { Reach } from './reach';

/** What is done by hand in a mend. */
export const WORK_KINDS = ['dry', 'clean', 'sand', 'polish', 'strip', 'set', 'tint'] as const;
export type WorkKind = (typeof WORK_KINDS)[number];

/** Ways out of what is off, as the log names them. */
export const WAY_KINDS = [
  'faded',
  'all',
  'control',
  'richen',
  'ground-spot',
  'reground',
  'sand-effect',
  'polish',
  'tint',
  'fault',
] as const;
export type WayKind = (typeof WAY_KINDS)[number];

/** A coat of a mend goes over all of an area, or about one place of it. */
export type MendReach = Extract<Reach, { kind: 'all' | 'fan' }>;

/** One step of a mend, as the log keeps it. */
export type MendStep =
  | {
      readonly is: 'work';
      readonly kind: WorkKind;
      /** What there is to do. */
      readonly text: string;
      /** Its own clock, minutes; 0 for none. */
      readonly minutes: number;
    }
  | {
      readonly is: 'coat';
      readonly layerId: string;
      readonly style: StyleId;
      /** Of a coat of that style: 1 as it is, less for a thinner one. */
      readonly share: number;
      readonly reach: MendReach;
      /** Laid of the mix let down 1:1. */
      readonly letDown: boolean;
      /** What lies below counts no more: the colour begins anew. */
      readonly anew: boolean;
    };

/** A way out that was chosen: it becomes cells and checks of the run. */
export interface Mend {
  readonly way: WayKind;
  /** Place it is about, as it is called in looks. */
  readonly spot: string;
  /** What was off, as it was said. */
  readonly off: string;
  /** Places it is looked at from when it is done. */
  readonly views: readonly EyeView[];
  readonly steps: readonly MendStep[];
}
