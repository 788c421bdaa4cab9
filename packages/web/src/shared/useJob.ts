import { api, type JobDetail } from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useOutletContext } from 'react-router';
import type { InferType } from 'yup';
import { call } from './apiClient';

export const jobKey = (id: string) => ['jobs', id] as const;

export function useJobDetail(id: string) {
  return useQuery({ queryKey: jobKey(id), queryFn: () => call(api.readJob, { params: { id } }) });
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

export function usePutCard(id: string) {
  return useJobMutation(id, (body: InferType<typeof api.putCard.body>) => call(api.putCard, { params: { id }, body }));
}
