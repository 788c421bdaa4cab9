import type { Recipe } from '@steady-gleam/core/finishes';
import { useCallback, useMemo, useSyncExternalStore } from 'react';

/** As many as fit side by side and can still be told apart. */
export const MOST_COMPARED = 4;

const keyOf = (jobId: string) => `steady-gleam.compare.${jobId}`;
const listeners = new Set<() => void>();
const same = (a: Recipe, b: Recipe) =>
  a.groundId === b.groundId &&
  a.coats === b.coats &&
  a.strength === b.strength &&
  a.style === b.style &&
  a.controlCoats === b.controlCoats;

function read(jobId: string): Recipe[] {
  try {
    const found = JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? '[]') as unknown;
    return Array.isArray(found) ? (found as Recipe[]) : [];
  } catch {
    return [];
  }
}

/** Candidates put aside to be compared, for as long as this window is open. */
export function useCompareList(jobId: string): {
  list: readonly Recipe[];
  has: (c: Recipe) => boolean;
  toggle: (c: Recipe) => void;
} {
  const text = useSyncExternalStore(
    (notify) => {
      listeners.add(notify);
      return () => listeners.delete(notify);
    },
    () => sessionStorage.getItem(keyOf(jobId)) ?? '[]',
  );
  // The text is what changes; the list follows it.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const list = useMemo(() => read(jobId), [jobId, text]);
  const toggle = useCallback(
    (c: Recipe) => {
      const old = read(jobId);
      const next = old.some((o) => same(o, c)) ? old.filter((o) => !same(o, c)) : [...old, c].slice(0, MOST_COMPARED);
      sessionStorage.setItem(keyOf(jobId), JSON.stringify(next));
      listeners.forEach((l) => l());
    },
    [jobId],
  );
  return { list, has: (c) => list.some((o) => same(o, c)), toggle };
}
