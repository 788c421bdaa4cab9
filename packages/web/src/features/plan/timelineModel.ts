import { capital } from '../../shared/capital';
import { fileName } from '@steady-gleam/core/formats';
import type { Batch, SprayPlan } from '@steady-gleam/contracts';
import type { PlannedTask } from '@steady-gleam/core/booth';
import { checkTask, jobTimeline, sayCheckOf, type JobTimeline } from '@steady-gleam/core/jobs';
import { sayCoat, type PlannedCoat } from '@steady-gleam/core/spraying';
import { createEvents, type EventAttributes } from 'ics';
import { download } from '../../shared/download';
import { timeOfDay } from '../../shared/timeOfDay';
import type { JobWorked } from '../../shared/useJobWork';

/** A job's timeline as it is shown and saved. */
export interface ShownTimeline extends JobTimeline {
  /** Clock time of a minute. */
  readonly at: (minutes: number) => string;
  readonly coatOf: (task: PlannedTask) => PlannedCoat | undefined;
  /** A task in words. */
  readonly say: (task: PlannedTask | undefined) => string;
}

/** The job against the clock. @param stored batches of the shop. @param now ms since 1970 */
export function timelineOf(
  work: JobWorked,
  plan: SprayPlan,
  stored: readonly Batch[],
  jobId: string,
  now: number,
): ShownTimeline {
  const { state } = work;
  const mixedAt = new Map(
    stored.flatMap((b) =>
      b.jobId === jobId && b.endedAt === null ? [[b.layerId, new Date(b.mixedAt).getTime()] as const] : [],
    ),
  );
  const timeline = jobTimeline(work.plan, state, {
    now,
    startAt: plan.startAt ? new Date(plan.startAt).getTime() : null,
    mixedAt,
  });
  const coatOf = (t: PlannedTask) => work.plan.rows.find((r) => r.coat.id === t.coatId)?.coat;
  return {
    ...timeline,
    at: (minutes) => timeOfDay(timeline.origin + minutes * 60_000),
    coatOf,
    say: (t) => {
      const coat = t && coatOf(t);
      if (coat) return `${sayCoat(coat)} on ${work.plan.areas.find((p) => p.id === t.areaId)?.name ?? 'the piece'}`;
      const check = state.checks.find((c) => checkTask(c.check.id) === t?.id)?.check;
      return check ? sayCheckOf(work.plan, check).title : 'a check';
    },
  };
}

/** Saves what is still to be done as a calendar file. */
export function saveCalendar(timeline: ShownTimeline, job: { readonly id: string; readonly piece: string }): void {
  const { line, origin, say, coatOf } = timeline;
  const stamp = (m: number): [number, number, number, number, number] => {
    const d = new Date(origin + m * 60_000);
    return [d.getFullYear(), d.getMonth() + 1, d.getDate(), d.getHours(), d.getMinutes()];
  };
  const list = line.tasks
    .filter((t) => !t.done)
    .map((t): EventAttributes => ({
      uid: `${job.id}-${t.id.replace(/[^a-z0-9]/gi, '')}@steady-gleam`,
      title: t.batch ? `Mix ${t.batch.name}` : capital(say(t)),
      description: `${job.piece}. ${coatOf(t)?.caution ?? ''}`,
      start: stamp(t.start),
      startInputType: 'local',
      end: stamp(Math.max(t.end, t.start + 1)),
      endInputType: 'local',
    }));
  const { value, error } = createEvents(list);
  if (error || !value) throw error ?? new Error('The calendar could not be written.');
  download(new Blob([value], { type: 'text/calendar' }), `${fileName(job.piece, 'spray plan')}.ics`);
}
