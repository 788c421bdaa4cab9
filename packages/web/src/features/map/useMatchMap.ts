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
import type { Mix } from '@steady-gleam/core/looks';
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

/** A wish with what it was made of: by the time it is worked out the page may be about another target. */
interface Asked extends Wish {
  readonly target: readonly TargetAngle[];
  readonly library: Library;
}

const COUNTS = mapCounts();
/** So long after the last wish the map is worked out whole, ms. */
const RESTS_AFTER = 120;

/** Both workers share a map: solids share their layer operators, so they stay together; metallics cost as much again. */
const halvesOf = ({ grounds }: Library): string[][] =>
  [grounds.filter((g) => !g.flakes), grounds.filter((g) => g.flakes)].map((list) => list.map((g) => g.id));

async function computeMap({ target, library, ...wish }: Asked, isMoving: boolean): Promise<MatchMap> {
  const ids = halvesOf(library);
  const halves = await Promise.all(
    ids.map((groundIds, i) => computeRemote(i as 0 | 1).mapRows(wish.mix, target, wish.light, groundIds, isMoving)),
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

/** One sweep tells both: they differ in strength at most. */
const sameSweep = (a: Asked, b: Asked): boolean =>
  a.target === b.target &&
  a.library === b.library &&
  a.light === b.light &&
  a.mix.mixId === b.mix.mixId &&
  a.mix.style === b.mix.style &&
  a.mix.controlCoats === b.mix.controlCoats;

/** Makes the map ready to follow the slider. */
const sweep = async ({ target, library, mix, light }: Asked): Promise<unknown> =>
  Promise.all(halvesOf(library).map((ids, i) => computeRemote(i as 0 | 1).sweep(mix, target, light, ids)));

/**
 * The match map, newest wish wins. A wish goes to the workers at once, from the event itself, so that the map does not wait
 * for the controls to be drawn. Once they rest it is worked out whole and made ready for every strength, so that it follows the next drag.
 */
export function useMatchMap(target: readonly TargetAngle[]): {
  shown: ShownMap | null;
  /** The map is whole, and no newer one is on its way. */
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
  const wanted = useRef<Asked | null>(null);
  const busy = useRef(false);
  const mounted = useRef(true);
  /** What the workers were last told to make ready. */
  const swept = useRef<Asked | null>(null);
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);

  useEffect(() => {
    mounted.current = true;
    return () => {
      mounted.current = false;
      clearTimeout(rest.current);
    };
  }, []);

  const ask = useCallback(
    (wish: Wish) => {
      const work = async (now: Asked, isMoving: boolean): Promise<void> => {
        try {
          const map = await computeMap(now, isMoving);
          const isLast = !isMoving && !wanted.current;
          if (mounted.current)
            setState({ shown: { map, mix: now.mix, light: now.light }, settled: isLast, error: null });
        } catch (error) {
          const message = error instanceof Error ? error.message : String(error);
          if (mounted.current) setState((old) => ({ ...old, settled: true, error: message }));
        }
      };
      const keepUp = async (): Promise<void> => {
        if (busy.current) return;
        busy.current = true;
        let last: Asked | null = null;
        while (wanted.current && mounted.current) {
          last = wanted.current;
          wanted.current = null;
          await work(last, true);
          // A drag goes on: what it is told from is made ready between its steps. Where that fails, maps are worked out whole.
          if (mounted.current && !(swept.current && sameSweep(swept.current, last))) {
            swept.current = last;
            void sweep(last).catch(() => undefined);
          }
        }
        busy.current = false;
        if (last && mounted.current) rest.current = setTimeout(() => void settle(last), RESTS_AFTER);
      };
      const settle = async (last: Asked): Promise<void> => {
        busy.current = true;
        await work(last, false);
        busy.current = false;
        if (wanted.current) await keepUp();
      };
      if (!target.length) return;
      wanted.current = { ...wish, target, library };
      clearTimeout(rest.current);
      void keepUp();
    },
    [target, library],
  );
  return { ...state, ask };
}
