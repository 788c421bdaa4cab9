import { libraryOf, START_MIXING, START_PLAN, workOfJob, type Job } from '@steady-gleam/contracts';
import {
  dewCheck,
  planTimeline,
  sayCoat,
  sayMeasure,
  STYLES,
  toShown,
  unitName,
  type Gun,
  type Measure,
  type OwnMaterial,
  type Product,
  type UnitSystem,
} from '@steady-gleam/core';
import type { TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { ApiError } from '../http/apiError';
import { paperClock } from './clock';
import { MM, toPdf } from './pdf';

/** The whole spraying of a job on one A4 sheet (ISO 216): order of pieces, how each coat is laid, and when. */
export function jobSheet(q: {
  readonly job: Job;
  readonly own: readonly OwnMaterial[];
  readonly products: readonly Product[];
  readonly guns: readonly Gun[];
  readonly units: UnitSystem;
  readonly now: Date;
  /** The painter's time zone. */
  readonly zone: string;
  readonly address: string;
}): Promise<Buffer> {
  const { job, units } = q;
  const work = workOfJob({ job, library: libraryOf(q.own), products: q.products, guns: q.guns });
  if (!work) throw new ApiError('badRequest', { choice: 'Pick ground and coats first; the sheet follows from them.' });
  const { plan, gun } = work;
  const settings = job.plan ?? START_PLAN;
  const { temperatureC, humidity } = job.mixing ?? START_MIXING;
  const start = settings.startAt ? new Date(settings.startAt) : q.now;
  const line = planTimeline({
    tasks: plan.tasks,
    batches: plan.batches,
    now: 0,
    done: new Map(),
    mixed: new Map(),
  });
  const paper = paperClock(q.zone);
  const clock = (minutes: number): string => paper.time(new Date(start.getTime() + minutes * 60_000));
  const say = (measure: Measure, value: number) => sayMeasure(measure, value, units);
  const figure = (measure: Measure, value: number) =>
    toShown(measure, value, units).toFixed(units === 'us' ? 1 : measure === 'pressure' ? 1 : 0);
  const cell = (text: string, more: object = {}): TableCell => ({ text, ...more });
  const head = [
    'coat',
    'style',
    'overlap',
    unitName('distance', units),
    unitName('pressure', units),
    'turns',
    'tip',
    unitName('speed', units),
    'wait',
    'from',
    'done',
  ];
  const rows = plan.coats.map((c, k): TableCell[] => {
    const times = line.tasks.filter((t) => t.coatId === c.id);
    return [
      cell(`${sayCoat(c)}${c.walk ? ' (walk)' : ''}`, { bold: true }),
      cell(STYLES[c.style].name.toLowerCase()),
      cell(`${Math.round(c.overlap * 100)} %`),
      cell(figure('distance', c.distanceCm)),
      cell(figure('pressure', c.pressureBar)),
      cell(String(c.turns)),
      cell(`${c.tipMm} mm`),
      cell(figure('speed', c.speedCmS)),
      cell(`${Math.ceil(plan.waits[k]!)} min`),
      cell(times.length ? clock(Math.min(...times.map((t) => t.start))) : ''),
      cell('[   ]'),
    ];
  });
  const dew = dewCheck(temperatureC, humidity, settings.surfaceC ?? temperatureC);
  const cautions = [...new Set(plan.coats.map((c) => c.caution))];
  const name = (id: string) => {
    const task = plan.tasks.find((t) => t.id === id);
    return plan.coats.find((c) => c.id === task?.coatId)?.name ?? 'bake';
  };
  const document: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [14 * MM, 12 * MM, 14 * MM, 10 * MM],
    info: { title: `${job.piece}: job sheet` },
    defaultStyle: { fontSize: 10, lineHeight: 1.15 },
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: job.piece, bold: true, fontSize: 18 },
              { text: `matching ${job.matching}; ${gun.name}` },
              {
                text: `${say('temperature', temperatureC)}, ${Math.round(humidity * 100)} % humidity, dew point ${say('temperature', dew.dew)}${dew.ok ? '' : ': TOO NEAR, do not spray'}`,
              },
              { text: `${paper.day(start)}, from ${clock(0)} to ${clock(line.end)}`, bold: true },
            ],
          },
          { width: 24 * MM, qr: q.address, fit: 22 * MM, eccLevel: 'M', alignment: 'right' },
        ],
      },
      { text: 'Order of the pieces', bold: true, fontSize: 12, margin: [0, 8, 0, 2] },
      { text: plan.order.map((p, i) => `${i + 1}  ${p.name}${p.first ? ' (first)' : ''}`).join('     ') },
      { text: 'Coats', bold: true, fontSize: 12, margin: [0, 8, 0, 2] },
      {
        table: {
          headerRows: 1,
          widths: ['*', ...head.slice(1).map(() => 'auto')],
          body: [head.map((h) => cell(h, { color: '#444', fontSize: 8.5 })), ...rows],
        },
        layout: {
          hLineWidth: (i: number) => (i === 0 ? 0 : 0.5),
          vLineWidth: () => 0,
          paddingTop: () => 2.5,
          paddingBottom: () => 2.5,
          paddingLeft: (i: number) => (i ? 4 : 0),
          paddingRight: () => 2,
        },
      },
      ...(line.conflicts.length
        ? [
            {
              text: line.conflicts
                .map((c) =>
                  c.kind === 'recoat'
                    ? `${name(c.task)}: the recoat window closes ${Math.ceil(c.by)} min before; sand between.`
                    : `${name(c.task)}: its cup sets ${Math.ceil(c.by)} min before it is laid; mix it in two.`,
                )
                .join('\n'),
              bold: true,
              margin: [0, 8, 0, 0] as [number, number, number, number],
            },
          ]
        : []),
      { text: 'Flash until evenly dull, not only by the clock.', margin: [0, 8, 0, 0] },
      ...cautions.map((text) => ({ text, margin: [0, 3, 0, 0] as [number, number, number, number], fontSize: 9 })),
    ],
  };
  return toPdf(document);
}
