import { PAGE_SIZE } from '@steady-gleam/contracts';
import { keepPreviousData, useQueries, useQuery, type QueryKey } from '@tanstack/react-query';
import { useCallback, useState } from 'react';

interface Page<T> {
  readonly rows: readonly T[];
  readonly total: number;
}

/** A long list of which only the pages that are being looked at are fetched. */
export interface Pages<P extends Page<unknown>> {
  /** The first page as it was told, with what stands beside its rows; undefined until it is there. */
  readonly first: P | undefined;
  readonly total: number;
  /** A row by its number in the whole list; null while its page is on its way. */
  readonly row: (at: number) => P['rows'][number] | null;
  /** Says which rows are being looked at. */
  readonly look: (from: number, to: number) => void;
  /** When the first page was told, ms since 1970 by this device. */
  readonly knownAt: number;
  readonly error: Error | null;
  readonly refetch: () => void;
}

/**
 * Pages of a list, the first one always, the others as they are looked at.
 * @param key what the list is asked for; another one starts at its first page @param refetchMs how often it is asked again
 */
export function usePages<P extends Page<unknown>>(
  key: QueryKey,
  fetchPage: (page: number) => Promise<P>,
  refetchMs?: number,
): Pages<P> {
  /** Pages that are being looked at, the first and the last. */
  const [seen, setSeen] = useState<readonly [number, number]>([0, 0]);
  const options = (page: number) => ({
    queryKey: [...key, page],
    queryFn: () => fetchPage(page),
    ...(refetchMs === undefined ? {} : { staleTime: 0, refetchInterval: refetchMs }),
  });
  // What was found stays on the page until the next search has answered.
  const {
    data: first,
    error,
    refetch,
    dataUpdatedAt: knownAt,
  } = useQuery({ ...options(0), placeholderData: keepPreviousData });
  const last = Math.max(0, Math.ceil((first?.total ?? 0) / PAGE_SIZE) - 1);
  const from = Math.max(1, seen[0]);
  const to = Math.min(last, seen[1]);
  const wanted = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);
  const others = useQueries({ queries: wanted.map(options) });
  const look = useCallback((start: number, end: number) => {
    const [a, b] = [Math.floor(start / PAGE_SIZE), Math.floor(end / PAGE_SIZE)];
    setSeen((old) => (old[0] === a && old[1] === b ? old : [a, b]));
  }, []);
  const row = (at: number): P['rows'][number] | null => {
    const page = Math.floor(at / PAGE_SIZE);
    const rows = page === 0 ? first?.rows : others[page - from]?.data?.rows;
    return rows?.[at % PAGE_SIZE] ?? null;
  };
  return { first, total: first?.total ?? 0, row, look, knownAt, error, refetch: () => void refetch() };
}
