import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { act, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { createMemoryRouter, RouterProvider, useSearchParams } from 'react-router';
import { useWrittenLater } from './useWrittenLater';

const REST = 400;
const wait = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));

/** A page with a figure that the address follows, and another that is fetched when it is gone to. */
function open() {
  let arrive!: () => void;
  const fetched = new Promise<void>((done) => (arrive = done));
  let set!: (figure: string) => void;
  function Page() {
    const [, setParams] = useSearchParams();
    const [figure, setFigure] = useState<string | null>(null);
    set = setFigure;
    const [write] = useState(() => (now: string) => setParams({ figure: now }, { replace: true }));
    useWrittenLater(figure, REST, write);
    return <p>here</p>;
  }
  const router = createMemoryRouter(
    [
      { path: '/here', element: <Page /> },
      { path: '/there', lazy: async () => (await fetched, { Component: () => <p>there</p> }) },
    ],
    { initialEntries: ['/here'] },
  );
  render(<RouterProvider router={router} />);
  return { router, arrive, set: (figure: string) => act(() => set(figure)) };
}

describe('the address that follows', () => {
  beforeEach(() => {
    jest.useFakeTimers();
  });
  afterEach(() => {
    jest.useRealTimers();
  });

  it('has the last figure after a rest, and none on the way', async () => {
    const { router, set } = open();
    for (const figure of ['1', '2', '3']) {
      set(figure);
      await wait(REST / 2);
      expect(router.state.location.search).toBe('');
    }
    await wait(REST);
    expect(router.state.location.search).toBe('?figure=3');
  });

  it('never calls off the way to another page, however long that takes', async () => {
    const { router, set, arrive } = open();
    set('1');
    await wait(REST / 2);
    act(() => void router.navigate('/there'));
    await wait(3 * REST);
    expect(router.state.navigation.state).toBe('loading');
    expect(router.state.location.pathname).toBe('/here');
    arrive();
    await wait(10);
    expect(router.state.location.pathname).toBe('/there');
    expect(screen.getByText('there')).toBeTruthy();
  });
});
