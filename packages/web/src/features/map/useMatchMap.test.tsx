import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import { mapCounts, type TargetAngle } from '@steady-gleam/core/matching';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { useMatchMap as Hook } from './useMatchMap';

const ANGLES = 1;
const target: TargetAngle[] = [{ incidence: 45, aspecular: 45, lab: [50, 0, 0], tolerance: 1 }];
/** What the workers were asked, in order: strength, and whether it was to be quick. */
const asked: { strength: number; isMoving: boolean }[] = [];
const targets: unknown[] = [];
/** What was made ready for a slider: by which worker, at which strength it rested, over how many grounds. */
const swept: [number, number, number][] = [];
let release: (() => void)[] = [];
let isHeld = false;
/** Whole maps wait, quick ones do not. */
let isWholeHeld = false;

/** Rows as the worker packs them, every cell as far off as the strength says. */
function packed(strength: number, rows: number): Float64Array {
  const cells = mapCounts().length * (2 + 4 * ANGLES);
  return new Float64Array(rows * (7 + cells)).fill(strength);
}

jest.mock('../../worker/useCompute', () => ({
  computeRemote: (which: number) => ({
    mapRows: async (mix: { strength: number }, of: unknown, _l: unknown, ids: string[], isMoving: boolean) => {
      targets.push(of);
      if (which === 0) asked.push({ strength: mix.strength, isMoving });
      if (isHeld || (isWholeHeld && !isMoving)) await new Promise<void>((go) => release.push(go));
      return packed(mix.strength, ids.length);
    },
    sweep: async (mix: { strength: number }, _t: unknown, _l: unknown, ids: string[]) => {
      swept.push([which, mix.strength, ids.length]);
    },
  }),
}));

// Asked for after its workers were put in their place.
let useMatchMap: typeof Hook;
beforeAll(async () => {
  ({ useMatchMap } = await import('./useMatchMap'));
});

const wish = (strength: number) =>
  ({ mix: { mixId: 'lagoon-pearl', strength, style: 'wet', controlCoats: 0 }, light: 'D65' }) as const;
const go = () => {
  const all = release;
  release = [];
  all.forEach((f) => f());
};

describe('the map follows the slider', () => {
  it('is quick at once and whole once the slider rests', async () => {
    asked.length = 0;
    isWholeHeld = true;
    const { result } = renderHook(() => useMatchMap(target));
    act(() => result.current.ask(wish(1.2)));
    await waitFor(() => expect(result.current.shown?.mix.strength).toBe(1.2));
    expect(result.current.settled).toBe(false);
    await waitFor(() => expect(asked).toHaveLength(2));
    isWholeHeld = false;
    await act(async () => go());
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect(asked).toEqual([
      { strength: 1.2, isMoving: true },
      { strength: 1.2, isMoving: false },
    ]);
    expect(result.current.shown!.map.rows).toHaveLength(REFERENCE_LIBRARY.grounds.length);
    // What rests is made ready for the next drag, by both workers.
    await waitFor(() =>
      expect(swept.map(([which, strength]) => [which, strength])).toEqual([
        [0, 1.2],
        [1, 1.2],
      ]),
    );
    expect(swept.reduce((sum, [, , grounds]) => sum + grounds, 0)).toBe(REFERENCE_LIBRARY.grounds.length);
  });

  it('leaves out what was passed by while it worked, and never ends on an older wish', async () => {
    asked.length = 0;
    isHeld = true;
    const { result } = renderHook(() => useMatchMap(target));
    act(() => result.current.ask(wish(0.6)));
    for (const strength of [0.7, 0.8, 0.9, 1.1]) act(() => result.current.ask(wish(strength)));
    await act(async () => go());
    await waitFor(() => expect(asked.map((a) => a.strength)).toEqual([0.6, 1.1]));
    isHeld = false;
    await act(async () => go());
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect(result.current.shown?.mix.strength).toBe(1.1);
    expect(asked.at(-1)).toEqual({ strength: 1.1, isMoving: false });
  });

  it('is not whole while a newer wish waits for the whole one to end', async () => {
    asked.length = 0;
    const { result } = renderHook(() => useMatchMap(target));
    isWholeHeld = true;
    act(() => result.current.ask(wish(1)));
    await waitFor(() => expect(result.current.shown?.mix.strength).toBe(1));
    await waitFor(() => expect(asked).toHaveLength(2));
    // The whole map is on its way; the slider moves on.
    act(() => result.current.ask(wish(1.4)));
    isWholeHeld = false;
    await act(async () => go());
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect(result.current.shown?.mix.strength).toBe(1.4);
    expect(asked.map((a) => a.strength)).toEqual([1, 1, 1.4, 1.4]);
  });

  it('asks about the target of the wish, also where the page moved to another while it worked', async () => {
    targets.length = 0;
    isHeld = true;
    const other: TargetAngle[] = [{ ...target[0]!, lab: [20, 5, 5] }];
    const { result, rerender } = renderHook(({ of }) => useMatchMap(of), { initialProps: { of: target } });
    act(() => result.current.ask(wish(1)));
    rerender({ of: other });
    act(() => result.current.ask(wish(1)));
    isHeld = false;
    await act(async () => go());
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect(targets.slice(0, 2)).toEqual([target, target]);
    expect(targets.slice(2)).toEqual(targets.slice(2).map(() => other));
    expect(targets.length).toBeGreaterThan(2);
  });
});
