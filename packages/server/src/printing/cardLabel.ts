import type { JobDetail, LabelSize } from '@steady-gleam/contracts';
import { andControl, STYLES } from '@steady-gleam/core/finishes';
import { findGround, findMix, libraryOf, sayParts, type OwnMaterial } from '@steady-gleam/core/materials';
import { sayMeasure, unitName, type Measure, type UnitSystem } from '@steady-gleam/core/units';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { paperClock } from './clock';
import { MM, toPdf } from './pdf';
import { simulatedMark } from './tables';

/** Card size is that of a bank card (ISO/IEC 7810 ID-1), A6 of ISO 216; millimetres. */
const SIZES: Record<LabelSize, { width: number; height: number; text: number; qr: number }> = {
  card: { width: 85.6, height: 53.98, text: 6.2, qr: 17 },
  a6: { width: 148, height: 105, text: 12.4, qr: 38 },
};

const coats = (n: number): string => (n % 1 === 0.5 ? `${n < 1 ? '' : Math.floor(n)}½` : String(Number(n.toFixed(1))));

/** The label of a let-down card: everything that has to be the same on the job, the rung scale, and the card's address as QR. */
export async function cardLabel(
  { job, card }: JobDetail,
  own: readonly OwnMaterial[],
  size: LabelSize,
  address: string,
  units: UnitSystem,
  zone: string,
  now: Date,
): Promise<Buffer> {
  const { width, height, text, qr } = SIZES[size];
  const library = libraryOf(own);
  const pick = job.pick;
  const system = findMix(job.mixId, library.systems);
  const ground = pick ? findGround(pick.groundId, library.grounds).name : 'not picked yet';
  const s = card?.settings;
  const say = (measure: Measure, value: number) => sayMeasure(measure, value, units);
  const rows: [string, string][] = [
    ['Match', job.matching || 'a look of its own'],
    ['Sealer', s?.sealer || '______________'],
    ['Ground', `${ground}${s?.groundCoats ? `, ${s.groundCoats}` : ''}`],
    [
      'Effect',
      `${system.name}${pick ? ` ${pick.strength.toFixed(2)}×, ${STYLES[pick.style].name.toLowerCase()}${andControl(pick.controlCoats)}` : ''}`,
    ],
    [
      'Gun',
      card
        ? `${card.gun}, ${say('pressure', card.pressureBar)}${s?.distanceCm ? `, ${say('distance', s.distanceCm)}` : ''}`
        : '______________',
    ],
    [
      'Reducer',
      `${s?.reducer || '__________'}   ${(s?.temperatureC ?? null) === null ? `____ ${unitName('temperature', units)}` : say('temperature', s!.temperatureC!)}   ${card?.onStand === false ? 'in the hand' : 'on a stand'}`,
    ],
    ['Mix', sayParts(system, pick?.strength ?? 1)],
    [
      'Answer',
      card && card.firstStop !== null
        ? `stop first at ${coats(card.firstStop)} coats, and look`
        : '____________________',
    ],
  ];
  const rungs = card?.rungs ?? [];
  const scaleWidth = width - 8;
  const rungScale: Content = {
    table: {
      widths: rungs.map(() => (scaleWidth / Math.max(1, rungs.length)) * MM - 4),
      // Under every rung room for what was seen.
      heights: [text * 1.6, text * 1.9],
      body: [
        rungs.map((n) => ({ text: coats(n), alignment: 'center' as const, bold: true, fontSize: text * 1.4 })),
        rungs.map(() => ({ text: '' })),
      ],
    },
    layout: 'boxes',
    margin: [0, text * 0.5, 0, 0],
  };
  const document: TDocumentDefinitions = {
    pageSize: { width: width * MM, height: height * MM },
    pageMargins: [4 * MM, 3.2 * MM, 4 * MM, 2 * MM],
    info: { title: `${job.piece}: let-down card` },
    ...simulatedMark(job.tryOut !== null),
    defaultStyle: { fontSize: text, lineHeight: 1.08 },
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: job.piece, bold: true, fontSize: text * 1.5, margin: [0, 0, 0, text * 0.25] },
              {
                table: {
                  widths: [text * 4.4, '*'],
                  body: rows.map(([name, value]) => [{ text: name, color: '#444' }, { text: value }]),
                },
                layout: 'facts of a label',
              },
            ],
          },
          {
            width: (qr + 1) * MM,
            stack: [
              { qr: address, fit: qr * MM, eccLevel: 'M', alignment: 'right' },
              {
                text: paperClock(zone).day(now),
                alignment: 'right',
                fontSize: text * 0.85,
                margin: [0, 1, 0, 0],
              },
            ],
          },
        ],
      },
      ...(rungs.length
        ? [
            {
              text: `Effect coats, cleared${s?.patches ? '; black and grey patches under the effect' : ''}`,
              margin: [0, text * 0.4, 0, 0] as [number, number, number, number],
              fontSize: text * 0.9,
            },
            rungScale,
          ]
        : []),
    ],
  };
  return toPdf(document);
}
