import { paretoRecipes, type RatedRecipe, type TargetAngle } from '@steady-gleam/core/matching';
import type { Library } from '@steady-gleam/core/materials';
import { proxy } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Mix } from '@steady-gleam/core/looks';
import { computeRemote } from '../../worker/useCompute';

interface SearchState {
  readonly found: readonly RatedRecipe[] | null;
  /** Grounds done of all, while it runs. */
  readonly done: number | null;
  readonly error: string | null;
  /** Milliseconds the last search took. */
  readonly took: number | null;
}

let tickets = 0;

/** A search over all recipes, shared between both workers: begun anew by every `start`, ended by `stop` or on leaving. */
export function useSearch(): SearchState & {
  start: (mix: Mix, target: readonly TargetAngle[], library: Library) => void;
  stop: () => void;
} {
  const [state, setState] = useState<SearchState>({ found: null, done: null, error: null, took: null });
  const running = useRef<number | null>(null);

  const stop = useCallback(() => {
    const ticket = running.current;
    running.current = null;
    if (ticket === null) return;
    for (const which of [0, 1] as const) void computeRemote(which).stopSearch(ticket);
    setState((old) => ({ ...old, done: null }));
  }, []);
  useEffect(() => stop, [stop]);

  const start = useCallback(
    (mix: Mix, target: readonly TargetAngle[], library: Library) => {
      stop();
      const ticket = ++tickets;
      running.current = ticket;
      const began = performance.now();
      const solids = library.grounds.filter((g) => !g.flakes).map((g) => g.id);
      const metallics = library.grounds.filter((g) => g.flakes).map((g) => g.id);
      const counted = [0, 0];
      setState((old) => ({ ...old, done: 0, error: null }));
      void (async () => {
        try {
          const parts = await Promise.all(
            [solids, metallics].map((ids, i) =>
              computeRemote(i as 0 | 1).search(
                mix,
                target,
                ids,
                ticket,
                proxy((n: number) => {
                  counted[i] = n;
                  if (running.current === ticket) setState((old) => ({ ...old, done: counted[0]! + counted[1]! }));
                }),
              ),
            ),
          );
          if (running.current !== ticket) return;
          running.current = null;
          const all = parts.flatMap((p) => p ?? []);
          setState({ found: paretoRecipes(all), done: null, error: null, took: performance.now() - began });
        } catch (error) {
          if (running.current !== ticket) return;
          running.current = null;
          setState((old) => ({ ...old, done: null, error: error instanceof Error ? error.message : String(error) }));
        }
      })();
    },
    [stop],
  );
  return { ...state, start, stop };
}
