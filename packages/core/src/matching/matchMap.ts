import type { MapGround } from '../optics/preparedGround';
import type { Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import type { PreparedCoat } from '../optics/coat';
import type { FastModel, Pile, SlabCache } from '../optics/stack';
import { effectCoats, factorsToLabs, type EffectCoats } from './ladder';
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
  /** Passing cell with the least cost; null when nothing matches or no costs were given. */
  readonly cheapest: MapPick | null;
}

/** Rows whose best cell is further off than this many tolerances get no fine curve. */
const WORTH_A_WINDOW = 3;

/** Coat counts of the map: half steps from 0.5 to `last`. */
export function mapCounts(last = 6): number[] {
  return Array.from({ length: last * 2 }, (_, i) => (i + 1) / 2);
}

/** How a map is looked at. */
export interface MapLook {
  readonly viewing?: Viewing;
  readonly scatter?: Scatter;
}

/**
 * Radiance factors of every ground, bare and under every count, [geometry * 31 + wavelength] each. Piles are shared by all grounds without
 * coats of their own, slabs by all: a tinted metallic's own dye is left out of the trapped path of the coats above it.
 */
export function mapFactors(
  model: FastModel,
  grounds: readonly MapGround[],
  recipe: EffectCoats,
  counts: readonly number[],
): Float64Array[][] {
  const slabs: SlabCache = new Map();
  const shared = new Map<readonly PreparedCoat[], Pile[]>();
  const none: readonly PreparedCoat[] = [];
  const effects = counts.map((n) => effectCoats(recipe, n));
  return grounds.map((ground) => {
    // Lays the ground's own slabs to those that are shared.
    const alone = model.bare(ground, slabs);
    const key = ground.coats.length ? ground.coats : none;
    let piles = shared.get(key);
    if (!piles) shared.set(key, (piles = effects.map((above) => model.pile([...key, ...above], slabs))));
    return [alone, ...piles.map((pile) => model.over(ground, pile))];
  });
}

/**
 * Rows of a match map: every ground with every coat count against the target.
 * @param model its geometries are the target's, in the same order.
 */
export function computeMapRows(
  model: FastModel,
  grounds: readonly MapGround[],
  recipe: EffectCoats,
  counts: readonly number[],
  target: readonly TargetAngle[],
  look: MapLook = {},
): MapRow[] {
  const factors = mapFactors(model, grounds, recipe, counts);
  return grounds.map((ground, r) => {
    const labs = factors[r]!.map((f) => factorsToLabs(f, look.viewing ?? D65_10));
    return rowOf(ground.id, labs, counts, target, look);
  });
}

/** @param labs of the bare ground and of every count */
export function rowOf(
  groundId: string,
  labs: readonly (readonly Lab[])[],
  counts: readonly number[],
  target: readonly TargetAngle[],
  { scatter = DEFAULT_SCATTER }: MapLook,
): MapRow {
  const stop = findStopWindow(target, [0, ...counts], labs, WORTH_A_WINDOW);
  const forgiveness = stop.window
    ? (stop.window[1] - Math.max(stop.window[0], 0.25)) /
      (logScatter(stop.best.coats || 0.5, scatter) * Math.max(stop.best.coats, 0.5))
    : 0;
  const cells = counts.map((coats, c) => ({ coats, labs: labs[c + 1]!, score: scoreMatch(target, labs[c + 1]!) }));
  return { groundId, cells, stop, forgiveness: Math.max(0, forgiveness) };
}

/** The best cell of a row. */
export function bestCell(row: MapRow): MapCell {
  return row.cells.reduce((a, b) => (b.score.rmsDe < a.score.rmsDe ? b : a));
}

/**
 * A map of its rows with its three picks: the best match, the most forgiving ground, the cheapest cell that passes.
 * @param costOf cost of a cell in the shop's currency per square metre.
 */
