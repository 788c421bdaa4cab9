import type { ClearState } from '../finishes/texture';
import type { ShapedPiece } from '../mixing/batch';

/** An area as a painter enters it: its shape for the area, its place in the booth for the order. */
export interface AreaRow extends ShapedPiece {
  readonly id: string;
  readonly name: string;
  readonly x: number | null;
  readonly y: number | null;
  readonly first: boolean;
  readonly mounting: 'object' | 'stand';
  readonly objectId: string;
  /** Null for the job's first finish. */
  readonly finishId: string | null;
  readonly on: string | null;
  readonly clear: ClearState;
}

/** Its one object while none were entered. */
export const START_OBJECT = 'object-1';

/** Before the painter said anything: two square metres. */
export const START_AREAS: readonly AreaRow[] = [
  {
    id: 'piece-1',
    name: 'Whole piece',
    shape: 'area',
    measures: { area: 2 },
    count: 1,
    x: null,
    y: null,
    mounting: 'object',
    first: false,
    objectId: START_OBJECT,
    finishId: null,
    on: null,
    clear: 'cleared',
  },
];
