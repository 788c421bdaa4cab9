import type { Illuminant } from '@steady-gleam/core/colour';
import { withCount } from '@steady-gleam/core/finishes';
import {
  assembleMap,
  mapCounts,
  recipeFigures,
  unpackRows,
  type MapRow,
  type MatchMap,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import { findCarrier, findGround, findMix, type Library } from '@steady-gleam/core/materials';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLibrary } from '../../shared/library';
import type { Mix } from '../../worker/compute';
import { computeRemote } from '../../worker/useCompute';

/** A map and what it was worked out for. */
export interface ShownMap {
  readonly map: MatchMap;
  readonly mix: Mix;
  readonly light: Illuminant;
}

interface Wish {
  readonly mix: Mix;
  readonly light: Illuminant;
}

const COUNTS = mapCounts();

/** Both workers share a map: solids share their layer operators, so they stay together; metallics cost as much again. */
async function computeMap(wish: Wish, target: readonly TargetAngle[], library: Library): Promise<MatchMap> {
  const ids = [library.grounds.filter((g) => !g.flakes), library.grounds.filter((g) => g.flakes)].map((list) =>
    list.map((g) => g.id),
  );
  const halves = await Promise.all(
    ids.map((groundIds, i) => computeRemote(i as 0 | 1).mapRows(wish.mix, target, wish.light, groundIds)),
  );
  const byId = new Map<string, MapRow>();
  halves.forEach((packed, i) => {
    for (const row of unpackRows(packed, ids[i]!, COUNTS, target.length)) byId.set(row.groundId, row);
  });
  const system = findMix(wish.mix.mixId, library.systems);
  const carrier = findCarrier(system.carrierId, library.carriers);
  return assembleMap(
    COUNTS,
    library.grounds.map((g) => byId.get(g.id)!),
    ({ groundId, coats }) =>
      recipeFigures(
        findGround(groundId, library.grounds),
        system,
        carrier,
        withCount(system.family, { ...wish.mix, coats: 0 }, coats),
      ).costPerM2,
  );
}

/**
 * The match map, newest wish wins. A wish goes to the workers at once, from the event itself, so that the map does not wait
 * for the controls to be drawn.
 */
export function useMatchMap(target: readonly TargetAngle[]): {
  shown: ShownMap | null;
  /** No newer map is on its way. */
  settled: boolean;
  error: string | null;
  ask: (wish: Wish) => void;
} {
  const { library } = useLibrary();
  const [state, setState] = useState<{ shown: ShownMap | null; settled: boolean; error: string | null }>({
    shown: null,
    settled: false,
    error: null,
  });
  const wanted = useRef<Wish | null>(null);
  const busy = useRef(false);
  const mounted = useRef(true);

  useEffect(() => {
    mounted.current = true;
    return () => {
      mounted.current = false;
    };
  }, []);

  const ask = useCallback(
    (wish: Wish) => {
      wanted.current = wish;
      if (busy.current || !target.length) return;
      busy.current = true;
      void (async () => {
        while (wanted.current && mounted.current) {
          const now = wanted.current;
          wanted.current = null;
          try {
            const map = await computeMap(now, target, library);
            if (mounted.current) setState({ shown: { map, ...now }, settled: !wanted.current, error: null });
          } catch (error) {
            const message = error instanceof Error ? error.message : String(error);
            if (mounted.current) setState((old) => ({ ...old, settled: true, error: message }));
          }
        }
        busy.current = false;
      })();
    },
    [target, library],
  );
  return { ...state, ask };
}
