import Papa from 'papaparse';

/** Largest file looked at, characters. */
export const CSV_MAX_LENGTH = 1_000_000;

/** Lines of a CSV that hold something, by their number in the file; comma, semicolon or tab between. */
export function csvRows(text: string): { readonly line: number; readonly cells: readonly string[] }[] {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: false,
    delimitersToGuess: [',', ';', '\t'],
  });
  return parsed.data.map((cells, i) => ({ line: i + 1, cells })).filter((r) => r.cells.some((c) => c.trim() !== ''));
}