export function assembleMap(
  counts: readonly number[],
  rows: readonly MapRow[],
  costOf?: (pick: MapPick) => number,
): MatchMap {
  const pickOf = (row: MapRow, cell = bestCell(row)): MapPick => ({ groundId: row.groundId, coats: cell.coats });
  const bestRow = rows.reduce((a, b) => (bestCell(b).score.rmsDe < bestCell(a).score.rmsDe ? b : a));
  const open = rows.filter((r) => r.forgiveness > 0 && bestCell(r).score.toleranceRatio <= 1);
  const widest = open.length ? open.reduce((a, b) => (b.forgiveness > a.forgiveness ? b : a)) : null;
  let cheapest: MapPick | null = null;
  if (costOf) {
    let least = Infinity;
    for (const row of rows) {
      const cell = row.cells.find((c) => c.score.toleranceRatio <= 1);
      if (!cell) continue;
      const cost = costOf(pickOf(row, cell));
      if (cost < least) [least, cheapest] = [cost, pickOf(row, cell)];
    }
  }
  return { counts, rows, best: pickOf(bestRow), forgiving: widest && pickOf(widest), cheapest };
}

/** Rows and picks in one go; see {@link computeMapRows}. */
export function computeMatchMap(
  model: FastModel,
  grounds: readonly MapGround[],
  recipe: EffectCoats,
  counts: readonly number[],
  target: readonly TargetAngle[],
  look: MapLook = {},
): MatchMap {
  return assembleMap(counts, computeMapRows(model, grounds, recipe, counts, target, look));
}

/**
 * Rows as one flat array, cheap to hand from a worker to the screen: per row the window (lo, hi or NaN), closes, best coats,
 * its rms difference and toleranceRatio, forgiveness; per cell toleranceRatio, rms, and per angle difference and Lab.
 */
export function packRows(rows: readonly MapRow[]): Float64Array {
  const angles = rows[0]?.cells[0]?.labs.length ?? 0;
  const columns = rows[0]?.cells.length ?? 0;
  const out = new Float64Array(rows.length * (PACKED_ROW + columns * (2 + 4 * angles)));
  let p = 0;
  for (const { stop, forgiveness, cells } of rows) {
    out[p++] = stop.window?.[0] ?? NaN;
    out[p++] = stop.window?.[1] ?? NaN;
    out[p++] = stop.closes ? 1 : 0;
    out[p++] = stop.best.coats;
    out[p++] = stop.best.rmsDe;
    out[p++] = stop.best.toleranceRatio;
    out[p++] = forgiveness;
    for (const { score, labs } of cells) {
      out[p++] = score.toleranceRatio;
      out[p++] = score.rmsDe;
      for (let g = 0; g < angles; g++) {
        out[p++] = score.differences[g]!;
        out[p++] = labs[g]![0];
        out[p++] = labs[g]![1];
        out[p++] = labs[g]![2];
      }
    }
  }
  return out;
}

const PACKED_ROW = 7;

/** Rows from {@link packRows}; their stop windows come without the curve. */
export function unpackRows(
  packed: Float64Array,
  groundIds: readonly string[],
  counts: readonly number[],
  angles: number,
): MapRow[] {
  let p = 0;
  return groundIds.map((groundId) => {
    const [lo, hi, closes, coats, rmsDe, toleranceRatio, forgiveness] = packed.subarray(p, p + PACKED_ROW);
    p += PACKED_ROW;
    const cells = counts.map((n): MapCell => {
      const [cellBadness, cellMean] = [packed[p]!, packed[p + 1]!];
      p += 2;
      const differences: number[] = [];
      const labs: Lab[] = [];
      for (let g = 0; g < angles; g++, p += 4) {
        differences.push(packed[p]!);
        labs.push([packed[p + 1]!, packed[p + 2]!, packed[p + 3]!]);
      }
      return { coats: n, labs, score: { toleranceRatio: cellBadness, rmsDe: cellMean, differences } };
    });
    return {
      groundId,
      cells,
      stop: {
        window: Number.isNaN(lo!) ? null : [lo!, hi!],
        closes: closes === 1,
        best: { coats: coats!, rmsDe: rmsDe!, toleranceRatio: toleranceRatio! },
        curve: [],
      },
      forgiveness: forgiveness!,
    };
  });
}
