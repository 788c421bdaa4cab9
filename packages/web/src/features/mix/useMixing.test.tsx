import { beforeEach, describe, expect, it } from '@jest/globals';
import { START_MIXING, type Mixing } from '@steady-gleam/contracts';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { answerWith } from '../../testing/page';
import { useMixing } from './useMixing';

const PRODUCT = '1a47e000-0000-4000-8000-0000000003e8';

interface Sent {
  readonly version: number;
  readonly mixing: Mixing;
}

describe('how a job is mixed, as it is being changed', () => {
  let job = '';
  let sent: Sent[] = [];
  let refuse = false;
  const open = (version: number, mixing: Mixing | null) => {
    const client = new QueryClient();
    const wrapper = ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    );
    const props = { id: job, version, mixing } as Parameters<typeof useMixing>[0];
    return renderHook((now: typeof props) => useMixing(now), { wrapper, initialProps: props });
  };
  beforeEach(() => {
    job = `mixing-${crypto.randomUUID()}`;
    sent = [];
    refuse = false;
    answerWith({
      [`PATCH /api/jobs/${job}`]: (body: Sent) => {
        sent.push(body);
        return refuse
          ? new Response(JSON.stringify({ code: 'stale', message: 'This was changed elsewhere.' }), { status: 409 })
          : { version: body.version + 1, mixing: body.mixing };
      },
    });
  });

  it('two changes in one breath are both kept, the second on the first', async () => {
    const { result } = open(3, null);
    act(() => result.current.setMixing(() => ({ temperatureC: 24 })));
    act(() => result.current.setMixing((now) => ({ products: { ...now.products, clear: PRODUCT } })));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map((s) => s.version)).toEqual([3, 4]);
    expect(sent[1]!.mixing).toMatchObject({ temperatureC: 24, products: { clear: PRODUCT } });
  });

  it('goes on from what was kept, also before the job is drawn anew', async () => {
    const { result, rerender } = open(3, null);
    act(() => result.current.setMixing(() => ({ temperatureC: 24 })));
    await waitFor(() => expect(sent).toHaveLength(1));
    await act(() => new Promise((done) => setTimeout(done, 50)));
    // The answer is there, the job shown is still that of before.
    act(() => result.current.setMixing(() => ({ humidity: 0.55 })));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]!.mixing).toMatchObject({ temperatureC: 24, humidity: 0.55 });
    // Elsewhere it was set otherwise meanwhile: that is gone on from once it is shown.
    rerender({ id: job, version: 9, mixing: { ...START_MIXING, temperatureC: 11 } } as never);
    act(() => result.current.setMixing(() => ({ humidity: 0.6 })));
    await waitFor(() => expect(sent).toHaveLength(3));
    expect(sent[2]!.mixing).toMatchObject({ temperatureC: 11, humidity: 0.6 });
  });

  it('what can’t be is named by its figure and never sent; what is as it was is not sent either', async () => {
    const { result } = open(3, { ...START_MIXING, temperatureC: 20 });
    act(() => result.current.setMixing(() => ({ temperatureC: Number.NaN })));
    expect(Object.keys(result.current.faults)).toEqual(['temperatureC']);
    expect(result.current.faults['temperatureC']).toMatch(/\.$/);
    act(() => result.current.setMixing(() => ({ temperatureC: 20 })));
    expect(result.current.faults).toEqual({});
    await act(() => new Promise((done) => setTimeout(done, 20)));
    expect(sent).toEqual([]);
  });

  it('a wrong figure stays named while another is set right', async () => {
    const { result } = open(3, null);
    act(() => result.current.setMixing(() => ({ temperatureC: 95 })));
    expect(result.current.faults['temperatureC']).toBe('No warmer than 60 °C.');
    act(() => result.current.setMixing(() => ({ humidity: 0.6 })));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(result.current.faults['temperatureC']).toBe('No warmer than 60 °C.');
    act(() => result.current.setMixing(() => ({ temperatureC: 25 })));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(result.current.faults).toEqual({});
    expect(sent[1]!.mixing).toMatchObject({ temperatureC: 25, humidity: 0.6 });
  });

  it('a refusal is said, and the next change goes on from what the job has', async () => {
    refuse = true;
    const { result } = open(3, { ...START_MIXING, temperatureC: 20 });
    act(() => result.current.setMixing(() => ({ temperatureC: 24 })));
    await waitFor(() => expect(result.current.failure).toBe('This was changed elsewhere.'));
    refuse = false;
    act(() => result.current.setMixing(() => ({ humidity: 0.55 })));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]!.mixing).toMatchObject({ temperatureC: 20, humidity: 0.55 });
  });
});
