import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import type { Batch, NewBatch } from '@steady-gleam/contracts';
import { eventOf } from '@steady-gleam/core/jobs';
import { IDBFactory } from 'fake-indexeddb';
import 'fake-indexeddb/auto';
import { jest } from '@jest/globals';

const JOB = '00000000-0000-4000-8000-000000000001';
const OTHER = '00000000-0000-4000-8000-000000000002';
const id = (n: number) => `00000000-0000-4000-9000-${String(n).padStart(12, '0')}`;
const event = (n: number) => eventOf({ id: id(n), at: n, kind: 'note', text: 'x' });
const batch = (n: number): NewBatch => ({
  ...{ id: id(n), jobId: JOB, layerId: 'effect', name: 'Cinder candy', productId: null, gunId: null, ml: 100 },
  ...{ parts: [{ name: 'clear', role: 'product', parts: 1, ml: 100, grams: null, lot: '' }], temperatureC: 20 },
  ...{
    mixedAt: '2026-11-20T09:00:00.000Z',
    potMinutes: 60,
    solidMl: 10,
    volumeSolids: 0.3,
    lossMl: 5,
    vocActual: null,
  },
  ...{ vocCoating: null, cost: null, onCard: false, note: '' },
});

const answer = (status: number, body: unknown, headers: Record<string, string> = {}) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json', ...headers } });

interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}
let asked: Asked[] = [];
/** What the server answers; null for none. */
let answers: (q: Asked) => Response | null = () => answer(200, []);

async function fresh() {
  globalThis.indexedDB = new IDBFactory();
  jest.resetModules();
  asked = [];
  globalThis.fetch = async (path, init) => {
    const q = {
      method: init?.method ?? 'GET',
      path: path as string,
      body: typeof init?.body === 'string' ? (JSON.parse(init.body) as unknown) : init?.body,
    };
    asked.push(q);
    const said = answers(q);
    if (!said) throw new TypeError('Failed to fetch');
    return said;
  };
  return {
    post: await import('./post'),
    parcels: await import('./parcels'),
    store: await import('./logStore'),
    device: await import('./device'),
    reach: await import('../reach'),
  };
}

const { fetch: real } = globalThis;
beforeEach(() => {
  answers = () => answer(200, []);
  const nothing = { addEventListener: () => {}, removeEventListener: () => {} };
  Object.assign(globalThis, { document: nothing, ...nothing });
});
afterEach(() => {
  globalThis.fetch = real;
});
const until = async (is: () => boolean, ms = 6000) => {
  for (const end = Date.now() + ms; !is() && Date.now() < end;) await new Promise((done) => setTimeout(done, 20));
  expect(is()).toBe(true);
};

