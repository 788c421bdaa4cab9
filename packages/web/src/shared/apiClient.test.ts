import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { jobsApi } from '@steady-gleam/contracts';
import { ApiFailure, call, faultOf } from './apiClient';

const answers = (run: typeof fetch) => {
  globalThis.fetch = run;
};
const failure = async (): Promise<ApiFailure> => {
  const error = await call(jobsApi.listRemoved).catch((e: unknown) => e);
  if (!(error instanceof ApiFailure)) throw new Error('It did not fail.');
  return error;
};
const { fetch: real } = globalThis;
afterEach(() => {
  globalThis.fetch = real;
  jest.restoreAllMocks();
});

describe('a call of the API', () => {
  it('puts the body of a GET into its query, without what says nothing', async () => {
    const asked: string[] = [];
    answers((path) => {
      asked.push(path instanceof Request ? path.url : path.toString());
      return Promise.resolve(new Response('{"rows":[],"total":0}'));
    });
    const body = { words: 'a&b c', family: null, page: 0, status: 'open', sort: 'next' } as const;
    await call(jobsApi.list, { body });
    await call(jobsApi.list, { body: { ...body, words: '' } });
    expect(asked).toEqual([
      '/api/jobs?words=a%26b+c&page=0&status=open&sort=next',
      '/api/jobs?page=0&status=open&sort=next',
    ]);
  });

  it('to a server that swallows it, or stops half way, ends as one that is away', async () => {
    const waits: number[] = [];
    jest.spyOn(AbortSignal, 'timeout').mockImplementation((ms) => {
      waits.push(ms);
      const control = new AbortController();
      setTimeout(() => control.abort(), 5);
      return control.signal;
    });
    const never = (signal: AbortSignal) =>
      new Promise<never>((_, fail) => signal.addEventListener('abort', () => fail(new Error('aborted'))));
    answers((_, init) => never(init!.signal!));
    expect((await failure()).code).toBe('offline');
    answers((_, init) => {
      const half = new Response('[');
      half.text = () => never(init!.signal!);
      return Promise.resolve(half);
    });
    expect((await failure()).code).toBe('offline');
    expect(waits).toHaveLength(2);
    for (const ms of waits) expect(ms >= 10_000 && ms <= 30_000).toBe(true);
  });

  it('tells what the server says, also where that is no JSON', async () => {
    const fields = { piece: 'Say what is to be finished.' };
    answers(() =>
      Promise.resolve(new Response(JSON.stringify({ code: 'badRequest', message: 'no', fields }), { status: 400 })),
    );
    expect(await failure()).toMatchObject({ code: 'badRequest', message: 'no', fields });
    expect(faultOf(await failure())).toBe('Say what is to be finished.');
    answers(() => Promise.resolve(new Response('<html>', { status: 502 })));
    expect(await failure()).toMatchObject({ code: 'internal' });
    answers(() => Promise.resolve(new Response('<html>')));
    expect(await failure()).toMatchObject({ code: 'internal', message: expect.stringMatching(/can’t be read/) });
  });
});
