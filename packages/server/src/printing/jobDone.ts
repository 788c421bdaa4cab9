import type { Batch, JobDetail } from '@steady-gleam/contracts';
import {
  jobState,
  sayAreas,
  sayCheckOf,
  sayOn,
  sayReach,
  workOfJob,
  type CellState,
  type JobPlan,
  type JobState,
} from '@steady-gleam/core/jobs';
import { libraryOf, type OwnMaterial } from '@steady-gleam/core/materials';
import type { Gun, Product } from '@steady-gleam/core/products';
import { sayCoat } from '@steady-gleam/core/spraying';
import { sayMeasure, type Measure, type UnitSystem } from '@steady-gleam/core/units';
import type { Content, TableCell } from 'pdfmake/interfaces';
import { ApiError } from '../errors';
import { paperClock, type PaperClock } from './clock';
import { historyOf } from './jobSheet';
import { MM } from './pdf';
import { cell, counted, heading, sheet, someOf, table } from './tables';

/** A photo on the paper: its bytes, and when it was taken. */
export interface PaperPhoto {
  readonly type: string;
  readonly bytes: Uint8Array;
  readonly takenAt: string;
}

/** Photos that fit on the sheet. */
export const PAPER_PHOTOS = 4;

type Say = (measure: Measure, value: number) => string;

/**
 * What was done of a job, on A4 (ISO 216): the coats with their times, the set-up, what was mixed with its lots, checks, looks, photos,
 * what went wrong and what mended it. Nothing of it is planned.
 */
export function jobDone(q: {
  readonly detail: Pick<JobDetail, 'job' | 'card' | 'events'>;
  readonly own: readonly OwnMaterial[];
  readonly products: readonly Product[];
  readonly guns: readonly Gun[];
  readonly batches: readonly Batch[];
  readonly photos: readonly PaperPhoto[];
  readonly units: UnitSystem;
  readonly zone: string;
  readonly address: string;
}): Promise<Buffer> {
  const { job, card, events } = q.detail;
  const work = workOfJob({ job, card, library: libraryOf(q.own), products: q.products, guns: q.guns });
  if (!work) throw new ApiError('badRequest', { pick: 'Nothing was picked for this job, so nothing was sprayed.' });
  const { plan, gun } = work;
  const state = jobState(plan, events);
  const paper = paperClock(q.zone);
  const say: Say = (measure, value) => sayMeasure(measure, value, q.units);
  const sprayed = state.cells
    .filter((s): s is CellState & { sprayedAt: number } => s.sprayedAt !== null)
    .sort((a, b) => a.sprayedAt - b.sprayedAt);
  const [first, last] = [sprayed[0]?.sprayedAt, sprayed.at(-1)?.sprayedAt];
  return sheet({
    title: `${job.piece}: as done`,
    address: q.address,
    isTryOut: job.tryOut !== null,
    lead: [
      { text: `${job.piece}: as done`, bold: true, fontSize: 18 },
      { text: `${job.matching ? `matching ${job.matching}` : 'a look of its own'}; ${gun.name}` },
      {
        text:
          first === undefined
            ? 'Nothing was sprayed.'
            : `Sprayed ${paper.moment(new Date(first))} to ${paper.moment(new Date(last!))}; ${say('temperature', job.mixing?.temperatureC ?? 20)} as planned for.`,
        bold: true,
      },
      { text: `${sayOn(state)}${job.status === 'finished' ? ' Finished.' : ''}` },
    ],
    content: [
      heading('Coats as they went on'),
      coatsDone(plan, sprayed, paper, say),
      ...(state.strays.length
        ? [
            {
              text: `On as well, of coats the plan has no more: ${someOf(counted(state.strays.map((c) => `${c.name} on ${sayAreas(plan, [c.areaId])}`))).join(', ')}.`,
            },
          ]
        : []),
      ...leftOut(plan, state),
      ...mixed(q.batches, paper, say),
      heading('Checks'),
      {
        text:
          someOf(
            state.checks
              .filter((c) => c.is === 'passed' || c.is === 'skipped' || c.is === 'fault')
              .map(({ check, is, reason }) => {
                const { title } = sayCheckOf(plan, check);
                return `[ ${is === 'passed' ? 'x' : is === 'skipped' ? '-' : '!'} ] ${title}${is === 'fault' ? `: fault, ${reason}` : is === 'skipped' ? `: left out, ${reason}` : ''}`;
              }),
          ).join('\n') || 'None was told.',
      },
      ...historyOf(plan, state, (at) => `${paper.day(new Date(at))} ${paper.time(new Date(at))}`),
      ...pictures(q.photos, paper),
    ],
  });
}

