import { csvRows, CSV_MAX_LENGTH } from './csvRows';
import { decimalIn } from './decimal';
import { READING_LIMITS as LIMITS, type Reading } from './readings';

export { CSV_MAX_LENGTH } from './csvRows';
const MAX_ROWS = 2000;

export interface CsvProblem {
  /** Line in the file, 1 = first; null when it concerns the whole file. */
  readonly line: number | null;
  readonly message: string;
}

export type CsvResult =
  | { readonly ok: true; readonly readings: readonly Reading[] }
  | {
      readonly ok: false;
      readonly problems: readonly CsvProblem[];
      /** Given when only the columns' names were not understood. */
      readonly header?: { readonly names: readonly string[]; readonly first: readonly string[] };
    };

const COLUMN_NAMES: Record<string, readonly string[]> = {
  spot: ['spot', 'place', 'name'],
  incidence: ['incidence', 'lamp'],
  aspecular: ['aspecular', 'angle', 'view'],
  l: ['l', 'l*'],
  a: ['a', 'a*'],
  b: ['b', 'b*'],
};

const fail = (line: number | null, message: string): CsvResult => ({ ok: false, problems: [{ line, message }] });

/**
 * Reads a CSV of readings: one row a spot and angle, columns `aspecular, L, a, b` and if wanted `spot` and `incidence`
 * (45 when missing), in any order, comma, semicolon or tab between. Nothing is taken when any line is wrong.
 * @param columns which column holds what, by number, where the names say nothing.
 */
export function parseReadingsCsv(text: string, columns?: Readonly<Record<string, number>>): CsvResult {
  if (text.length > CSV_MAX_LENGTH)
    return fail(null, 'This file is over 1 MB. A file of readings is a few lines; check that it is the right one.');
  if (text.trim() === '') return fail(null, 'This file is empty.');
  if (text.includes('\0'))
    return fail(null, 'This is not a text file. Export the readings as CSV and choose that file.');
  const rows = csvRows(text);
  if (!rows.length) return fail(null, 'This file is empty.');
  const head = rows[0]!.cells.map((c) => c.trim().toLowerCase());
  const column = (key: string): number =>
    columns ? (columns[key] ?? -1) : head.findIndex((c) => COLUMN_NAMES[key]!.includes(c));
  const missing = ['aspecular', 'l', 'a', 'b'].filter((key) => column(key) < 0);
  if (missing.length) {
    const failed = fail(
      rows[0]!.line,
      `The first line must name the columns aspecular, L, a and b; missing: ${missing.map((m) => (m === 'l' ? 'L' : m)).join(', ')}.`,
    );
    const tabular = rows.length > 1 && rows[0]!.cells.length >= 4 && rows[1]!.cells.length >= 4;
    return tabular && !failed.ok
      ? {
          ...failed,
          header: { names: rows[0]!.cells.map((c) => c.trim()), first: rows[1]!.cells.map((c) => c.trim()) },
        }
      : failed;
  }
  if (rows.length === 1) return fail(rows[0]!.line, 'There are column names but no readings below them.');
  if (rows.length > MAX_ROWS + 1)
    return fail(null, `This file has ${rows.length - 1} rows; ${MAX_ROWS} is the most that can be read at once.`);

  const problems: CsvProblem[] = [];
  const readings: Reading[] = [];
  const seen = new Map<string, number>();
  for (const { line, cells } of rows.slice(1)) {
    // A leading apostrophe keeps spreadsheets from computing the cell.
    const text_ = (key: string): string =>
      column(key) < 0 ? '' : (cells[column(key)] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
    const number = (key: string, label: string, lo: number, hi: number): number => {
      const raw = text_(key);
      const value = decimalIn(raw);
      if (Number.isNaN(value))
        problems.push({
          line,
          message: raw === '' ? `${label} is missing.` : `${label} must be a number; it says “${raw.slice(0, 20)}”.`,
        });
      else if (value < lo || value > hi)
        problems.push({ line, message: `${label} is ${value}; it must lie between ${lo} and ${hi}.` });
      return value;
    };
    const incidence = text_('incidence') === '' ? 45 : number('incidence', 'The lamp angle', 0, LIMITS.incidenceMax);
    const reading: Reading = {
      spot: text_('spot') || '1',
      incidence,
      aspecular: number('aspecular', 'The view angle', LIMITS.aspecularMin, LIMITS.aspecularMax),
      l: number('l', 'L*', LIMITS.lMin, LIMITS.lMax),
      a: number('a', 'a*', -LIMITS.abMax, LIMITS.abMax),
      b: number('b', 'b*', -LIMITS.abMax, LIMITS.abMax),
    };
    const key = `${reading.spot}/${reading.incidence}/${reading.aspecular}`;
    const before = seen.get(key);
    if (before !== undefined) {
      problems.push({
        line,
        message: `Spot ${reading.spot} at ${reading.aspecular}° was already given on line ${before}. Name the spots differently, or remove one.`,
      });
    }
    seen.set(key, line);
    readings.push(reading);
  }
  return problems.length ? { ok: false, problems: problems.slice(0, 20) } : { ok: true, readings };
}
