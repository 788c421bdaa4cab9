import {
  api,
  letdownApi,
  photoPath,
  type JobDetail,
  type JobSummary,
  type Photo,
  type VerdictEvent,
} from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useOutletContext } from 'react-router';
import type { InferType } from 'yup';
import { call, sendBytes } from './apiClient';

export const jobKey = (id: string) => ['jobs', id] as const;

export function useJobDetail(id: string) {
  return useQuery({ queryKey: jobKey(id), queryFn: () => call(api.readJob, { params: { id } }) });
}

/** The job as the list of jobs tells it: where its run stands, what was read. Null until the list is there. */
export function useJobSummary(id: string): JobSummary | null {
  const { data } = useQuery({ queryKey: ['jobs'], queryFn: () => call(api.listJobs) });
  return data?.find((j) => j.id === id) ?? null;
}

/** The job of the place being shown; JobLayout loads it. */
export function useJob(): JobDetail {
  return useOutletContext<JobDetail>();
}

function useJobMutation<T>(id: string, run: (input: T) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }) });
}

export function useChangeJob(id: string) {
  return useJobMutation(id, (body: InferType<typeof api.changeJob.body>) =>
    call(api.changeJob, { params: { id }, body }),
  );
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
