import { jobsApi, type JobDetail } from '@steady-gleam/contracts';
import { doneOf, jobState, workOfJob, type Done } from '@steady-gleam/core/jobs';
import { libraryOf } from '@steady-gleam/core/materials';
import type { Express } from 'express';
import { paperFor, sendPdf } from '../../http/files';
import { idOf, type Route } from '../../http/route';
import { jobDone, PAPER_PHOTOS } from '../../printing/jobDone';
import { jobSheet } from '../../printing/jobSheet';
import type { Repos } from '../repos';
import { createJobsList } from './list';

export function routeJobs(app: Express, route: Route, repos: Repos): void {
  const { jobs, shelf } = repos;
  /** A job's plan and where it stands; null when nothing is picked. */
  const standsOf = ({ own, products, guns }: Awaited<ReturnType<typeof shelf>>, detail: JobDetail) => {
    const work = workOfJob({ ...detail, library: libraryOf(own), products, guns });
    return work && { plan: work.plan, state: jobState(work.plan, detail.events) };
  };
  /** What is on of a job now, to be kept with it when it is finished. */
  const doneNow = async (id: string): Promise<Done | null> => {
    const detail = await jobs.read(id);
    const now = standsOf(await shelf(), detail);
    return now && doneOf(now.plan, now.state, detail.job.mixId, new Date().toISOString());
  };
  /** Whether its run is over: finished, or everything of the plan is on or left out. */
  const isRun = (on: Awaited<ReturnType<typeof shelf>>, detail: JobDetail): boolean => {
    if (detail.job.status === 'finished') return true;
    const now = standsOf(on, detail);
    return !!now && now.state.next === null && now.state.done > 0;
  };
  const { list, stands } = createJobsList(repos);
  route(jobsApi.list, (query) => list(query));
  route(jobsApi.stands, (_, id) => stands(id));
  route(jobsApi.listRemoved, () => jobs.listRemoved());
  route(jobsApi.create, (body) => jobs.create(body), 201);
  route(jobsApi.read, (_, id) => jobs.read(id));
  route(jobsApi.readWith, (_, id, finishId) => jobs.read(id, finishId));
  route(jobsApi.change, async (body, id) =>
    jobs.change(id, body.status === 'finished' ? { ...body, done: await doneNow(id) } : body),
  );
  route(jobsApi.copy, (body, id) => jobs.copy(id, body.id, body.piece), 201);
  app.get(jobsApi.sheet.path, async (req, res) => {
    const id = await idOf(req);
    const detail = await jobs.read(id);
    const on = await shelf();
    const paper = { ...on, ...paperFor(req, `/jobs/${id}/plan`) };
    const { as } = req.query;
    if (as === 'plan' || (as !== 'done' && !isRun(on, detail))) {
      sendPdf(res, await jobSheet({ detail, ...paper, now: new Date() }), 'job-sheet.pdf');
      return;
    }
    const taken = detail.photos.filter((p) => p.kind === 'job').slice(-PAPER_PHOTOS);
    const photos = await Promise.all(
      taken.map(async (p) => ({ ...(await repos.photos.read(p.id)), takenAt: p.takenAt })),
    );
    const batches = await repos.batches.ofJob(id);
    sendPdf(res, await jobDone({ detail, ...paper, photos, batches }), 'job-as-done.pdf');
  });
}
