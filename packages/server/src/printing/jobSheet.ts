import { START_MIXING, START_PLAN, type JobDetail } from '@steady-gleam/contracts';
import type { Timeline } from '@steady-gleam/core/booth';
import { STYLES } from '@steady-gleam/core/finishes';
import {
  checkTask,
  jobState,
  jobTimeline,
  isMend,
  sayAreas,
  sayCheckOf,
  sayEvent,
  sayOn,
  sayReach,
  sayStep,
  type JobPlan,
  type JobState,
  workOfJob,
} from '@steady-gleam/core/jobs';
import { libraryOf, type OwnMaterial } from '@steady-gleam/core/materials';
import type { Gun, Product } from '@steady-gleam/core/products';
import { dewCheck, sayCoat } from '@steady-gleam/core/spraying';
import { sayMeasure, toShown, unitName, type Measure, type UnitSystem } from '@steady-gleam/core/units';
import type { Content, TableCell } from 'pdfmake/interfaces';
import { ApiError } from '../errors';
import { paperClock } from './clock';
import { cell, heading, sheet, someOf, table } from './tables';

/** The whole spraying of a job on one A4 sheet (ISO 216): how each coat is laid on which area and when, and what was done. */
export function jobSheet(q: {
  readonly detail: Pick<JobDetail, 'job' | 'card' | 'events'>;
  readonly own: readonly OwnMaterial[];
  readonly products: readonly Product[];
  readonly guns: readonly Gun[];
  readonly units: UnitSystem;
  readonly now: Date;
  /** The painter's time zone. */
  readonly zone: string;
  readonly address: string;
}): Promise<Buffer> {
  const { job, card, events } = q.detail;
  const { units } = q;
  const work = workOfJob({ job, card, library: libraryOf(q.own), products: q.products, guns: q.guns });
  if (!work) throw new ApiError('badRequest', { pick: 'Pick ground and coats first; the sheet follows from them.' });
  const { plan, gun } = work;
  const state = jobState(plan, events);
  const settings = job.plan ?? START_PLAN;
  const { temperatureC, humidity } = job.mixing ?? START_MIXING;
  const { origin, line } = jobTimeline(plan, state, {
    now: q.now.getTime(),
    startAt: settings.startAt ? new Date(settings.startAt).getTime() : null,
    mixedAt: new Map(),
  });
  const start = new Date(origin);
  const paper = paperClock(q.zone);
  const clock = (minutes: number): string => paper.time(new Date(start.getTime() + minutes * 60_000));
  const say = (measure: Measure, value: number) => sayMeasure(measure, value, units);
  const dew = dewCheck(temperatureC, humidity, settings.surfaceC ?? temperatureC);
  const cautions = [...new Set(plan.rows.map((r) => r.coat.caution))];
  return sheet({
    title: `${job.piece}: job sheet`,
    address: q.address,
    isTryOut: job.tryOut !== null,
    lead: [
      { text: job.piece, bold: true, fontSize: 18 },
      { text: `${job.matching ? `matching ${job.matching}` : 'a look of its own'}; ${gun.name}` },
      {
        text: `${say('temperature', temperatureC)}, ${Math.round(humidity * 100)} % humidity, dew point ${say('temperature', dew.dew)}${dew.ok ? '' : ': TOO NEAR, do not spray'}`,
      },
      { text: `${paper.day(start)}, from ${clock(0)} to ${clock(line.end)}`, bold: true },
      { text: sayOn(state) + (state.next ? ` Next: ${sayStep(plan, state.next)}.` : '') },
    ],
    content: [
      heading('Areas in their order'),
      areaTable(plan, state, say),
      heading('Coats'),
      coatTable(plan, state, line, clock, units, say),
      heading('Checks'),
      {
        text: state.checks
          .map(({ check, is, reason }) => {
            const { title } = sayCheckOf(plan, check);
            return `[ ${is === 'passed' ? 'x' : is === 'skipped' ? '-' : ' '} ] ${title}${is === 'fault' ? `: fault, ${reason}` : is === 'skipped' ? `: left out, ${reason}` : ''}`;
          })
          .join('\n'),
      },
      ...conflicts(plan, line),
      ...historyOf(plan, state, (at) => `${paper.day(new Date(at))} ${paper.time(new Date(at))}`),
      { text: 'Flash until evenly dull, not only by the clock.', margin: [0, 8, 0, 0] },
      ...cautions.map((text): Content => ({ text, margin: [0, 3, 0, 0], fontSize: 9 })),
    ],
  });
}

