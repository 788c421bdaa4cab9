import {
  cardsApi,
  isOfJob,
  jobsApi,
  photosApi,
  readingsApi,
  type BodyOf,
  type Job,
  type JobDetail,
  type JobQuery,
  type JobSummary,
  type Photo,
  type ReadingSet,
  type VerdictEvent,
} from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useOutletContext } from 'react-router';
import { ApiFailure, call } from './apiClient';
import { sendPhoto, sendReadings, sendVerdict } from './log/parcels';

export const jobKey = (id: string) => ['jobs', id] as const;
/** Under it stand the pages of the list of jobs. */
export const JOB_LIST = ['jobs', 'list'] as const;

/** A page of the list of jobs. */
export const jobsPage = (query: Omit<JobQuery, 'page'>, page: number) => ({
  queryKey: [...JOB_LIST, query, page],
  queryFn: () => call(jobsApi.list, { body: { ...query, page } }),
});

export function useJobDetail(id: string) {
  return useQuery({ queryKey: jobKey(id), queryFn: () => call(jobsApi.read, { params: { id } }) });
}

/** The job as the list of jobs tells it: where its run stands, what was read. Null until that is there. */
export function useJobSummary(id: string): JobSummary | null {
  const { data } = useQuery({
    queryKey: [...jobKey(id), 'stands'],
    queryFn: () => call(jobsApi.stands, { params: { id } }),
  });
  return data ?? null;
}

/** The job with another of its finishes in the place of its first; asked for only when there is one. */
export function useFinishDetail(id: string, finishId: string | null) {
  return useQuery({
    queryKey: [...jobKey(id), finishId],
    queryFn: () => call(jobsApi.readWith, { params: { id, finishId: finishId! } }),
    enabled: finishId !== null,
  });
}

/**
 * A job's detail, and which of its objects it is about (null for all of them), and which of its finishes (undefined for its
 * first): what is changed of the finish is told with it.
 */
export type PageDetail = JobDetail & { readonly objectId: string | null; readonly about: string | undefined };

/** The detail as one object has it: its own target where it was read by itself. */
export function ofObject(detail: JobDetail, objectId: string | null, about?: string): PageDetail {
  const own = detail.objectTargets.find((s) => s.objectId === objectId);
  return { ...detail, objectId, about, ...(own ? { target: own, targetHistory: [] } : {}) };
}

/** The job of the place being shown; JobLayout loads it. */
export function useJob(): PageDetail {
  return useOutletContext<PageDetail>();
}

/** What the pages of a job are about, kept in this window: one of its objects, one of its finishes; null for all, or the first. */
export function usePicked(
  what: 'object' | 'finish',
  jobId: string,
  choices: readonly { readonly id: string }[],
): [string | null, (id: string | null) => void] {
  const key = `steady-gleam.${what}.${jobId}`;
  const [picked, setPicked] = useState(() => sessionStorage.getItem(key));
  return [
    choices.length > 1 && choices.some((o) => o.id === picked) ? picked : null,
    (id) => {
      if (id === null) sessionStorage.removeItem(key);
      else sessionStorage.setItem(key, id);
      setPicked(id);
    },
  ];
}

function useJobMutation<T>(run: (input: T) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }) });
}

type JobChange = BodyOf<typeof jobsApi.change>;

/** Something of a job that was changed here, and the version of the job that has it, once it is kept. */
export interface Changed<T> {
  readonly value: T;
  readonly keptAs: number | null;
}

/**
 * What a page shows and goes on from: what was changed here until the job that is shown has it too, not only the server. The answer
 * to a change is there before the job is drawn anew; what was before, taken in between, would undo the change and whatever is half
 * typed with it.
 * @param own as the job has it that is shown
 */
export function shownOf<T>(job: Pick<Job, 'version'>, changed: Changed<T> | null, own: T): T {
  return changed && (changed.keptAs === null || changed.keptAs > job.version) ? changed.value : own;
}

/** By job: the version that a change made in this window has left behind it, by the one it was based on. */
const followed = new Map<string, Map<number, number>>();

/**
 * Changes a job. A change that was made here before the answer to the one before had come goes on from what that one left; what
 * was changed elsewhere in between is refused as ever. @throws ApiFailure
 */
export async function changeJob(id: string, change: JobChange): Promise<Job> {
  const own = followed.get(id) ?? new Map<number, number>();
  followed.set(id, own);
  let { version } = change;
  for (let next = own.get(version); next !== undefined; next = own.get(version)) version = next;
  const job = await call(jobsApi.change, { params: { id }, body: { ...change, version } });
  own.set(version, job.version);
  return job;
}

/** Changes of a job, one after the other. */
export function useChangeJob(id: string) {
  const client = useQueryClient();
  return useMutation({
    scope: { id: `change job ${id}` },
    mutationFn: (change: JobChange) => changeJob(id, change),
    onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }),
    // Changed elsewhere: what is there now is shown, what was typed stays, and the next try goes on from there.
    onError: (error) =>
      error instanceof ApiFailure && error.code === 'stale'
        ? client.invalidateQueries({ queryKey: ['jobs'] })
        : undefined,
  });
}

/** Whose evidence it is: a job's own, or its finish's. */
type Owned = Pick<Job, 'id' | 'finishId'>;

export function useAddReadings(job: Owned) {
  return useJobMutation((body: ReadingSet) => sendReadings(job, body, isOfJob(body)));
}

/** Takes a set of readings out of force, or puts it back. */
export function useRemoveReadings() {
  return useJobMutation(({ setId, removed }: { setId: string; removed: boolean }) =>
    call(readingsApi.remove, { params: { id: setId }, body: { removed } }),
  );
}

export function useAddVerdict(job: Owned) {
  return useJobMutation((body: VerdictEvent) => sendVerdict(job.id, job.finishId, body));
}

/** Keeps what a card said of the hand, for the next card with this gun. */
export function putHand(job: Owned, body: BodyOf<typeof cardsApi.putHand>): Promise<unknown> {
  return call(cardsApi.putHand, { params: { id: job.finishId }, body });
}

export function useAddPhoto(job: Owned) {
  return useJobMutation(({ photo, bytes }: { photo: Photo; bytes: Blob }) =>
    sendPhoto(job.id, photo.kind === 'job' ? job.id : job.finishId, photo, bytes),
  );
}

export function useRemovePhoto() {
  return useJobMutation((photoId: string) => call(photosApi.remove, { params: { id: photoId } }));
}

export function usePutCard(job: Owned) {
  return useJobMutation((body: BodyOf<typeof cardsApi.put>) =>
    call(cardsApi.put, { params: { id: job.finishId }, body }),
  );
}

/** Puts the card in force aside, so that a new one can be begun. */
export function useRetireCard(job: Owned) {
  return useJobMutation((version: number) =>
    call(cardsApi.retire, { params: { id: job.finishId }, body: { version } }),
  );
}

/** Puts an earlier card in force again. */
export function useRecallCard() {
  return useJobMutation((cardId: string) => call(cardsApi.recall, { params: { id: cardId } }));
}
