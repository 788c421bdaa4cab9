import { finishesApi, type BodyOf, type FinishSummary } from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './apiClient';

const KEY = ['jobs', 'finishes'] as const;

/** Every finish of the shop, the latest changed first. What changes a job changes them too. */
export function useFinishes() {
  return useQuery({ queryKey: KEY, queryFn: () => call(finishesApi.list) as Promise<FinishSummary[]> });
}

export function useFinish(id: string) {
  return useQuery({
    queryKey: [...KEY, id],
    queryFn: () => call(finishesApi.read, { params: { id } }) as Promise<FinishSummary>,
  });
}

function useFinishChange<T>(run: (body: T) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }) });
}

export const useRenameFinish = (id: string) =>
  useFinishChange((body: BodyOf<typeof finishesApi.rename>) => call(finishesApi.rename, { params: { id }, body }));

export const useRemoveFinish = (id: string) =>
  useFinishChange((version: number) => call(finishesApi.remove, { params: { id }, body: { version } }));
