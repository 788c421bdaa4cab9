import type { Illuminant } from '@steady-gleam/core/colour';
import { withCount } from '@steady-gleam/core/finishes';
import {
  assembleMap,
  canSweep,
  mapCounts,
  recipeFigures,
  sweptRows,
  unpackRows,
  type MapRow,
  type MatchMap,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import { findCarrier, findGround, findMix, type Library } from '@steady-gleam/core/materials';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLibrary } from '../../shared/library';
import type { Mix } from '@steady-gleam/core/looks';
import type { SweptMap } from '../../worker/computeTypes';
import { computeRemote } from '../../worker/useCompute';
import { viewingOf } from '../../worker/viewingOf';

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
  /** Wishes are counted: an older one never takes the place of a newer. */
  readonly nth: number;
  /** Nothing was wished for a while after it. */
  readonly rested: boolean;
}

const COUNTS = mapCounts();
/** So long after the last wish the map is worked out whole, ms. */
const RESTS_AFTER = 120;

/** Both workers share a map: solids share their layer operators, so they stay together; metallics cost as much again. */
const halvesOf = ({ grounds }: Library): string[][] =>
  [grounds.filter((g) => !g.flakes), grounds.filter((g) => g.flakes)].map((list) => list.map((g) => g.id));

/** The map of its rows, in the order of the grounds, with its picks. */
function assembled({ library, mix }: Asked, rows: readonly MapRow[]): MatchMap {
  const byId = new Map(rows.map((row) => [row.groundId, row]));
  const system = findMix(mix.mixId, library.systems);
  const carrier = findCarrier(system.carrierId, library.carriers);
  return assembleMap(
    COUNTS,
    library.grounds.map((g) => byId.get(g.id)!),
    ({ groundId, coats }) =>
      recipeFigures(
        findGround(groundId, library.grounds),
        system,
        carrier,
        withCount(system.family, { ...mix, coats: 0 }, coats),
      ).costPerM2,
  );
}

async function computeMap(asked: Asked): Promise<MatchMap> {
  const { target, library, mix, light } = asked;
  const ids = halvesOf(library);
  const halves = await Promise.all(
    ids.map((groundIds, i) => computeRemote(i as 0 | 1).mapRows(mix, target, light, groundIds)),
  );
  return assembled(
    asked,
    halves.flatMap((packed, i) => unpackRows(packed, ids[i]!, COUNTS, target.length)),
  );
}

/** What tells maps at every strength, and what it was made of. */
interface Swept {
  readonly of: Asked;
  readonly halves: readonly SweptMap[];
}

/** One sweep tells both: they differ in strength at most. */
const sameSweep = (a: Asked, b: Asked): boolean =>
  a.target === b.target &&
  a.library === b.library &&
  a.light === b.light &&
  a.mix.mixId === b.mix.mixId &&
  a.mix.style === b.mix.style &&
  a.mix.controlCoats === b.mix.controlCoats;

/** Makes the map ready to follow the slider; null where a newer one ended it. */
async function sweep(of: Asked): Promise<Swept | null> {
  const halves = await Promise.all(
    halvesOf(of.library).map((ids, i) => computeRemote(i as 0 | 1).sweep(of.mix, of.target, of.light, ids)),
  );
  const whole = halves.filter((half) => half !== null);
  return whole.length === halves.length ? { of, halves: whole } : null;
}

/** The map as a sweep tells it, in a few milliseconds; null where it knows nothing of it. */
function toldBy(swept: Swept | null, asked: Asked): MatchMap | null {
  const { strength } = asked.mix;
  if (!swept || !sameSweep(swept.of, asked) || !canSweep(strength)) return null;
  const look = { viewing: viewingOf(asked.light) };
  return assembled(
    asked,
    swept.halves.flatMap((half) => sweptRows(half.sweep, strength, half.seen, look)),
  );
}

/**
 * The match map, newest wish wins. It is worked out whole by the workers, and then made ready for every strength: a drag is told from
 * that at once, in the event itself, so that the picture stands in the same frame as the slider. Once it rests it is worked out whole.
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
  const newest = useRef(0);
  const latestShown = useRef(0);
  /** What the workers are to work out next. */
  const wanted = useRef<Asked | null>(null);
  const busy = useRef(false);
  const mounted = useRef(true);
  /** What the workers were last told to make ready, and what is. */
  const sweeping = useRef<Asked | null>(null);
  const ready = useRef<Swept | null>(null);
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
      const show = (now: Asked, map: MatchMap, settled: boolean) => {
        if (!mounted.current || now.nth < latestShown.current) return;
        latestShown.current = now.nth;
        setState({ shown: { map, mix: now.mix, light: now.light }, settled, error: null });
      };
      // A drag goes on: what it is told from is made ready between its steps. Where that fails, maps are worked out whole.
      const makeReady = (now: Asked) => {
        if (sweeping.current && sameSweep(sweeping.current, now)) return;
        sweeping.current = now;
        void sweep(now)
          .then((swept) => {
            if (swept && sweeping.current === now) ready.current = swept;
          })
          .catch(() => undefined);
      };
      const settle = () => setState((old) => ({ ...old, settled: true }));
      const work = async (): Promise<void> => {
        if (busy.current) return;
        busy.current = true;
        for (let now = wanted.current; now && mounted.current; now = wanted.current) {
          wanted.current = null;
          try {
            const map = await computeMap(now);
            show(now, map, now.rested && now.nth === newest.current);
            if (mounted.current && !now.rested && now.nth === newest.current)
              rest.current = setTimeout(settle, RESTS_AFTER);
          } catch (error) {
            const message = error instanceof Error ? error.message : String(error);
            // What is newer is told, or worked out next.
            if (mounted.current && now.nth === newest.current)
              setState((old) => ({ ...old, settled: true, error: message }));
          }
          if (mounted.current) makeReady(now);
        }
        busy.current = false;
      };
      if (!target.length) return;
      const asked: Asked = { ...wish, target, library, nth: ++newest.current, rested: false };
      clearTimeout(rest.current);
      wanted.current = null;
      const whole = (rested: boolean) => {
        wanted.current = { ...asked, rested };
        void work();
      };
      const told = toldBy(ready.current, asked);
      if (told) {
        show(asked, told, false);
        rest.current = setTimeout(() => whole(true), RESTS_AFTER);
      } else whole(false);
    },
    [target, library],
  );
  return { ...state, ask };
}
