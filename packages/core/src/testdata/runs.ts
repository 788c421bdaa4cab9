import { EYE_VIEWS, VERDICTS } from '../letdown/eyeWords';
import { createRandom } from '../numeric/random';
import { ENOUGH, eventOf, LET_DOWN, SCUFFED, type JobEvent } from '../jobs/events';
import type { CellEdit, SprayArea } from '../jobs/job';
import type { MendStep } from '../jobs/mendSteps';
import type { JobPlan, JobPlanInput } from '../jobs/planTypes';
import { jobState } from '../jobs/state';
import { laidOf } from '../jobs/whatIsOn';
import { type JobState } from '../jobs/stateTypes';
import { area, finish, object, PLAIN_SETTINGS } from './jobs';

export const MIN = 60_000;

/** What a painter taps, by chance: mostly the next step, now and then something else. */
export function tapped(plan: JobPlan, seed: number, taps: number): JobEvent[] {
  const random = createRandom(seed);
  const events: JobEvent[] = [eventOf({ id: 'start', at: 0, kind: 'start' })];
  for (let i = 0; i < taps; i++) {
    const state = jobState(plan, events);
    const about = { id: `${seed}/${i}`, at: (i + 1) * 7 * MIN };
    const { next } = state;
    const chance = random();
    if (chance < 0.06 && state.undoable.length)
      events.push(eventOf({ ...about, kind: 'undo', text: state.undoable[0]!.id }));
    else if (chance < 0.1 && next?.is === 'cell')
      events.push(
        eventOf({ ...about, kind: 'skip', cells: [next.state.cell], text: chance < 0.08 ? ENOUGH : 'a fault' }),
      );
    else if (chance < 0.14 && next?.is === 'cell')
      events.push(
        eventOf({
          ...about,
          kind: 'extra',
          layerId: next.state.cell.layerId,
          coats: 0.5,
          cells: [{ coatId: `x${i}`, areaId: next.state.cell.areaId }],
        }),
      );
    else if (chance < 0.2 && state.others[0])
      events.push(eventOf({ ...about, kind: 'swap', cells: [state.others[0].cell] }));
    else if (next?.is === 'cell') {
      const cells = chance < 0.4 ? state.round : [next.state];
      events.push(eventOf({ ...about, kind: 'sprayed', cells: cells.map((c) => laidOf(c.cell)) }));
    } else if (next)
      events.push(
        eventOf({
          ...about,
          kind: chance < 0.3 ? 'skip' : 'check',
          checkId: next.state.check.id,
          text: chance < 0.3 ? 'no lamp here' : '',
        }),
      );
  }
  return events;
}

const STEPS: readonly MendStep[] = [
  { is: 'work', kind: 'sand', text: 'flat with P1500', minutes: 10 },
  {
    ...{ is: 'coat', layerId: 'effect', style: 'light', share: 0.6, letDown: true, anew: false },
    reach: { kind: 'all' },
  },
  {
    ...{ is: 'coat', layerId: 'clear', style: 'wet', share: 1, letDown: false, anew: false },
    reach: { kind: 'fan', acrossCm: 20, fadeCm: 30, m2: 0.12, from: 'left' },
  },
];

/** One more event of the rarer kinds, at what was last sprayed: looks, dull film, faults, mends, notes. */
function rarer(state: JobState, seed: number, i: number): JobEvent | null {
  const random = createRandom(seed * 31 + i);
  const last = state.cells.filter((c) => c.sprayedAt !== null).at(-1)?.cell;
  if (!last) return null;
  const about = { id: `${seed}/more${i}`, at: (i + 1) * 7 * MIN + MIN };
  const cells = [{ coatId: last.coatId, areaId: last.areaId }];
  const kind = Math.floor(random() * 6);
  if (kind === 0) return eventOf({ ...about, kind: 'dull', cells });
  if (kind === 1) return eventOf({ ...about, kind: 'fault', cells, checkId: null, text: 'a nib' });
  if (kind === 2)
    return eventOf({
      ...about,
      kind: 'mend',
      cells,
      mend: { way: 'faded', spot: 'left', off: 'short', views: [EYE_VIEWS[0]!], steps: STEPS },
    });
  if (kind === 3) return eventOf({ ...about, kind: 'note', text: 'put right: a nib' });
  return eventOf({
    ...about,
    kind: 'look',
    layerId: 'effect',
    cells,
    coats: Math.ceil(random() * 3),
    look: {
      spot: random() < 0.5 ? 'left' : 'right',
      view: EYE_VIEWS[Math.floor(random() * EYE_VIEWS.length)]!,
      verdict: VERDICTS[Math.floor(random() * VERDICTS.length)]!,
      patch: null,
    },
  });
}

