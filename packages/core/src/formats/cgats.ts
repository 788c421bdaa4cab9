import { labOf } from '../colour/lab';
import { decimalIn } from './decimal';
import type { CsvProblem } from './readingsCsv';
import {
  type ImportHints,
  type ImportResult,
  fail,
  geometryIn,
  type RawSample,
  angleInName,
  toReadings,
} from './samples';

/** Splits a line of CGATS text at blanks or tabs, quoted texts kept together. */
const tokens = (line: string): string[] => [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((m) => m[1] ?? m[2] ?? '');
/**
 * CGATS text (ISO 28178): Lab or spectral columns, the angle in a column ASPECULAR or GEOMETRY, in a keyword
 * MEASUREMENT_GEOMETRY, or in the sample's name ("45as15"). Counts must be right; nothing is taken when anything is wrong.
 */
export function parseCgats(text: string, hints: ImportHints = {}): ImportResult {
  const lines = text.split(/\r?\n/);
  const find = (word: string) => lines.findIndex((l) => l.trim().toUpperCase() === word);
  const keyword = (word: string): { value: string; line: number } | null => {
    const at = lines.findIndex((l) => l.trim().toUpperCase().startsWith(word));
    return at < 0 ? null : { value: tokens(lines[at]!).slice(1).join(' '), line: at + 1 };
  };
  const [formatFrom, formatTo, dataFrom, dataTo] = [
    'BEGIN_DATA_FORMAT',
    'END_DATA_FORMAT',
    'BEGIN_DATA',
    'END_DATA',
  ].map(find) as [number, number, number, number];
  if (formatFrom < 0 || formatTo < formatFrom)
    return fail(null, 'BEGIN_DATA_FORMAT and END_DATA_FORMAT must name the columns.');
  if (dataFrom < 0) return fail(null, 'There is no BEGIN_DATA.');
  if (dataTo < dataFrom)
    return fail(dataFrom + 1, 'BEGIN_DATA is never closed by END_DATA; the file may be cut short.');
  const fields = lines
    .slice(formatFrom + 1, formatTo)
    .flatMap(tokens)
    .map((f) => f.toUpperCase());
  const problems: CsvProblem[] = [];
  const counts = (word: string, is: number, what: string): void => {
    const said = keyword(word);
    if (said && Number(said.value) !== is)
      problems.push({ line: said.line, message: `${word} says ${said.value}, but there are ${is} ${what}.` });
  };
  counts('NUMBER_OF_FIELDS', fields.length, 'columns');
  const rows = lines
    .slice(dataFrom + 1, dataTo)
    .map((l, i) => ({ line: dataFrom + 2 + i, cells: tokens(l) }))
    .filter((r) => r.cells.length);
  counts('NUMBER_OF_SETS', rows.length, 'lines of data');
  const column = (...names: string[]): number => names.map((n) => fields.indexOf(n)).find((c) => c >= 0) ?? -1;
  const lab = [column('LAB_L'), column('LAB_A'), column('LAB_B')];
  const waves = fields.flatMap((f, i) => {
    const m = /^(?:SPECTRAL_)?(?:NM_?)?_?(\d{3})$/.exec(f);
    return m ? [[Number(m[1]), i] as const] : [];
  });
  if (lab.some((c) => c < 0) && !waves.length)
    return fail(formatFrom + 2, 'The columns hold neither LAB_L, LAB_A, LAB_B nor SPECTRAL_… values.');
  const name = column('SAMPLE_NAME', 'SAMPLE_ID', 'SAMPLEID');
  const angle = column('ASPECULAR', 'ASPECULAR_ANGLE', 'GEOMETRY', 'MEASUREMENT_GEOMETRY');
  const lamp = column('INCIDENCE', 'ILLUMINATION_ANGLE');
  const overall = geometryIn(keyword('MEASUREMENT_GEOMETRY')?.value ?? '');
  const samples: RawSample[] = [];
  for (const { line, cells } of rows) {
    if (cells.length !== fields.length) {
      problems.push({ line, message: `This line has ${cells.length} values for ${fields.length} columns.` });
      continue;
    }
    const number = (c: number): number => {
      const raw = cells[c]!;
      const value = decimalIn(raw);
      if (Number.isNaN(value))
        problems.push({ line, message: `“${raw.slice(0, 20)}” in ${fields[c]} is not a number.` });
      return value;
    };
    const own =
      angle >= 0
        ? (geometryIn(cells[angle]!) ?? { incidence: lamp >= 0 ? number(lamp) : 45, aspecular: number(angle) })
        : null;
    samples.push({
      line,
      name: name >= 0 ? cells[name]! : '',
      geometry: own ?? overall ?? (name >= 0 ? angleInName(cells[name]!) : null),
      lab: lab.every((c) => c >= 0) ? labOf(lab.map(number)) : null,
      spectrum: waves.length ? waves.map(([nm, c]) => [nm, number(c)] as const) : null,
    });
  }
  return problems.length ? { ok: false, problems: problems.slice(0, 20) } : toReadings(samples, 'CGATS', hints);
}