/** Areas down, layers across: coats on of those planned, and how far they go. */
function areaTable(plan: JobPlan, state: JobState, say: (measure: Measure, value: number) => string): Content {
  const layers = plan.layers.filter((l) => plan.cells.some((c) => c.layerId === l.id));
  const nameOf = (layerId: string) => plan.cells.find((c) => c.layerId === layerId)!.coat.name;
  return table(
    ['area', ...layers.map((l) => nameOf(l.id)), unitName('area', 'metric')],
    plan.order.map((a, i): TableCell[] => [
      cell(
        `${i + 1}  ${a.name}${plan.objects.length > 1 ? `, ${plan.objects.find((o) => o.id === a.objectId)?.name}` : ''}${a.first ? ' (first)' : ''}`,
        { bold: true },
      ),
      ...layers.map((l) => {
        const on = state.areas.find((s) => s.areaId === a.id)?.layers.find((o) => o.layerId === l.id);
        const reach = plan.cells.find((c) => c.areaId === a.id && c.layerId === l.id)?.reach;
        if (!on) return cell('–');
        const far = reach ? sayReach(reach, { area: (v) => say('area', v), distance: (v) => say('distance', v) }) : '';
        return cell(`${count(on.coats)} of ${count(on.planned)}${far ? `; ${far}` : ''}`);
      }),
      cell(a.areaM2.toFixed(2)),
    ]),
  );
}

const count = (n: number): string => String(Number(n.toFixed(2)));

function coatTable(
  plan: JobPlan,
  state: JobState,
  line: Timeline,
  clock: (minutes: number) => string,
  units: UnitSystem,
  say: (measure: Measure, value: number) => string,
): Content {
  const figure = (measure: Measure, value: number) =>
    toShown(measure, value, units).toFixed(units === 'us' ? 1 : measure === 'pressure' ? 1 : 0);
  const rows = plan.rows.map(({ coat: c, cells, waitMinutes }): TableCell[] => {
    const times = line.tasks.filter((t) => t.coatId === c.id);
    const here = state.cells.filter((s) => cells.some((o) => o.coatId === s.cell.coatId && o.areaId === s.cell.areaId));
    const on = here.filter((s) => s.sprayedAt !== null).length;
    const all = here.filter((s) => s.leftOut === null).length;
    return [
      cell(
        `${sayCoat(c)}${
          cells.length < plan.order.length
            ? `, ${sayAreas(
                plan,
                cells.map((o) => o.areaId),
              )}`
            : ''
        }${c.walk ? ' (walk)' : ''}`,
        { bold: true },
      ),
      cell(STYLES[c.style].name.toLowerCase()),
      cell(`${Math.round(c.overlap * 100)} %`),
      cell(figure('distance', c.distanceCm)),
      cell(figure('pressure', c.pressureBar)),
      cell(String(c.turns)),
      cell(`${c.tipMm} mm`),
      cell(figure('speed', c.speedCmS)),
      cell(`${Math.ceil(waitMinutes)} min`),
      cell(times.length ? clock(Math.min(...times.map((t) => t.start))) : ''),
      cell(all === 0 ? 'left out' : on === 0 ? '[   ]' : on < all ? `${on} of ${all}` : 'done'),
    ];
  });
  const extras = state.cells
    .filter((s) => s.isExtra)
    .map((s): TableCell[] => [
      cell(
        `${isMend(s.cell) ? `mend: ${sayCoat(s.cell.coat)}` : `one more: ${STYLES[s.cell.coat.style].name.toLowerCase()} of ${s.cell.coat.name}`} on ${sayAreas(plan, [s.cell.areaId])}, ${say('film', s.cell.coat.filmUm)}`,
        { bold: true, colSpan: 10 },
      ),
      ...Array.from({ length: 9 }, () => cell('')),
      cell(s.sprayedAt === null ? '[   ]' : 'done'),
    ]);
  return table(
    [
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
    ],
    [...rows, ...extras],
  );
}

function conflicts(plan: JobPlan, line: Timeline): Content[] {
  if (!line.conflicts.length) return [];
  const names = new Map(plan.cells.map((c) => [JSON.stringify([c.coatId, c.areaId]), c.coat.name]));
  const name = (id: string) => names.get(id) ?? (id === checkTask('bake') ? 'bake' : 'a check');
  return [
    {
      text: line.conflicts
        .map((c) =>
          c.kind === 'recoat'
            ? `${name(c.task)}: the recoat window closes ${Math.ceil(c.by)} min before; sand between.`
            : `${name(c.task)}: its cup sets ${Math.ceil(c.by)} min before it is laid; mix it in two.`,
        )
        .join('\n'),
      bold: true,
      margin: [0, 8, 0, 0],
    },
  ];
}

/** What was seen, noted and found, with its time and place. */
export function historyOf(plan: JobPlan, state: JobState, time: (at: number) => string): Content[] {
  const lines = state.history.flatMap((e): string[] => {
    const said = sayEvent(plan, e);
    return said ? [`${time(e.at)}  ${said}`] : [];
  });
  return lines.length ? [heading('What was seen and noted'), { text: someOf(lines).join('\n'), fontSize: 9 }] : [];
}
