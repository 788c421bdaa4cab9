import { beforeEach, describe, expect, it, jest } from '@jest/globals';
import { eventOf, type JobEvent } from '@steady-gleam/core/jobs';
import fc from 'fast-check';
import { IDBFactory } from 'fake-indexeddb';
import 'fake-indexeddb/auto';

/** How a request fares: it never arrives, it is stored but its answer is lost, the server stumbles before storing, or all goes well. */
type Fate = 'request lost' | 'answer lost' | 'stumbles' | 'arrives';
type Step = { readonly tap: 'here' | 'elsewhere' } | { readonly send: readonly Fate[] };

const JOB_ID = '00000000-0000-4000-8000-000000000001';
const JOB = { ownerId: JOB_ID, ofCard: false };
let made = 0;
const event = (): JobEvent => {
  made += 1;
  return eventOf({
    id: `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`,
    at: 1_764_000_000_000 + made * 1000,
    kind: 'sprayed',
    cells: [{ coatId: 'effect/wet/1', areaId: `area-${made}` }],
  });
};

/** A server that stores each event once, whole requests or nothing. */
function createServer() {
  const log = new Map<string, JobEvent>();
  const fates: Fate[] = [];
  let requests = 0;
  const answer = (status: number, body: unknown) =>
    new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
  const fetching: typeof fetch = async (_path, init) => {
    requests += 1;
    const fate = fates.shift() ?? 'arrives';
    if (fate === 'request lost') throw new TypeError('Failed to fetch');
    if (fate === 'stumbles') return answer(500, { code: 'internal', message: 'The server made a mistake.' });
    if (init?.method === 'POST')
      for (const e of (JSON.parse(init.body as string) as { events: JobEvent[] }).events)
        if (!log.has(e.id)) log.set(e.id, e);
    if (fate === 'answer lost') throw new TypeError('Failed to fetch');
    return answer(200, [...log.values()]);
  };
  return { log, fates, fetching, requests: () => requests };
}

/** The store anew, over an empty device. */
async function freshStore() {
  globalThis.indexedDB = new IDBFactory();
  jest.resetModules();
  return import('./logStore');
}

