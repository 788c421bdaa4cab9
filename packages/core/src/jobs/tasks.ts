import { sprayMinutes } from '../spraying/coatPlan';
import { planTimeline, type Timeline, type TimeTask } from '../booth/timeline';
import { cellKey } from './events';
import { waitBetween } from './laid';
import { type JobPlan } from './planTypes';
import type { JobState } from './stateTypes';

/** A check as a task has this id. */
export const checkTask = (checkId: string): string => JSON.stringify(['check', checkId]);

/** What the painter does and waits for, for the timeline: cells that are not left out, extra coats and checks. */
export function timeTasks(plan: JobPlan, state: JobState): TimeTask[] {
  const checks = new Map(state.checks.map((c) => [c.check.id, c]));
  return state.steps.flatMap((step): TimeTask[] => {
    if (step.is === 'check') {
      const { check, is } = step.state;
      if (is === 'skipped') return [];
      return [
        {
          id: checkTask(check.id),
          coatId: null,
          areaId: null,
          minutes: check.takes || (check.kind === 'bake' ? check.minutes : 0),
          painter: check.takes > 0,
          batch: null,
          after: [
            ...check.after
              .filter((c) => !state.cells.some((s) => cellKey(s.cell) === cellKey(c) && s.leftOut !== null))
              .map((c) => ({ id: cellKey(c), min: check.kind === 'standing' ? check.minutes : 0, max: null })),
            ...check.afterChecks.map((id) => ({ id: checkTask(id), min: 0, max: null })),
          ],
        },
      ];
    }
    const { cell, leftOut, under } = step.state;
    if (leftOut !== null) return [];
    return [
      {
        id: cellKey(cell),
        coatId: cell.coatId,
        areaId: cell.areaId,
        minutes: sprayMinutes(cell.areaM2, plan.gun, cell.coat),
        painter: true,
        batch: cell.coat.cupId,
        after: [
          ...under.map((u) => {
            const min = waitBetween(plan, u, cell);
            return { id: cellKey(u), min, max: u.recoatMinutes === null ? null : Math.max(min, u.recoatMinutes) };
          }),
          ...cell.checks
            .filter((id) => checks.get(id)?.is !== 'skipped')
            .map((id) => ({ id: checkTask(id), min: 0, max: null })),
        ],
      },
    ];
  });
}

/** What of the tasks is over, minutes from a moment. @param from ms since 1970 */
export function tasksDone(state: JobState, from: number): Map<string, number> {
  const at = (ms: number) => (ms - from) / 60_000;
  return new Map([
    ...state.cells.flatMap((s) => (s.sprayedAt === null ? [] : [[cellKey(s.cell), at(s.sprayedAt)] as const])),
    ...state.checks.flatMap((c) =>
      c.is === 'passed' && c.at !== null ? [[checkTask(c.check.id), at(c.at)] as const] : [],
    ),
  ]);
}

/** A job against the clock. */
export interface JobTimeline {
  /** When its minutes begin, ms since 1970: its first coat, else when it is planned to start, else now. */
  readonly origin: number;
  readonly tasks: readonly TimeTask[];
  readonly line: Timeline;
}

/**
 * The rest of a job from now on, with what has happened at its real times: once the first coat is on, those count.
 * @param mixedAt when cups were mixed that are still in use, ms since 1970, by cup; of others it was before their first spray
 */
export function jobTimeline(
  plan: JobPlan,
  state: JobState,
  q: {
    readonly now: number;
    readonly startAt: number | null;
    readonly mixedAt: ReadonlyMap<string, number>;
  },
): JobTimeline {
  const origin = state.started ?? q.startAt ?? q.now;
  const tasks = timeTasks(plan, state);
  const done = tasksDone(state, origin);
  const mixed = new Map<string, number>();
  for (const { id } of plan.batches) {
    const kept = q.mixedAt.get(id);
    const ends = tasks.flatMap((t) => (t.batch === id && done.has(t.id) ? [done.get(t.id)!] : []));
    if (kept !== undefined) mixed.set(id, (kept - origin) / 60_000);
    else if (ends.length) mixed.set(id, Math.min(...ends));
  }
  const now = state.started === null ? 0 : Math.max(0, (q.now - origin) / 60_000);
  return { origin, tasks, line: planTimeline({ tasks, batches: plan.batches, now, done, mixed }) };
}
