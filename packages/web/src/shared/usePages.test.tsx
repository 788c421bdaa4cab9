import { describe, expect, it } from '@jest/globals';
import { PAGE_SIZE } from '@steady-gleam/contracts';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { usePages } from './usePages';

const TOTAL = 5 * PAGE_SIZE + 3;

/** A list of numbers from some first one on, and the pages that were asked of it. */
function listFrom(first: number) {
  const asked: number[] = [];
  const fetchPage = async (page: number) => {
    asked.push(page);
    if (page < 0 || page * PAGE_SIZE >= TOTAL) throw new Error(`There is no page ${page}.`);
    const from = page * PAGE_SIZE;
    return {
      total: TOTAL,
      rows: Array.from({ length: Math.min(PAGE_SIZE, TOTAL - from) }, (_, i) => first + from + i),
    };
  };
  return { asked, fetchPage };
}

/** The list as a page has it. */
function drawn(list: ReturnType<typeof listFrom>, key = 'all') {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, networkMode: 'always' } } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  return renderHook(({ of }) => usePages([of], list.fetchPage), { wrapper, initialProps: { of: key } });
}

describe('a long list', () => {
  it('asks for its first page alone, and tells of the others that they are not there yet', async () => {
    const list = listFrom(1000);
    const { result } = drawn(list);
    expect(result.current.total).toBe(0);
    await waitFor(() => expect(result.current.total).toBe(TOTAL));
    expect(list.asked).toEqual([0]);
    expect(result.current.row(0)).toBe(1000);
    expect(result.current.row(PAGE_SIZE - 1)).toBe(1000 + PAGE_SIZE - 1);
    expect(result.current.row(PAGE_SIZE)).toBeNull();
  });

  it('asks for what is looked at, every row in its place, also where two pages meet and at the end', async () => {
    const list = listFrom(0);
    const { result } = drawn(list);
    await waitFor(() => expect(result.current.total).toBe(TOTAL));
    act(() => result.current.look(2 * PAGE_SIZE - 3, 2 * PAGE_SIZE + 4));
    await waitFor(() => expect(result.current.row(2 * PAGE_SIZE)).toBe(2 * PAGE_SIZE));
    expect(result.current.row(2 * PAGE_SIZE - 1)).toBe(2 * PAGE_SIZE - 1);
    expect([...list.asked].sort()).toEqual([0, 1, 2]);
    act(() => result.current.look(TOTAL - 2, TOTAL + 400));
    await waitFor(() => expect(result.current.row(TOTAL - 1)).toBe(TOTAL - 1));
    // No page beyond the last is asked for, and what lies beyond it is nothing.
    expect(Math.max(...list.asked)).toBe(5);
    expect(result.current.row(TOTAL)).toBeNull();
    expect(result.current.error).toBeNull();
  });

  it('keeps what it found until another search has answered', async () => {
    const list = listFrom(7);
    const { result, rerender } = drawn(list);
    await waitFor(() => expect(result.current.total).toBe(TOTAL));
    rerender({ of: 'another' });
    expect(result.current.row(0)).toBe(7);
    await waitFor(() => expect(list.asked).toEqual([0, 0]));
    expect(result.current.total).toBe(TOTAL);
  });

  it('says what went wrong, and asks again when it is told to', async () => {
    let broken = true;
    const list = listFrom(0);
    const { result } = drawn({
      ...list,
      fetchPage: async (page) => {
        if (broken) throw new Error('The list could not be read.');
        return list.fetchPage(page);
      },
    });
    await waitFor(() => expect(result.current.error?.message).toBe('The list could not be read.'));
    broken = false;
    act(() => result.current.refetch());
    await waitFor(() => expect(result.current.total).toBe(TOTAL));
    expect(result.current.error).toBeNull();
  });
});