describe('taps from the booth', () => {
  beforeEach(() => {
    made = 0;
  });

  it('are on the server exactly once, and here, whatever becomes of each request', async () => {
    const fate = fc.constantFrom<Fate>('request lost', 'answer lost', 'stumbles', 'arrives');
    const step = fc.oneof<fc.Arbitrary<Step>[]>(
      fc.record({ tap: fc.constantFrom<'here' | 'elsewhere'>('here', 'here', 'elsewhere') }),
      fc.record({ send: fc.array(fate, { minLength: 1, maxLength: 3 }) }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 24 }), async (steps) => {
        const { exchange, keepEvent, keptEvents } = await freshStore();
        const server = createServer();
        globalThis.fetch = server.fetching;
        const own: string[] = [];
        const all = new Set<string>();
        for (const s of steps) {
          if ('tap' in s) {
            const e = event();
            all.add(e.id);
            if (s.tap === 'elsewhere') server.log.set(e.id, e);
            else {
              await keepEvent(JOB, e);
              own.push(e.id);
            }
          } else {
            server.fates.push(...s.send);
            await exchange(JOB).catch(() => undefined);
            server.fates.length = 0;
          }
          // No tap ever leaves this device, and what is called sent is on the server.
          const kept = await keptEvents(JOB);
          const ids = kept.events.map((e) => e.id);
          expect(own.every((id) => ids.includes(id))).toBe(true);
          expect(own.filter((id) => !server.log.has(id)).length).toBeLessThanOrEqual(kept.unsent);
        }
        await exchange(JOB);
        const kept = await keptEvents(JOB);
        expect(kept.unsent).toBe(0);
        expect(new Set(server.log.keys())).toEqual(all);
        expect(new Set(kept.events.map((e) => e.id))).toEqual(all);
        expect(kept.events).toHaveLength(all.size);
        expect(kept.events.find((e) => e.id === own[0]) ?? null).toEqual(own.length ? server.log.get(own[0]!) : null);
      }),
      { numRuns: 25 },
    );
  });

  it('of a whole day away go up oldest first, a few hundred at a time', async () => {
    const { exchange, keepEvent, keptEvents } = await freshStore();
    const server = createServer();
    globalThis.fetch = server.fetching;
    const events = Array.from({ length: 450 }, event);
    for (const e of [...events].reverse()) await keepEvent(JOB, e);
    await exchange(JOB);
    expect([...server.log.keys()]).toEqual(events.map((e) => e.id));
    expect(server.requests()).toBe(3);
    expect((await keptEvents(JOB)).unsent).toBe(0);
  });

  it('that the server refuses for good are set aside with the reason, and keep back no other', async () => {
    const { exchange, keepEvent, keptEvents } = await freshStore();
    const server = createServer();
    const [good, bad, later] = [event(), event(), event()];
    // The server takes no request that holds the bad one.
    globalThis.fetch = async (path, init) => {
      if (init?.method === 'POST' && (init.body as string).includes(bad.id))
        return new Response(
          JSON.stringify({ code: 'badRequest', message: 'no', fields: { 'events[0].text': 'Keep the note short.' } }),
          { status: 400 },
        );
      return server.fetching(path, init);
    };
    for (const e of [good, bad, later]) await keepEvent(JOB, e);
    await exchange(JOB);
    expect([...server.log.keys()].sort()).toEqual([good.id, later.id].sort());
    const kept = await keptEvents(JOB);
    expect(kept.unsent).toBe(0);
    expect(kept.refused.map((r) => [r.event.id, r.reason])).toEqual([[bad.id, 'Keep the note short.']]);
    expect(kept.events.map((e) => e.id)).not.toContain(bad.id);
    // And it is not sent again.
    const requests = server.requests();
    await exchange(JOB);
    expect(server.requests()).toBe(requests + 1);
  });

  it('of another device are not this one’s own, also once they came in', async () => {
    const { exchange, keepEvent, keptEvents } = await freshStore();
    const server = createServer();
    globalThis.fetch = server.fetching;
    const [mine, theirs] = [event(), event()];
    server.log.set(theirs.id, theirs);
    await keepEvent(JOB, mine);
    expect((await keptEvents(JOB)).own).toEqual([mine.id]);
    await exchange(JOB);
    await exchange(JOB);
    expect((await keptEvents(JOB)).own).toEqual([mine.id]);
    expect((await keptEvents(JOB)).events).toHaveLength(2);
  });

  it('stay with their job, and those of its card by themselves', async () => {
    const { exchange, keepEvent, keptEvents } = await freshStore();
    const server = createServer();
    globalThis.fetch = server.fetching;
    await keepEvent(JOB, event());
    const [another, card] = [
      { ...JOB, ownerId: 'another' },
      { ...JOB, ofCard: true },
    ];
    for (const log of [another, card]) await keepEvent(log, event());
    await exchange(JOB);
    expect((await keptEvents(JOB)).unsent).toBe(0);
    for (const log of [another, card]) expect(await keptEvents(log)).toMatchObject({ unsent: 1 });
    expect(server.log.size).toBe(1);
  });

  it('that an earlier program kept are carried over, those that were not sent yet among them', async () => {
    const { openDB } = await import('idb');
    globalThis.indexedDB = new IDBFactory();
    const old = await openDB('steady-gleam-booth', 1, {
      upgrade(db) {
        db.createObjectStore('snapshots');
        db.createObjectStore('events', { keyPath: 'id' }).createIndex('job', 'jobId');
      },
    });
    const tap = { id: 'a', at: 5, kind: 'sprayed', coatId: 'effect/wet/1', pieceId: 'tub', text: '' };
    await old.put('events', { ...tap, jobId: JOB_ID, sent: 0, own: true });
    await old.put('events', { ...tap, id: 'b', kind: 'start', coatId: null, pieceId: null, jobId: JOB_ID, sent: 1 });
    await old.put('snapshots', { detail: {} }, JOB_ID);
    old.close();
    jest.resetModules();
    const { keptEvents, readSnapshot } = await import('./logStore');
    const kept = await keptEvents(JOB);
    expect(kept).toMatchObject({ unsent: 1, own: ['a'] });
    expect(kept.events).toEqual([
      eventOf({ id: 'a', at: 5, kind: 'sprayed', cells: [{ coatId: 'effect/wet/1', areaId: 'tub' }] }),
      eventOf({ id: 'b', at: 5, kind: 'start' }),
    ]);
    expect(await readSnapshot(JOB_ID)).toBeUndefined();
  });
});
