import { CSV_MAX_LENGTH, parseReadingsCsv } from './readingsCsv';
import { type ImportHints, type ImportResult, fail } from './samples';
import { parseCgats } from './cgats';
import { parseColourXml } from './colourXml';

/** Reads readings from a file's text, whatever its format: XML, CGATS, CSV. Nothing is taken while anything is wrong or open. */
export function importReadings(text: string, hints: ImportHints = {}): ImportResult {
  if (text.length > CSV_MAX_LENGTH)
    return fail(null, 'This file is over 1 MB. A file of readings is a few lines; check that it is the right one.');
  try {
    return readAny(text.replace(/^\uFEFF/, ''), hints);
  } catch {
    // A file may be nested or mangled beyond what a reader takes: then nothing is taken from it, and that is said.
    return fail(null, 'This file could not be read: it is not built like a file of readings. Export it again, as CSV.');
  }
}

function readAny(plain: string, hints: ImportHints): ImportResult {
  if (plain.trimStart().startsWith('<')) return parseColourXml(plain, hints);
  if (plain.split('\n').some((l) => l.trim().toUpperCase() === 'BEGIN_DATA_FORMAT')) return parseCgats(plain, hints);
  const csv = parseReadingsCsv(plain, hints.columns);
  if (csv.ok) return { ok: true, readings: csv.readings, format: 'CSV' };
  if (csv.header && !hints.columns)
    return { ok: 'ask', question: { ask: 'columns', header: csv.header.names, first: csv.header.first } };
  return { ok: false, problems: csv.problems };
}
