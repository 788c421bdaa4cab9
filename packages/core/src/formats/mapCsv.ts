import Papa from 'papaparse';
import { findGround, type GroundMaterial } from '../materials/grounds';
import type { MapCell } from '../matching/matchMap';
import type { TargetAngle } from '../matching/target';

/** Figures stay figures, so that a negative one is not taken for a formula. */
const rounded = (v: number, digits: number): number => Number(v.toFixed(digits));

/** What of a match map a file of it tells. */
interface MapToTell {
  readonly rows: readonly { readonly groundId: string; readonly cells: readonly MapCell[] }[];
}

/** A match map as CSV: one line a cell, with its score and its Lab and difference per angle. Differences are CIEDE2000. */
export function mapToCsv(map: MapToTell, target: readonly TargetAngle[], grounds?: readonly GroundMaterial[]): string {
  const perAngle = target.flatMap(({ aspecular }) => ['L', 'a', 'b', 'dE00'].map((name) => `${name} ${aspecular}`));
  const rows = map.rows.flatMap((row) =>
    row.cells.map((cell) => [
      findGround(row.groundId, grounds).name,
      cell.coats,
      rounded(cell.score.rmsDe, 3),
      rounded(cell.score.toleranceRatio, 3),
      cell.score.toleranceRatio <= 1 ? 'yes' : 'no',
      ...cell.labs.flatMap((lab, g) => [...lab, cell.score.differences[g]!].map((v) => rounded(v, 2))),
    ]),
  );
  return Papa.unparse([['ground', 'coats', 'rms dE00', 'worst over tolerance', 'passes', ...perAngle], ...rows], {
    escapeFormulae: true,
  });
}
