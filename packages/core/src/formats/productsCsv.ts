import Papa from 'papaparse';
import type { Additive, Product } from '../products/products';
import { csvRows, CSV_MAX_LENGTH } from './csvRows';
import { decimalIn } from './decimal';
import type { CsvProblem } from './readingsCsv';

/** Columns of a product file. A row is a product, or a hardener or reducer of the product above it. */
const COLUMNS = [
  'row',
  'name',
  'kind',
  'chemistry',
  'ratio',
  'pours',
  'density g/ml',
  'volume solids',
  'VOC g/l',
  'water share',
  'exempt share',
  'flash min',
  'recoat min',
  'pot life min',
  'film um',
  'tip mm',
  'pressure bar',
  'from C',
  'to C',
  'price a litre',
  'note',
] as const;

/** A product as it stands in a file, not yet checked against its bounds. */
export interface ProductCandidate {
  readonly line: number;
  readonly product: Record<string, unknown>;
}

export type ProductsCsvResult =
  | { readonly ok: true; readonly products: readonly ProductCandidate[] }
  | { readonly ok: false; readonly problems: readonly CsvProblem[] };

/** Products as CSV in metric units, a row each, their hardeners and reducers below them. Formulas are escaped. */
export function productsToCsv(products: readonly Product[]): string {
  const rows = products.flatMap((p) => [
    [
      'product',
      p.name,
      p.kind,
      p.chemistry,
      p.ratio,
      p.pours.join(' '),
      p.densityGPerMl ?? '',
      p.volumeSolids,
      p.vocGPerL,
      p.waterShare,
      p.exemptShare,
      p.flashMinutes,
      p.recoatMinutes ?? '',
      p.potLifeMinutes ?? '',
      p.filmUm,
      p.tipMm,
      p.pressureBar,
      '',
      '',
      p.pricePerLitre,
      p.note,
    ],
    ...p.additives.map((a) => [
      a.role,
      a.name,
      ...Array<string>(4).fill(''),
      a.densityGPerMl ?? '',
      '',
      a.vocGPerL,
      ...Array<string>(8).fill(''),
      a.fromC,
      a.toC,
      a.pricePerLitre,
      '',
    ]),
  ]);
  return Papa.unparse([[...COLUMNS], ...rows], { escapeFormulae: true });
}

/** Reads what {@link productsToCsv} writes; columns in any order, decimal point or comma. Nothing is taken when any line is wrong. */
export function parseProductsCsv(text: string): ProductsCsvResult {
  const fail = (line: number | null, message: string): ProductsCsvResult => ({
    ok: false,
    problems: [{ line, message }],
  });
  if (text.length > CSV_MAX_LENGTH) return fail(null, 'This file is over 1 MB; a list of products is a few pages.');
  if (text.includes('\0'))
    return fail(null, 'This is not a text file. Export the products as CSV and choose that file.');
  const rows = csvRows(text);
  if (rows.length < 2) return fail(null, 'This file holds no product.');
  const head = rows[0]!.cells.map((c) => c.trim().toLowerCase());
  const missing = COLUMNS.filter((c) => !head.includes(c.toLowerCase()));
  if (missing.length) return fail(rows[0]!.line, `These columns are missing: ${missing.join(', ')}.`);
  const problems: CsvProblem[] = [];
  const products: { line: number; product: Record<string, unknown>; additives: Partial<Additive>[] }[] = [];
  for (const { line, cells } of rows.slice(1)) {
    const text_ = (name: (typeof COLUMNS)[number]): string => {
      const raw = (cells[head.indexOf(name.toLowerCase())] ?? '').trim();
      // A leading apostrophe keeps spreadsheets from computing the cell.
      return /^'[=+\-@\t\r]/.test(raw) ? raw.slice(1) : raw;
    };
    const figure = (name: (typeof COLUMNS)[number]): number | null => {
      const raw = text_(name);
      if (raw === '') return null;
      const value = decimalIn(raw);
      if (!Number.isFinite(value)) problems.push({ line, message: `${name}: “${raw.slice(0, 20)}” is not a number.` });
      return value;
    };
    const row = text_('row').toLowerCase();
    if (row === 'product') {
      products.push({
        line,
        additives: [],
        product: {
          name: text_('name'),
          kind: text_('kind').toLowerCase(),
          chemistry: text_('chemistry').toLowerCase(),
          ratio: text_('ratio'),
          pours: text_('pours').toLowerCase().split(/\s+/).filter(Boolean),
          densityGPerMl: figure('density g/ml'),
          volumeSolids: figure('volume solids'),
          vocGPerL: figure('VOC g/l') ?? 0,
          waterShare: figure('water share') ?? 0,
          exemptShare: figure('exempt share') ?? 0,
          flashMinutes: figure('flash min'),
          recoatMinutes: figure('recoat min'),
          potLifeMinutes: figure('pot life min'),
          filmUm: figure('film um'),
          tipMm: figure('tip mm'),
          pressureBar: figure('pressure bar'),
          pricePerLitre: figure('price a litre') ?? 0,
          note: text_('note'),
        },
      });
    } else if (row === 'hardener' || row === 'reducer') {
      const above = products.at(-1);
      if (!above) problems.push({ line, message: `This ${row} stands above the first product; put it below its own.` });
      above?.additives.push({
        role: row,
        name: text_('name'),
        fromC: figure('from C') ?? NaN,
        toC: figure('to C') ?? NaN,
        densityGPerMl: figure('density g/ml'),
        vocGPerL: figure('VOC g/l') ?? 0,
        pricePerLitre: figure('price a litre') ?? 0,
      });
    } else problems.push({ line, message: 'The column “row” says product, hardener or reducer.' });
  }
  if (problems.length) return { ok: false, problems };
  return {
    ok: true,
    products: products.map((p) => ({ line: p.line, product: { ...p.product, additives: p.additives } })),
  };
}
