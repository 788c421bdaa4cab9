import { afterEach, describe, expect, it } from '@jest/globals';
import { ApiFailure } from './apiClient';
import { changeJob, shownOf } from './useJob';

const realFetch = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = realFetch;
});

/** A server with one job: it takes a change of the version it has, and refuses any other as stale. */
function serve(start: number) {
  const state = { version: start };
  globalThis.fetch = ((_: string, init: RequestInit) => {
    const { version } = JSON.parse(init.body as string) as { version: number };
    const good = version === state.version;
    if (good) state.version++;
    const body = good ? { version: state.version } : { code: 'stale', message: 'This was changed elsewhere.' };
    return Promise.resolve(new Response(JSON.stringify(body), { status: good ? 200 : 409 }));
  }) as typeof fetch;
  return state;
}

describe('changes of a job in one window', () => {
  it('go on from one another, also when all were made before the first answer', async () => {
    serve(3);
    const versions: number[] = [];
    for (let i = 0; i < 4; i++) versions.push((await changeJob('a', { version: 3, piece: `tub ${i}` })).version);
    expect(versions).toEqual([4, 5, 6, 7]);
    expect((await changeJob('a', { version: 6, piece: 'tub' })).version).toBe(8);
  });

  it('never go over what was changed elsewhere in between', async () => {
    const server = serve(1);
    await changeJob('b', { version: 1, piece: 'here' });
    server.version++;
    await expect(changeJob('b', { version: 1, piece: 'here again' })).rejects.toThrow(ApiFailure);
    await expect(changeJob('b', { version: 2, piece: 'here again' })).rejects.toThrow('changed elsewhere');
    // Once it was seen, it is built upon.
    expect((await changeJob('b', { version: 3, piece: 'here again' })).version).toBe(4);
    // Another job has versions of its own.
    await expect(changeJob('c', { version: 1, piece: 'other' })).rejects.toThrow(ApiFailure);
  });
});

describe('what was changed here and the job shown has not yet', () => {
  it('is shown and gone on from until it has, and the job’s own from then on', () => {
    expect(shownOf({ version: 4 }, null, 'own')).toBe('own');
    expect(shownOf({ version: 4 }, { value: 'typed', keptAs: null }, 'own')).toBe('typed');
    expect(shownOf({ version: 4 }, { value: 'typed', keptAs: 5 }, 'own')).toBe('typed');
    expect(shownOf({ version: 5 }, { value: 'typed', keptAs: 5 }, 'own')).toBe('own');
    // Changed elsewhere since.
    expect(shownOf({ version: 9 }, { value: 'typed', keptAs: 5 }, 'own')).toBe('own');
  });
});
