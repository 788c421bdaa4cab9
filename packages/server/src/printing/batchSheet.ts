import type { Batch, BATCH_SIZES } from '@steady-gleam/contracts';
import { sayMeasure, toShown, unitName, type UnitSystem } from '@steady-gleam/core/units';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { paperClock } from './clock';
import { MM, toPdf } from './pdf';
import { simulatedMark } from './tables';

/** A label the size of a bank card (ISO/IEC 7810 ID-1) for the cup; an A5 sheet (ISO 216) for the file. Millimetres. */
const SIZES = {
  label: { width: 85.6, height: 53.98, text: 7, qr: 15, margin: 4 },
  sheet: { width: 148, height: 210, text: 11, qr: 26, margin: 11 },
} as const;

/** A batch on paper: what was poured, to which mark, by which weight, until when it is good, and its lots. */
export function batchSheet(
  batch: Batch,
  size: (typeof BATCH_SIZES)[number],
  units: UnitSystem,
  address: string,
  zone: string,
  isTryOut: boolean,
): Promise<Buffer> {
  const clock = paperClock(zone);
  const time = (iso: string, minutes = 0) => clock.moment(new Date(new Date(iso).getTime() + minutes * 60_000));
  const { width, height, text, qr, margin } = SIZES[size];
  const sheet = size === 'sheet';
  const volume = (ml: number) => toShown('volume', ml, units).toFixed(units === 'us' ? 2 : 0);
  const mass = (g: number | null) => (g === null ? '–' : toShown('mass', g, units).toFixed(units === 'us' ? 2 : 1));
  let poured = 0;
  let scale: number | null = 0;
  const rows = batch.parts.map((p): TableCell[] => {
    poured += p.ml;
    scale = scale === null || p.grams === null ? null : scale + p.grams;
    const right = (value: string, bold = false): TableCell => ({ text: value, alignment: 'right', bold });
    return [
      { text: p.lot && !sheet ? `${p.name} (${p.lot})` : p.name },
      ...(sheet ? [{ text: p.lot || '________' }, right(String(Number(p.parts.toFixed(2)))), right(volume(p.ml))] : []),
      right(volume(poured), true),
      ...(sheet ? [right(mass(p.grams))] : []),
      right(mass(scale), true),
    ];
  });
  const head = (value: string, right = true): TableCell => ({
    text: value,
    alignment: right ? 'right' : 'left',
    fontSize: text * 0.8,
    color: '#444',
  });
  const [ml, g] = [unitName('volume', units), unitName('mass', units)];
  const heads = [
    head('pour', false),
    ...(sheet ? [head('lot', false), head('parts'), head(ml)] : []),
    head(`to mark, ${ml}`),
    ...(sheet ? [head(g)] : []),
    head(`scale, ${g}`),
  ];
  const good =
    batch.potMinutes === null
      ? 'does not set in the cup'
      : `use by ${time(batch.mixedAt, batch.potMinutes)} (${Math.round(batch.potMinutes)} min at ${sayMeasure('temperature', batch.temperatureC, units)})`;
  const voc =
    batch.vocActual === null || batch.vocCoating === null
      ? 'VOC not known'
      : `VOC ${sayMeasure('voc', batch.vocActual, units)}; less water and exempt ${sayMeasure('voc', batch.vocCoating, units)}`;
  const more: Content[] = sheet
    ? [
        { text: voc, margin: [0, 8, 0, 0] },
        ...(batch.cost === null ? [] : [{ text: `Material ${batch.cost.toFixed(2)}` }]),
        { text: batch.onCard ? 'Sprayed on the let-down card too.' : 'Not on the let-down card.' },
        ...(batch.note ? [{ text: batch.note, margin: [0, 4, 0, 0] as [number, number, number, number] }] : []),
        {
          text:
            batch.leftMl === null
              ? 'Left over: ____________'
              : `Left over: ${sayMeasure('volume', batch.leftMl, units)}`,
          margin: [0, 8, 0, 0],
        },
        {
          text: 'Isocyanates, solvents: air-fed respirator, gloves, exhaust, no ignition source. The product’s sheet, local rules and licensed practice come first. Stir the pearl up, strain, stir again before every coat.',
          margin: [0, 12, 0, 0],
          fontSize: text * 0.85,
        },
      ]
    : [{ text: `${voc}. Gloves, air-fed respirator; the sheet rules.`, fontSize: text * 0.85, margin: [0, 2, 0, 0] }];
  const document: TDocumentDefinitions = {
    pageSize: { width: width * MM, height: height * MM },
    pageMargins: [margin * MM, margin * 0.8 * MM, margin * MM, margin * 0.6 * MM],
    info: { title: `${batch.piece}: ${batch.name}` },
    ...simulatedMark(isTryOut),
    defaultStyle: { fontSize: text, lineHeight: 1.1 },
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: batch.name, bold: true, fontSize: text * 1.6 },
              { text: `${batch.piece}; ${sayMeasure('volume', batch.ml, units)} mixed ${time(batch.mixedAt)}` },
              { text: good, bold: true, margin: [0, 1, 0, 3] },
            ],
          },
          { width: (qr + 1) * MM, qr: address, fit: qr * MM, eccLevel: 'M', alignment: 'right' },
        ],
      },
      {
        table: { headerRows: 1, widths: ['*', ...heads.slice(1).map(() => 'auto')], body: [heads, ...rows] },
        layout: sheet ? 'parts of a sheet' : 'parts of a label',
      },
      ...more,
    ],
  };
  return toPdf(document);
}