/** A run with all that can be in a log, by chance. */
export function wholeRun(plan: JobPlan, seed: number, taps: number): JobEvent[] {
  const random = createRandom(seed + 7);
  const events = tapped(plan, seed, taps);
  const more: JobEvent[] = [];
  events.forEach((e, i) => {
    if (e.kind === 'sprayed' && random() < 0.3)
      more.push(...[rarer(jobState(plan, events.slice(0, i + 1)), seed, i)].filter((x) => x !== null));
  });
  return [
    ...events.map((e, i) =>
      e.kind === 'sprayed' && i % 5 === 0
        ? { ...e, text: SCUFFED }
        : e.kind === 'extra' && i % 2
          ? { ...e, text: LET_DOWN }
          : e,
    ),
    ...more,
  ];
}

const MAIN = [
  ['lagoon-pearl', 'aqua-pastel', 3],
  ['cinder-candy', 'silver-fine', 3],
  ['smoke-tea-clear', 'gold', 2],
  ['moonmilk-pearl', 'black', 2.5],
] as const;

/** A job by chance: one to three objects with areas, stripes, jambs, loose parts, counts and changed cells of their own. */
export function randomJob(seed: number): Partial<JobPlanInput> {
  const random = createRandom(seed);
  const below = (n: number): number => Math.floor(random() * n);
  const [mixId, groundId, coats] = MAIN[below(MAIN.length)]!;
  const objects = Array.from({ length: 1 + below(3) }, (_, i) => ({
    object: object(`o${i}`, {
      counts: [
        {
          finishId: 'main',
          coats: random() < 0.5 ? null : [1, 2, 2.5, 4][below(4)]!,
          lookAfter: random() < 0.5 ? null : 1 + below(3),
        },
      ],
    }),
    areas: Array.from({ length: 1 + below(3) }, (_a, k) =>
      area(`a${i}${k}`, {
        ...{ objectId: `o${i}`, x: i, y: k, first: k === 1 && random() < 0.5, loose: random() < 0.2 },
        ...{ areaM2: 0.4 + 2 * random(), lengthCm: 60 + 10 * below(9) },
      }),
    ),
    stripe: random() < 0.4,
  }));
  const areas = objects.flatMap((o, i): SprayArea[] => [
    ...o.areas,
    ...(o.stripe ? [area(`s${i}`, { objectId: `o${i}`, on: `a${i}0`, finishId: 'lines', areaM2: 0.3 })] : []),
  ]);
  return {
    finishes: [finish('main', mixId, groundId, coats), finish('lines', 'cinder-candy', 'gold', 2)],
    objects: objects.map((o) => o.object),
    areas,
    temperatureC: 12 + below(18),
    humidity: 0.3 + 0.05 * below(10),
    settings: {
      ...PLAIN_SETTINGS,
      school: random() < 0.5 ? 'wet' : 'mist',
      grip: random() < 0.3,
      bake: random() < 0.3,
      cells: Array.from({ length: below(3) }, (): CellEdit => ({
        areaId: areas[below(areas.length)]!.id,
        layerId: ['sealer', 'ground', 'effect', 'clear'][below(4)]!,
        coats: [null, 0, 1, 2.5][below(4)]!,
        reach: random() < 0.3 ? { kind: 'spot', m2: 0.1 } : null,
      })),
    },
  };
}
