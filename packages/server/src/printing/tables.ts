import type { Content, TableCell } from 'pdfmake/interfaces';

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
