import { beforeAll, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { mapCounts, SWEPT_STRENGTHS, type TargetAngle } from '@steady-gleam/core/matching';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { SweptMap } from '../../worker/computeTypes';
import type { useMatchMap as Hook } from './useMatchMap';

const ANGLES = 1;
const target: TargetAngle[] = [{ incidence: 45, aspecular: 45, lab: [50, 0, 0], tolerance: 1 }];
/** Strengths the workers were asked a whole map of, in order. */
const asked: number[] = [];
const targets: unknown[] = [];
/** What was made ready for a slider: by which worker, at which strength it rested, over how many grounds. */
const swept: [number, number, number][] = [];
let release: (() => void)[] = [];
let isHeld = false;
/** Strength at which the workers fail. */
let broken: number | null = null;
/** Workers make nothing ready. */
let isSlow = false;

/** Rows as the worker packs them, every cell as far off as the strength says. */
function packed(strength: number, rows: number): Float64Array {
  const cells = mapCounts().length * (2 + 4 * ANGLES);
  return new Float64Array(rows * (7 + cells)).fill(strength);
}

/** Grounds whose colour is light of one strength: as grey as it was mixed. */
function sweptMap(ids: readonly string[]): SweptMap {
  const counts = mapCounts();
  const of = (strength: number) => new Float64Array((counts.length + 1) * ANGLES * 3).fill(10 * strength);
  return {
    sweep: { groundIds: ids, counts, xyz: SWEPT_STRENGTHS.map((strength) => ids.map(() => of(strength))) },
    seen: target,
  };
}

jest.mock('../../worker/useCompute', () => ({
  computeRemote: (which: number) => ({
    mapRows: async (mix: { strength: number }, of: unknown, _l: unknown, ids: string[]) => {
      targets.push(of);
      if (which === 0) asked.push(mix.strength);
      if (isHeld) await new Promise<void>((go) => release.push(go));
      if (mix.strength === broken) throw new Error('No such film.');
      return packed(mix.strength, ids.length);
    },
    sweep: async (mix: { strength: number }, _t: unknown, _l: unknown, ids: string[]) => {
      swept.push([which, mix.strength, ids.length]);
      return isSlow ? null : sweptMap(ids);
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

beforeEach(() => {
  asked.length = 0;
  targets.length = 0;
  swept.length = 0;
  release = [];
  isHeld = false;
  isSlow = false;
  broken = null;
});

/** A map that rests at a strength, and is ready for a drag. */
async function resting(strength: number) {
  const drawn = renderHook(({ of }) => useMatchMap(of), { initialProps: { of: target } });
  act(() => drawn.result.current.ask(wish(strength)));
  await waitFor(() => expect(drawn.result.current.settled).toBe(true));
  await waitFor(() => expect(swept).toHaveLength(2));
  return drawn;
}
type Drawn = Awaited<ReturnType<typeof resting>>['result'];
const shownAt = (result: Drawn) => result.current.shown?.mix.strength;
const lightness = (result: Drawn) => result.current.shown!.map.rows[0]!.cells[0]!.labs[0]![0];

describe('the map follows the slider', () => {
  it('is worked out whole once, and made ready for the next drag by both workers', async () => {
    const { result } = await resting(1.2);
    expect(shownAt(result)).toBe(1.2);
    expect(asked).toEqual([1.2]);
    expect(result.current.shown!.map.rows).toHaveLength(REFERENCE_LIBRARY.grounds.length);
    expect(swept.map(([which, strength]) => [which, strength])).toEqual([
      [0, 1.2],
      [1, 1.2],
    ]);
    expect(swept.reduce((sum, [, , grounds]) => sum + grounds, 0)).toBe(REFERENCE_LIBRARY.grounds.length);
  });

  it('is told in the event itself, and worked out whole once the slider rests', async () => {
    const { result } = await resting(1);
    const tones = [1.1, 1.5, 1.9].map((strength) => {
      act(() => result.current.ask(wish(strength)));
      expect(shownAt(result)).toBe(strength);
      expect(result.current.settled).toBe(false);
      return lightness(result);
    });
    // Y is 11, 15 and 19 of a hundred: CIE 15, L* = 116 (Y/100)^(1/3) - 16.
    [11, 15, 19].forEach((y, i) => expect(tones[i]).toBeCloseTo(116 * Math.cbrt(y / 100) - 16, 3));
    expect(asked).toEqual([1]);
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect(asked).toEqual([1, 1.9]);
    // The same sweep serves the next drag.
    expect(swept).toHaveLength(2);
  });

  it('goes on from the slider while a whole map is on its way: what is older never takes its place', async () => {
    const { result } = await resting(1);
    isHeld = true;
    act(() => result.current.ask(wish(1.3)));
    await waitFor(() => expect(asked).toEqual([1, 1.3]));
    act(() => result.current.ask(wish(1.4)));
    expect(shownAt(result)).toBe(1.4);
    isHeld = false;
    await act(async () => go());
    expect(shownAt(result)).toBe(1.4);
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect([shownAt(result), asked.at(-1)]).toEqual([1.4, 1.4]);
  });

  it('leaves out what was passed by while nothing is ready, and never ends on an older wish', async () => {
    isHeld = true;
    isSlow = true;
    const { result } = renderHook(() => useMatchMap(target));
    act(() => result.current.ask(wish(0.6)));
    for (const strength of [0.7, 0.8, 0.9, 1.1]) act(() => result.current.ask(wish(strength)));
    await act(async () => go());
    await waitFor(() => expect(asked).toEqual([0.6, 1.1]));
    expect(result.current.settled).toBe(false);
    isHeld = false;
    await act(async () => go());
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect(shownAt(result)).toBe(1.1);
    // Nothing was ready, and a strength beyond the slider never is.
    act(() => result.current.ask(wish(1.2)));
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect(asked).toEqual([0.6, 1.1, 1.2]);
  });

  it('is worked out whole where the sweep knows nothing of it: another light, a strength beyond the slider', async () => {
    const { result } = await resting(1);
    act(() => result.current.ask(wish(2.5)));
    await waitFor(() => expect(shownAt(result)).toBe(2.5));
    expect(asked).toEqual([1, 2.5]);
    act(() => result.current.ask({ ...wish(1), light: 'A' }));
    await waitFor(() => expect(result.current.shown?.light).toBe('A'));
    expect(asked).toEqual([1, 2.5, 1]);
    await waitFor(() => expect(swept).toHaveLength(4));
  });

  it('says what can’t be computed, but not of a wish that was passed by', async () => {
    isSlow = true;
    broken = 0.6;
    const { result } = renderHook(() => useMatchMap(target));
    act(() => result.current.ask(wish(0.6)));
    await waitFor(() => expect(result.current.error).toBe('No such film.'));
    isHeld = true;
    act(() => result.current.ask(wish(0.6)));
    act(() => result.current.ask(wish(0.8)));
    isHeld = false;
    await act(async () => go());
    await waitFor(() => expect(result.current.settled).toBe(true));
    expect([shownAt(result), result.current.error]).toEqual([0.8, null]);
    // Passed by while it was worked on: what is shown stays.
    isHeld = true;
    act(() => result.current.ask(wish(0.6)));
    act(() => result.current.ask(wish(0.9)));
    await act(async () => go());
    expect(result.current.error).toBeNull();
    isHeld = false;
    await act(async () => go());
    await waitFor(() => expect(shownAt(result)).toBe(0.9));
  });

  it('asks about the target of the wish, also where the page moved to another while it worked', async () => {
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
