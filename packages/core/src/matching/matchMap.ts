import type { Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import type { FastModel, Pile, SlabCache } from '../optics/stack';
import type { PreparedCoat } from '../optics/coat';
import { effectCoats, factorsToLabs, type LadderRecipe, type PreparedGround } from './ladder';
import { logScatter, type Scatter, DEFAULT_SCATTER } from './risk';
import { findStopWindow, type StopWindow } from './stopWindow';
import { scoreMatch, type MatchScore, type TargetAngle } from './target';

export interface MapCell {
  readonly coats: number;
  readonly labs: readonly Lab[];
  readonly score: MatchScore;
}

export interface MapRow {
  readonly groundId: string;
  readonly cells: readonly MapCell[];
  readonly stop: StopWindow;
  /** Width of the window in units of the painter's scatter; 0 without a window. */
  readonly forgiveness: number;
}

export interface MapPick {
  readonly groundId: string;
  readonly coats: number;
}

export interface MatchMap {
  readonly counts: readonly number[];
  readonly rows: readonly MapRow[];
  /** Least rms difference over all cells. */
  readonly best: MapPick;
  /** Best cell of the ground whose window is widest against the painter's scatter; null when nothing matches. */
  readonly forgiving: MapPick | null;
}

export interface MapGround extends PreparedGround {
  readonly id: string;
}

/** Rows whose best cell is further off than this many tolerances get no fine curve. */
const WORTH_A_WINDOW = 3;

/** Coat counts of the map: half steps from 0.5 to `last`. */
export function mapCounts(last = 6): number[] {
  return Array.from({ length: last * 2 }, (_, i) => (i + 1) / 2);
}

/**
 * Match map: every ground with every coat count against the target. Piles are shared by all grounds without coats of
 * their own, so the layer operators are worked out once for each column.
 * @param model its geometries are the target's, in the same order.
 */
export function computeMatchMap(
  model: FastModel,
  grounds: readonly MapGround[],
  recipe: LadderRecipe,
  counts: readonly number[],
  target: readonly TargetAngle[],
  viewing: Viewing = D65_10,
  scatter: Scatter = DEFAULT_SCATTER,
): MatchMap {
  const withZero = [0, ...counts];
  const shared = new Map<readonly PreparedCoat[], Pile[]>();
  const none: readonly PreparedCoat[] = [];
  // Slabs are shared by all rows: a tinted metallic's own dye is left out of the trapped path of the coats above it.
  const effects = withZero.map((n) => effectCoats(recipe, n));
  const slabs: SlabCache = new Map();
  const pilesFor = (coats: readonly PreparedCoat[]): Pile[] => {
    const key = coats.length ? coats : none;
    let piles = shared.get(key);
    if (!piles) shared.set(key, (piles = effects.map((above) => model.pile([...key, ...above], slabs))));
    return piles;
  };
  pilesFor(none);
  const rows = grounds.map((ground): MapRow => {
    const labs = pilesFor(ground.coats).map((pile) => factorsToLabs(model.over(ground, pile), viewing));
    const stop = findStopWindow(target, withZero, labs, WORTH_A_WINDOW);
    const forgiveness = stop.window
      ? (stop.window[1] - Math.max(stop.window[0], 0.25)) /
        (logScatter(stop.best.coats || 0.5, scatter) * Math.max(stop.best.coats, 0.5))
      : 0;
    const cells = counts.map((coats, c) => ({ coats, labs: labs[c + 1]!, score: scoreMatch(target, labs[c + 1]!) }));
    return { groundId: ground.id, cells, stop, forgiveness: Math.max(0, forgiveness) };
  });
  const bestCell = (row: MapRow): MapCell => row.cells.reduce((a, b) => (b.score.meanDe < a.score.meanDe ? b : a));
  const bestRow = rows.reduce((a, b) => (bestCell(b).score.meanDe < bestCell(a).score.meanDe ? b : a));
  const open = rows.filter((r) => r.forgiveness > 0 && bestCell(r).score.badness <= 1);
  const widest = open.length ? open.reduce((a, b) => (b.forgiveness > a.forgiveness ? b : a)) : null;
  return {
    counts,
    rows,
    best: { groundId: bestRow.groundId, coats: bestCell(bestRow).coats },
    forgiving: widest && { groundId: widest.groundId, coats: bestCell(widest).coats },
  };
}
