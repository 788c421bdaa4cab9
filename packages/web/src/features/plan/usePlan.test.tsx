import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { START_PLAN, type SprayPlan } from '@steady-gleam/contracts';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, render } from '@testing-library/react';
import { MemoryRouter, Outlet, Route, Routes } from 'react-router';
import { usePlan } from './usePlan';
import { answerWith } from '../../testing/page';

const wet: SprayPlan = { ...START_PLAN, school: 'wet' };
const mist: SprayPlan = { ...wet, school: 'mist' };

describe('a plan that is being changed', () => {
  let seen: ReturnType<typeof usePlan>;
  const client = new QueryClient();
  /** The page, over a job as it was last told of. */
  function Page() {
    const now = usePlan();
    seen = now;
    return null;
  }
  const program = (version: number, plan: SprayPlan | null) => (
    <QueryClientProvider client={client}>
      <MemoryRouter>
        <Routes>
          <Route element={<Outlet context={{ job: { id: `j${asked.at}`, version, plan } }} />}>
            <Route path="*" element={<Page />} />
          </Route>
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>
  );
  const asked = { at: 0, bodies: [] as unknown[] };
  /** The server, each change one version more. */
  const serve = () => {
    asked.bodies = [];
    asked.at++;
    answerWith({
      [`PATCH /api/jobs/j${asked.at}`]: (body: { version: number; plan: SprayPlan }) => {
        asked.bodies.push(body);
        return { version: body.version + 1, plan: body.plan };
      },
    });
  };
  const rest = () => act(() => jest.advanceTimersByTimeAsync(700));

  beforeEach(() => {
    jest.useFakeTimers();
    serve();
  });
  afterEach(() => {
    jest.useRealTimers();
  });

  it('is never shown as it was before the change, also between the server’s answer and the job drawn anew', async () => {
    const drawn = render(program(1, wet));
    act(() => seen.set({ school: 'mist' }));
    expect(seen.plan).toEqual(mist);
    await rest();
    expect(asked.bodies).toEqual([{ version: 1, plan: mist }]);
    // The server has it, the page still the job of before.
    expect(seen.plan).toEqual(mist);
    drawn.rerender(program(2, mist));
    expect(seen.plan).toEqual(mist);
    // Changed elsewhere afterwards: that is shown.
    drawn.rerender(program(3, { ...mist, grip: true }));
    expect(seen.plan.grip).toBe(true);
    await rest();
    expect(asked.bodies).toHaveLength(1);
  });

  it('takes changes together that follow each other fast, and goes on from what is shown', async () => {
    const drawn = render(program(1, wet));
    act(() => seen.set({ school: 'mist' }));
    await act(() => jest.advanceTimersByTimeAsync(200));
    act(() => seen.set({ grip: true }));
    await rest();
    expect(asked.bodies).toEqual([{ version: 1, plan: { ...mist, grip: true } }]);
    // Before the job is drawn anew: nothing of the change before is lost.
    act(() => seen.set({ tack: true }));
    await rest();
    expect(asked.bodies.at(-1)).toEqual({ version: 2, plan: { ...mist, grip: true, tack: true } });
    drawn.rerender(program(3, { ...mist, grip: true, tack: true }));
    expect(seen.plan).toEqual({ ...mist, grip: true, tack: true });
  });

  it('changed back to what is there is nothing to keep, and never goes over what is changed elsewhere', async () => {
    const drawn = render(program(1, wet));
    act(() => seen.set({ school: 'mist' }));
    act(() => seen.set({ school: 'wet' }));
    await rest();
    expect(asked.bodies).toEqual([]);
    drawn.rerender(program(2, { ...wet, tack: true }));
    await rest();
    expect(seen.plan.tack).toBe(true);
    expect(asked.bodies).toEqual([]);
  });

  it('is kept at once when the page is left', async () => {
    const drawn = render(program(1, wet));
    act(() => seen.set({ school: 'mist' }));
    drawn.unmount();
    await rest();
    expect(asked.bodies).toEqual([{ version: 1, plan: mist }]);
  });
});
