import type { APIRequestContext, Page } from '@playwright/test';
import type { JobDetail, JobSummary } from '@steady-gleam/contracts';
import { eventOf, jobState, laidOf, workOfJob, type JobEvent, type JobState } from '@steady-gleam/core/jobs';
import { libraryOf } from '@steady-gleam/core/materials';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { randomUUID } from 'node:crypto';

/** The jobs of the demo, as the list has them. */
export async function jobsOf(request: APIRequestContext, address: string): Promise<readonly JobSummary[]> {
  return ((await (await request.get(`${address}/api/jobs`)).json()) as { rows: JobSummary[] }).rows;
}

/**
 * Tells a job's log, as another device would, everything up to a step.
 * @param stop whether the next step is where it ends. @param minutes between steps; so many in a hurry nobody waits. Ends before now
 */
export async function runLogTo(
  page: Page,
  address: string,
  jobId: string,
  stop: (next: NonNullable<JobState['next']>) => boolean,
  minutes = 3,
): Promise<void> {
  const url = `${address}/api/jobs/${jobId}`;
  const detail = (await (await page.request.get(url)).json()) as JobDetail;
  const { plan } = workOfJob({
    ...{ ...detail, library: libraryOf([]), products: STARTING_PRODUCTS, guns: STARTING_GUNS },
  })!;
  const events: JobEvent[] = [...detail.events];
  const fresh: JobEvent[] = [];
  const from = Math.max(Date.now() - 3 * 60 * 60_000, ...events.map((e) => e.at + 1));
  for (let i = 0; i < 90; i++) {
    const { next } = jobState(plan, events);
    if (!next || stop(next)) break;
    const about = { id: randomUUID(), at: from + i * minutes * 60_000 };
    const event =
      next.is === 'cell'
        ? eventOf({ ...about, kind: 'sprayed', cells: [laidOf(next.state.cell)] })
        : eventOf({ ...about, kind: 'check', checkId: next.state.check.id });
    events.push(event);
    fresh.push(event);
  }
  const posted = await page.request.post(`${url}/events`, { data: { events: fresh } });
  if (!posted.ok()) throw new Error(`The log was refused: ${await posted.text()}`);
}
