import {
  api,
  letdownApi,
  photoPath,
  type Job,
  type JobDetail,
  type JobSummary,
  type Photo,
  type VerdictEvent,
} from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useOutletContext } from 'react-router';
import type { InferType } from 'yup';
import { ApiFailure, call, sendBytes } from './apiClient';

export const jobKey = (id: string) => ['jobs', id] as const;

export function useJobDetail(id: string) {
  return useQuery({ queryKey: jobKey(id), queryFn: () => call(api.readJob, { params: { id } }) });
}

/** The job as the list of jobs tells it: where its run stands, what was read. Null until the list is there. */
export function useJobSummary(id: string): JobSummary | null {
  const { data } = useQuery({ queryKey: ['jobs'], queryFn: () => call(api.listJobs) });
  return data?.find((j) => j.id === id) ?? null;
}

/** A job's detail, and which of its objects it is about; null for all of them. */
export type PageDetail = JobDetail & { readonly objectId: string | null };

/** The detail as one object has it: its own target where it was read by itself. */
export function ofObject(detail: JobDetail, objectId: string | null): PageDetail {
  const own = detail.objectTargets.find((s) => s.objectId === objectId);
  return { ...detail, objectId, ...(own ? { target: own, targetHistory: [] } : {}) };
}

/** The job of the place being shown; JobLayout loads it. */
export function useJob(): PageDetail {
  return useOutletContext<PageDetail>();
}

const pickKey = (id: string) => `steady-gleam.object.${id}`;

/** The object the pages of a job are about, kept in this window; null for all. */
export function usePickedObject(
  id: string,
  objects: readonly { readonly id: string }[],
): [string | null, (objectId: string | null) => void] {
  const [picked, setPicked] = useState(() => sessionStorage.getItem(pickKey(id)));
  return [
    objects.length > 1 && objects.some((o) => o.id === picked) ? picked : null,
    (objectId) => {
      if (objectId === null) sessionStorage.removeItem(pickKey(id));
      else sessionStorage.setItem(pickKey(id), objectId);
      setPicked(objectId);
    },
  ];
}

function useJobMutation<T>(id: string, run: (input: T) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }) });
}

type JobChange = InferType<typeof api.changeJob.body>;

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
  const job = (await call(api.changeJob, { params: { id }, body: { ...change, version } })) as Job;
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

export function useAddReadings(id: string) {
  return useJobMutation(id, (body: InferType<typeof api.addReadings.body>) =>
    call(api.addReadings, { params: { id }, body }),
  );
}

/** Takes a set of readings out of force, or puts it back. */
export function useRemoveReadings(id: string) {
  return useJobMutation(id, ({ setId, removed }: { setId: string; removed: boolean }) =>
    call(api.removeReadings, { params: { id: setId }, body: { removed } }),
  );
}

export function useAddVerdict(id: string) {
  return useJobMutation(id, (body: VerdictEvent) => call(letdownApi.addVerdict, { params: { id }, body }));
}

/** Keeps what a card said of the hand, for the next card with this gun. */
export function putHand(id: string, body: InferType<typeof letdownApi.putHand.body>): Promise<unknown> {
  return call(letdownApi.putHand, { params: { id }, body });
}

export function useAddPhoto(id: string) {
  return useJobMutation(id, ({ photo, bytes }: { photo: Photo; bytes: Blob }) =>
    sendBytes(photoPath(id, photo), bytes),
  );
}

export function useRemovePhoto(id: string) {
  return useJobMutation(id, (photoId: string) => call(letdownApi.removePhoto, { params: { id: photoId } }));
}

export function usePutCard(id: string) {
  return useJobMutation(id, (body: InferType<typeof api.putCard.body>) => call(api.putCard, { params: { id }, body }));
}