describe('the post of a device', () => {
  it('sends what waits of every job, whichever page is open, and says what is left by job', async () => {
    const { post, store, reach } = await fresh();
    answers = () => null;
    await store.keepEvent({ ownerId: JOB, ofCard: false }, event(1));
    await store.keepEvent({ ownerId: JOB, ofCard: false }, event(2));
    await store.keepEvent({ ownerId: OTHER, ofCard: true }, event(3));
    const stop = post.startPost();
    await until(() => reach.reachNow().isAway);
    expect(Object.fromEntries(post.postNow().waiting)).toEqual({ [JOB]: 2, [`card of ${OTHER}`]: 1 });
    answers = (q) =>
      answer(
        201,
        ((q.body as { events?: object[] }).events ?? []).map((e, i) => ({ ...e, sequence: i + 1 })),
      );
    await until(() => post.waitingIn(post.postNow()) === 0);
    stop();
    expect(reach.reachNow().isAway).toBe(false);
    expect(new Set(asked.filter((q) => q.method === 'POST').map((q) => q.path))).toEqual(
      new Set([`/api/jobs/${JOB}/events`, `/api/finishes/${OTHER}/card/events`]),
    );
  });

  it('asks a log only for what came in after what it has', async () => {
    const { store } = await fresh();
    const of = { ownerId: JOB, ofCard: false };
    answers = () => answer(200, [{ ...event(1), sequence: 41 }]);
    await store.exchange(of);
    answers = () => answer(200, []);
    await store.exchange(of);
    expect(asked.map((q) => q.path)).toEqual([`/api/jobs/${JOB}/events?since=0`, `/api/jobs/${JOB}/events?since=41`]);
    expect((await store.keptEvents(of)).events.map((e) => e.id)).toEqual([id(1)]);
    // A log that begins anew, behind a copy that was put in its place, is followed from there.
    answers = () => answer(200, [{ ...event(2), sequence: 7 }]);
    await store.exchange(of);
    answers = () => answer(200, []);
    await store.exchange(of);
    expect(asked.at(-1)!.path).toContain('since=7');
  });

  it('keeps a batch while the server is away and shows it among the others, with what was left of it', async () => {
    const { post, parcels } = await fresh();
    answers = () => null;
    expect(await parcels.sendBatch(batch(5))).toBe(false);
    const shown = parcels.withParcels([], post.postNow().parcels);
    expect(shown).toMatchObject([{ id: id(5), potMinutes: 60, endedAt: null, leftMl: null }]);
    expect(await parcels.sendLeft(shown[0]!, 20)).toBe(false);
    const ended = parcels.withParcels([], post.postNow().parcels);
    expect(ended).toMatchObject([{ id: id(5), leftMl: 20 }]);
    expect(ended[0]!.endedAt).not.toBeNull();
    // Sent in their order: the batch, then what was left of it.
    answers = () => answer(201, {});
    await post.sendParcelsOnce();
    expect(asked.slice(-2).map((q) => [q.method, q.path])).toEqual([
      ['POST', '/api/batches'],
      ['PATCH', `/api/batches/${id(5)}`],
    ]);
    expect(post.postNow().parcels).toEqual([]);
    // What the server has is told once.
    const there: Batch = { ...shown[0]!, ...batch(5), leftMl: null, endedAt: null };
    expect(parcels.withParcels([there], post.postNow().parcels)).toHaveLength(1);
  });

  it('tells a form at once what the server refuses, with its fields, and keeps nothing of it', async () => {
    const { post, parcels } = await fresh();
    answers = () =>
      answer(400, { code: 'badRequest', message: 'no', fields: { ml: 'The batch can’t be below 1 ml.' } });
    const refused = await parcels.sendBatch(batch(6)).catch((e: unknown) => e);
    expect(refused).toMatchObject({ code: 'badRequest', fields: { ml: 'The batch can’t be below 1 ml.' } });
    expect(post.postNow()).toMatchObject({ parcels: [], setAside: [] });
  });

  it('sets aside what is refused later, with its reason, and sends the rest; it can be let go', async () => {
    const { post, parcels } = await fresh();
    answers = () => null;
    await parcels.sendBatch(batch(7));
    await parcels.sendBatch(batch(8));
    answers = (q) =>
      (q.body as { id?: string }).id === id(7)
        ? answer(409, { code: 'conflict', message: 'An entry with this id already holds something else.' })
        : answer(201, {});
    await post.sendParcelsOnce();
    const { setAside } = post.postNow();
    expect(setAside).toMatchObject([
      { id: id(7), what: 'the batch Cinder candy', reason: expect.stringContaining('already holds') },
    ]);
    expect(post.waitingIn(post.postNow())).toBe(0);
    await post.forget(setAside[0]!);
    expect(post.postNow().setAside).toEqual([]);
  });

  it('waits while this device is signed out, and goes on when it is in again', async () => {
    const { post, parcels, reach } = await fresh();
    answers = () => answer(401, { code: 'locked', message: 'no' });
    expect(await parcels.sendBatch(batch(9))).toBe(false);
    expect(reach.reachNow().isLocked).toBe(true);
    // A wrong passcode leaves the door shut; an answer of the shop's opens it.
    const { request } = await import('../apiClient');
    answers = () => answer(401, { code: 'wrongCode', message: 'no' });
    await request('/api/session', { method: 'POST' }).catch(() => undefined);
    expect(reach.reachNow().isLocked).toBe(true);
    answers = () => answer(201, {});
    await post.sendParcelsOnce();
    expect(reach.reachNow().isLocked).toBe(false);
    expect(post.postNow().parcels).toEqual([]);
  });

  it('tells that another build answers than the one the page is of', async () => {
    const { reach } = await fresh();
    reach.toldThere(false, 'b2', 'b1');
    expect(reach.reachNow().newBuild).toBe('b2');
    reach.toldThere(false, 'b1', 'b1');
    expect(reach.reachNow().newBuild).toBeNull();
    // A page that was not built knows of none.
    reach.toldThere(false, 'b2', '');
    expect(reach.reachNow().newBuild).toBeNull();
  });

  it('runs on in the page’s memory where the browser keeps nothing, or keeps what a newer program wrote', async () => {
    const { device, store } = await fresh();
    const { openDB } = await import('idb');
    const newer = await openDB('steady-gleam-booth', 99, { upgrade: (db) => void db.createObjectStore('x') });
    await store.keepEvent({ ownerId: JOB, ofCard: false }, event(1));
    expect((await store.keptEvents({ ownerId: JOB, ofCard: false })).unsent).toBe(1);
    expect(device.storageFault()).toBe('newer');
    newer.close();
  });

  it('lets go of its store when a newer program wants to bring it up, and goes on in memory', async () => {
    const { store, device } = await fresh();
    await store.keepEvent({ ownerId: JOB, ofCard: false }, event(1));
    const { openDB } = await import('idb');
    const newer = await openDB('steady-gleam-booth', 5, { upgrade: () => undefined });
    expect(newer.version).toBe(5);
    // What waited is the newer program's to send.
    expect(await newer.getAll('events')).toHaveLength(1);
    await store.keepEvent({ ownerId: JOB, ofCard: false }, event(2));
    expect(device.storageFault()).toBe('newer');
    answers = (q) =>
      answer(
        201,
        (q.body as { events: object[] }).events.map((e) => ({ ...e, sequence: 9 })),
      );
    await store.exchange({ ownerId: JOB, ofCard: false });
    expect((asked.at(-1)!.body as { events: { id: string }[] }).events.map((e) => e.id)).toEqual([id(2)]);
    newer.close();
  });

  it('asks for the log of a card whole: an earlier card can be in force again', async () => {
    const { store } = await fresh();
    const of = { ownerId: JOB, ofCard: true };
    answers = () => answer(200, [{ ...event(1), sequence: 41 }]);
    await store.exchange(of);
    await store.exchange(of);
    expect(asked.every((q) => q.path.endsWith('since=0'))).toBe(true);
  });

  it('tells a device that may look only that it may, and keeps no form’s entry for later', async () => {
    const { post, parcels } = await fresh();
    answers = () => answer(403, { code: 'lookOnly', message: 'This device may look only.' });
    expect(await parcels.sendBatch(batch(10)).catch((e: unknown) => e)).toMatchObject({ code: 'lookOnly' });
    expect(post.postNow()).toMatchObject({ parcels: [], setAside: [] });
  });
});
