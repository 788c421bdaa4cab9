import type { Check } from './checks';
import type { JobEvent, Laid } from './events';
import type { Cell } from './job';

/** A cell and what became of it. */
export interface CellState {
  readonly cell: Cell;
  /** ms since 1970; null while it is not on. */
  readonly sprayedAt: number | null;
  /** Why it is left out; null where it is not. */
  readonly leftOut: string | null;
  readonly isDull: boolean;
  /** A coat more than was planned. */
  readonly isExtra: boolean;
  /** What lies right under it, by what is laid and left out. */
  readonly under: readonly Cell[];
  /** It may be tapped: what must lie under it is on, and its checks are over. Whether the clock lets it is `readyAt`. */
  readonly open: boolean;
}

export interface CheckState {
  readonly check: Check;
  /** `passed`, `skipped` with a reason, a `fault` found at it, or still `open`. */
  readonly is: 'open' | 'passed' | 'skipped' | 'fault';
  readonly reason: string;
  readonly at: number | null;
  /** What must be over before it is. */
  readonly due: boolean;
  /** When its own clock has run, ms; null where it has none or it has not begun. */
  readonly readyAt: number | null;
}

export type Step =
  { readonly is: 'cell'; readonly state: CellState } | { readonly is: 'check'; readonly state: CheckState };
/** What is on of one layer on one area. */
export interface LayerOn {
  readonly layerId: string;
  /** Coats that count, on and planned. */
  readonly coats: number;
  readonly planned: number;
  /** Dry, um; grip and tack coats with it. */
  readonly filmUm: number;
  readonly plannedUm: number;
}

export interface AreaOn {
  readonly areaId: string;
  readonly layers: readonly LayerOn[];
  readonly filmUm: number;
  readonly plannedUm: number;
}

export interface JobState {
  readonly started: number | null;
  readonly cells: readonly CellState[];
  readonly checks: readonly CheckState[];
  readonly steps: readonly Step[];
  /** Null when nothing is left to do. */
  readonly next: Step | null;
  /** Other cells that may be taken instead. */
  readonly others: readonly CellState[];
  /** Cells of the next one's round that may go on with it, itself among them; empty for a check. */
  readonly round: readonly CellState[];
  /** When the next may go on by the clock, ms; null when nothing is waited for. */
  readonly readyAt: number | null;
  /** After this the next may not go on as it is, ms; null where no window closes. */
  readonly closesAt: number | null;
  /** What lies under the next was ticked dull. */
  readonly isDull: boolean;
  readonly areas: readonly AreaOn[];
  /** Sprays that are on, and those the plan comes to: with extra coats, without those left out. */
  readonly done: number;
  readonly total: number;
  /** Everything seen, noted and found, in the order of time. */
  readonly history: readonly JobEvent[];
  /** What the last tap told, that an undo would take back, the newest first; empty where there is none. */
  readonly undoable: readonly JobEvent[];
  /** Sprays of cells that the plan has no more; they are on all the same. */
  readonly strays: readonly Laid[];
}
