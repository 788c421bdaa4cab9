import { beforeEach, describe, expect, it } from '@jest/globals';
import type { Recipe } from '@steady-gleam/core/finishes';
import { act, renderHook } from '@testing-library/react';
import { MOST_COMPARED, useCompareList } from './compareList';

const recipe = (coats: number): Recipe => ({ groundId: 'white', coats, strength: 1, style: 'wet', controlCoats: 0 });

describe('candidates put aside', () => {
  beforeEach(() => sessionStorage.clear());

  it('are there wherever they are looked at, in the order they came, and go the same way', () => {
    const here = renderHook(() => useCompareList('job'));
    const there = renderHook(() => useCompareList('job'));
    act(() => here.result.current.toggle(recipe(2)));
    act(() => there.result.current.toggle(recipe(3)));
    for (const { result } of [here, there]) expect(result.current.list).toEqual([recipe(2), recipe(3)]);
    expect(here.result.current.has({ ...recipe(3) })).toBe(true);
    act(() => here.result.current.toggle(recipe(2)));
    expect(there.result.current.list).toEqual([recipe(3)]);
    expect(there.result.current.has(recipe(2))).toBe(false);
  });

  it('are those of one job, and no more than can be told apart', () => {
    const one = renderHook(() => useCompareList('one'));
    const other = renderHook(() => useCompareList('other'));
    for (let n = 1; n <= MOST_COMPARED + 2; n++) act(() => one.result.current.toggle(recipe(n)));
    expect(one.result.current.list.map((r) => r.coats)).toEqual([1, 2, 3, 4]);
    expect(other.result.current.list).toEqual([]);
  });

  it('are none where what was kept is damaged', () => {
    for (const text of ['{', '"x"', 'null', '7']) {
      sessionStorage.setItem('steady-gleam.compare.job', text);
      expect(renderHook(() => useCompareList('job')).result.current.list).toEqual([]);
    }
  });
});
