import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { LINE_FORMS } from '@steady-gleam/core/devices';
import { act, renderHook } from '@testing-library/react';
import { putSettings, settingsFor, useLineSettings, formOf } from './devices/settings';
import { mayTakeByItself, takeAfterMissing } from './newBuild';
import { toldThere } from './reach';
import { useNow } from './useNow';
import { useRested } from './useRested';

beforeEach(() => {
  jest.useFakeTimers();
  localStorage.clear();
  sessionStorage.clear();
});
afterEach(() => {
  jest.useRealTimers();
});
const wait = (ms: number) => act(() => jest.advanceTimersByTime(ms));

describe('a value that rests', () => {
  it('is what it was until it has stood still, and then the last of those it went over', () => {
    const { result, rerender } = renderHook(({ v }) => useRested(v, 150), { initialProps: { v: 1 } });
    for (const v of [2, 3, 4]) {
      rerender({ v });
      wait(100);
      expect(result.current).toBe(1);
    }
    wait(60);
    expect(result.current).toBe(4);
  });

  it('may be a function, and is not called', () => {
    const first = jest.fn(() => 1);
    const second = jest.fn(() => 2);
    const { result, rerender } = renderHook(({ v }) => useRested(v, 10), { initialProps: { v: first } });
    rerender({ v: second });
    wait(20);
    expect(result.current).toBe(second);
    expect(second).not.toHaveBeenCalled();
  });
});

describe('the clock', () => {
  it('goes on in its own steps: a page of minutes is not drawn every second', () => {
    jest.setSystemTime(new Date('2026-11-20T09:00:30.000Z'));
    let drawn = 0;
    const { result, unmount } = renderHook(() => (drawn++, useNow(60_000)));
    const before = result.current;
    expect(before % 60_000).toBe(0);
    const once = drawn;
    wait(25_000);
    expect(drawn).toBe(once);
    wait(10_000);
    expect(result.current - before).toBe(60_000);
    unmount();
    expect(jest.getTimerCount()).toBe(0);
  });

  it('is one for all who look at it', () => {
    const hooks = [1, 2, 3].map(() => renderHook(() => useNow()));
    expect(jest.getTimerCount()).toBe(1);
    wait(2000);
    expect(new Set(hooks.map((h) => h.result.current)).size).toBe(1);
    hooks.forEach((h) => h.unmount());
  });
});

describe('how a device of this browser is heard', () => {
  it('is what was chosen here, for each device its own; whoever shows it is told', () => {
    const scale = renderHook(() => useLineSettings('scale'));
    expect(scale.result.current.by).toBe('none');
    act(() => putSettings('scale', { by: 'serial', baud: 9600 }));
    expect(scale.result.current).toMatchObject({ by: 'serial', baud: 9600 });
    expect(settingsFor('climate').by).toBe('none');
    expect(JSON.parse(localStorage.getItem('steady-gleam.device.scale')!)).toMatchObject({ by: 'serial' });
  });

  it('has a line form also where the one that was chosen is gone', () => {
    expect(formOf({ by: 'serial', form: 'of-another-time', baud: 9600 })).toBe(LINE_FORMS[0]);
    for (const form of LINE_FORMS) expect(formOf({ by: 'serial', form: form.id, baud: 9600 })).toBe(form);
  });
});

describe('another build of the program', () => {
  it('is taken by itself once, and not again when that did not help', () => {
    toldThere(null, 'b1', 'b1');
    expect(mayTakeByItself()).toBe(false);
    toldThere(null, 'b2', 'b1');
    expect(mayTakeByItself()).toBe(true);
    expect(mayTakeByItself()).toBe(false);
    toldThere(null, 'b3', 'b1');
    expect(mayTakeByItself()).toBe(true);
  });

  it('a part that is missing again at once is not reloaded for', () => {
    const now = Date.now();
    sessionStorage.setItem('steady-gleam.part-missed', String(now - 5_000));
    expect(takeAfterMissing(now)).toBe(false);
  });
});
