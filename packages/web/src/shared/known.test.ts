import { beforeEach, describe, expect, it } from '@jest/globals';
import { QueryClient } from '@tanstack/react-query';
import { IDBFactory } from 'fake-indexeddb';
import 'fake-indexeddb/auto';
import { bringBackKnown, forgetKnown, keepKnown } from './known';

const clientOf = () => new QueryClient({ defaultOptions: { queries: { retry: false, gcTime: Infinity } } });
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));
const ask = (client: QueryClient, key: string, answer: () => Promise<unknown>) =>
  client.fetchQuery({ queryKey: [key], queryFn: answer, staleTime: 0 }).catch(() => undefined);

describe('what a device knew', () => {
  beforeEach(() => {
    globalThis.indexedDB = new IDBFactory();
  });

  it('is there again on another page, also where it was asked again in vain, and is asked anew there', async () => {
    const first = clientOf();
    const stop = keepKnown(first);
    await ask(first, 'jobs', () => Promise.resolve(['a']));
    await ask(first, 'jobs', () => Promise.reject(new Error('away')));
    await ask(first, 'never', () => Promise.reject(new Error('away')));
    await wait(500);
    stop();
    const next = clientOf();
    await bringBackKnown(next);
    expect(next.getQueryData(['jobs'])).toEqual(['a']);
    expect(next.getQueryState(['jobs'])).toMatchObject({ status: 'success', isInvalidated: true, error: null });
    expect(next.getQueryState(['never'])).toBeUndefined();
  });

  it('of earlier pages stays beside what a later one learns, and never takes the place of what is newer', async () => {
    const first = clientOf();
    const stopFirst = keepKnown(first);
    await ask(first, 'shelf', () => Promise.resolve('old shelf'));
    await ask(first, 'jobs', () => Promise.resolve('old list'));
    await wait(500);
    stopFirst();
    const second = clientOf();
    const stopSecond = keepKnown(second);
    await ask(second, 'jobs', () => Promise.resolve('new list'));
    await wait(500);
    stopSecond();
    const third = clientOf();
    await ask(third, 'shelf', () => Promise.resolve('newest shelf'));
    await bringBackKnown(third);
    expect([third.getQueryData(['jobs']), third.getQueryData(['shelf'])]).toEqual(['new list', 'newest shelf']);
  });

  it('is of no use after a month, and is gone when it is forgotten', async () => {
    const first = clientOf();
    const stop = keepKnown(first);
    await ask(first, 'jobs', () => Promise.resolve(['a']));
    await wait(500);
    stop();
    const late = clientOf();
    await bringBackKnown(late, Date.now() + 31 * 86_400_000);
    expect(late.getQueryData(['jobs'])).toBeUndefined();
    await forgetKnown();
    const next = clientOf();
    await bringBackKnown(next);
    expect(next.getQueryData(['jobs'])).toBeUndefined();
  });

  it('is nothing where the browser keeps nothing', async () => {
    Object.assign(globalThis, { indexedDB: undefined });
    const client = clientOf();
    await expect(bringBackKnown(client)).resolves.toBeUndefined();
    await expect(forgetKnown()).resolves.toBeUndefined();
  });
});
