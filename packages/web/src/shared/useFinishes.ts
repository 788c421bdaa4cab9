import { bankApi, finishesApi, type BodyOf, type FinishQuery, type FinishSummary } from '@steady-gleam/contracts';
import type { AngleLab, BankReading, NearestFinish } from '@steady-gleam/core/bank';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useCompute } from '../worker/useCompute';
import { call } from './apiClient';
import { usePages } from './usePages';

const KEY = ['jobs', 'finishes'] as const;

/** Pages of the finishes that answer to a query. What changes a job changes them too. */
export function useFinishPages(query: Omit<FinishQuery, 'page'>) {
  return usePages([...KEY, 'list', query], (page) => call(finishesApi.list, { body: { ...query, page } }));
}

/** What the list tells of some finishes, by id; empty until it is there. */
export function useFinishRows(ids: readonly string[]): ReadonlyMap<string, FinishSummary> {
  const query = { words: '', family: null, ids: [...ids], proven: false, sort: 'latest' as const, page: 0 };
  const { data } = useQuery({
    queryKey: [...KEY, 'list', query],
    queryFn: () => call(finishesApi.list, { body: query }),
    enabled: ids.length > 0,
    placeholderData: keepPreviousData,
  });
  return useMemo(() => new Map(data?.rows.map((f) => [f.id, f])), [data]);
}

export function useFinish(id: string | null) {
  return useQuery({
    queryKey: [...KEY, id],
    queryFn: () => call(finishesApi.read, { params: { id: id! } }),
    enabled: id !== null,
  });
}

function useFinishChange<T, R>(run: (body: T) => Promise<R>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }) });
}

export const useRenameFinish = (id: string) =>
  useFinishChange((body: BodyOf<typeof finishesApi.rename>) => call(finishesApi.rename, { params: { id }, body }));

export const useCopyFinish = (id: string) =>
  useFinishChange((body: BodyOf<typeof finishesApi.copy>) => call(finishesApi.copy, { params: { id }, body }));

export const useRemoveFinish = (id: string) =>
  useFinishChange((version: number) => call(finishesApi.remove, { params: { id }, body: { version } }));

/** The bank's readings this page's worker has. */
let told: readonly BankReading[] | null = null;

/**
 * The finishes nearest to a reading, in the worker, the newest question first: it answers while something moves.
 * @param asked null asks nothing @param of one finish alone, to be looked at again; left out for all of them
 */
export function useNearest(asked: readonly AngleLab[] | null, of?: string) {
  const { data, error, dataUpdatedAt } = useQuery({
    queryKey: [...KEY, 'readings'],
    queryFn: () => call(bankApi.readings),
    enabled: asked !== null,
  });
  const readings = data?.readings ?? null;
  const key = asked?.length && readings ? JSON.stringify([asked, of ?? null, dataUpdatedAt]) : null;
  const found = useCompute<readonly NearestFinish[]>(key, async (compute) => {
    if (told !== readings) {
      await compute.setBank(readings!);
      told = readings;
    }
    return compute.nearest(asked!, of ?? null);
  });
  return { ...found, readings: readings?.length ?? 0, error: error?.message ?? found.error };
}
