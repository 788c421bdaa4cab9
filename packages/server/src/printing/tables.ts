import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { MM, toPdf } from './pdf';

export const cell = (text: string, more: object = {}): TableCell => ({ text, ...more });
export const heading = (text: string): Content => ({ text, bold: true, fontSize: 12, margin: [0, 8, 0, 2] });

const LINES = {
  hLineWidth: (i: number) => (i === 0 ? 0 : 0.5),
  vLineWidth: () => 0,
  paddingTop: () => 2.5,
  paddingBottom: () => 2.5,
  paddingLeft: (i: number) => (i ? 4 : 0),
  paddingRight: () => 2,
};

/** A table of hairlines; the first column takes the room that is left. */
export const table = (head: readonly string[], rows: TableCell[][]): Content => ({
  table: {
    headerRows: 1,
    widths: ['*', ...head.slice(1).map(() => 'auto')],
    body: [head.map((h) => cell(h, { color: '#444', fontSize: 8.5 })), ...rows],
  },
  layout: LINES,
});

/** An A4 sheet (ISO 216): its name and what leads beside its address as QR, and what follows. */
export function sheet(q: {
  readonly title: string;
  readonly lead: readonly Content[];
  readonly address: string;
  readonly content: readonly Content[];
}): Promise<Buffer> {
  const document: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [14 * MM, 12 * MM, 14 * MM, 10 * MM],
    info: { title: q.title },
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
