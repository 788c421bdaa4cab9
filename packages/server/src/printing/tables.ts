import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { MM, toPdf } from './pdf';

export const cell = (text: string, more: object = {}): TableCell => ({ text, ...more });
export const heading = (text: string): Content => ({ text, bold: true, fontSize: 12, margin: [0, 8, 0, 2] });

/** Lines of one kind on a paper: what is more stands in the program. */
const MOST_LINES = 200;

/** The first of some lines, and how many more there are. */
export const someOf = (lines: readonly string[]): readonly string[] =>
  lines.length > MOST_LINES
    ? [...lines.slice(0, MOST_LINES), `and ${lines.length - MOST_LINES} more, in the program`]
    : lines;

/** The same said several times is said once, with how often. */
export function counted(lines: readonly string[]): readonly string[] {
  const times = new Map<string, number>();
  for (const line of lines) times.set(line, (times.get(line) ?? 0) + 1);
  return [...times].map(([line, n]) => (n > 1 ? `${line} (${n} times)` : line));
}

/** A table of hairlines; the first column takes the room that is left. */
export const table = (head: readonly string[], rows: TableCell[][]): Content => ({
  table: {
    headerRows: 1,
    widths: ['*', ...head.slice(1).map(() => 'auto')],
    body: [head.map((h) => cell(h, { color: '#444', fontSize: 8.5 })), ...rows],
  },
  layout: 'hairlines',
});

/** What is of a try-out says so across the whole paper. */
export const simulatedMark = (isTryOut: boolean): Pick<TDocumentDefinitions, 'watermark'> =>
  isTryOut ? { watermark: { text: 'try-out, simulated', color: '#000', opacity: 0.13, bold: true } } : {};

/** An A4 sheet (ISO 216): its name and what leads beside its address as QR, and what follows. */
export function sheet(q: {
  readonly title: string;
  readonly lead: readonly Content[];
  readonly address: string;
  readonly content: readonly Content[];
  readonly isTryOut: boolean;
}): Promise<Buffer> {
  const document: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [14 * MM, 12 * MM, 14 * MM, 10 * MM],
    info: { title: q.title },
    ...simulatedMark(q.isTryOut),
    defaultStyle: { fontSize: 10, lineHeight: 1.15 },
    content: [
      {
        columns: [
          { width: '*', stack: [...q.lead] },
          { width: 26 * MM, qr: q.address, fit: 24 * MM, eccLevel: 'M', alignment: 'right' },
        ],
      },
      ...q.content,
    ],
  };
  return toPdf(document);
}