/** Coats in the order of time; what one tap told of several areas stands in one row. */
function coatsDone(
  plan: JobPlan,
  sprayed: readonly (CellState & { sprayedAt: number })[],
  paper: PaperClock,
  say: Say,
): Content {
  const rounds: (CellState & { sprayedAt: number })[][] = [];
  for (const s of sprayed) {
    const round = rounds.at(-1);
    if (round?.[0]!.cell.coatId === s.cell.coatId && round[0].sprayedAt === s.sprayedAt) round.push(s);
    else rounds.push([s]);
  }
  const figures = { area: (v: number) => say('area', v), distance: (v: number) => say('distance', v) };
  return table(
    ['coat', 'where', 'film', 'set-up', 'at'],
    rounds.map((round): TableCell[] => {
      const { cell: c, sprayedAt, isExtra } = round[0]!;
      const far = sayReach(c.reach, figures);
      return [
        cell(`${sayCoat(c.coat)}${isExtra ? ' (beyond the plan)' : ''}`, { bold: true }),
        cell(
          `${sayAreas(
            plan,
            round.map((s) => s.cell.areaId),
          )}${c.spot ? `: ${c.spot}` : ''}${far ? `; ${far}` : ''}`,
        ),
        cell(say('film', c.coat.filmUm)),
        cell(
          [
            `${c.coat.tipMm} mm`,
            say('pressure', c.coat.pressureBar),
            say('distance', c.coat.distanceCm),
            `${Math.round(c.coat.overlap * 100)} %`,
          ].join(', '),
          { fontSize: 8.5 },
        ),
        cell(`${paper.day(new Date(sprayedAt)).slice(5)} ${paper.time(new Date(sprayedAt))}`),
      ];
    }),
  );
}

function leftOut(plan: JobPlan, state: JobState): Content[] {
  const out = state.cells.filter((s) => s.leftOut !== null);
  if (!out.length) return [];
  const text = out.map((s) => `${sayCoat(s.cell.coat)} on ${sayAreas(plan, [s.cell.areaId])}: ${s.leftOut}`).join('\n');
  return [heading('Left out'), { text }];
}

/** What was mixed for it, with the lots; what was left in the cup where that was told. */
function mixed(batches: readonly Batch[], paper: PaperClock, say: Say): Content[] {
  if (!batches.length) return [];
  return [
    heading('Mixed'),
    table(
      ['batch', 'parts and lots', 'mixed', 'used', 'at'],
      batches.map((b): TableCell[] => [
        cell(b.name, { bold: true }),
        cell(
          b.parts.map((p) => `${Number(p.parts.toFixed(2))} ${p.name}${p.lot ? ` (lot ${p.lot})` : ''}`).join(', '),
          {
            fontSize: 8.5,
          },
        ),
        cell(say('volume', b.ml)),
        cell(b.leftMl === null ? 'not told' : say('volume', b.ml - b.leftMl)),
        cell(paper.moment(new Date(b.mixedAt)).slice(5)),
      ]),
    ),
  ];
}

function pictures(photos: readonly PaperPhoto[], paper: PaperClock): Content[] {
  // The paper knows JPEG and PNG.
  const known = photos.filter((p) => p.type !== 'image/webp').slice(0, PAPER_PHOTOS);
  if (!known.length) return [];
  return [
    heading('Photos'),
    {
      columns: known.map((p) => ({
        width: 'auto' as const,
        stack: [
          {
            image: `data:${p.type};base64,${Buffer.from(p.bytes).toString('base64')}`,
            fit: [42 * MM, 42 * MM] as [number, number],
          },
          { text: paper.moment(new Date(p.takenAt)), fontSize: 8 },
        ],
      })),
      columnGap: 6,
    },
  ];
}
